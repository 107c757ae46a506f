import type { CivilDay } from '../civil-date/civil-day.ts';
import { monthIndexOf } from '../civil-date/month.ts';
import { type WorkingCalendar, workingDayFrom, workingDayUpTo } from './working-calendar.ts';

/**
 * What to do with a date that lands on a day off: the business-day conventions of finance
 * (ISDA 2006 Definitions, section 4.12), and `skip`, which is ours.
 */
export const CONVENTIONS = [
  'none',
  'following',
  'preceding',
  'modifiedFollowing',
  'modifiedPreceding',
  'nearest',
  'skip',
] as const;
export type Convention = (typeof CONVENTIONS)[number];

/**
 * The day on which a date is worked, or null when it is skipped.
 * - following: the next working day on or after; preceding: the previous on or before
 * - modifiedFollowing: following, unless that is in the next month, then preceding; modifiedPreceding mirrored
 * - nearest: the closer of the two; a tie goes later
 */
export function rollDay(day: CivilDay, convention: Convention, calendar: WorkingCalendar): CivilDay | null {
  if (calendar.isWorkingDay(day)) return day;
  switch (convention) {
    case 'none':
      return day;
    case 'skip':
      return null;
    case 'following':
      return workingDayFrom(day, calendar);
    case 'preceding':
      return workingDayUpTo(day, calendar);
    case 'modifiedFollowing': {
      const later = workingDayFrom(day, calendar);
      return monthIndexOf(later) === monthIndexOf(day) ? later : workingDayUpTo(day, calendar);
    }
    case 'modifiedPreceding': {
      const earlier = workingDayUpTo(day, calendar);
      return monthIndexOf(earlier) === monthIndexOf(day) ? earlier : workingDayFrom(day, calendar);
    }
    case 'nearest': {
      const later = workingDayFrom(day, calendar);
      const earlier = workingDayUpTo(day, calendar);
      return day - earlier < later - day ? earlier : later;
    }
  }
}
