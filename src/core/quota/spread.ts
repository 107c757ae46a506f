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
    workers.map((worker, at) => [
      worker.id,
      { worker, at, periods: new Map<CivilDay, PeriodCalls>(), last: null as PeriodCalls | null },
    ]),
  );
  const hours = new Map<CivilDay, HoursIn>();
  /** Minutes of a period of everybody in their order, day by day and together, and of whoever has the most in it. */
  const hoursIn = (from: CivilDay, to: CivilDay): HoursIn => {
    const before = hours.get(from);
    if (before !== undefined) return before;
    const days = workers.map((worker) => minutesWithin(worker, from, to));
    const of = days.map((minutes) => minutes.reduce((sum, one) => sum + one, 0));
    const found = { days, of, most: of.reduce((best, minutes) => Math.max(best, minutes), 0) };
    hours.set(from, found);
    return found;
  };
  const askedOf = (worker: Worker, at: number, from: CivilDay, to: CivilDay): number => {
    if (amount.per === 'day' && minutesByHours(worker, from) === 0) return 0;
    if (amount.share === 'same') return amount.count;
    const { of, most } = hoursIn(from, to);
    return most === 0 ? 0 : Math.round((amount.count * (of[at] ?? 0)) / most);
  };
  const periodOf = (personId: string, day: CivilDay): PeriodCalls => {
    const of = known.get(personId);
    if (!of) throw new RangeError(`${personId} is not of this quota.`);
    if (of.last !== null && of.last.from <= day && day <= of.last.to) return of.last;
    // A day by itself is told as quickly as it is looked up.
    if (amount.per === 'day') {
      of.last = callsOfDay(amount, of.worker, calendar, { day, asked: askedOf(of.worker, of.at, day, day) });
      return of.last;
    }
    const { from, to } = periodAround(amount.per, day);
    of.last =
      of.periods.get(from) ??
      callsOfPeriod(amount, of.worker, calendar, {
        ...{ from, to, asked: askedOf(of.worker, of.at, from, to) },
        // Where shares go by hours, they are known of everybody by then.
        minutes: hours.get(from)?.days[of.at] ?? minutesWithin(of.worker, from, to),
      });
    of.periods.set(from, of.last);
    return of.last;
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

interface HoursIn {
  readonly days: readonly (readonly number[])[];
  readonly of: readonly number[];
  readonly most: number;
}

function minutesWithin(worker: Worker, from: CivilDay, to: CivilDay): number[] {
  const minutes: number[] = [];
  for (let day = from; day <= to; day++) minutes.push(minutesByHours(worker, day));
  return minutes;
}

function callsOfPeriod(
  { mostADay, holidays, leave }: QuotaAmount,
  worker: Worker,
  { isHoliday, isIn }: QuotaCalendar,
  {
    from,
    to,
    asked,
    minutes: ofDays,
  }: {
    readonly from: CivilDay;
    readonly to: CivilDay;
    readonly asked: number;
    /** Of each day by their hours. */
    readonly minutes: readonly number[];
  },
): PeriodCalls {
  const weights: number[] = [];
  /** The part of each day that is worked, of what was spread over it. */
  const worked: number[] = [];
  const isOutside: boolean[] = [];
  for (let day = from; day <= to; day++) {
    const minutes = ofDays[day - from] ?? 0;
    const isOff = isHoliday(day) && !worker.shiftChanges.has(day);
    const left = leftByLeave(worker, day);
    const madeUpHoliday = isOff && holidays === 'madeUp';
    const madeUpLeave = left < 1 && leave === 'madeUp';
    weights.push(madeUpHoliday ? 0 : madeUpLeave ? minutes * left : minutes);
    const outside = notHereOn(worker, day) !== null || !isIn(day);
    isOutside.push(outside);
    worked.push(isOff || outside ? 0 : madeUpLeave ? 1 : left);
  }
  const shares = shareOut(asked, weights);
  const unplaced = shares === null ? asked : 0;
  let [off, outside, beyond] = [0, 0, 0];
  const days = weights.map((_, i) => {
    const share = shares?.[i] ?? 0;
    const kept = Math.round(share * (worked[i] ?? 0));
    const calls = mostADay === null ? kept : Math.min(kept, mostADay);
    if (isOutside[i]) outside += share - kept;
    else off += share - kept;
    beyond += kept - calls;
    return calls;
  });
  return { from, to, asked, days, off, outside, beyond, unplaced };
}

/** The calls of a period of one day, within which nothing can be made up for. */
function callsOfDay(
  { mostADay }: QuotaAmount,
  worker: Worker,
  { isHoliday, isIn }: QuotaCalendar,
  { day, asked }: { readonly day: CivilDay; readonly asked: number },
): PeriodCalls {
  const nothing = { from: day, to: day, asked, days: [0], off: 0, outside: 0, beyond: 0, unplaced: 0 };
  if (asked === 0) return nothing;
  if (minutesByHours(worker, day) === 0) return { ...nothing, unplaced: asked };
  if (notHereOn(worker, day) !== null || !isIn(day)) return { ...nothing, outside: asked };
  const isOff = isHoliday(day) && !worker.shiftChanges.has(day);
  const kept = isOff ? 0 : Math.round(asked * leftByLeave(worker, day));
  const calls = mostADay === null ? kept : Math.min(kept, mostADay);
  return { ...nothing, days: [calls], off: asked - kept, beyond: kept - calls };
}

/** A whole number shared out in proportion to weights, by largest remainders, the earlier first; null where nothing has weight. */
function shareOut(count: number, weights: readonly number[]): readonly number[] | null {
  const sum = weights.reduce((total, weight) => total + weight, 0);
  if (sum === 0) return null;
  const shares = weights.map((weight) => Math.floor((count * weight) / sum));
  let left = count - shares.reduce((total, share) => total + share, 0);
  if (left === 0) return shares;
  const byRemainder = weights
    .map((weight, i) => ({ i, rest: (count * weight) % sum }))
    .sort((a, b) => b.rest - a.rest || a.i - b.i);
  for (const { i } of byRemainder) {
    if (left === 0) break;
    shares[i] = (shares[i] ?? 0) + 1;
    left--;
  }
  return shares;
}
