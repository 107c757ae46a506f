import fc from 'fast-check';
import type { ClosedSeasons, MonthPoint, Recurrence, Rule } from '../src/core/index.ts';

/** Rules made to be looked for in vain: places few months have, long intervals, and seasons that leave a day of the year open. */

const weekday = fc.constantFrom<1 | 3 | 7>(1, 3, 7);
const rarePoint: fc.Arbitrary<MonthPoint> = fc.oneof(
  fc.record({ kind: fc.constant('date' as const), day: fc.constantFrom(29, 30, 31, -29, -30, -31) }),
  fc.record({ kind: fc.constant('weekday' as const), nth: fc.constantFrom(5, -5), weekday }),
  fc.record({
    kind: fc.constant('anyWeekday' as const),
    nth: fc.constantFrom(5, -5, 31, 23),
    weekdays: fc.constantFrom<readonly (1 | 2 | 3 | 6 | 7)[]>([1], [6, 7], [1, 2, 3]),
  }),
  fc.record({ kind: fc.constant('workingDay' as const), nth: fc.constantFrom(22, 23, -23) }),
);
const rareRule: fc.Arbitrary<Rule> = fc.oneof(
  fc
    .record({
      kind: fc.constantFrom('months' as const, 'years' as const),
      every: fc.constantFrom(1, 7, 11, 12, 13, 97, 400, 999),
      months: fc.uniqueArray(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 3 }),
      on: fc.uniqueArray(rarePoint, { minLength: 1, maxLength: 3, selector: (point) => JSON.stringify(point) }),
      missing: fc.constantFrom('omit' as const, 'last' as const, 'next' as const),
      away: fc.option(
        fc.record({
          amount: fc.integer({ min: 1, max: 366 }),
          of: fc.constantFrom('day' as const, 'workingDay' as const),
          way: fc.constantFrom('before' as const, 'after' as const),
        }),
      ),
    })
    .map(({ away, ...rule }): Rule => (away ? { ...rule, away } : rule)),
  fc.record({
    kind: fc.constant('days' as const),
    every: fc.constantFrom(1, 7, 14, 364, 365, 366, 371, 728),
    except: fc.uniqueArray(weekday, { maxLength: 3 }),
  }),
  fc.record({
    kind: fc.constant('weeks' as const),
    every: fc.constantFrom(1, 52, 53, 104, 999),
    on: fc.uniqueArray(weekday, { minLength: 1, maxLength: 2 }),
  }),
  fc
    .constantFrom(
      'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30',
      'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29;BYDAY=MO',
      'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13',
      'FREQ=YEARLY;BYWEEKNO=53;BYDAY=MO',
      'FREQ=DAILY;INTERVAL=400;BYMONTH=2;BYMONTHDAY=29',
      'FREQ=YEARLY;INTERVAL=97;BYMONTH=2;BYMONTHDAY=29',
      'FREQ=WEEKLY;INTERVAL=52;BYMONTH=2;BYDAY=MO',
      'FREQ=MONTHLY;INTERVAL=11;BYMONTH=2;BYMONTHDAY=29;BYDAY=MO',
    )
    .map((text) => ({ kind: 'rrule' as const, text })),
);
const seasons = fc.constantFrom<ClosedSeasons['seasons'] | null>(
  null,
  [{ from: '01-02', to: '12-31' }],
  [{ from: '03-01', to: '02-28' }],
  [{ from: '02-01', to: '02-29' }],
  [{ from: '01-01', to: '12-30' }],
);

export function hostileRules(count: number): Recurrence[] {
  const any = fc
    .record({
      start: fc.constantFrom('1900-01-01', '2024-02-29', '2026-11-24', '2199-12-31'),
      rules: fc.array(rareRule, { minLength: 1, maxLength: 4 }),
      end: fc.constantFrom<Recurrence['end']>(
        { kind: 'never' },
        { kind: 'after', count: 9999 },
        { kind: 'after', count: 1 },
      ),
      dayOff: fc.constantFrom('none' as const, 'skip' as const, 'following' as const),
      seasons,
      dates: fc.constantFrom('omit' as const, 'move' as const),
    })
    .map(
      ({ seasons: closed, dates, ...rest }): Recurrence =>
        closed ? { ...rest, closed: { seasons: closed, dates } } : rest,
    );
  return fc.sample(any, { numRuns: count, seed: 3 });
}
