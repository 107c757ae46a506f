import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { type PlannedOccurrence, planDays } from './plan.ts';
import type { PlannedSchedule } from './schedule-plan.ts';

/**
 * The plan as people are told of it: a date whose task was deleted on purpose is left out. `planDays` goes on giving it,
 * since other tasks of its set may stand.
 * @throws NoWorkingDayError, and what its recurrence throws
 */
export function shownDays(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  from: CivilDay,
  to: CivilDay,
): PlannedOccurrence[] {
  const plan = planDays(schedule, calendar, from, to);
  if (!schedule.deleted || schedule.deleted.length === 0) return plan;
  const deleted = new Set(schedule.deleted.map((date) => dayOfIso(date)));
  return plan.map((one) =>
    one.kind === 'dated' && deleted.has(one.nominal)
      ? { kind: 'omitted', nominal: one.nominal, on: one.on, because: 'deleted' }
      : one,
  );
}
