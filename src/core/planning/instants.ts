import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { instantOf } from '../civil-date/instant.ts';
import { type IsoTime, isoOfDay } from '../civil-date/iso-date.ts';
import type { DatedOccurrence } from './plan.ts';
import { offsetDay } from './timing.ts';

/** A reminder of one occurrence. */
export interface DatedReminder {
  readonly on: CivilDay;
  readonly time: IsoTime;
}

/** When one occurrence reminds, earliest first. */
export function remindersOf({ on, timing }: DatedOccurrence, calendar: WorkingCalendar): DatedReminder[] {
  return timing.reminders
    .map(({ offset, time }) => ({ on: offsetDay(on, offset, calendar), time }))
    .sort((a, b) => a.on - b.on || (a.time < b.time ? -1 : a.time > b.time ? 1 : 0));
}

/** Instants of one occurrence, in milliseconds since 1970-01-01T00:00Z. */
export interface OccurrenceInstants {
  /** The beginning of the day on which it appears. */
  readonly appears: number;
  /** Its start time, or the beginning of that day. */
  readonly starts: number;
  /** Its due time, or the end of that day, which is the beginning of the next. */
  readonly due: number;
  readonly reminders: readonly number[];
}

/**
 * An occurrence's civil dates and times as instants, in the zone of its timing or else the one given. A time that a clock
 * change leaves out moves forward; one that exists twice is the first (`instantOf`).
 * @throws RangeError for a zone that does not exist
 */
export function occurrenceInstants(
  occurrence: DatedOccurrence,
  calendar: WorkingCalendar,
  workspaceZone: string,
): OccurrenceInstants {
  const { timing, appears, starts, due } = occurrence;
  const zone = timing.zone ?? workspaceZone;
  const at = (day: CivilDay, time: IsoTime) => instantOf(isoOfDay(day), time, zone);
  return {
    appears: at(appears, '00:00'),
    starts: at(starts, timing.startTime ?? '00:00'),
    due: timing.dueTime === null ? at(due + 1, '00:00') : at(due, timing.dueTime),
    reminders: remindersOf(occurrence, calendar).map(({ on, time }) => at(on, time)),
  };
}
