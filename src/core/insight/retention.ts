import type { CivilDay } from '../civil-date/civil-day.ts';
import { monthIndexOf, monthStart } from '../civil-date/month.ts';

/** For how long finished work is kept, and since when that is so. */
export interface Retention {
  /** Whole years, 1 or more. */
  readonly years: number;
  /** The day on which it was set so. */
  readonly since: CivilDay;
}

/** What is let go on a day: finished work that was due before another. */
export interface LettingGo {
  readonly on: CivilDay;
  readonly before: CivilDay;
}

/** From the day on which it is set, so many days nothing is let go: time to see it, and to think again. */
export const RETENTION_GRACE_DAYS = 7;

const MONTHS_A_YEAR = 12;

/**
 * The next day on which finished work is let go, and what. Months go as a whole: on the first of each, what was due before
 * the first of that month so many years earlier. A first that has passed and was missed is made up for today.
 * @param doneBefore before which all has been let go already; null where nothing has been
 */
export function nextLettingGo({ years, since }: Retention, doneBefore: CivilDay | null, today: CivilDay): LettingGo {
  const firstFrom = (day: CivilDay) => monthIndexOf(day - 1) + 1;
  const backed = years * MONTHS_A_YEAR;
  const month = Math.max(
    monthIndexOf(today),
    firstFrom(since + RETENTION_GRACE_DAYS),
    // Of what was let go before, nothing is left.
    doneBefore === null ? Number.NEGATIVE_INFINITY : firstFrom(doneBefore + 1) + backed,
  );
  return { on: Math.max(monthStart(month), today), before: monthStart(month - backed) };
}
