import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { WEEKDAYS_ONLY } from '../calendar/working-calendar.ts';
import { isoOfDay } from '../civil-date/iso-date.ts';
import { anyDay, anyRecurrence, monthsRule } from './generated.ts';
import { nextOccurrence, occurrenceSeries, occurrencesBetween } from './occurrences.ts';
import type { MonthPoint, Recurrence, Rule } from './rule.ts';

const recurrence = (
  rule: Rule | readonly Rule[],
  start = '2026-01-01',
  rest: Partial<Recurrence> = {},
): Recurrence => ({
  start,
  rules: Array.isArray(rule) ? rule : [rule as Rule],
  end: { kind: 'never' },
  dayOff: 'none',
  ...rest,
});
const date = (day: number): MonthPoint => ({ kind: 'date', day });

describe('every N days', () => {
  it('counts from the start, across months and years', () => {
    const rule = recurrence({ kind: 'days', every: 10, except: [] }, '2026-12-20');
    expect(occurrencesBetween(rule, '2026-12-01', '2027-01-20')).toEqual([
      '2026-12-20',
      '2026-12-30',
      '2027-01-09',
      '2027-01-19',
    ]);
  });

  it('leaves chosen weekdays out', () => {
    const rule = recurrence({ kind: 'days', every: 1, except: [7] }, '2026-11-20');
    expect(occurrencesBetween(rule, '2026-11-20', '2026-11-24')).toEqual([
      '2026-11-20',
      '2026-11-21',
      '2026-11-23',
      '2026-11-24',
    ]);
  });
});

describe('every N weeks', () => {
  it('counts weeks from the week of the start, and begins them on Monday', () => {
    // 2026-11-26 is a Thursday: its week holds Monday 23rd, so the next week on is that of 7 December.
    const rule = recurrence({ kind: 'weeks', every: 2, on: [1, 4] }, '2026-11-26');
    expect(occurrencesBetween(rule, '2026-11-01', '2026-12-25')).toEqual([
      '2026-11-26',
      '2026-12-07',
      '2026-12-10',
      '2026-12-21',
      '2026-12-24',
    ]);
  });

  it('gives a first date only where the start is one', () => {
    expect(nextOccurrence(recurrence({ kind: 'weeks', every: 1, on: [5] }, '2026-11-24'), '2026-11-23')).toBe(
      '2026-11-27',
    );
  });
});

describe('every N months by date', () => {
  it.each([
    ['last', ['2026-01-31', '2026-02-28', '2026-03-31', '2026-04-30']],
    ['omit', ['2026-01-31', '2026-03-31']],
    ['next', ['2026-01-31', '2026-03-01', '2026-03-31']],
  ] as const)('takes the 31st with %s where it is missing', (missing, expected) => {
    expect(occurrencesBetween(recurrence(monthsRule([date(31)], { missing })), '2026-01-01', '2026-04-30')).toEqual(
      expected,
    );
  });

  it('is never 30 days: quarterly from February keeps its months', () => {
    const rule = recurrence(monthsRule([date(20)], { every: 3 }), '2026-02-10');
    expect(occurrencesBetween(rule, '2026-01-01', '2026-12-31')).toEqual([
      '2026-02-20',
      '2026-05-20',
      '2026-08-20',
      '2026-11-20',
    ]);
  });

  it('starts a period later when the day of the first is past', () => {
    const rule = recurrence(monthsRule([date(5)], { every: 3 }), '2026-02-10');
    expect(nextOccurrence(rule, '2026-01-01')).toBe('2026-05-05');
  });

  it('counts from the end', () => {
    expect(occurrencesBetween(recurrence(monthsRule([date(-1), date(-2)])), '2026-02-01', '2026-03-31')).toEqual([
      '2026-02-27',
      '2026-02-28',
      '2026-03-30',
      '2026-03-31',
    ]);
  });

  it('keeps to chosen months', () => {
    const rule = recurrence(monthsRule([date(7)], { months: [2, 5, 8, 11] }));
    expect(occurrencesBetween(rule, '2026-01-01', '2026-12-31')).toEqual([
      '2026-02-07',
      '2026-05-07',
      '2026-08-07',
      '2026-11-07',
    ]);
  });
});

describe('every N months by weekday', () => {
  it('finds the first, the last, and a fifth only where there is one', () => {
    const nth = (n: number): Recurrence => recurrence(monthsRule([{ kind: 'weekday', nth: n, weekday: 5 }]));
    expect(occurrencesBetween(nth(1), '2026-10-01', '2026-12-31')).toEqual(['2026-10-02', '2026-11-06', '2026-12-04']);
    expect(occurrencesBetween(nth(-1), '2026-10-01', '2026-12-31')).toEqual(['2026-10-30', '2026-11-27', '2026-12-25']);
    expect(occurrencesBetween(nth(5), '2026-09-01', '2026-12-31')).toEqual(['2026-10-30']);
  });
});

describe('every N months by working day', () => {
  const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: ['2026-12-31', '2027-01-01'] });
  const nth = (n: number) => recurrence(monthsRule([{ kind: 'workingDay', nth: n }]));

  it('knows the weekends and the holidays', () => {
    expect(occurrencesBetween(nth(-1), '2026-10-01', '2027-01-31', calendar)).toEqual([
      '2026-10-30',
      '2026-11-30',
      '2026-12-30',
      '2027-01-29',
    ]);
    expect(occurrencesBetween(nth(1), '2026-11-01', '2027-01-31', calendar)).toEqual([
      '2026-11-02',
      '2026-12-01',
      '2027-01-04',
    ]);
    expect(occurrencesBetween(nth(-2), '2026-12-01', '2026-12-31', calendar)).toEqual(['2026-12-29']);
  });

  it('leaves out a month without so many', () => {
    expect(occurrencesBetween(nth(22), '2026-02-01', '2026-03-31', calendar)).toEqual(['2026-03-31']);
  });
});

describe('every N years', () => {
  const leap = (missing: 'last' | 'next' | 'omit') =>
    recurrence({ kind: 'years', every: 1, months: [2], on: [date(29)], missing }, '2026-01-01');

  it('takes 29 February three ways', () => {
    expect(occurrencesBetween(leap('last'), '2026-01-01', '2028-12-31')).toEqual([
      '2026-02-28',
      '2027-02-28',
      '2028-02-29',
    ]);
    expect(occurrencesBetween(leap('next'), '2026-01-01', '2028-12-31')).toEqual([
      '2026-03-01',
      '2027-03-01',
      '2028-02-29',
    ]);
    expect(occurrencesBetween(leap('omit'), '2026-01-01', '2032-12-31')).toEqual(['2028-02-29', '2032-02-29']);
  });

  it('leaves 1900 and 2100 out as the calendar does', () => {
    expect(nextOccurrence(leap('omit'), '2096-03-01')).toBe('2104-02-29');
  });

  it('counts years from the year of the start', () => {
    const rule = recurrence(
      { kind: 'years', every: 2, months: [3], on: [{ kind: 'weekday', nth: 2, weekday: 2 }], missing: 'last' },
      '2025-06-01',
    );
    expect(occurrencesBetween(rule, '2025-01-01', '2030-12-31')).toEqual(['2027-03-09', '2029-03-13']);
  });
});

describe('several rules', () => {
  it('are joined, each date once', () => {
    const rule = recurrence(
      [monthsRule([date(1), date(15)]), monthsRule([{ kind: 'workingDay', nth: 1 }])],
      '2026-11-01',
    );
    expect(occurrencesBetween(rule, '2026-11-01', '2026-12-31')).toEqual([
      '2026-11-01',
      '2026-11-02',
      '2026-11-15',
      '2026-12-01',
      '2026-12-15',
    ]);
  });
});

describe('an end', () => {
  it('after so many is counted over all rules, wherever the window lies', () => {
    const rule = recurrence([monthsRule([date(1)]), monthsRule([date(15)])], '2026-01-01', {
      end: { kind: 'after', count: 5 },
    });
    expect(occurrencesBetween(rule, '2026-01-01', '2030-01-01')).toEqual([
      '2026-01-01',
      '2026-01-15',
      '2026-02-01',
      '2026-02-15',
      '2026-03-01',
    ]);
    expect(occurrencesBetween(rule, '2026-02-10', '2030-01-01')).toEqual(['2026-02-15', '2026-03-01']);
    expect(nextOccurrence(rule, '2026-03-01')).toBeNull();
  });

  it('on a date includes that date', () => {
    const rule = recurrence({ kind: 'weeks', every: 1, on: [2] }, '2026-11-01', {
      end: { kind: 'on', date: '2026-11-24' },
    });
    expect(occurrencesBetween(rule, '2026-11-10', '2026-12-31')).toEqual(['2026-11-10', '2026-11-17', '2026-11-24']);
  });
});

describe('any recurrence', () => {
  it('gives the union of two windows for the window of both', () => {
    fc.assert(
      fc.property(anyRecurrence, anyDay, fc.nat(500), fc.nat(500), (rule, from, a, b) => {
        const series = occurrenceSeries(rule, WEEKDAYS_ONLY);
        const [middle, to] = [from + a, from + a + b];
        expect([...series.between(from, middle), ...series.between(middle + 1, to)]).toEqual(series.between(from, to));
      }),
    );
  });

  it('gives days in order, each once, within the window and its own bounds', () => {
    fc.assert(
      fc.property(anyRecurrence, anyDay, fc.nat(1500), (rule, from, length) => {
        const days = occurrenceSeries(rule, WEEKDAYS_ONLY).between(from, from + length);
        for (const [i, day] of days.entries()) {
          expect(day).toBeGreaterThanOrEqual(from);
          expect(day).toBeLessThanOrEqual(from + length);
          expect(isoOfDay(day) >= rule.start).toBe(true);
          if (i > 0) expect(day).toBeGreaterThan(days[i - 1] as number);
        }
      }),
    );
  });

  it('has as its next the first of what follows', () => {
    fc.assert(
      fc.property(anyRecurrence, anyDay, (rule, after) => {
        const series = occurrenceSeries(rule, WEEKDAYS_ONLY);
        expect(series.next(after)).toBe(series.between(after + 1, after + 40_000)[0] ?? null);
      }),
      { numRuns: 60 },
    );
  });

  it('never gives more than its count', () => {
    fc.assert(
      fc.property(anyRecurrence, fc.integer({ min: 1, max: 40 }), (rule, count) => {
        const days = occurrenceSeries({ ...rule, end: { kind: 'after', count } }, WEEKDAYS_ONLY).between(0, 200_000);
        const all = occurrenceSeries({ ...rule, end: { kind: 'never' } }, WEEKDAYS_ONLY).between(0, 200_000);
        expect(days).toEqual(all.slice(0, count));
      }),
      { numRuns: 40 },
    );
  });
});
