import type { Distance, MonthPoint } from '../rule.ts';

/** The months 1–12 in which quarters end, of a year that begins in a month. */
export function quarterEnds(yearStarts: number): number[] {
  return everyQuarter(yearStarts + 2);
}

/** The months in which they begin. */
export function quarterStarts(yearStarts: number): number[] {
  return everyQuarter(yearStarts);
}

function everyQuarter(first: number): number[] {
  return [0, 3, 6, 9].map((after) => ((first - 1 + after) % 12) + 1).sort((a, b) => a - b);
}

/** The month in which a year ends that begins in a month. */
export function lastMonth(yearStarts: number): number {
  return yearStarts === 1 ? 12 : yearStarts - 1;
}

/** Places that every month has, whatever its holidays. */
const SAFE_PLACES = { date: 28, weekday: 4, anyWeekday: 4, workingDay: 15 } as const;

/** Whether a place of a quarter or a year may lie in any of its months: the fifth Friday of a quarter need not be in its first. */
export function leavesItsMonth(point: MonthPoint): boolean {
  return point.kind === 'easter' || Math.abs(point.kind === 'date' ? point.day : point.nth) > SAFE_PLACES[point.kind];
}

export function isFromTheEnd(point: MonthPoint): boolean {
  return point.kind !== 'easter' && (point.kind === 'date' ? point.day < 0 : point.nth < 0);
}

export type Period = 'quarter' | 'year';

/** Places that every quarter and year of a five-day week has, whatever its holidays. */
const SAFE_IN_PERIOD = { quarter: { weekday: 12, workingDay: 45 }, year: { weekday: 52, workingDay: 220 } } as const;

/**
 * A place far into a period as a distance from its first or last day: its thirtieth working day is the thirtieth on or after the
 * first. Null where the period need not have it.
 */
export function distanceInto(point: MonthPoint, period: Period): Distance | null {
  if (point.kind !== 'weekday' && point.kind !== 'workingDay') return null;
  const amount = Math.abs(point.nth);
  if (amount > SAFE_IN_PERIOD[period][point.kind]) return null;
  const of = point.kind === 'weekday' ? point.weekday : point.kind;
  return { amount, of, way: point.nth > 0 ? 'onOrAfter' : 'onOrBefore' };
}

/** The highest place that is read. */
const LAST_PLACE = 31;

/** The same the other way round: which place of a quarter or year it is; null where it is none, or would be read as another. */
export function placeInPeriod(away: Distance, on: readonly MonthPoint[], period: Period): MonthPoint | null {
  if (away.of === 'day' || on.length !== 1) return null;
  const [only] = on;
  const isEnd = away.way === 'onOrBefore';
  if (only?.kind !== 'date' || only.day !== (isEnd ? -1 : 1) || !(isEnd || away.way === 'onOrAfter')) return null;
  const nth = isEnd ? -away.amount : away.amount;
  const point: MonthPoint =
    away.of === 'workingDay' ? { kind: 'workingDay', nth } : { kind: 'weekday', nth, weekday: away.of };
  const isRead = leavesItsMonth(point) && away.amount <= LAST_PLACE && distanceInto(point, period) !== null;
  return isRead ? point : null;
}
