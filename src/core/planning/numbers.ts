import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { followsRule } from '../recurrence/rule.ts';
import { isDated, planDays } from './plan.ts';
import type { PlannedSchedule } from './schedule-plan.ts';

/**
 * Which one of its series each occurrence is, by its nominal day: counted from the first that the plan gives, or on from
 * the last one where the rule waits for it. Skipped and paused dates do not count.
 * @param upTo the last day worked that is to be numbered
 */
export function seriesNumbers(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  upTo: CivilDay,
): ReadonlyMap<CivilDay, number> {
  const { recurrence, last } = schedule;
  const waits = followsRule(recurrence) !== null && last ? last : null;
  const start = dayOfIso(recurrence.start);
  const dated = planDays(schedule, calendar, Math.min(start, upTo), upTo).filter(isDated);
  const before = waits ? dayOfIso(waits.nominal) : Number.NEGATIVE_INFINITY;
  return new Map(
    dated
      .filter(({ nominal }) => nominal > before)
      .map(({ nominal }, index) => [nominal, (waits?.count ?? 0) + index + 1]),
  );
}
