import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { type DatedOccurrence, isDated, type PlannedSchedule, planDays } from './plan.ts';
import { offsetDay } from './timing.ts';

export interface HorizonSpan {
  /** First day from which tasks are owed: the day the schedule was set up, or the last run that finished. */
  readonly from: CivilDay;
  /** Occurrences that appear up to and including this day become tasks. */
  readonly upTo: CivilDay;
}

/**
 * The occurrences that should be tasks by now: worked from `from` on, and appearing up to `upTo`.
 * An appearance lies before its day, so days after `upTo` are looked at too, as far as the lead reaches.
 */
export function occurrencesWithinHorizon(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  { from, upTo }: HorizonSpan,
): DatedOccurrence[] {
  const back = schedule.timing.appears;
  const farthest = back.amount < 0 ? offsetDay(upTo, { ...back, amount: -back.amount }, calendar) + 7 : upTo;
  return planDays(schedule, calendar, from, farthest)
    .filter(isDated)
    .filter((occurrence) => occurrence.appears <= upTo);
}
