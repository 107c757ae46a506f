import { shiftWorkingDays, type WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import type { IsoTime } from '../civil-date/iso-date.ts';

/** A distance from the occurrence's day: negative is before, positive after, 0 the day itself. */
export interface Offset {
  readonly amount: number;
  readonly unit: 'day' | 'workingDay';
}

/** The dates each task gets, told from its occurrence. */
export interface Timing {
  /** How early the person sees it. */
  readonly appears: Offset;
  readonly starts: Offset;
  readonly due: Offset;
  /** Time of day at which it starts; null for any time. */
  readonly startTime: IsoTime | null;
  /** Time of day by which it is due; null for the end of the day. */
  readonly dueTime: IsoTime | null;
}

export const ON_THE_DAY: Offset = { amount: 0, unit: 'day' };

/** The day an offset away from a day. */
export function offsetDay(day: CivilDay, { amount, unit }: Offset, calendar: WorkingCalendar): CivilDay {
  if (amount === 0) return day;
  return unit === 'day' ? day + amount : shiftWorkingDays(day, amount, calendar);
}
