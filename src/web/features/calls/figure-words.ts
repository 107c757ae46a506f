import type { CallFigures, CallListQuery } from '../../../contract/index.ts';
import { FOLLOWS, hoursCompared, type PromiseKept, percentOf, weekdayShort } from '../../../core/index.ts';

export const KEPT_WORDS: Readonly<Record<PromiseKept, string>> = {
  sooner: 'before their day',
  kept: 'at their hour',
  later: 'later that day',
  late: 'a day late or more',
  owed: 'still owed',
  toCome: 'still to come',
};

/** What a figure's calls are narrowed by: all but the days, the quota and the person of the page. */
export type Narrowing = Partial<Omit<CallListQuery, 'quota'>>;

/** Opens the calls behind a figure. */
export type Show = (title: string, narrowing: Narrowing) => void;

type Told = CallFigures['outcomes'][number];
/** As bars stack them: by what follows, then as the workspace has them. */
export const stacked = (outcomes: readonly Told[]): readonly Told[] =>
  [...outcomes].sort((a, b) => FOLLOWS.indexOf(a.follows) - FOLLOWS.indexOf(b.follows));

export interface Bar {
  /** An hour, or a weekday from 0, Monday, on. */
  readonly at: number;
  readonly name: string;
  readonly rung: number;
  readonly reached: number;
  /** Of a hundred. */
  readonly share: number;
}

/** Calls by the hour or the weekday at which they began, from the first to the last with any. */
export function barsBy(hours: CallFigures['hours'], by: 'hour' | 'weekday'): Bar[] {
  const sums = new Map<number, { rung: number; reached: number }>();
  for (const one of hours) {
    const sum = sums.get(one[by]) ?? { rung: 0, reached: 0 };
    sums.set(one[by], { rung: sum.rung + one.rung, reached: sum.reached + one.reached });
  }
  const keys = [...sums.keys()];
  if (keys.length === 0) return [];
  const [first, last] = [Math.min(...keys), Math.max(...keys)];
  return Array.from({ length: last - first + 1 }, (_, i) => {
    const { rung, reached } = sums.get(first + i) ?? { rung: 0, reached: 0 };
    const name = by === 'hour' ? String(first + i).padStart(2, '0') : weekdayShort(first + i + 1);
    return { at: first + i, name, rung, reached, share: percentOf({ due: rung, onTime: reached }) ?? 0 };
  });
}

/** "From 16:00 on 68 of 100 are reached, from 09:00 only 41."; empty where too few calls say anything. */
export function sayHours(hours: CallFigures['hours']): string {
  const bars = barsBy(hours, 'hour');
  const compared = hoursCompared(bars.map(({ at, rung, reached }) => ({ hour: at, rung, reached })));
  if (compared === null) return '';
  const say = ({ hour }: { readonly hour: number }) => `${String(hour).padStart(2, '0')}:00`;
  const share = (hour: number) => bars.find(({ at }) => at === hour)?.share ?? 0;
  const { best, worst } = compared;
  return `In the hour from ${say(best)} most are reached, ${share(best.hour)} of 100; fewest in the one from ${say(worst)}, ${share(worst.hour)}.`;
}
