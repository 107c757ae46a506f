import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import { type CivilDay, civilDay, yearMonthDay } from '../civil-date/civil-day.ts';
import { monthOf } from '../civil-date/month.ts';
import { isDated, type PlannedOccurrence, planDays } from './plan.ts';
import type { PlannedSchedule } from './schedule-plan.ts';

/** What a schedule makes, as figures and dates: the right-hand side of the schedule bench. */
export interface Outlook {
  /** Occurrences of the twelve months shown, omitted ones included. */
  readonly year: readonly PlannedOccurrence[];
  /** First day of the first of the twelve months. */
  readonly yearFrom: CivilDay;
  /** Last day of the last of the twelve months. */
  readonly yearTo: CivilDay;
  /** Tasks in the 365 days that follow `today`. */
  readonly timesAYear: number;
  readonly minutesAYear: number;
  /** The next occurrences from today on: so many dated ones, and what is omitted between them. */
  readonly next: readonly PlannedOccurrence[];
}

const NEXT_SHOWN = 12;
/** Where a year holds too few, the next dates are looked for this much further on. */
const FAR_DAYS = 366 * 30;

/** The outlook of a schedule from the month of `today`, twelve months on. */
export function outlook(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  today: CivilDay,
  estimateMinutes: number,
): Outlook {
  const { year: thisYear, month } = yearMonthDay(today);
  const yearFrom = civilDay(thisYear, month, 1);
  const after = monthOf(thisYear * 12 + month - 1 + 12);
  const yearTo = civilDay(after.year, after.month, 1) - 1;
  const year = planDays(schedule, calendar, yearFrom, yearTo);
  const coming = planDays(schedule, calendar, today, today + 364);
  const timesAYear = coming.filter(isDated).length;
  let next = upToDated(coming);
  for (let span = 366; next.filter(isDated).length < NEXT_SHOWN && span <= FAR_DAYS; span *= 3) {
    next = upToDated(planDays(schedule, calendar, today, today + span * 3));
  }
  return { year, yearFrom, yearTo, timesAYear, minutesAYear: timesAYear * estimateMinutes, next };
}

/** Up to the last of the next few dated ones; all where there are not as many. */
function upToDated(plan: readonly PlannedOccurrence[]): readonly PlannedOccurrence[] {
  let dated = 0;
  const end = plan.findIndex((occurrence) => isDated(occurrence) && ++dated === NEXT_SHOWN);
  return end === -1 ? plan : plan.slice(0, end + 1);
}
