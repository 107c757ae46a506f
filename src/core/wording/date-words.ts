import { type CivilDay, civilDay, daysInMonth, weekdayOf, yearMonthDay } from '../civil-date/civil-day.ts';
import { tryDayOfIso } from '../civil-date/iso-date.ts';
import { USUAL_WAYS, type Ways } from './ways.ts';

export const WEEKDAY_NAMES = [
  '',
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
  'Sunday',
] as const;
export const MONTH_NAMES = [
  '',
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
] as const;

export function weekdayName(weekday: number): string {
  return WEEKDAY_NAMES[weekday] as string;
}
/** "Tue" */
export function weekdayShort(weekday: number): string {
  return weekdayName(weekday).slice(0, 3);
}
export function monthName(month: number): string {
  return MONTH_NAMES[month] as string;
}
/** "Nov" */
export function monthShort(month: number): string {
  return monthName(month).slice(0, 3);
}

type Order = Pick<Ways, 'dateOrder'>;

/** "24 Nov", or "Nov 24" */
export function sayDayOfMonth(day: CivilDay, { dateOrder }: Order = USUAL_WAYS): string {
  const { month, day: date } = yearMonthDay(day);
  return dateOrder === 'day first' ? `${date} ${monthShort(month)}` : `${monthShort(month)} ${date}`;
}

/** "24 Nov 2026", or "Nov 24, 2026" */
export function sayDate(day: CivilDay, order: Order = USUAL_WAYS): string {
  return `${sayDayOfMonth(day, order)}${order.dateOrder === 'day first' ? '' : ','} ${yearMonthDay(day).year}`;
}

/** "Tue 24 Nov", with the year when it is not the one of `today`. */
export function sayDay(day: CivilDay, today: CivilDay, order: Order = USUAL_WAYS): string {
  const isThisYear = yearMonthDay(day).year === yearMonthDay(today).year;
  return `${weekdayShort(weekdayOf(day))} ${isThisYear ? sayDayOfMonth(day, order) : sayDate(day, order)}`;
}

/** "today", "tomorrow", "yesterday", "Fri" within the coming week, then "Fri 6 Nov". */
export function sayNear(day: CivilDay, today: CivilDay, order: Order = USUAL_WAYS): string {
  if (day === today) return 'today';
  if (day === today + 1) return 'tomorrow';
  if (day === today - 1) return 'yesterday';
  if (day > today && day < today + 7) return weekdayShort(weekdayOf(day));
  return sayDay(day, today, order);
}

/** "first" … "thirtyfirst" by their numbers, without a hyphen. */
export const ORDINAL_WORDS = [
  '',
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
  'eleventh',
  'twelfth',
  'thirteenth',
  'fourteenth',
  'fifteenth',
  'sixteenth',
  'seventeenth',
  'eighteenth',
  'nineteenth',
  'twentieth',
  'twentyfirst',
  'twentysecond',
  'twentythird',
  'twentyfourth',
  'twentyfifth',
  'twentysixth',
  'twentyseventh',
  'twentyeighth',
  'twentyninth',
  'thirtieth',
  'thirtyfirst',
];

/** "first", "second" … "twenty-first", up to the thirty-first; then "32nd". */
export function ordinalWord(n: number): string {
  return ORDINAL_WORDS[n]?.replace(/^(twenty|thirty)(?=\w)/, '$1-') || ordinal(n);
}

/** "1st", "22nd", "13th" */
export function ordinal(n: number): string {
  const teens = n % 100 >= 11 && n % 100 <= 13;
  const ending = teens ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${ending}`;
}

/** "a", "a and b", "a, b and c" */
export const joinAnd = (parts: readonly string[]): string => joinWith('and', parts);

/** "a", "a or b", "a, b or c" */
export const joinOr = (parts: readonly string[]): string => joinWith('or', parts);

function joinWith(word: 'and' | 'or', parts: readonly string[]): string {
  if (parts.length <= 1) return parts[0] ?? '';
  return `${parts.slice(0, -1).join(', ')} ${word} ${parts.at(-1)}`;
}

/** "1 task", "14 tasks" */
export function plural(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}

const TYPED_DATE =
  /^(?:(?:mon|tue|wed|thu|fri|sat|sun)[a-z]*,?\s+)?(\d{1,2})(?:st|nd|rd|th)?\s+(?:of\s+)?([a-z]{3,9})\.?(?:\s+(\d{4}))?$/i;
const MONTH_FIRST =
  /^(?:(?:mon|tue|wed|thu|fri|sat|sun)[a-z]*,?\s+)?([a-z]{3,9})\.?\s+(\d{1,2})(?:st|nd|rd|th)?(?:,?\s+(\d{4}))?$/i;

/**
 * Reads a date as people type it: "2027-02-01", "1 Feb 2027", "Mon 1 February", "Feb 1"; without a year, the next such day from `today` on.
 * Null when it is none.
 */
export function readDate(text: string, today: CivilDay): CivilDay | null {
  const trimmed = text.trim();
  const iso = tryDayOfIso(trimmed);
  if (iso !== null) return iso;
  const [, dayFirst, monthAfter, yearAfter] = TYPED_DATE.exec(trimmed) ?? [];
  const [, monthFirst, dayAfter, yearLast] = MONTH_FIRST.exec(trimmed) ?? [];
  const word = (monthAfter ?? monthFirst)?.toLowerCase();
  if (word === undefined) return null;
  const month = MONTH_NAMES.findIndex((name) => name !== '' && name.toLowerCase().startsWith(word));
  const date = Number(dayFirst ?? dayAfter);
  const writtenYear = yearAfter ?? yearLast;
  if (month < 1 || date < 1) return null;
  const exists = (year: number) => (date <= daysInMonth(year, month) ? civilDay(year, month, date) : null);
  if (writtenYear !== undefined) return exists(Number(writtenYear));
  const { year } = yearMonthDay(today);
  const thisYear = exists(year);
  return thisYear !== null && thisYear >= today ? thisYear : exists(year + 1);
}
