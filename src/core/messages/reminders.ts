import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { civilTimeAt, instantOf } from '../civil-date/instant.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { type Offset, offsetDay, type Timing } from '../planning/timing.ts';

/** A reminder that falls into a time: of work on which day, and when, in milliseconds since 1970-01-01T00:00Z. */
export interface DueReminder {
  readonly on: CivilDay;
  readonly at: number;
}

/** So many days in a row without work, and more than any calendar has. */
const LONGEST_BREAK = 400;

/**
 * Which days of work have a reminder after one instant and up to another, earliest first. Told from the reminders alone and
 * not from what is planned: whatever is worked on such a day by then is reminded of, so that a task that was moved, given on
 * or finished needs nothing taken back. A time that a clock change leaves out moves forward; one that exists twice is the
 * first (`instantOf`).
 * @param after, upTo milliseconds since 1970-01-01T00:00Z
 * @throws RangeError for a zone that does not exist
 */
export function remindersBetween(
  { reminders, zone }: Pick<Timing, 'reminders' | 'zone'>,
  { after, upTo }: { readonly after: number; readonly upTo: number },
  calendar: WorkingCalendar,
  workspaceZone: string,
): DueReminder[] {
  const inZone = zone ?? workspaceZone;
  const dayAt = (instant: number) => dayOfIso(civilTimeAt(instant, inZone).date);
  // A clock change may carry a time over midnight.
  const [first, last] = [dayAt(after) - 1, dayAt(upTo) + 1];
  const found: DueReminder[] = [];
  for (const { offset, time } of reminders)
    for (let day = first; day <= last; day++) {
      const at = instantOf(isoOfDay(day), time, inZone);
      if (at > after && at <= upTo) found.push(...daysReminding(day, offset, calendar).map((on) => ({ on, at })));
    }
  return found.sort((a, b) => a.at - b.at || a.on - b.on);
}

/** The days that lie so far from a day that their offset comes to it: several, where days off lie between. */
function daysReminding(day: CivilDay, { amount, unit }: Offset, calendar: WorkingCalendar): CivilDay[] {
  const offset = { amount, unit };
  const comesToIt = (on: CivilDay) => offsetDay(on, offset, calendar) === day;
  const near = offsetDay(day, { amount: -amount, unit }, calendar);
  const days: CivilDay[] = [];
  for (const step of [-1, 1])
    for (let on = step < 0 ? near : near + 1, i = 0; i < LONGEST_BREAK && comesToIt(on); on += step, i++) days.push(on);
  return days.sort((a, b) => a - b);
}
