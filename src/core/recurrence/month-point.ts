import { easterSunday } from '../calendar/easter.ts';
import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { weekdayOf, yearMonthDay } from '../civil-date/civil-day.ts';
import type { MissingDay, MonthPoint } from './rule.ts';

/** The month has no such day. Later than any day, so that it never falls into a window. */
export const NO_DAY: CivilDay = 0x7fff_ffff;

/** Finds the day of a point in the month that begins on `first` and ends before `end`; NO_DAY where there is none. */
export type PointFinder = (first: CivilDay, end: CivilDay) => CivilDay;

/**
 * A point made ready for many months. The day may lie in the next month when `missing` is "next".
 * @param missing what a month without the date does
 */
export function pointFinder(point: MonthPoint, missing: MissingDay, calendar: WorkingCalendar): PointFinder {
  switch (point.kind) {
    case 'date':
      return dateFinder(point.day, missing);
    case 'weekday':
      return weekdayFinder(point.nth, point.weekday);
    case 'anyWeekday':
      return anyWeekdayFinder(point.nth, weekdayMask(point.weekdays));
    case 'workingDay':
      return workingDayFinder(point.nth, calendar);
    case 'easter':
      return (first, end) => {
        const day = easterSunday(yearMonthDay(first).year);
        return day >= first && day < end ? day : NO_DAY;
      };
  }
}

function dateFinder(day: number, missing: MissingDay): PointFinder {
  if (day < 0) return (first, end) => (end + day >= first ? end + day : NO_DAY);
  switch (missing) {
    case 'omit':
      return (first, end) => (first + day <= end ? first + day - 1 : NO_DAY);
    case 'last':
      return (first, end) => (first + day <= end ? first + day - 1 : end - 1);
    case 'next':
      return (first, end) => (first + day <= end ? first + day - 1 : end);
  }
}

function weekdayFinder(nth: number, weekday: number): PointFinder {
  if (nth > 0) {
    return (first, end) => {
      const day = first + ((weekday - weekdayOf(first) + 7) % 7) + (nth - 1) * 7;
      return day < end ? day : NO_DAY;
    };
  }
  return (first, end) => {
    const day = end - 1 - ((weekdayOf(end - 1) - weekday + 7) % 7) + (nth + 1) * 7;
    return day >= first ? day : NO_DAY;
  };
}

function anyWeekdayFinder(nth: number, mask: number): PointFinder {
  const step = nth > 0 ? 1 : -1;
  return (first, end) => {
    let left = Math.abs(nth);
    for (let day = nth > 0 ? first : end - 1; day >= first && day < end; day += step) {
      if ((mask & (1 << weekdayOf(day))) !== 0 && --left === 0) return day;
    }
    return NO_DAY;
  };
}

function workingDayFinder(nth: number, calendar: WorkingCalendar): PointFinder {
  if (nth > 0) {
    return (first, end) => {
      const day = calendar.dayNumbered(calendar.numberOf(first - 1) + nth);
      return day < end ? day : NO_DAY;
    };
  }
  return (first, end) => {
    const day = calendar.dayNumbered(calendar.numberOf(end - 1) + nth + 1);
    return day >= first ? day : NO_DAY;
  };
}

/** Weekdays as bits 1–7. */
export function weekdayMask(weekdays: readonly number[]): number {
  let mask = 0;
  for (const weekday of weekdays) mask |= 1 << weekday;
  return mask;
}
