import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { anyOrLone, monthsRule } from './generated.ts';
import { movedBy } from './moved-by.ts';
import { occurrencesBetween } from './occurrences.ts';
import type { Recurrence, Rule } from './rule.ts';

const of = (...rules: Rule[]): Recurrence => ({
  start: '2026-11-18',
  rules,
  end: { kind: 'never' },
  dayOff: 'none',
});
const datesOf = (recurrence: Recurrence, from: string, to: string) => occurrencesBetween(recurrence, from, to);

describe('a recurrence moved by some days', () => {
  it('gives each of its dates as much later, whatever the rule, or says that it can’t', () => {
    const reached = new Map<string, number>();
    fc.assert(
      fc.property(anyOrLone, fc.integer({ min: -20, max: 20 }), ({ closed: _, ...any }, days) => {
        const recurrence = { ...any, dayOff: 'none' as const };
        const moved = movedBy(recurrence, days);
        for (const { kind } of recurrence.rules)
          reached.set(`${kind} ${moved !== null}`, (reached.get(`${kind} ${moved !== null}`) ?? 0) + 1);
        if (moved === null) return;
        // From beyond its first week on: the first dates are bound by the start, which may be that of its week.
        const from = dayOfIso(recurrence.start) + 40;
        const before = datesOf(recurrence, isoOfDay(from), isoOfDay(from + 500));
        const after = datesOf(moved, isoOfDay(from + days), isoOfDay(from + 500 + days));
        expect(after).toEqual(before.map((date) => isoOfDay(dayOfIso(date) + days)));
      }),
      { numRuns: 1000 },
    );
    for (const kind of ['days', 'weeks', 'months', 'years', 'dates'])
      expect(reached.get(`${kind} true`), kind).toBeGreaterThan(0);
    for (const kind of ['days', 'weeks', 'workingDays', 'rrule', 'follows'])
      expect(reached.get(`${kind} false`), kind).toBeGreaterThan(0);
  });

  it('comes back by as many days the other way', () => {
    const weekly = of({ kind: 'weeks', every: 2, on: [1, 3] });
    expect(movedBy(movedBy(weekly, 2) as Recurrence, -2)).toEqual(weekly);
    const monthly = of(monthsRule([{ kind: 'date', day: 15 }]));
    // Its start may lie further back in its month by then.
    expect(movedBy(movedBy(monthly, -3) as Recurrence, 3)?.rules).toEqual(monthly.rules);
  });

  it('carries whole weeks with it where only some of them count', () => {
    const moved = movedBy(of({ kind: 'weeks', every: 2, on: [7] }), 1) as Recurrence;
    expect(moved.rules).toEqual([{ kind: 'weeks', every: 2, on: [1] }]);
    expect(datesOf(moved, '2026-11-18', '2026-12-31')).toEqual(['2026-11-23', '2026-12-07', '2026-12-21']);
  });

  it('says so where days of one rule would come into different weeks, and the weeks between count', () => {
    expect(movedBy(of({ kind: 'weeks', every: 2, on: [1, 7] }), 1)).toBeNull();
    expect(movedBy(of({ kind: 'weeks', every: 1, on: [1, 7] }), 1)?.rules).toEqual([
      { kind: 'weeks', every: 1, on: [1, 2] },
    ]);
  });

  it('moves dates off their places in the month, as far as a rule can say', () => {
    const lastDay = of(monthsRule([{ kind: 'date', day: -1 }]));
    expect(datesOf(movedBy(lastDay, 2) as Recurrence, '2026-12-01', '2027-01-31')).toEqual([
      '2026-12-02',
      '2027-01-02',
    ]);
    expect(
      movedBy(of(monthsRule([{ kind: 'date', day: 1 }], { away: { amount: 2, of: 'workingDay', way: 'after' } })), 1),
    ).toBeNull();
  });
});
