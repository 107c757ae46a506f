import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { partDays, type SetPart, setReach } from '../doing/template-set.ts';
import { followsRule } from '../recurrence/rule.ts';
import { type DatedOccurrence, isDated, type OmittedOccurrence, planDays } from './plan.ts';
import type { PlannedSchedule } from './schedule-plan.ts';
import { shownDays } from './shown.ts';
import { reachInDays } from './timing.ts';

export interface HorizonSpan {
  /** First day from which tasks are owed: the day the schedule was set up, or the last run that finished. */
  readonly from: CivilDay;
  /** Occurrences that appear up to and including this day become tasks. */
  readonly upTo: CivilDay;
  /** Tasks of each occurrence besides the main one: a set is made whole as soon as the first of it appears. */
  readonly parts?: readonly SetPart[];
}

/**
 * The occurrences that should be tasks by now: worked from `from` on, appearing up to `upTo`, and known for certain.
 * An appearance lies before its day, so days after `upTo` are looked at too, as far as the longest lead reaches.
 */
export function occurrencesWithinHorizon(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  { from, upTo, parts = [] }: HorizonSpan,
): DatedOccurrence[] {
  const timings = [schedule.timing, ...(schedule.revisions ?? []).map(({ timing }) => timing)];
  const reach = Math.max(...timings.map(({ appears }) => reachInDays(appears))) + setReach(parts);
  // The first of a rule that waits for the last one is owed from its start on, however long ago that is.
  const isFirst = followsRule(schedule.recurrence) !== null && !schedule.last;
  const first = isFirst ? Math.min(from, dayOfIso(schedule.recurrence.start)) : from;
  return planDays(schedule, calendar, first, upTo + reach)
    .filter(isDated)
    .filter((occurrence) => !occurrence.isForeseen && firstSeen(occurrence, parts, calendar) <= upTo);
}

/** The dates within the same span that make no task, and why: those whose day lies in it. */
export function leftOutWithinHorizon(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  { from, upTo }: HorizonSpan,
): OmittedOccurrence[] {
  return shownDays(schedule, calendar, from, upTo).filter((one): one is OmittedOccurrence => !isDated(one));
}

function firstSeen(occurrence: DatedOccurrence, parts: readonly SetPart[], calendar: WorkingCalendar): CivilDay {
  return Math.min(occurrence.appears, ...parts.map((part) => partDays(occurrence, part, calendar).appears));
}
