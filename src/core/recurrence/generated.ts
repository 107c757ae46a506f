import fc from 'fast-check';
import { CONVENTIONS } from '../calendar/business-day.ts';
import type { Season } from '../calendar/closed-season.ts';
import { daysInMonth } from '../civil-date/civil-day.ts';
import { isoOfDay } from '../civil-date/iso-date.ts';
import { TooMuchReckoningError } from '../reckoning.ts';
import {
  type ClosedSeasons,
  DAYS_OFF,
  type Distance,
  type End,
  MAX_DISTANCE,
  MILESTONES,
  type MonthPoint,
  type MonthsRule,
  type Recurrence,
  type Rule,
  WAYS,
  type YearsRule,
} from './rule.ts';

/** Rules for tests: written short, and generated for properties. */

/** A monthly rule on some days, and what is different about it. */
export function monthsRule(on: readonly MonthPoint[], rest: Partial<MonthsRule> = {}): MonthsRule {
  return { kind: 'months', every: 1, months: [], on, missing: 'last', ...rest };
}

const weekday = fc.integer({ min: 1, max: 7 }).map((n) => n as 1 | 2 | 3 | 4 | 5 | 6 | 7);
const every = fc.integer({ min: 1, max: 9 });
const weekdays = fc.uniqueArray(weekday, { minLength: 1, maxLength: 7 });
const months = fc.oneof(
  { weight: 4, arbitrary: fc.uniqueArray(fc.integer({ min: 1, max: 12 }), { maxLength: 4 }) },
  { weight: 1, arbitrary: fc.constantFrom([1, 4, 7, 10], [3, 6, 9, 12], [3, 9]) },
);
const missing = fc.constantFrom('last', 'next', 'omit');

/** Any place, from the beginning or from the end. */
const anyPlace = (last: number) => fc.oneof(fc.integer({ min: 1, max: last }), fc.integer({ min: -last, max: -1 }));

export const anyPoint: fc.Arbitrary<MonthPoint> = fc.oneof(
  fc.record({
    kind: fc.constant('date' as const),
    day: fc.oneof(fc.integer({ min: 1, max: 31 }), fc.integer({ min: -31, max: -1 })),
  }),
  fc.record({ kind: fc.constant('weekday' as const), nth: anyPlace(5), weekday }),
  fc.record({ kind: fc.constant('anyWeekday' as const), nth: anyPlace(31), weekdays }),
  fc.record({ kind: fc.constant('workingDay' as const), nth: anyPlace(23) }),
);

/** Near and far, on either side. */
export const anyDistance: fc.Arbitrary<Distance> = fc
  .record({
    amount: fc.oneof(
      { weight: 3, arbitrary: fc.integer({ min: 1, max: 15 }) },
      fc.integer({ min: 1, max: MAX_DISTANCE }),
    ),
    of: fc.constantFrom('day' as const, 'workingDay' as const, 1 as const, 5 as const, 7 as const),
    way: fc.constantFrom(...WAYS),
  })
  .map(({ amount, of, way }) =>
    of === 'day'
      ? { amount, of, way: way === 'before' || way === 'onOrBefore' ? 'before' : 'after' }
      : { amount, of, way },
  );
/** Rules at places, and some away from them. */
const orAway = <R extends MonthsRule | YearsRule>(rule: fc.Arbitrary<R>): fc.Arbitrary<R> =>
  fc.oneof(
    { weight: 3, arbitrary: rule },
    { weight: 1, arbitrary: fc.tuple(rule, anyDistance).map(([at, away]) => ({ ...at, away })) },
    // A first or last day, which the quarters and the year have names for.
    {
      weight: 1,
      arbitrary: fc
        .tuple(rule, anyDistance, fc.constantFrom(1, -1))
        .map(([at, away, day]) => ({ ...at, on: [{ kind: 'date' as const, day }], away })),
    },
  );
const points = fc.uniqueArray(anyPoint, { minLength: 1, maxLength: 5, selector: (point) => JSON.stringify(point) });

/** Civil days of about twelve years around now. */
export const anyDay = fc.integer({ min: 19_000, max: 23_400 });
const anyDate = anyDay.map(isoOfDay);

const foreign = fc.constantFrom(
  'FREQ=YEARLY;BYYEARDAY=1,100,-1',
  'FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO',
  'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13',
  'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,SU;WKST=SU',
  'FREQ=MONTHLY;BYDAY=TU,WE,TH;BYSETPOS=3',
  'FREQ=DAILY;BYMONTH=1;COUNT=40',
);

/** Rules whose dates depend on nothing but the calendar. */
const anyRule: fc.Arbitrary<Rule> = fc.oneof(
  fc.record({ kind: fc.constant('days' as const), every, except: fc.uniqueArray(weekday, { maxLength: 6 }) }),
  fc.record({ kind: fc.constant('workingDays' as const), every: fc.integer({ min: 1, max: 30 }) }),
  fc.record({ kind: fc.constant('weeks' as const), every, on: weekdays }),
  orAway(fc.record({ kind: fc.constant('months' as const), every, months, on: points, missing })),
  orAway(
    fc.record({
      kind: fc.constant('years' as const),
      every,
      months: fc.uniqueArray(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 3 }),
      on: points,
      missing,
    }),
  ),
  orAway(
    fc.record({
      kind: fc.constant('years' as const),
      every,
      months: fc.constant([3, 4]),
      on: fc.constant([{ kind: 'easter' as const }]),
      missing: fc.constant('last' as const),
    }),
  ),
  fc.record({ kind: fc.constant('dates' as const), dates: fc.array(anyDate, { minLength: 1, maxLength: 5 }) }),
  fc.record({ kind: fc.constant('rrule' as const), text: foreign }),
);

const anyFollows: fc.Arbitrary<Rule> = fc
  .record({
    kind: fc.constant('follows' as const),
    reaches: fc.constantFrom(...MILESTONES),
    amount: fc.integer({ min: 0, max: 40 }),
    unit: fc.constantFrom('day', 'workingDay', 'week', 'month'),
  })
  .map((rule) => (rule.amount === 0 ? { ...rule, unit: 'day' as const } : rule));

const anyEnd: fc.Arbitrary<End> = fc.oneof(
  fc.constant({ kind: 'never' as const }),
  anyDate.map((date) => ({ kind: 'on' as const, date })),
  fc.integer({ min: 1, max: 60 }).map((count) => ({ kind: 'after' as const, count })),
);

const twoDigits = (n: number) => String(n).padStart(2, '0');
const month = fc.integer({ min: 1, max: 12 });
const monthDay = month.chain((of) =>
  fc.integer({ min: 1, max: daysInMonth(2000, of) }).map((day) => `${twoDigits(of)}-${twoDigits(day)}`),
);
const anySeason: fc.Arbitrary<Season> = fc.oneof(
  month.map((of) => ({ from: `${twoDigits(of)}-01`, to: `${twoDigits(of)}-${daysInMonth(2000, of)}` })),
  fc.tuple(month, month).map(([from, to]) => ({
    from: `${twoDigits(from)}-01`,
    to: `${twoDigits(to)}-${daysInMonth(2000, to)}`,
  })),
  fc.record({ from: monthDay, to: monthDay }),
);
const anyClosed: fc.Arbitrary<ClosedSeasons> = fc.record({
  seasons: fc.array(anySeason, { minLength: 1, maxLength: 3 }),
  dates: fc.constantFrom('omit', 'move'),
});

const anyDayOff = fc.constantFrom(...CONVENTIONS);

export const anyRecurrence: fc.Arbitrary<Recurrence> = fc
  .record({
    start: anyDate,
    rules: fc.oneof(
      { weight: 9, arbitrary: fc.array(anyRule, { minLength: 1, maxLength: 3 }) },
      { weight: 1, arbitrary: anyFollows.map((rule) => [rule]) },
    ),
    end: anyEnd,
    dayOff: anyDayOff,
    daysOff: fc.option(fc.constantFrom(...DAYS_OFF), { nil: undefined }),
  })
  .map(({ daysOff, ...recurrence }) => ({ ...recurrence, ...(daysOff && { daysOff }) }));

/** With closed seasons and dates taken out as well. */
export const anyFullRecurrence: fc.Arbitrary<Recurrence> = fc
  .record({
    recurrence: anyRecurrence,
    closed: fc.option(anyClosed, { nil: undefined }),
    except: fc.option(fc.array(anyDate, { minLength: 1, maxLength: 4 }), { nil: undefined }),
  })
  .map(({ recurrence, closed, except }) => ({ ...recurrence, ...(closed && { closed }), ...(except && { except }) }));

/** Any, and as often one rule alone without an end, of which more can be moved. */
export const anyOrLone: fc.Arbitrary<Recurrence> = fc.oneof(
  anyFullRecurrence,
  anyFullRecurrence.map(
    (any): Recurrence => ({
      ...any,
      rules: any.rules.slice(0, 1).map((rule): Rule => (rule.kind === 'days' ? { ...rule, except: [] } : rule)),
      end: { kind: 'never' },
    }),
  ),
);

/** Null for a rule that takes too long to work out: such are refused when they are saved, and not written. */
export function orTooMuch<T>(answer: () => T): T | null {
  try {
    return answer();
  } catch (error) {
    if (error instanceof TooMuchReckoningError) return null;
    throw error;
  }
}
