import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { type MonthIndex, monthStart } from '../civil-date/month.ts';
import { TooMuchReckoningError, within } from '../reckoning.ts';
import { isDated, type PlannedOccurrence } from './plan.ts';
import type { PlannedSchedule } from './schedule-plan.ts';
import { shownDays } from './shown.ts';

/** What a schedule makes, as figures and dates: the right-hand side of the schedule bench. */
export interface Outlook {
  /** Occurrences of the 365 days from `today` on, omitted ones included. */
  readonly coming: readonly PlannedOccurrence[];
  /** Tasks in those days. */
  readonly timesAYear: number;
  readonly minutesAYear: number;
  /** The next occurrences from today on: so many dated ones, and what is omitted between them. */
  readonly next: readonly PlannedOccurrence[];
}

const NEXT_SHOWN = 12;
/** Where a year holds too few, the next dates are looked for this much further on. */
const FAR_DAYS = 366 * 30;
const FAR_STEPS = 200_000;

/** The outlook of a schedule from a day on. */
export function outlook(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  today: CivilDay,
  estimateMinutes: number,
): Outlook {
  const coming = shownDays(schedule, calendar, today, today + 364);
  const timesAYear = coming.filter(isDated).length;
  let next = upToDated(coming);
  for (let span = 366; next.filter(isDated).length < NEXT_SHOWN && span <= FAR_DAYS; span *= 3) {
    const far = farther(schedule, calendar, today, today + span * 3);
    if (far === null) break;
    next = upToDated(far);
  }
  return { coming, timesAYear, minutesAYear: timesAYear * estimateMinutes, next };
}

/** Null where it would take too long to look that far: then there are as many next dates as were found nearer. */
function farther(schedule: PlannedSchedule, calendar: WorkingCalendar, from: CivilDay, to: CivilDay) {
  try {
    return within(FAR_STEPS, () => shownDays(schedule, calendar, from, to));
  } catch (error) {
    if (error instanceof TooMuchReckoningError) return null;
    throw error;
  }
}

/** Twelve months of a plan. */
export interface PlannedYear {
  readonly occurrences: readonly PlannedOccurrence[];
  /** First day of the first month. */
  readonly from: CivilDay;
  /** Last day of the twelfth. */
  readonly to: CivilDay;
}

/** The plan of twelve months from a month on. */
export function planYear(schedule: PlannedSchedule, calendar: WorkingCalendar, firstMonth: MonthIndex): PlannedYear {
  const from = monthStart(firstMonth);
  const to = monthStart(firstMonth + 12) - 1;
  return { occurrences: shownDays(schedule, calendar, from, to), from, to };
}

/** Up to the last of the next few dated ones; all where there are not as many. */
function upToDated(plan: readonly PlannedOccurrence[]): readonly PlannedOccurrence[] {
  let dated = 0;
  const end = plan.findIndex((occurrence) => isDated(occurrence) && ++dated === NEXT_SHOWN);
  return end === -1 ? plan : plan.slice(0, end + 1);
}
