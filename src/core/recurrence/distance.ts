import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import { type CivilDay, type Weekday, weekdayOf } from '../civil-date/civil-day.ts';
import type { Distance } from './rule.ts';

/** A distance made ready for many places. It keeps their order: a later place never gives an earlier day. */
export interface Shift {
  /** The day that lies so far from a place. */
  from(place: CivilDay): CivilDay;
  /** No place before this one gives a day on or after `day`. */
  earliest(day: CivilDay): CivilDay;
  /** No place after this one gives a day on or before `day`. */
  latest(day: CivilDay): CivilDay;
}

/** Solved, not walked: working days by their numbers, weekdays by the week. */
export function shiftOf(distance: Distance, calendar: WorkingCalendar): Shift {
  const { amount, way } = distance;
  const isBefore = way === 'before' || way === 'onOrBefore';
  if (distance.of === 'day') return days(isBefore ? -amount : amount);
  // Whether the place may be the first of them itself.
  const counts = way === 'onOrBefore' || way === 'onOrAfter' ? 1 : 0;
  if (distance.of === 'workingDay') return workingDays(isBefore ? -amount : amount, counts, calendar);
  return weekdays(isBefore ? -amount : amount, counts, distance.of);
}

function days(n: number): Shift {
  return { from: (place) => place + n, earliest: (day) => day - n, latest: (day) => day - n };
}

function workingDays(n: number, counts: 0 | 1, { numberOf, dayNumbered }: WorkingCalendar): Shift {
  return {
    from:
      n > 0
        ? (place) => dayNumbered(numberOf(place - counts) + n)
        : // The last one up to the day before the place, or up to the place, is the first that counts.
          (place) => dayNumbered(numberOf(place - 1 + counts) + n + 1),
    // A working day to spare at either end: which of two neighbouring places it is, `from` tells.
    earliest: (day) => dayNumbered(numberOf(day) - n - 1),
    latest: (day) => dayNumbered(numberOf(day) - n + 2),
  };
}

function weekdays(n: number, counts: 0 | 1, weekday: Weekday): Shift {
  return {
    from:
      n > 0
        ? (place) => {
            const first = place + 1 - counts;
            return first + ((weekday - weekdayOf(first) + 7) % 7) + 7 * (n - 1);
          }
        : (place) => {
            const last = place - 1 + counts;
            return last - ((weekdayOf(last) - weekday + 7) % 7) + 7 * (n + 1);
          },
    earliest: (day) => day - 7 * n - 7,
    latest: (day) => day - 7 * n + 7,
  };
}
