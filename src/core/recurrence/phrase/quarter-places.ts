import type { MonthPoint } from '../rule.ts';

/** Months in which quarters of the calendar year end and begin. */
export const QUARTER_ENDS = [3, 6, 9, 12];
export const QUARTER_STARTS = [1, 4, 7, 10];

/** Places that every month has, whatever its holidays. */
const SAFE_PLACES = { date: 28, weekday: 4, anyWeekday: 4, workingDay: 15 } as const;

/** Whether a place of a quarter or a year may lie in any of its months: the fifth Friday of a quarter need not be in its first. */
export function leavesItsMonth(point: MonthPoint): boolean {
  return Math.abs(point.kind === 'date' ? point.day : point.nth) > SAFE_PLACES[point.kind];
}

export function isFromTheEnd(point: MonthPoint): boolean {
  return point.kind === 'date' ? point.day < 0 : point.nth < 0;
}
