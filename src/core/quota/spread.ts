import { leftByLeave, minutesByHours, notHereOn, type Worker } from '../assignment/availability.ts';
import { type CivilDay, civilDay, weekdayOf, yearMonthDay } from '../civil-date/civil-day.ts';

export const QUOTA_PERIODS = ['day', 'week', 'month'] as const;
export type QuotaPeriod = (typeof QUOTA_PERIODS)[number];

/** What becomes of the calls of a day on which somebody does not work: others of the period take them on, or there are fewer. */
export const DAYS_MISSED = ['madeUp', 'off'] as const;
export type DaysMissed = (typeof DAYS_MISSED)[number];

/** Whether everybody has as many, or in proportion to whoever of them works most. */
export const QUOTA_SHARES = ['same', 'hours'] as const;
export type QuotaShare = (typeof QUOTA_SHARES)[number];

/** How many calls somebody is to make. */
export interface QuotaAmount {
  /** Of a period, from 1. */
  readonly count: number;
  readonly per: QuotaPeriod;
  readonly share: QuotaShare;
  /** At most so many a day, from 1; null for no such end. */
  readonly mostADay: number | null;
  readonly holidays: DaysMissed;
  readonly leave: DaysMissed;
}

/** The calls of one person in one period. asked = the sum of the days + off + outside + beyond + unplaced. */
export interface PeriodCalls {
  /** Its first and last day. */
  readonly from: CivilDay;
  readonly to: CivilDay;
  readonly asked: number;
  /** Of each day from the first on. */
  readonly days: readonly number[];
  /** Those of days off that are not made up. */
  readonly off: number;
  /** Those of days on which there is no quota, or on which they are not here yet or any more. */
  readonly outside: number;
  /** More than a day may have. */
  readonly beyond: number;
  /** There is no day to make them on. */
  readonly unplaced: number;
}

export interface QuotaCalendar {
  isHoliday(day: CivilDay): boolean;
  /** Whether the quota is in force on a day: it has begun, has not ended and is not paused. */
  isIn(day: CivilDay): boolean;
}

export interface Spread {
  /** @throws RangeError for somebody who is not of the quota */
  periodOf(personId: string, day: CivilDay): PeriodCalls;
  on(personId: string, day: CivilDay): number;
}

/**
 * The calls of a quota by person and day. Those of a period fall on the days that somebody works, in proportion to the hours of
 * each, by largest remainders (Hamilton's method): the sum is exact, and days of as many hours differ by one at most, the
 * earlier ones having more. A day depends on its period alone, whatever is asked for around it.
 * @param workers everybody of the quota
 */
export function spreadCalls(amount: QuotaAmount, workers: readonly Worker[], calendar: QuotaCalendar): Spread {
  /** What is known of each; days are mostly asked for one after the other. */
  const known = new Map(
    workers.map((worker) => [
      worker.id,
      { worker, periods: new Map<CivilDay, PeriodCalls>(), last: null as PeriodCalls | null },
    ]),
  );
  /** The minutes of whoever works most in a period, by its first day. */
  const most = new Map<CivilDay, number>();
  const mostIn = (from: CivilDay, to: CivilDay): number => {
    let best = most.get(from);
    if (best !== undefined) return best;
    best = 0;
    for (const worker of workers) best = Math.max(best, minutesIn(worker, from, to));
    most.set(from, best);
    return best;
  };
  /** @param minutes that somebody has in the period */
  const askedOf = (minutes: number, from: CivilDay, to: CivilDay): number => {
    if (amount.per === 'day' && minutes === 0) return 0;
    if (amount.share === 'same') return amount.count;
    const best = mostIn(from, to);
    return best === 0 ? 0 : Math.round((amount.count * minutes) / best);
  };
  const periodOf = (personId: string, day: CivilDay): PeriodCalls => {
    const of = known.get(personId);
    if (!of) throw new RangeError(`${personId} is not of this quota.`);
    if (of.last !== null && of.last.from <= day && day <= of.last.to) return of.last;
    // A day by itself is told as quickly as it is looked up.
    if (amount.per === 'day') {
      const minutes = minutesByHours(of.worker, day);
      of.last = callsOfDay(amount, of.worker, calendar, { day, minutes, asked: askedOf(minutes, day, day) });
      return of.last;
    }
    const { from, to } = periodAround(amount.per, day);
    let calls = of.periods.get(from);
    if (calls === undefined) {
      const minutes = minutesByDay(of.worker, from, to);
      calls = callsOfPeriod(amount, of.worker, calendar, {
        from,
        to,
        minutes,
        asked: askedOf(sumOf(minutes), from, to),
      });
      of.periods.set(from, calls);
    }
    of.last = calls;
    return calls;
  };
  return {
    periodOf,
    on(personId, day) {
      const { from, days } = periodOf(personId, day);
      return days[day - from] ?? 0;
    },
  };
}

/** The first and last day of the period that a day lies in; weeks begin on Monday (ISO 8601). */
export function periodAround(per: QuotaPeriod, day: CivilDay): { readonly from: CivilDay; readonly to: CivilDay } {
  if (per === 'day') return { from: day, to: day };
  if (per === 'week') {
    const from = day - (weekdayOf(day) - 1);
    return { from, to: from + 6 };
  }
  const { year, month } = yearMonthDay(day);
  return { from: civilDay(year, month, 1), to: civilDay(year, month + 1, 1) - 1 };
}

function minutesIn(worker: Worker, from: CivilDay, to: CivilDay): number {
  let sum = 0;
  for (let day = from; day <= to; day++) sum += minutesByHours(worker, day);
  return sum;
}

function minutesByDay(worker: Worker, from: CivilDay, to: CivilDay): number[] {
  const minutes = new Array<number>(to - from + 1).fill(0);
  for (let i = 0; i < minutes.length; i++) minutes[i] = minutesByHours(worker, from + i);
  return minutes;
}

function sumOf(numbers: readonly number[]): number {
  let sum = 0;
  for (const one of numbers) sum += one;
  return sum;
}

interface Period {
  readonly from: CivilDay;
  readonly to: CivilDay;
  /** Of each day by their hours. */
  readonly minutes: readonly number[];
  readonly asked: number;
}

function callsOfPeriod(
  { mostADay, holidays, leave }: QuotaAmount,
  worker: Worker,
  { isHoliday, isIn }: QuotaCalendar,
  { from, to, minutes, asked }: Period,
): PeriodCalls {
  const { length } = minutes;
  const weights = new Array<number>(length).fill(0);
  /** The part of each day that is worked, of what was spread over it. */
  const worked = new Array<number>(length).fill(0);
  const isOutside = new Array<boolean>(length).fill(false);
  for (let i = 0; i < length; i++) {
    const day = from + i;
    const isOff = isHoliday(day) && !worker.shiftChanges.has(day);
    const left = leftByLeave(worker, day);
    const madeUpLeave = left < 1 && leave === 'madeUp';
    if (!isOff || holidays !== 'madeUp') weights[i] = (minutes[i] ?? 0) * (madeUpLeave ? left : 1);
    const outside = notHereOn(worker, day) !== null || !isIn(day);
    isOutside[i] = outside;
    if (!isOff && !outside) worked[i] = madeUpLeave ? 1 : left;
  }
  const days = shareOut(asked, weights);
  if (days === null) return { from, to, asked, days: weights, off: 0, outside: 0, beyond: 0, unplaced: asked };
  let [off, outside, beyond] = [0, 0, 0];
  for (let i = 0; i < length; i++) {
    const share = days[i] ?? 0;
    const kept = Math.round(share * (worked[i] ?? 0));
    const calls = mostADay === null ? kept : Math.min(kept, mostADay);
    if (isOutside[i]) outside += share - kept;
    else off += share - kept;
    beyond += kept - calls;
    days[i] = calls;
  }
  return { from, to, asked, days, off, outside, beyond, unplaced: 0 };
}

/** The calls of a period of one day, within which nothing can be made up for. */
function callsOfDay(
  { mostADay }: QuotaAmount,
  worker: Worker,
  { isHoliday, isIn }: QuotaCalendar,
  { day, minutes, asked }: { readonly day: CivilDay; readonly minutes: number; readonly asked: number },
): PeriodCalls {
  const nothing = { from: day, to: day, asked, days: [0], off: 0, outside: 0, beyond: 0, unplaced: 0 };
  if (asked === 0) return nothing;
  if (minutes === 0) return { ...nothing, unplaced: asked };
  if (notHereOn(worker, day) !== null || !isIn(day)) return { ...nothing, outside: asked };
  const isOff = isHoliday(day) && !worker.shiftChanges.has(day);
  const kept = isOff ? 0 : Math.round(asked * leftByLeave(worker, day));
  const calls = mostADay === null ? kept : Math.min(kept, mostADay);
  return { ...nothing, days: [calls], off: asked - kept, beyond: kept - calls };
}

/**
 * A whole number shared out in proportion to weights, by largest remainders, the earlier first; null where nothing has weight.
 * Looked for anew for each that is left: of a month's days that is quicker than putting them in order.
 */
function shareOut(count: number, weights: readonly number[]): number[] | null {
  const sum = sumOf(weights);
  if (sum === 0) return null;
  const shares = weights.map((weight) => Math.floor((count * weight) / sum));
  const rests = weights.map((weight, i) => count * weight - (shares[i] ?? 0) * sum);
  let left = count - sumOf(shares);
  // All rests together are as many sums as are left, and each is less than one: there are more of them than are left.
  for (; left > 0; left--) {
    let best = 0;
    for (let i = 1; i < rests.length; i++) if ((rests[i] ?? 0) > (rests[best] ?? 0)) best = i;
    shares[best] = (shares[best] ?? 0) + 1;
    rests[best] = 0;
  }
  return shares;
}
