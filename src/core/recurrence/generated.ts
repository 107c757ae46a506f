import fc from 'fast-check';
import { isoOfDay } from '../civil-date/iso-date.ts';
import type { End, MonthPoint, Recurrence, Rule } from './rule.ts';

/** Generators for properties over recurrences. Used by tests only. */

const weekday = fc.integer({ min: 1, max: 7 }).map((n) => n as 1 | 2 | 3 | 4 | 5 | 6 | 7);
const every = fc.integer({ min: 1, max: 9 });
const weekdays = fc.uniqueArray(weekday, { minLength: 1, maxLength: 7 });
const months = fc.uniqueArray(fc.integer({ min: 1, max: 12 }), { maxLength: 4 });
const missing = fc.constantFrom('last', 'next', 'omit');

export const anyPoint: fc.Arbitrary<MonthPoint> = fc.oneof(
  fc.record({
    kind: fc.constant('date' as const),
    day: fc.oneof(fc.integer({ min: 1, max: 31 }), fc.integer({ min: -31, max: -1 })),
  }),
  fc.record({ kind: fc.constant('weekday' as const), nth: fc.constantFrom(1, 2, 3, 4, 5, -1, -2), weekday }),
  fc.record({ kind: fc.constant('workingDay' as const), nth: fc.constantFrom(1, 2, 10, -1, -3) }),
);
const points = fc.uniqueArray(anyPoint, { minLength: 1, maxLength: 3, selector: (point) => JSON.stringify(point) });

export const anyRule: fc.Arbitrary<Rule> = fc.oneof(
  fc.record({ kind: fc.constant('days' as const), every, except: fc.uniqueArray(weekday, { maxLength: 6 }) }),
  fc.record({ kind: fc.constant('weeks' as const), every, on: weekdays }),
  fc.record({ kind: fc.constant('months' as const), every, months, on: points, missing }),
  fc.record({
    kind: fc.constant('years' as const),
    every,
    months: fc.uniqueArray(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 3 }),
    on: points,
    missing,
  }),
);

/** Civil days of about twelve years around now. */
export const anyDay = fc.integer({ min: 19_000, max: 23_400 });

const anyEnd: fc.Arbitrary<End> = fc.oneof(
  fc.constant({ kind: 'never' as const }),
  anyDay.map((day) => ({ kind: 'on' as const, date: isoOfDay(day) })),
  fc.integer({ min: 1, max: 60 }).map((count) => ({ kind: 'after' as const, count })),
);

export const anyRecurrence: fc.Arbitrary<Recurrence> = fc.record({
  start: anyDay.map(isoOfDay),
  rules: fc.array(anyRule, { minLength: 1, maxLength: 3 }),
  end: anyEnd,
  dayOff: fc.constantFrom(
    'none',
    'following',
    'preceding',
    'modifiedFollowing',
    'modifiedPreceding',
    'nearest',
    'skip',
  ),
});
