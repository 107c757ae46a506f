import { type CivilDay, type Weekday, weekdayOf } from '../civil-date/civil-day.ts';

/** Which days are worked. Days off are the weekdays outside the working week, and the holidays. */
export interface WorkingCalendar {
  isWorkingDay(day: CivilDay): boolean;
  /** Name of the holiday on that day, if it is one. */
  holidayName(day: CivilDay): string | undefined;
  readonly workingWeekdays: readonly Weekday[];
}

/** No day off for this many days in a row ends the search for a working day: the calendar has none. */
const LONGEST_CLOSURE = 400;

export class NoWorkingDayError extends Error {
  override readonly name = 'NoWorkingDayError';
  constructor() {
    super(
      `The calendar has no working day within ${LONGEST_CLOSURE} days: give it a working weekday, or shorten the holidays.`,
    );
  }
}

/**
 * A calendar from ISO weekdays (1 Monday … 7 Sunday) and holidays by civil day.
 * @throws RangeError when there is no working weekday at all.
 */
export function workingCalendar(
  workingWeekdays: readonly Weekday[],
  holidays: ReadonlyMap<CivilDay, string>,
): WorkingCalendar {
  let mask = 0;
  for (const weekday of workingWeekdays) {
    if (!Number.isInteger(weekday) || weekday < 1 || weekday > 7) {
      throw new RangeError(`${weekday} is not a weekday: 1 is Monday, 7 is Sunday.`);
    }
    mask |= 1 << weekday;
  }
  if (mask === 0) throw new RangeError('A working week needs at least one weekday.');
  return {
    isWorkingDay: (day) => (mask & (1 << weekdayOf(day))) !== 0 && !holidays.has(day),
    holidayName: (day) => holidays.get(day),
    workingWeekdays,
  };
}

/** Monday to Friday, no holidays: what a rule means where no workspace says otherwise. */
export const WEEKDAYS_ONLY: WorkingCalendar = workingCalendar([1, 2, 3, 4, 5], new Map());

/** The first working day on or after a day. */
export function workingDayFrom(day: CivilDay, calendar: WorkingCalendar): CivilDay {
  for (let n = 0; n <= LONGEST_CLOSURE; n++) if (calendar.isWorkingDay(day + n)) return day + n;
  throw new NoWorkingDayError();
}

/** The last working day on or before a day. */
export function workingDayUpTo(day: CivilDay, calendar: WorkingCalendar): CivilDay {
  for (let n = 0; n <= LONGEST_CLOSURE; n++) if (calendar.isWorkingDay(day - n)) return day - n;
  throw new NoWorkingDayError();
}

/**
 * The working day n after (n > 0) or before (n < 0) a day, both strictly;
 * for 0 the day itself if it is worked, else the following working day.
 */
export function shiftWorkingDays(day: CivilDay, n: number, calendar: WorkingCalendar): CivilDay {
  if (n === 0) return workingDayFrom(day, calendar);
  let at = day;
  for (let left = Math.abs(n); left > 0; left--) {
    at = n > 0 ? workingDayFrom(at + 1, calendar) : workingDayUpTo(at - 1, calendar);
  }
  return at;
}

/** Working days after `from`, up to and including `to`; negative when `to` is earlier. */
export function workingDaysBetween(from: CivilDay, to: CivilDay, calendar: WorkingCalendar): number {
  if (to < from) return -workingDaysBetween(to, from, calendar);
  let count = 0;
  for (let day = from + 1; day <= to; day++) if (calendar.isWorkingDay(day)) count++;
  return count;
}
