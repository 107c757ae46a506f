import { type CivilDay, civilDay, daysInMonth, weekdayOf, yearMonthDay } from '../civil-date/civil-day.ts';
import { readDate } from './date-words.ts';

/** What a typed date may mean: one day, one of several that only the writer can tell apart, or none. */
export type TypedDate =
  | { readonly kind: 'day'; readonly day: CivilDay }
  | { readonly kind: 'several'; readonly days: readonly CivilDay[] }
  | { readonly kind: 'none' };

const NONE: TypedDate = { kind: 'none' };
const NEAR: Readonly<Record<string, number>> = { yesterday: -1, today: 0, tomorrow: 1 };
const WEEKDAYS = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'];
const FIGURES = /^(\d{1,2})([./-])(\d{1,2})(?:\2(\d{2}|\d{4}))?\2?$/;
const SHORT_YEAR = /^(.*\D)(\d{2})$/;
const CENTURY = 2000;

/**
 * Reads a date as people type it, beyond what is written in full: "today", "friday", "next monday", "1.2.2027", "1 Feb 28".
 * What can be read two ways gives both: "1/2/2027" is the 1st of February to some and the 2nd of January to others, and
 * "next friday", on a Tuesday, this week's or the next one's.
 * @param today the day from which "friday" or "1 Feb" is the next one
 */
export function readTypedDate(text: string, today: CivilDay): TypedDate {
  const typed = text.trim().toLowerCase().replace(/\s+/g, ' ');
  const near = NEAR[typed];
  if (near !== undefined) return { kind: 'day', day: today + near };
  return (
    readWeekday(typed, today) ??
    readFigures(typed, today) ??
    one(readDate(text, today) ?? readShortYear(text.trim(), today))
  );
}

function one(day: CivilDay | null): TypedDate {
  return day === null ? NONE : { kind: 'day', day };
}

function readWeekday(typed: string, today: CivilDay): TypedDate | null {
  const [, how, word = ''] = /^(?:(this|next|on) )?([a-z]{3,9})$/.exec(typed) ?? [];
  const weekday = WEEKDAYS.findIndex((name) => name.startsWith(word)) + 1;
  if (word === '' || weekday === 0) return null;
  const ahead = (weekday - weekdayOf(today) + 7) % 7;
  // Said on that very day, it may be today or in a week; "next" may be the coming one or the one of next week.
  if (how === 'next')
    return { kind: 'several', days: ahead === 0 ? [today + 7, today + 14] : [today + ahead, today + ahead + 7] };
  if (ahead === 0 && how !== 'this') return { kind: 'several', days: [today, today + 7] };
  return { kind: 'day', day: today + ahead };
}

/** Dots are written day first everywhere; strokes are written both ways. */
function readFigures(typed: string, today: CivilDay): TypedDate | null {
  const [, first, mark, second, written] = FIGURES.exec(typed) ?? [];
  if (first === undefined || second === undefined) return null;
  const dayFirst = inYear(Number(first), Number(second), written, today);
  const monthFirst = mark === '.' ? null : inYear(Number(second), Number(first), written, today);
  if (dayFirst !== null && monthFirst !== null && dayFirst !== monthFirst)
    return { kind: 'several', days: [dayFirst, monthFirst] };
  return one(dayFirst ?? monthFirst);
}

function inYear(date: number, month: number, written: string | undefined, today: CivilDay): CivilDay | null {
  if (month < 1 || month > 12 || date < 1) return null;
  const exists = (year: number) => (date <= daysInMonth(year, month) ? civilDay(year, month, date) : null);
  if (written !== undefined) return exists(written.length === 2 ? CENTURY + Number(written) : Number(written));
  const { year } = yearMonthDay(today);
  const thisYear = exists(year);
  return thisYear !== null && thisYear >= today ? thisYear : exists(year + 1);
}

/** "1 Feb 28": a year of two figures is one of this century. */
function readShortYear(text: string, today: CivilDay): CivilDay | null {
  const [, rest, year] = SHORT_YEAR.exec(text) ?? [];
  return rest === undefined ? null : readDate(`${rest}${CENTURY + Number(year)}`, today);
}
