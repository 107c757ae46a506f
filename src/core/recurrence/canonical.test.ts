import { describe, expect, it } from 'vitest';
import { canonicalRecurrence, mayLackDay } from './canonical.ts';
import { monthsRule } from './generated.ts';
import type { Recurrence, Rule } from './rule.ts';

const of = (rules: Rule[], rest: Partial<Recurrence> = {}): Recurrence => ({
  start: '2026-11-24',
  rules,
  end: { kind: 'never' },
  dayOff: 'none',
  ...rest,
});

describe('the settled form of a recurrence', () => {
  it('has its lists in order and without doubles', () => {
    expect(canonicalRecurrence(of([{ kind: 'weeks', every: 1, on: [5, 1, 5] }])).rules).toEqual([
      { kind: 'weeks', every: 1, on: [1, 5] },
    ]);
    expect(
      canonicalRecurrence(
        of([
          monthsRule([
            { kind: 'date', day: -1 },
            { kind: 'date', day: 15 },
            { kind: 'date', day: 15 },
          ]),
        ]),
      ).rules,
    ).toEqual([
      monthsRule([
        { kind: 'date', day: 15 },
        { kind: 'date', day: -1 },
      ]),
    ]);
  });

  it('has all listed dates together, where the first stand', () => {
    const { rules } = canonicalRecurrence(
      of([
        { kind: 'dates', dates: ['2027-05-01'] },
        { kind: 'days', every: 2, except: [] },
        { kind: 'dates', dates: ['2027-03-01', '2027-05-01'] },
      ]),
    );
    expect(rules).toEqual([
      { kind: 'dates', dates: ['2027-03-01', '2027-05-01'] },
      { kind: 'days', every: 2, except: [] },
    ]);
  });

  it('leaves out what makes no difference', () => {
    const every: Rule = { kind: 'days', every: 1, except: [] };
    expect(canonicalRecurrence(of([every, every])).rules).toEqual([every]);
    expect(
      canonicalRecurrence(
        of([
          monthsRule([{ kind: 'date', day: 15 }], { missing: 'omit', months: [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12] }),
        ]),
      ).rules,
    ).toEqual([monthsRule([{ kind: 'date', day: 15 }])]);
    expect(canonicalRecurrence(of([every], { closed: { seasons: [], dates: 'omit' }, except: [] }))).toEqual(
      of([every]),
    );
    expect(canonicalRecurrence(of([monthsRule([{ kind: 'anyWeekday', nth: 1, weekdays: [5] }])])).rules).toEqual([
      monthsRule([{ kind: 'weekday', nth: 1, weekday: 5 }]),
    ]);
  });

  it('knows which months may lack a date', () => {
    expect(mayLackDay({ on: [{ kind: 'date', day: 29 }], months: [] })).toBe(true);
    expect(mayLackDay({ on: [{ kind: 'date', day: 28 }], months: [] })).toBe(false);
    expect(mayLackDay({ on: [{ kind: 'date', day: 31 }], months: [1, 12] })).toBe(false);
    expect(mayLackDay({ on: [{ kind: 'date', day: 31 }], months: [1, 4] })).toBe(true);
    expect(mayLackDay({ on: [{ kind: 'date', day: -1 }], months: [] })).toBe(false);
  });
});
