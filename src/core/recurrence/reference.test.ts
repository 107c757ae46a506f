import { RRule, type Weekday as RRuleWeekday } from 'rrule';
import { describe, expect, it } from 'vitest';
import type { Weekday } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { occurrencesBetween } from './occurrences.ts';
import type { MonthPoint, Rule } from './rule.ts';

/** Thousands of seeded random rules beside the `rrule` package, an independent reading of RFC 5545. */

const WEEKDAYS: readonly RRuleWeekday[] = [RRule.MO, RRule.TU, RRule.WE, RRule.TH, RRule.FR, RRule.SA, RRule.SU];

/** The same numbers on every run (mulberry32). */
function seeded(seed: number) {
  let state = seed;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  const whole = (least: number, most: number) => least + Math.floor(next() * (most - least + 1));
  const some = <T>(from: readonly T[], most: number): T[] => {
    const chosen = from.filter(() => next() < most / from.length);
    return chosen.length > 0 ? chosen : [from[whole(0, from.length - 1)] as T];
  };
  return { whole, some };
}

const ALL_WEEKDAYS: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7];
const rruleWeekday = (weekday: number) => WEEKDAYS[weekday - 1] as RRuleWeekday;

interface Pair {
  readonly ours: Rule;
  readonly theirs: ConstructorParameters<typeof RRule>[0];
}

function pair({ whole, some }: ReturnType<typeof seeded>): Pair {
  const every = whole(1, 5);
  switch (whole(0, 4)) {
    case 0:
      return { ours: { kind: 'days', every, except: [] }, theirs: { freq: RRule.DAILY, interval: every } };
    case 1: {
      const on = some(ALL_WEEKDAYS, 3);
      return {
        ours: { kind: 'weeks', every, on },
        theirs: { freq: RRule.WEEKLY, interval: every, byweekday: on.map(rruleWeekday), wkst: RRule.MO },
      };
    }
    case 2: {
      const days = some([1, 5, 13, 15, 28, 29, 30, 31, -1, -2, -5], 3);
      const on = days.map((day): MonthPoint => ({ kind: 'date', day }));
      return {
        ours: { kind: 'months', every, months: [], on, missing: 'omit' },
        theirs: { freq: RRule.MONTHLY, interval: every, bymonthday: days },
      };
    }
    case 3: {
      const nths = some([1, 2, 3, 4, 5, -1, -2], 2).map((nth) => ({ nth, weekday: whole(1, 7) as Weekday }));
      const on = nths.map((point): MonthPoint => ({ kind: 'weekday', ...point }));
      return {
        ours: { kind: 'months', every, months: [], on, missing: 'omit' },
        theirs: {
          freq: RRule.MONTHLY,
          interval: every,
          byweekday: nths.map(({ nth, weekday }) => rruleWeekday(weekday).nth(nth)),
        },
      };
    }
    default: {
      const months = some([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12], 2);
      const days = some([1, 15, 28, 29, 31], 2);
      const on = days.map((day): MonthPoint => ({ kind: 'date', day }));
      return {
        ours: { kind: 'years', every, months, on, missing: 'omit' },
        theirs: { freq: RRule.YEARLY, interval: every, bymonth: months, bymonthday: days },
      };
    }
  }
}

const utc = (day: number) => new Date(day * 86_400_000);

describe('beside the rrule package', () => {
  it('gives the same dates for 3,000 random rules over random windows', () => {
    const random = seeded(20_261_124);
    for (let i = 0; i < 3000; i++) {
      const { ours, theirs } = pair(random);
      const start = dayOfIso('2020-01-01') + random.whole(0, 1500);
      const from = start + random.whole(-200, 900);
      const to = from + random.whole(0, 900);
      const expected = new RRule({ ...theirs, dtstart: utc(start) })
        .between(utc(from), utc(to), true)
        .map((at) => at.toISOString().slice(0, 10));
      const actual = occurrencesBetween(
        { start: isoOfDay(start), rules: [ours], end: { kind: 'never' }, dayOff: 'none' },
        isoOfDay(from),
        isoOfDay(to),
      );
      expect(actual, `rule ${i}: ${JSON.stringify(ours)} from ${isoOfDay(start)}`).toEqual(expected);
    }
  });

  it('ends after the same count', () => {
    const random = seeded(5545);
    for (let i = 0; i < 300; i++) {
      const { ours, theirs } = pair(random);
      const count = random.whole(1, 20);
      const start = dayOfIso('2024-01-01') + random.whole(0, 700);
      const last = dayOfIso('2060-01-01');
      const expected = new RRule({ ...theirs, dtstart: utc(start), count, until: utc(last) })
        .all()
        .map((at) => at.toISOString().slice(0, 10));
      const actual = occurrencesBetween(
        { start: isoOfDay(start), rules: [ours], end: { kind: 'after', count }, dayOff: 'none' },
        isoOfDay(start),
        isoOfDay(last),
      );
      expect(actual, `rule ${i}: ${JSON.stringify(ours)} from ${isoOfDay(start)}`).toEqual(expected);
    }
  });
});
