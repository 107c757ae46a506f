import { shiftWorkingDays, type WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import type { IsoTime } from '../civil-date/iso-date.ts';

/** A distance from the occurrence's day: negative is before, positive after, 0 the day itself. */
export interface Offset {
  readonly amount: number;
  readonly unit: 'day' | 'workingDay';
}

/** A word in time, on a day told from the occurrence's. */
export interface Reminder {
  readonly offset: Offset;
  readonly time: IsoTime;
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
  readonly reminders: readonly Reminder[];
  /** IANA zone in which all its dates and times are meant; null for the workspace's. */
  readonly zone: string | null;
}

export const ON_THE_DAY: Offset = { amount: 0, unit: 'day' };

/** Everything on the occurrence's day, at any time. */
export const PLAIN_TIMING: Timing = {
  appears: ON_THE_DAY,
  starts: ON_THE_DAY,
  due: ON_THE_DAY,
  startTime: null,
  dueTime: null,
  reminders: [],
  zone: null,
};

/** What a new schedule begins with: on its day, seen from the working day before. */
export const FRESH_TIMING: Timing = { ...PLAIN_TIMING, appears: { amount: -1, unit: 'workingDay' } };

/** The day an offset away from a day. */
export function offsetDay(day: CivilDay, { amount, unit }: Offset, calendar: WorkingCalendar): CivilDay {
  if (amount === 0) return day;
  return unit === 'day' ? day + amount : shiftWorkingDays(day, amount, calendar);
}

/** The farthest that an offset reaches in calendar days, counting a working day as up to a week and its holidays. */
export function reachInDays({ amount, unit }: Offset): number {
  return unit === 'day' ? Math.abs(amount) : Math.abs(amount) * 7 + 14;
}
