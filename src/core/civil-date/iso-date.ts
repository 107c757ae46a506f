import { type CivilDay, civilDay, daysInMonth, yearMonthDay } from './civil-day.ts';

/** A civil date as `YYYY-MM-DD`: the form of every edge (JSON, database, addresses). */
export type IsoDate = string;

/** A civil time as `HH:MM`, 00:00–23:59. */
export type IsoTime = string;

export class InvalidDateError extends Error {
  override readonly name = 'InvalidDateError';
  constructor(readonly given: string) {
    super(
      `“${given}” is not a date: it should be a day that exists, written YYYY-MM-DD, between 0001-01-01 and 9999-12-31.`,
    );
  }
}

/** The civil day of a `YYYY-MM-DD` date, or null where there is no such day. */
export function tryDayOfIso(text: string): CivilDay | null {
  // By its characters: this is read thousands of times where a pattern would show.
  if (text.length !== 10 || text.charCodeAt(4) !== DASH || text.charCodeAt(7) !== DASH) return null;
  const year = twoDigits(text, 0) * 100 + twoDigits(text, 2);
  const month = twoDigits(text, 5);
  const day = twoDigits(text, 8);
  // What is no digit makes NaN, which is neither.
  if (!(year >= 1 && month >= 1 && month <= 12 && day >= 1 && day <= daysInMonth(year, month))) return null;
  return civilDay(year, month, day);
}

const DASH = 45;
const ZERO = 48;

/** Two digits from a place on; NaN where there are none. */
function twoDigits(text: string, at: number): number {
  const tens = text.charCodeAt(at) - ZERO;
  const ones = text.charCodeAt(at + 1) - ZERO;
  return tens >= 0 && tens <= 9 && ones >= 0 && ones <= 9 ? tens * 10 + ones : Number.NaN;
}

/**
 * The civil day of a `YYYY-MM-DD` date.
 * @throws InvalidDateError when the text is in another form or the day does not exist.
 */
export function dayOfIso(text: IsoDate): CivilDay {
  const day = tryDayOfIso(text);
  if (day === null) throw new InvalidDateError(text);
  return day;
}

const TWO_DIGITS = Array.from({ length: 100 }, (_, n) => String(n).padStart(2, '0'));

/** Texts of the days around now, written once: lists of dates are mostly made of the same few thousand. */
const WRITTEN_DAYS = 65_536;
const WRITTEN: (IsoDate | undefined)[] = new Array(WRITTEN_DAYS);

/** A civil day as `YYYY-MM-DD`. */
export function isoOfDay(day: CivilDay): IsoDate {
  if (day < 0 || day >= WRITTEN_DAYS) return write(day);
  const known = WRITTEN[day];
  if (known !== undefined) return known;
  const text = write(day);
  WRITTEN[day] = text;
  return text;
}

/** Civil days as `YYYY-MM-DD`. */
export function isoOfDays(days: readonly CivilDay[]): IsoDate[] {
  // A loop over a list of known length: `map` with its callback takes twice as long, and this is most of a front door's time.
  const texts: IsoDate[] = new Array(days.length);
  for (let i = 0; i < days.length; i++) texts[i] = isoOfDay(days[i] as number);
  return texts;
}

function write(day: CivilDay): IsoDate {
  const { year, month, day: date } = yearMonthDay(day);
  return `${year >= 1000 ? year : String(year).padStart(4, '0')}-${TWO_DIGITS[month]}-${TWO_DIGITS[date]}`;
}

/** Minutes after midnight of an `HH:MM` time, or null where it is none. */
export function tryMinutesOfTime(text: string): number | null {
  const match = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(text);
  return match ? Number(match[1]) * 60 + Number(match[2]) : null;
}

/** The `HH:MM` of so many minutes after midnight, 0 to 1439. */
export function isoTimeOf(minutes: number): IsoTime {
  return `${TWO_DIGITS[Math.floor(minutes / 60)]}:${TWO_DIGITS[minutes % 60]}`;
}
