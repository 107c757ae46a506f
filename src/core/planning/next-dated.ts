import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { type DatedOccurrence, isDated } from './plan.ts';
import type { PlannedSchedule } from './schedule-plan.ts';
import { shownDays } from './shown.ts';

/** Days looked at, ever more of them: the last reach a rule that comes every thirty years. */
const SPANS = [62, 800, 12_000];

/**
 * The first occurrence of a plan worked on or after a day that fits, or null where none comes within thirty years.
 * @param fits left out, any does
 */
export function nextDated(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  from: CivilDay,
  fits: (occurrence: DatedOccurrence) => boolean = () => true,
): DatedOccurrence | null {
  let first = from;
  for (const span of SPANS) {
    const found = shownDays(schedule, calendar, first, from + span)
      .filter(isDated)
      .find(fits);
    if (found) return found;
    first = from + span + 1;
  }
  return null;
}
