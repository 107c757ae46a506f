import type { CivilDay } from '../civil-date/civil-day.ts';

/** A pool as it is on the morning of a day, and what comes to it and goes by itself. */
export interface PoolAhead {
  /** Those who may be rung on the first day. */
  readonly free: number;
  /** Those who come to it later by the day: rested long enough, near enough to a date. */
  readonly comes: ReadonlyMap<CivilDay, number>;
  /** Those who leave it unless they are rung before. */
  readonly goes: ReadonlyMap<CivilDay, number>;
  /** Calls that are promised. */
  readonly promised: ReadonlyMap<CivilDay, number>;
}

export interface ForecastRules {
  readonly from: CivilDay;
  /** The last day, within two years. */
  readonly to: CivilDay;
  /** Calls of a day, of all who ring. */
  readonly wants: (day: CivilDay) => number;
  /** How many of a hundred come back to the pool, 0 to 100, and after how many days, from 1. */
  readonly comeBack: number;
  readonly comeBackAfter: number;
}

export interface ForecastDay {
  readonly day: CivilDay;
  /** In the pool before the calls of the day. */
  readonly free: number;
  readonly wanted: number;
  /** Of those, how many there is somebody for; promised ones too. */
  readonly found: number;
}

export interface Forecast {
  readonly days: readonly ForecastDay[];
  /** The first day with more calls than contacts; null where none comes. */
  readonly dryOn: CivilDay | null;
}

const MOST_DAYS = 732;

/**
 * A pool from day to day: promised calls are made first, the others take from it, and a share of those who were rung comes back.
 * Whole contacts: shares of one are carried on until they are one.
 * @throws RangeError for more than two years
 */
export function forecastPool(pool: PoolAhead, rules: ForecastRules): Forecast {
  const { from, to, wants, comeBack, comeBackAfter } = rules;
  if (to - from >= MOST_DAYS) throw new RangeError('A pool is foreseen for two years at most.');
  const days: ForecastDay[] = [];
  let { free } = pool;
  /** All who were ever in it, to tell how many of those who go were not rung yet. */
  let ever = free;
  let [hundredths, goneParts] = [0, 0];
  const back = new Map<CivilDay, number>();
  let dryOn: CivilDay | null = null;
  for (let day = from; day <= to; day++) {
    const come = (day === from ? 0 : (pool.comes.get(day) ?? 0)) + (back.get(day) ?? 0);
    free += come;
    ever += come;
    goneParts += ever === 0 ? 0 : ((day === from ? 0 : (pool.goes.get(day) ?? 0)) * free) / ever;
    const gone = Math.min(free, Math.floor(goneParts));
    goneParts -= gone;
    free -= gone;
    const wanted = Math.max(wants(day), pool.promised.get(day) ?? 0);
    const promised = pool.promised.get(day) ?? 0;
    const taken = Math.min(free, Math.max(0, wanted - promised));
    const found = promised + taken;
    days.push({ day, free, wanted, found });
    if (found < wanted && dryOn === null) dryOn = day;
    free -= taken;
    hundredths += found * comeBack;
    const whole = Math.floor(hundredths / 100);
    hundredths -= whole * 100;
    if (whole > 0) back.set(day + comeBackAfter, (back.get(day + comeBackAfter) ?? 0) + whole);
  }
  return { days, dryOn };
}

/**
 * How many a hundred of the calls wanted a pool gives to the last day without running dry, 0 to 100: all, if it does; else a
 * share that was foreseen to last.
 */
export function shareThatLasts(pool: PoolAhead, rules: ForecastRules): number {
  const lasts = (share: number) => {
    let [asked, given] = [0, 0];
    const cache = new Map<CivilDay, number>();
    for (let day = rules.from; day <= rules.to; day++) {
      asked += rules.wants(day) * share;
      const whole = Math.floor(asked / 100) - given;
      given += whole;
      cache.set(day, whole);
    }
    return forecastPool(pool, { ...rules, wants: (day) => cache.get(day) ?? 0 }).dryOn === null;
  };
  // Those who were rung come back, and parts of contacts are rounded: less may run dry where all of it does not.
  if (lasts(100)) return 100;
  let [low, high] = [0, 99];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (lasts(middle)) low = middle;
    else high = middle - 1;
  }
  return low;
}
