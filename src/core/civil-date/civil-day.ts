/**
 * Civil dates as whole days since 1970-01-01, proleptic Gregorian.
 * A civil day has no zone and no time; arithmetic on it is integer arithmetic.
 */
export type CivilDay = number;

/** ISO 8601 weekday: 1 is Monday, 7 is Sunday. */
export type Weekday = 1 | 2 | 3 | 4 | 5 | 6 | 7;

export interface YearMonthDay {
  readonly year: number;
  /** 1–12 */
  readonly month: number;
  /** 1–31 */
  readonly day: number;
}

/** The calendar day of a year, month (1–12) and day. Days outside the month run on into the next or the one before. */
export function civilDay(year: number, month: number, day: number): CivilDay {
  // Howard Hinnant, "chrono-compatible low-level date algorithms": the year starts in March, so the leap day comes last.
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const yearOfEra = y - era * 400;
  const dayOfYear = Math.floor((153 * (month > 2 ? month - 3 : month + 9) + 2) / 5) + day - 1;
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear;
  return era * 146097 + dayOfEra - 719468;
}

/** Year, month and day of a civil day. */
export function yearMonthDay(day: CivilDay): YearMonthDay {
  const z = day + 719468;
  const era = Math.floor(z / 146097);
  const dayOfEra = z - era * 146097;
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36524) - Math.floor(dayOfEra / 146096)) / 365,
  );
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const shifted = Math.floor((5 * dayOfYear + 2) / 153);
  const month = shifted < 10 ? shifted + 3 : shifted - 9;
  return {
    year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0),
    month,
    day: dayOfYear - Math.floor((153 * shifted + 2) / 5) + 1,
  };
}

/** Weekday of a civil day. 1970-01-01 was a Thursday. */
export function weekdayOf(day: CivilDay): Weekday {
  const rest = (day + 3) % 7;
  return (rest < 0 ? rest + 8 : rest + 1) as Weekday;
}

/** The Monday of the week that holds the day. */
export function mondayOf(day: CivilDay): CivilDay {
  return day - (weekdayOf(day) - 1);
}

export function isLeapYear(year: number): boolean {
  return year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);
}

const MONTH_LENGTHS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31] as const;

/** Number of days in a month (1–12). */
export function daysInMonth(year: number, month: number): number {
  return month === 2 && isLeapYear(year) ? 29 : (MONTH_LENGTHS[month - 1] as number);
}

/** ISO 8601 week: the week that holds the year's first Thursday is week 1. */
export function isoWeekOf(day: CivilDay): { readonly year: number; readonly week: number } {
  const thursday = mondayOf(day) + 3;
  const { year } = yearMonthDay(thursday);
  return { year, week: Math.floor((thursday - civilDay(year, 1, 1)) / 7) + 1 };
}

/** Quarter of the calendar year, 1–4. */
export function quarterOf(day: CivilDay): number {
  return Math.ceil(yearMonthDay(day).month / 3);
}
