import type { Weekday } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, isoOfDay } from '../civil-date/iso-date.ts';
import { type Convention, rollDay } from './business-day.ts';
import { shiftWorkingDays, type WorkingCalendar, workingCalendar } from './working-calendar.ts';

export interface Holiday {
  readonly date: IsoDate;
  readonly name: string;
}

/**
 * A working calendar from ISO weekdays (1 Monday … 7 Sunday) and holidays, each a date `YYYY-MM-DD` or a date with its name.
 * @throws RangeError without a working weekday, InvalidDateError for a holiday that is no date
 */
export function makeCalendar(options: {
  readonly workingWeekdays: readonly number[];
  readonly holidays: readonly (IsoDate | Holiday)[];
}): WorkingCalendar {
  const holidays = options.holidays.map((holiday) =>
    typeof holiday === 'string'
      ? ([dayOfIso(holiday), 'holiday'] as const)
      : ([dayOfIso(holiday.date), holiday.name] as const),
  );
  return workingCalendar(options.workingWeekdays as readonly Weekday[], new Map(holidays));
}

/**
 * The date on which a date is worked under a business-day convention, or null when it is skipped.
 * *following*: next working day on or after; *preceding*: previous on or before; *modifiedFollowing*: following unless
 * that is in the next month, then preceding; *modifiedPreceding* mirrored; *nearest*: the closer, a tie goes later.
 * @throws InvalidDateError, NoWorkingDayError
 */
export function rollDate(date: IsoDate, convention: Convention, calendar: WorkingCalendar): IsoDate | null {
  const day = rollDay(dayOfIso(date), convention, calendar);
  return day === null ? null : isoOfDay(day);
}

/**
 * The nth working day strictly after (n > 0) or before (n < 0) a date; for 0 the date itself if worked, else the following working day.
 * @throws InvalidDateError, NoWorkingDayError
 */
export function addWorkingDays(date: IsoDate, n: number, calendar: WorkingCalendar): IsoDate {
  return isoOfDay(shiftWorkingDays(dayOfIso(date), n, calendar));
}
