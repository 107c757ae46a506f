import {
  type CivilDay,
  civilDay,
  daysInMonth,
  mondayOf,
  type Weekday,
  weekdayOf,
  yearMonthDay,
} from '../../civil-date/civil-day.ts';
import { monthIndexOf, monthStart } from '../../civil-date/month.ts';
import { sayDate, weekdayName } from '../../wording/date-words.ts';
import type { PhraseCursor } from './cursor.ts';

/** Reads "and", "&", "plus", a comma, or a comma and "and". */
export function skipAnd(c: PhraseCursor): boolean {
  const comma = c.mark(',', ';', '&', '+');
  return c.word('and', 'as well as', 'plus') || comma;
}

/** "Mar and Sep", "Jan, Apr, Jul and Oct": months 1–12 in order; null where there is none. */
export function readMonths(c: PhraseCursor): number[] | null {
  const first = c.month();
  if (first === null) return null;
  const months = [first];
  for (;;) {
    const next = c.try(() => (skipAnd(c) ? c.month() : null));
    if (next === null) return [...new Set(months)].sort((a, b) => a - b);
    months.push(next);
  }
}

/** "March to October": all of those months, also over the end of the year. */
export function readMonthRange(c: PhraseCursor, isTo: (c: PhraseCursor) => boolean = readTo): number[] | null {
  const from = c.month();
  if (from === null || !isTo(c)) return null;
  const to = c.month();
  if (to === null) return null;
  return Array.from({ length: ((to - from + 12) % 12) + 1 }, (_, i) => ((from - 1 + i) % 12) + 1);
}

export function readTo(c: PhraseCursor): boolean {
  return c.mark('-', '–', '—') || c.word('to', 'until', 'till', 'through');
}

interface DayAndMonth {
  readonly day: number;
  readonly month: number;
  /** Said with "of", as places in months are. */
  readonly hasOf: boolean;
  /** Said before it. */
  readonly weekday: number | null;
  /** Where it begins in the phrase. */
  readonly at: number;
}

/** A day and month, "15 Dec", "Dec 15", "15th of December"; null where there is none. */
export function readDayAndMonth(c: PhraseCursor): DayAndMonth | null {
  const at = c.place;
  const weekday = c.try(() => c.weekday());
  if (weekday !== null) c.mark(',');
  c.filler('the');
  const before = c.try(() => c.number() ?? c.ordinal()?.n ?? null);
  const hasOf = before !== null && c.word('of');
  const month = c.month();
  if (month === null) return null;
  const day = before ?? c.try(() => c.ordinal()?.n ?? c.number());
  return day === null || day < 1 || day > daysInMonth(2000, month) ? null : { day, month, hasOf, weekday, at };
}

/** A date: "3 Mar 2027", "2027-03-03", "03/03/2027"; without a year the next one from a day on. */
export function readDate(c: PhraseCursor, from: CivilDay): CivilDay | null {
  const found = readDateOrDay(c);
  return found === null ? null : withYear(c, found, from);
}

type DateOrDay = CivilDay | DayAndMonth;

function readDateOrDay(c: PhraseCursor): DateOrDay | null {
  const figures = c.token('date');
  if (figures)
    return figures.other !== null &&
      figures.other !== figures.day &&
      (figures.day === null || c.pick('day and month', 2) === 1)
      ? figures.other
      : figures.day;
  const found = c.try(() => readWrittenDate(c));
  if (!found) c.expect('[a date like “3 Mar 2027”]');
  return found;
}

function readWrittenDate(c: PhraseCursor): DateOrDay | null {
  const found = readDayAndMonth(c);
  if (!found) return null;
  const year = c.try(() => {
    c.mark(',');
    const number = c.number();
    return number !== null && number >= 1900 && number <= 9999 ? number : null;
  });
  if (year === null) return found;
  return found.day <= daysInMonth(year, found.month) ? asSaid(c, found, civilDay(year, found.month, found.day)) : null;
}

/** A date that falls on the weekday it is said to; "Monday 27 November" may be a Friday. */
function asSaid(c: PhraseCursor, { weekday, at }: DayAndMonth, day: CivilDay): CivilDay | null {
  if (weekday === null || weekdayOf(day) === weekday) return day;
  return c.refuse(at, `${sayDate(day)} is a ${weekdayName(weekdayOf(day))}, not a ${weekdayName(weekday as Weekday)}.`);
}

function withYear(c: PhraseCursor, found: DateOrDay, from: CivilDay): CivilDay | null {
  if (typeof found === 'number') return found;
  const { year } = yearMonthDay(from);
  const next = [year, year + 1, year + 2, year + 3, year + 4, year + 5, year + 6, year + 7, year + 8].find(
    (y) => found.day <= daysInMonth(y, found.month) && civilDay(y, found.month, found.day) >= from,
  );
  return asSaid(c, found, civilDay(next ?? year, found.month, found.day));
}

/**
 * Dates joined by commas and "and". A year said after the last is meant for those before it as well.
 * @param years whether at least one must have its year, to tell dates from days of every year
 */
export function readDates(
  c: PhraseCursor,
  from: CivilDay,
  years: 'with a year' | 'with or without',
): CivilDay[] | null {
  const needsYear = years === 'with a year';
  const found: DateOrDay[] = [];
  for (;;) {
    const more = c.try(() => readMoreDates(c, found.length > 0, needsYear));
    if (!more) break;
    found.push(...more);
  }
  if (found.length === 0) return null;
  let year: number | null = null;
  const days: CivilDay[] = [];
  for (const date of found.reverse()) {
    if (typeof date === 'number') {
      year = yearMonthDay(date).year;
      days.push(date);
    } else if (year !== null && date.day <= daysInMonth(year, date.month))
      days.push(civilDay(year, date.month, date.day));
    else {
      const day = withYear(c, date, from);
      if (day === null) return null;
      days.push(day);
    }
  }
  return days.reverse();
}

/** The next date; where a year is needed, days without one only up to a date that has it: "and 11th of Feb" is another rule. */
function readMoreDates(c: PhraseCursor, isJoined: boolean, needsYear: boolean): DateOrDay[] | null {
  const dates: DateOrDay[] = [];
  do {
    if ((isJoined || dates.length > 0) && !skipAnd(c)) return null;
    c.filler('on');
    const date = readDateOrDay(c);
    if (date === null) return null;
    if (needsYear && typeof date !== 'number' && date.hasOf) return null;
    dates.push(date);
  } while (needsYear && typeof dates.at(-1) !== 'number');
  return dates;
}

/** "in 3 days", "in two weeks" */
function readAhead(c: PhraseCursor, today: CivilDay): CivilDay | null {
  if (!c.word('in')) return null;
  const count = c.number() ?? (c.word('a', 'an', 'one') ? 1 : null);
  if (count === null || count < 1 || count > 999) return null;
  if (c.word('days', 'day')) return today + count;
  if (c.word('weeks', 'week')) return today + count * 7;
  return c.word('fortnights', 'fortnight') ? today + count * 14 : null;
}

/** "today", "tomorrow", "Monday": the first from today on; "next Friday" may be that or the one of next week; "next month" its first day. */
export function readNear(c: PhraseCursor, today: CivilDay): CivilDay | null {
  const ahead = c.try(() => readAhead(c, today));
  if (ahead !== null) return ahead;
  if (c.word('today', 'now')) return today;
  if (c.word('tomorrow')) return today + 1;
  const isNext = c.word('next');
  if (isNext && c.word('week')) return mondayOf(today) + 7;
  if (isNext && c.word('month')) return monthStart(monthIndexOf(today) + 1);
  if (isNext && c.word('year')) return civilDay(yearMonthDay(today).year + 1, 1, 1);
  if (!isNext) c.filler('this', 'this coming');
  const weekday = c.weekday();
  // "From Monday to Friday" are days of the week.
  if (weekday === null || c.ahead(() => readTo(c))) return null;
  const first = today + ((weekday - weekdayOf(today) + 7) % 7);
  if (!isNext) return first;
  const [coming, ofNextWeek] = [first === today ? today + 7 : first, mondayOf(today) + 6 + weekday];
  return coming === ofNextWeek || c.pick('next weekday', 2) === 1 ? coming : ofNextWeek;
}
