import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { weekdayOf } from '../civil-date/civil-day.ts';
import type { MissingDay, MonthPoint } from './rule.ts';

/** A month as its first day and its length. */
export interface Month {
  readonly first: CivilDay;
  readonly length: number;
}

/** The day of a point in a month, or null where the month has no such day. May lie in the next month when `missing` is "next". */
export function dayOfPoint(
  point: MonthPoint,
  month: Month,
  missing: MissingDay,
  calendar: WorkingCalendar,
): CivilDay | null {
  switch (point.kind) {
    case 'date':
      return dayOfDate(point.day, month, missing);
    case 'weekday':
      return dayOfWeekday(point.nth, point.weekday, month);
    case 'workingDay':
      return dayOfWorkingDay(point.nth, month, calendar);
  }
}

function dayOfDate(day: number, { first, length }: Month, missing: MissingDay): CivilDay | null {
  if (day < 0) return -day <= length ? first + length + day : null;
  if (day <= length) return first + day - 1;
  if (missing === 'omit') return null;
  return missing === 'last' ? first + length - 1 : first + length;
}

function dayOfWeekday(nth: number, weekday: number, { first, length }: Month): CivilDay | null {
  if (nth > 0) {
    const day = first + ((weekday - weekdayOf(first) + 7) % 7) + (nth - 1) * 7;
    return day < first + length ? day : null;
  }
  const last = first + length - 1;
  const day = last - ((weekdayOf(last) - weekday + 7) % 7) + (nth + 1) * 7;
  return day >= first ? day : null;
}

function dayOfWorkingDay(nth: number, { first, length }: Month, calendar: WorkingCalendar): CivilDay | null {
  const step = nth > 0 ? 1 : -1;
  let day = nth > 0 ? first : first + length - 1;
  for (let left = Math.abs(nth); day >= first && day < first + length; day += step) {
    if (calendar.isWorkingDay(day) && --left === 0) return day;
  }
  return null;
}
