import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { TooMuchReckoningError, within } from '../reckoning.ts';
import { nextDated } from './next-dated.ts';
import { planDays } from './plan.ts';
import type { PlannedSchedule } from './schedule-plan.ts';

/** Steps that a year of one schedule and its next date may take: a few milliseconds. Lists ask it of thousands. */
const SCHEDULE_STEPS = 150_000;

/**
 * Why a schedule can't be kept: working out its coming year and its next date takes too long. Null where it doesn't.
 * @throws NoWorkingDayError, and what its recurrence throws
 */
export function reckoningFault(schedule: PlannedSchedule, calendar: WorkingCalendar, today: CivilDay): string | null {
  try {
    within(SCHEDULE_STEPS, () => {
      planDays(schedule, calendar, today, today + 364);
      nextDated(schedule, calendar, today);
    });
    return null;
  } catch (error) {
    if (error instanceof TooMuchReckoningError) return error.message;
    throw error;
  }
}
