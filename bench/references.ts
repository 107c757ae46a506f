import { createRequire } from 'node:module';
import { isoOfDay } from '../src/core/index.ts';
import type { BenchRule } from './workload.ts';

/** Another engine, its rules made ready beforehand and its caches off, so that each asking is the first. */
export interface Reference {
  readonly name: string;
  /** Sum of the days that all rules give within [from, to], and how many they are. */
  between(from: number, to: number): { readonly count: number; readonly sum: number };
  /** Sum of each rule's first day after a day. */
  next(after: number): number;
}

const require = createRequire(import.meta.url);
const DAY = 86_400_000;

export function rrulePackage(rules: readonly BenchRule[]): Reference {
  const { RRule } = require('rrule') as typeof import('rrule');
  const ready = rules.map(
    ({ text, start }) => new RRule({ ...RRule.parseString(text), dtstart: new Date(`${start}T00:00:00Z`) }, true),
  );
  return {
    name: 'rrule',
    between: (from, to) =>
      sumOf(ready, (rule, add) => {
        for (const at of rule.between(new Date(from * DAY), new Date(to * DAY), true)) add(at.getTime() / DAY);
      }),
    next: (after) =>
      sumOf(ready, (rule, add) => {
        const at = rule.after(new Date(after * DAY));
        if (at) add(at.getTime() / DAY);
      }).sum,
  };
}

interface TemporalRule {
  between(after: Date, before: Date, inclusive: boolean): { epochMilliseconds: number }[];
  next(after: Date): { epochMilliseconds: number } | null;
}

export async function rruleTemporal(rules: readonly BenchRule[]): Promise<Reference> {
  const { RRuleTemporal } = (await import(require.resolve('rrule-temporal'))) as {
    RRuleTemporal: new (options: object) => TemporalRule;
  };
  const ready = rules.map(
    ({ text, start }) =>
      new RRuleTemporal({ rruleString: `DTSTART:${start.replaceAll('-', '')}T000000Z\nRRULE:${text}`, cache: false }),
  );
  return {
    name: 'rrule-temporal',
    between: (from, to) =>
      sumOf(ready, (rule, add) => {
        for (const at of rule.between(new Date(from * DAY), new Date(to * DAY), true)) add(at.epochMilliseconds / DAY);
      }),
    next: (after) =>
      sumOf(ready, (rule, add) => {
        const at = rule.next(new Date(after * DAY));
        if (at) add(at.epochMilliseconds / DAY);
      }).sum,
  };
}

interface RustDate {
  readonly year: number;
  readonly month: number;
  readonly day: number;
}
interface RustSet {
  readonly cache: { disable(): void };
  between(after: RustDate, before: RustDate, inclusive: boolean): readonly RustDate[];
}

/** It has no "next": windows that grow until one holds a date are its quickest way there. */
const WINDOWS = [40, 400, 4000];

export function rruleRust(rules: readonly BenchRule[]): Reference {
  const { RRuleSet, DateTime } = require('rrule-rust') as {
    RRuleSet: { fromString(text: string): RustSet };
    DateTime: { utc(year: number, month: number, day: number, hour: number, minute: number, second: number): RustDate };
  };
  const ready = rules.map(({ text, start }) => {
    const set = RRuleSet.fromString(`DTSTART:${start.replaceAll('-', '')}T000000Z\nRRULE:${text}`);
    set.cache.disable();
    return set;
  });
  const at = (day: number) => {
    const [year = 0, month = 0, date = 0] = isoOfDay(day).split('-').map(Number);
    return DateTime.utc(year, month, date, 0, 0, 0);
  };
  const dayOf = ({ year, month, day }: RustDate) => Date.UTC(year, month - 1, day) / DAY;
  return {
    name: 'rrule-rust',
    between: (from, to) => {
      const [first, last] = [at(from), at(to)];
      return sumOf(ready, (set, add) => {
        for (const date of set.between(first, last, true)) add(dayOf(date));
      });
    },
    next: (after) => {
      const first = at(after + 1);
      const ends = WINDOWS.map((days) => at(after + days));
      return sumOf(ready, (set, add) => {
        for (const end of ends) {
          const [found] = set.between(first, end, true);
          if (found) return add(dayOf(found));
        }
      }).sum;
    },
  };
}

function sumOf<T>(all: readonly T[], visit: (one: T, add: (day: number) => void) => void) {
  let count = 0;
  let sum = 0;
  const add = (day: number) => {
    count++;
    sum += day;
  };
  for (const one of all) visit(one, add);
  return { count, sum };
}
