/** Minutes as people say them: "45 min", "1 h", "3 h 15". */
export function sayDuration(minutes: number): string {
  const whole = Math.round(minutes);
  if (whole < 60) return `${whole} min`;
  const hours = Math.floor(whole / 60);
  const rest = whole % 60;
  return rest === 0 ? `${hours} h` : `${hours} h ${String(rest).padStart(2, '0')}`;
}

/** Hours in a year or month, for a figure: "36", "7.5", "1,250". */
export function sayHours(minutes: number): string {
  const hours = minutes / 60;
  const shown = hours < 10 ? Math.round(hours * 10) / 10 : Math.round(hours);
  return shown.toLocaleString('en-GB');
}

/**
 * Minutes of a typed duration: "45", "45 min", "1 h 30", "1.5 h", "90m". Null when it is none.
 */
export function readDuration(text: string): number | null {
  const trimmed = text.trim().toLowerCase();
  const minutes = /^(\d{1,5})\s*(?:m|min|mins|minutes?)?$/.exec(trimmed);
  if (minutes) return Number(minutes[1]);
  const hours = /^(\d{1,4})(?:[.,](\d{1,2}))?\s*(?:h|hrs?|hours?)(?:\s*(\d{1,2})\s*(?:m|min|mins|minutes?)?)?$/.exec(
    trimmed,
  );
  if (!hours) return null;
  const fraction = hours[2] ? Number(`0.${hours[2]}`) * 60 : 0;
  return Math.round(Number(hours[1]) * 60 + fraction + Number(hours[3] ?? 0));
}
