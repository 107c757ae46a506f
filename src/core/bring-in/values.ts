import { civilDay, daysInMonth } from '../civil-date/civil-day.ts';
import { isoOfDay } from '../civil-date/iso-date.ts';
import { readDate } from '../wording/date-words.ts';

export const DAY_ORDERS = ['day first', 'month first'] as const;
export type DayOrder = (typeof DAY_ORDERS)[number];

const YEAR_FIRST = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/;
const FIGURES = /^(\d{1,2})[-/.](\d{1,2})[-/.](\d{2}|\d{4})$/;
const TIME = /[ T]\d{1,2}:\d{2}(:\d{2})?(\.\d+)?Z?$/;

/** A value that could be read, or why not, in words that follow what stands there: "31/02/2027: there is no 31 February". */
export type Read<T> = { readonly value: T } | { readonly problem: string };

/** Which order the dates of a file can only have. */
export interface DayOrderFound {
  /** Null where nothing tells, or where the file has both. */
  readonly order: DayOrder | null;
  /** Dates that can be read in one order alone, by that order. */
  readonly only: Readonly<Record<DayOrder, number>>;
  /** The first of those that tell. */
  readonly example: string | null;
  /** Dates that can be read either way, as two days. */
  readonly either: number;
}

/** Tells from dates in figures whether the day or the month stands first: whatever is over 12 is a day. */
export function dayOrderOf(texts: readonly string[]): DayOrderFound {
  const only = { 'day first': 0, 'month first': 0 };
  const examples: Partial<Record<DayOrder, string>> = {};
  let either = 0;
  for (const text of texts) {
    const [, first, second] = FIGURES.exec(text.trim().replace(TIME, '')) ?? [];
    if (first === undefined) continue;
    const [a, b] = [Number(first), Number(second)];
    const order = a > 12 && b <= 12 ? 'day first' : b > 12 && a <= 12 ? 'month first' : null;
    if (order !== null) {
      only[order]++;
      examples[order] ??= text.trim();
    } else if (a !== b && a <= 12 && b <= 12) either++;
  }
  // What is rare beside the other is a slip in one line, which is told there.
  const order =
    only['day first'] > only['month first'] * 4
      ? 'day first'
      : only['month first'] > only['day first'] * 4
        ? 'month first'
        : null;
  return { order, only, either, example: order === null ? null : (examples[order] ?? null) };
}

/**
 * A date of a file as an ISO day: "2027-02-28", in figures in the order told, or with the month as a word. Two figures of a year
 * are those of 1970 to 2069. A time of day behind it is left out.
 */
export function readFileDate(text: string, order: DayOrder): Read<string> {
  const said = text.trim().replace(TIME, '');
  const yearFirst = YEAR_FIRST.exec(said);
  if (yearFirst) return dayOf(Number(yearFirst[1]), Number(yearFirst[2]), Number(yearFirst[3]), text);
  const figures = FIGURES.exec(said);
  if (figures) {
    const [, first = '', second = '', written = ''] = figures;
    const short = Number(written);
    const year = written.length === 4 ? short : short < 70 ? 2000 + short : 1900 + short;
    return order === 'day first'
      ? dayOf(year, Number(second), Number(first), text)
      : dayOf(year, Number(first), Number(second), text);
  }
  const day = /[a-z]/i.test(said) && /\d{4}/.test(said) ? readDate(said, 0) : null;
  return day === null ? { problem: `“${text.trim()}” is no date` } : { value: isoOfDay(day) };
}

const CLOCK = /[ T](\d{1,2}):(\d{2})(?::\d{2}(?:\.\d+)?)?(Z?)$/;

/**
 * The same with the time of day that stands behind it: "2027-02-28T14:30", or the day alone where there is none. One of another
 * zone ("Z") is refused: whether it is meant so can't be told.
 */
export function readFileMoment(text: string, order: DayOrder): Read<string> {
  const day = readFileDate(text, order);
  const [, hours, minutes, zone] = CLOCK.exec(text.trim()) ?? [];
  if ('problem' in day || hours === undefined || minutes === undefined) return day;
  if (zone === 'Z') return { problem: `“${text.trim()}” is in universal time: write the time as your clocks show it` };
  if (Number(hours) > 23 || Number(minutes) > 59)
    return { problem: `“${text.trim()}”: there is no ${hours}:${minutes}` };
  return { value: `${day.value}T${hours.padStart(2, '0')}:${minutes}` };
}

const MONTHS = 'January February March April May June July August September October November December'.split(' ');

function dayOf(year: number, month: number, day: number, text: string): Read<string> {
  if (year < 1900 || year > 2199) return { problem: `“${text.trim()}” is of a year that is not ours` };
  if (month < 1 || month > 12) return { problem: `“${text.trim()}”: there is no month ${month}` };
  if (day < 1 || day > daysInMonth(year, month))
    return { problem: `“${text.trim()}”: there is no ${day} ${MONTHS[month - 1]} ${year}` };
  return { value: isoOfDay(civilDay(year, month, day)) };
}

/**
 * A number as it is written here or there: "9.4", "9,4", "1 250", "1,250.50", "1.250,50". One sign with three figures behind it
 * can be read two ways and is not guessed.
 */
export function readFileNumber(text: string): Read<number> {
  const said = text.trim().replace(/[\s\u00a0\u202f’']/g, '');
  const problem = { problem: `“${text.trim()}” is no number` };
  if (!/^-?\d[\d.,]*$/.test(said)) return problem;
  const marks = [...said].filter((sign) => sign === '.' || sign === ',');
  const last = Math.max(said.lastIndexOf('.'), said.lastIndexOf(','));
  if (marks.length === 0) return { value: Number(said) };
  const mark = said.charAt(last);
  const behind = said.length - last - 1;
  const isAlone = marks.length === 1;
  if (isAlone && behind === 3 && !/^-?0[.,]/.test(said))
    return { problem: `“${text.trim()}” can be ${said.replace(mark, '')} or ${said.replace(mark, '.')}: write which` };
  const isDecimal = isAlone || marks.filter((sign) => sign === mark).length === 1;
  const whole = (isDecimal ? said.slice(0, last) : said).replace(/^-/, '');
  // Between thousands the same sign stands every three figures.
  const grouping = mark === '.' ? ',' : '.';
  const groups = whole.split(isDecimal ? grouping : mark);
  if (groups.length > 1 && groups.some((group, i) => (i === 0 ? group.length > 3 || group === '' : group.length !== 3)))
    return problem;
  if (groups.some((group) => !/^\d+$/.test(group))) return problem;
  const value = Number(groups.join('') + (isDecimal && behind > 0 ? `.${said.slice(last + 1)}` : ''));
  return { value: said.startsWith('-') ? -value : value };
}
