import type { CivilDay } from '../civil-date/civil-day.ts';

/** How far the list of somebody for a day went: every call of it made, some of them, or none; or there was no list. */
export type DayOfCalls = 'whole' | 'part' | 'none' | 'noList';

/** @param listed calls of the list, those carried over to a later one too @param rung how many of them were made */
export function dayOfCalls({ listed, rung }: { readonly listed: number; readonly rung: number }): DayOfCalls {
  if (listed <= 0) return 'noList';
  if (rung >= listed) return 'whole';
  return rung > 0 ? 'part' : 'none';
}

export interface Streaks {
  /** Lists there were, and how many of them were rung to their end. */
  readonly lists: number;
  readonly whole: number;
  /** Whole lists in a row up to the last day, and the longest row of them. */
  readonly inRow: number;
  readonly best: number;
}

/** Rows of whole lists, of days in their order. A day without a list neither adds to a row nor ends one. */
export function streaksOf(days: Iterable<DayOfCalls>): Streaks {
  let [lists, whole, inRow, best] = [0, 0, 0, 0];
  for (const day of days) {
    if (day === 'noList') continue;
    lists++;
    if (day === 'whole') {
      whole++;
      inRow++;
      best = Math.max(best, inRow);
    } else inRow = 0;
  }
  return { lists, whole, inRow, best };
}

/** Calls that began in an hour of the day, and how many of them reached whoever was rung. */
export interface HourOfCalls {
  /** 0 to 23, as the clock of the workspace. */
  readonly hour: number;
  readonly rung: number;
  readonly reached: number;
}

/** Fewer calls than these in an hour say nothing of it. */
export const LEAST_TO_COMPARE = 20;

/**
 * The hours in which most and fewest of a hundred are reached; null where there are no two hours with enough calls that differ.
 * Of hours that are alike the earlier one.
 */
export function hoursCompared(
  hours: readonly HourOfCalls[],
): { readonly best: HourOfCalls; readonly worst: HourOfCalls } | null {
  const told = hours.filter(({ rung }) => rung >= LEAST_TO_COMPARE).sort((a, b) => a.hour - b.hour);
  const share = ({ reached, rung }: HourOfCalls) => reached / rung;
  const [first] = told;
  if (first === undefined) return null;
  const best = told.reduce((most, one) => (share(one) > share(most) ? one : most), first);
  const worst = told.reduce((least, one) => (share(one) < share(least) ? one : least), first);
  return share(best) > share(worst) ? { best, worst } : null;
}

/** How a promised call was kept: before its day, at its hour or in it, later on its day, on a later one; or not yet. */
export const PROMISES_KEPT = ['sooner', 'kept', 'later', 'late', 'owed', 'toCome'] as const;
export type PromiseKept = (typeof PROMISES_KEPT)[number];

/** A call within so many minutes after its time is at its hour; without a time, any of its day is. */
export const AT_ITS_HOUR_MINUTES = 60;

/** A day, and minutes of it by the clock of the workspace. */
interface Moment {
  readonly day: CivilDay;
  readonly minutes: number;
}

/**
 * How a promise was kept. One that is not kept yet is owed once its hour is over, or its day where no time was said. The
 * database says the same of many (`keptSql` of the server, held against this by a test).
 * @param rung the first call after the promise was made; null where there is none
 */
export function promiseKept(
  promised: { readonly day: CivilDay; readonly minutes: number | null },
  rung: Moment | null,
  now: Moment,
): PromiseKept {
  const isOver = ({ day, minutes }: Moment) =>
    day > promised.day ||
    (day === promised.day && promised.minutes !== null && minutes > promised.minutes + AT_ITS_HOUR_MINUTES);
  if (rung === null) return isOver(now) ? 'owed' : 'toCome';
  if (rung.day < promised.day) return 'sooner';
  if (rung.day > promised.day) return 'late';
  return isOver(rung) ? 'later' : 'kept';
}
