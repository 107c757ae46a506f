import type { IsoTime } from '../../civil-date/iso-date.ts';
import type { PhraseCursor } from './cursor.ts';
import { readTo } from './dates.ts';

/** Times of day that a phrase says beside its days: from when, and by when; null for what is not said. */
export interface PhraseTimes {
  readonly startTime: IsoTime | null;
  readonly dueTime: IsoTime | null;
}

/** "at 9am", "08:00 to 09:30", "by 5pm", "at 9, by 17:00", "mornings", "9-5"; null where no time is said. */
export function readTimes(c: PhraseCursor): PhraseTimes | null {
  return (
    c.try(() => readSpanOfDay(c)) ??
    c.try(() => readHours(c)) ??
    c.try(() => readBy(c)) ??
    c.try(() => readAt(c)) ??
    c.try(() => readPartOfDayAt(c)) ??
    c.try(() => readPartOfDay(c))
  );
}

/** Up to noon, from then on, and from the end of most working days. */
const PARTS_OF_DAY: readonly (readonly [words: readonly string[], times: PhraseTimes])[] = [
  [['morning', 'mornings'], { startTime: null, dueTime: '12:00' }],
  [['afternoon', 'afternoons'], { startTime: '12:00', dueTime: null }],
  [['evening', 'evenings'], { startTime: '18:00', dueTime: null }],
  [['night', 'nights'], { startTime: '20:00', dueTime: null }],
];

/** "mornings", "in the afternoon" */
export function readPartOfDay(c: PhraseCursor): PhraseTimes | null {
  c.filler('in the');
  return PARTS_OF_DAY.find(([words]) => c.word(...words))?.[1] ?? null;
}

/** "Evenings at 6", "in the morning at 9": the part of the day says which half an hour is of. */
function readPartOfDayAt(c: PhraseCursor): PhraseTimes | null {
  const part = readPartOfDay(c);
  if (part === null || !c.word('at', 'from')) return null;
  const said = c.token('time')?.time ?? null;
  if (said !== null) return { startTime: said, dueTime: null };
  const hour = readHour(c);
  if (hour === null || c.ahead(() => isCountedOn(c))) return null;
  const isMorning = part.startTime === null;
  return { startTime: onTheHour(isMorning || hour >= 12 ? hour : hour + 12), dueTime: null };
}

/** "9-5", "from 9 to 12": hours without more, the second after the first. */
function readHours(c: PhraseCursor): PhraseTimes | null {
  c.filler('from', 'at');
  const from = readHour(c);
  if (from === null || !readTo(c)) return null;
  const to = readHour(c);
  if (to === null || c.ahead(() => isCountedOn(c))) return null;
  if (from > 12 || to > 12) return from < to ? { startTime: onTheHour(from), dueTime: onTheHour(to) } : null;
  // From nine to five ends in the afternoon; from two to four may lie on either side of noon.
  const inTheMorning = {
    startTime: onTheHour(from % 12),
    dueTime: onTheHour(to <= from || to === 12 ? (to % 12) + 12 : to),
  };
  if (to <= from || to === 12 || from === 12) return from === 12 ? afternoon(from, to) : inTheMorning;
  const likely = from < EARLY ? [afternoon(from, to), inTheMorning] : [inTheMorning, afternoon(from, to)];
  return likely[c.pick('half of the day', 2)] ?? null;
}

function afternoon(from: number, to: number): PhraseTimes {
  return { startTime: onTheHour((from % 12) + 12), dueTime: onTheHour((to % 12) + 12) };
}

/** From here on an hour is likelier one of the morning. */
const EARLY = 7;

function readHour(c: PhraseCursor): number | null {
  const hour = c.number();
  return hour === null || hour < 1 || hour > 23 ? null : hour;
}

/** What follows a number that is no hour: "9-5 March", "at 2 weeks". */
function isCountedOn(c: PhraseCursor): boolean {
  return (
    c.month() !== null ||
    c.ordinal() !== null ||
    c.mark('/', '-', '.') ||
    c.word('of', 'x', 'times', 'day', 'days', 'week', 'weeks', 'month', 'months', 'year', 'years', 'working')
  );
}

function onTheHour(hour: number): IsoTime {
  return `${String(hour).padStart(2, '0')}:00`;
}

/** "from 8am to 9:30am", "between 08:00 and 09:30", "9am-5pm" */
function readSpanOfDay(c: PhraseCursor): PhraseTimes | null {
  const from = c.place;
  const isBetween = c.word('between');
  if (!isBetween) c.filler('from', 'at');
  const to = () => (isBetween ? c.word('and') : readTo(c));
  const found = c.try(() => readFromTime(c, to)) ?? readFromHour(c, to);
  if (found === null) return null;
  const { startTime, dueTime } = found;
  if (dueTime <= startTime)
    return c.refuse(from, `From ${startTime} to ${dueTime} is over before it begins: a day’s times go forward.`);
  return { startTime, dueTime };
}

interface SpanOfDay {
  readonly startTime: IsoTime;
  readonly dueTime: IsoTime;
}

function readFromTime(c: PhraseCursor, isTo: () => boolean): SpanOfDay | null {
  const startTime = readTime(c);
  if (startTime === null || !isTo()) return null;
  const dueTime = readTime(c);
  return dueTime === null ? null : { startTime, dueTime };
}

/** "9-10 am", "11 to 2pm": of the half of the day that is said, or else of the one before it. */
function readFromHour(c: PhraseCursor, isTo: () => boolean): SpanOfDay | null {
  const hour = readHour(c);
  if (hour === null || hour > 12 || !isTo()) return null;
  // Nobody is told that a time was expected here: it may as well be a date, "1-3 Dec".
  const dueTime = c.token('time')?.time ?? null;
  if (dueTime === null) return null;
  const [late, early] = [onTheHour((hour % 12) + 12), onTheHour(hour % 12)];
  return { startTime: dueTime > '12:00' && late < dueTime ? late : early, dueTime };
}

function readBy(c: PhraseCursor): PhraseTimes | null {
  if (!c.word('by', 'due by', 'due at', 'before', 'no later than', 'until', 'till')) return null;
  const dueTime = readTime(c);
  return dueTime === null ? null : { startTime: null, dueTime };
}

function readAt(c: PhraseCursor): PhraseTimes | null {
  const from = c.place;
  const isAt = c.filler('at', 'starting at');
  if (!isAt) c.filler('from');
  const startTime = readTime(c) ?? (isAt ? c.try(() => readBareHour(c)) : null);
  if (startTime === null) return null;
  const dueTime =
    c.try(() => {
      c.mark(',');
      return readBy(c);
    })?.dueTime ?? null;
  if (dueTime !== null && dueTime <= startTime)
    return c.refuse(from, `At ${startTime} and by ${dueTime} is over before it begins: a day’s times go forward.`);
  return { startTime, dueTime };
}

/** "at 9": of the morning, or of the evening. */
function readBareHour(c: PhraseCursor): IsoTime | null {
  const hour = readHour(c);
  if (hour === null || c.ahead(() => isCountedOn(c))) return null;
  if (hour >= 12) return onTheHour(hour);
  const isMorning = (c.pick('half of the day', 2) === 0) === hour >= EARLY;
  return onTheHour(isMorning ? hour : hour + 12);
}

/** Times with those that a phrase says in their place; what it does not say stays. */
export function withTimes<T extends { readonly startTime: IsoTime | null; readonly dueTime: IsoTime | null }>(
  timing: T,
  times: PhraseTimes | null,
): T {
  if (times === null) return timing;
  return { ...timing, startTime: times.startTime ?? timing.startTime, dueTime: times.dueTime ?? timing.dueTime };
}

/** As `readTimes` reads them, with what stands before: ", 09:00 to 17:00", " at 08:00". */
export function writeTimes({ startTime, dueTime }: PhraseTimes): string {
  if (startTime === null) return dueTime === null ? '' : `, by ${dueTime}`;
  return dueTime === null ? ` at ${startTime}` : `, ${startTime} to ${dueTime}`;
}

function readTime(c: PhraseCursor): IsoTime | null {
  const token = c.token('time');
  if (!token) c.expect('[a time like “9am” or “14:30”]');
  return token?.time ?? null;
}
