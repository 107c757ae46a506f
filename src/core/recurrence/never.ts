import { closedOn } from '../calendar/closed-season.ts';
import { civilDay, daysInMonth } from '../civil-date/civil-day.ts';
import { leavesOutClosed, type MonthPoint, type Recurrence, type Rule } from './rule.ts';

/**
 * The rules of a recurrence without those that can never give a date, told by reasoning: no month that such a rule is in has
 * the day, or the season in which its dates are left out holds all of its months. What is left may still have no date, where
 * that depends on years and holidays.
 */
export function rulesWithDates(recurrence: Recurrence): readonly Rule[] {
  const open = openMonths(recurrence);
  return open.length === 0 ? [] : recurrence.rules.filter((rule) => mayHappen(rule, open));
}

const MONTHS = Array.from({ length: 12 }, (_, i) => i + 1);
/** A leap year: what is closed in February holds its 29th. */
const LEAP_YEAR = 2000;

/** Months with a day on which dates stay. */
function openMonths(recurrence: Recurrence): readonly number[] {
  const { closed } = recurrence;
  if (!closed || !leavesOutClosed(recurrence)) return MONTHS;
  const isClosed = closedOn(closed.seasons);
  return MONTHS.filter((month) =>
    Array.from({ length: daysInMonth(LEAP_YEAR, month) }, (_, i) => civilDay(LEAP_YEAR, month, i + 1)).some(
      (day) => !isClosed(day),
    ),
  );
}

function mayHappen(rule: Rule, open: readonly number[]): boolean {
  if (rule.kind !== 'months' && rule.kind !== 'years') return true;
  // A date that a month lacks may be the first of the next, which is open; places from its end and weekdays are not made up for.
  if (rule.missing === 'next' && rule.on.some((point) => point.kind === 'date' && point.day > 0)) return true;
  const months = rule.months.length > 0 ? rule.months : MONTHS;
  // Dates away from their places may fall into other months.
  return months.some(
    (month) => (rule.away || open.includes(month)) && rule.on.some((point) => mayFall(point, month, rule.missing)),
  );
}

/** How many days of some weekdays a month of so many days has at the most: four of each, and what its last days beyond four weeks hold. */
function mostOfThem(weekdays: readonly number[], days: number): number {
  const beyond = Array.from({ length: 7 }, (_, first) =>
    Array.from({ length: days - 28 }, (__, i) => ((first + i) % 7) + 1).filter((weekday) => weekdays.includes(weekday)),
  );
  return weekdays.length * 4 + Math.max(...beyond.map(({ length }) => length));
}

/** Whether a month has such a day in some year. */
function mayFall(point: MonthPoint, month: number, missing: 'last' | 'next' | 'omit'): boolean {
  const days = daysInMonth(LEAP_YEAR, month);
  switch (point.kind) {
    case 'date':
      return Math.abs(point.day) <= days || (point.day > 0 && missing !== 'omit');
    case 'weekday':
      return (Math.abs(point.nth) - 1) * 7 < days;
    case 'anyWeekday':
      return Math.abs(point.nth) <= mostOfThem(point.weekdays, days);
    case 'workingDay':
      return Math.abs(point.nth) <= days;
    case 'easter':
      return month === 3 || month === 4;
  }
}
