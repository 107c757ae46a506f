import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { isDated, planDays } from '../planning/plan.ts';
import { PLAIN_TIMING } from '../planning/timing.ts';
import { anyRecurrence } from '../recurrence/generated.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import { asThePlan, followPlan, offFrom, rolledOn, untilDay } from './follow-plan.ts';
import { changedAspects, type OfPlan, OWN_ASPECTS, ownChanges } from './own-changes.ts';
import {
  COUNTS_FROM,
  firstDayOf,
  itemProblem,
  keepsStep,
  type PlanItem,
  type Planned,
  scheduleOfItem,
} from './plan-item.ts';

const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: ['2026-12-25', '2026-12-28'] });
const day = dayOfIso;
const nobody = { v: 1, kind: 'nobody' } as const;
const usual = { v: 1, kind: 'usualPerson', otherwiseId: null, daysOffToo: false, cover: 'deputy' } as const;

const item = (phrase: string, rest: Partial<PlanItem> = {}): PlanItem => ({
  key: 'gas',
  templateId: 't',
  counts: 'joining',
  after: { amount: 0, unit: 'day' },
  recurrence: parsePhrase(phrase, { start: '2026-01-01' }),
  timing: PLAIN_TIMING,
  overlap: { kind: 'add' },
  assignment: usual,
  estimateMinutes: null,
  each: 'client',
  ...rest,
});
const put = (of: PlanItem, joins: CivilDay): OfPlan => ({ ...scheduleOfItem(of, joins), assignment: of.assignment });
const nominals = (schedule: Planned, from: CivilDay, to: CivilDay): CivilDay[] =>
  planDays(schedule, calendar, from - 40, to + 40)
    .map(({ nominal }) => nominal)
    .filter((nominal) => nominal >= from && nominal <= to)
    .sort((a, b) => a - b);
const days = (schedule: Planned, from: string, to: string) =>
  planDays(schedule, calendar, day(from), day(to))
    .filter(isDated)
    .map(({ on }) => isoOfDay(on));

const anyItem: fc.Arbitrary<PlanItem> = fc.record({
  key: fc.constant('gas'),
  templateId: fc.constant('t'),
  counts: fc.constantFrom(...COUNTS_FROM),
  after: fc.record({ amount: fc.integer({ min: 0, max: 14 }), unit: fc.constantFrom('day', 'week', 'month') }),
  recurrence: anyRecurrence,
  timing: fc.constantFrom(PLAIN_TIMING, { ...PLAIN_TIMING, startTime: '08:00' }),
  overlap: fc.constant({ kind: 'add' as const }),
  assignment: fc.constantFrom(usual, nobody),
  estimateMinutes: fc.constantFrom(null, 20, 75),
  stepMinutes: fc.constantFrom<PlanItem['stepMinutes']>(undefined, {}, { paper: 5 }, { paper: 10, seal: 15 }),
  each: fc.constant('client' as const),
});
const anyJoining = fc.integer({ min: 20_400, max: 21_400 });

describe('an item of a plan', () => {
  it('is counted from the month a client joins, or keeps to the months of the plan', () => {
    const gas = item('every 3 months on the first Tuesday');
    expect(days(put(gas, day('2026-12-01')), '2026-11-01', '2027-12-31')).toEqual([
      ...['2026-12-01', '2027-03-02', '2027-06-01', '2027-09-07', '2027-12-07'],
    ]);
    expect(days(put({ ...gas, counts: 'plan' }, day('2026-12-01')), '2026-11-01', '2027-12-31')).toEqual([
      ...['2027-01-05', '2027-04-06', '2027-07-06', '2027-10-05'],
    ]);
  });

  it('begins so long after joining; a month after the 31st is the last of a shorter month', () => {
    const pack = item('every day, 3 times', { after: { amount: 3, unit: 'month' } });
    expect(isoOfDay(firstDayOf(pack, day('2026-11-30')))).toBe('2027-02-28');
    expect(days(put(pack, day('2026-11-30')), '2026-11-01', '2027-12-31')).toEqual([
      ...['2027-02-28', '2027-03-01', '2027-03-02'],
    ]);
  });

  it('can’t be counted from a day of the plan and end after so many for each', () => {
    const few = item('every 2 weeks on Monday, 3 times');
    expect(itemProblem(few)).toBeNull();
    expect(itemProblem({ ...few, counts: 'plan' })).toMatch(/from the day a client joins/);
    expect(itemProblem({ ...few, after: { amount: 121, unit: 'day' } })).toMatch(/0 to 120/);
    expect(itemProblem({ ...few, estimateMinutes: 0 })).toMatch(/from 1/);
    expect(itemProblem({ ...few, stepMinutes: { paper: 0 } })).toMatch(/from 1/);
  });

  it('gives the dates of its rule from the first day on, and is nobody’s own', () => {
    fc.assert(
      fc.property(anyItem, anyJoining, (of, joins) => {
        const first = firstDayOf(of, joins);
        const schedule = put(of, joins);
        const start = keepsStep(of) ? of.recurrence.start : isoOfDay(first);
        const bare = { recurrence: { ...of.recurrence, start }, timing: of.timing, revisions: [] };
        // An end after so many counts from joining, whatever the rule is counted from.
        fc.pre(!keepsStep(of) || of.recurrence.end.kind !== 'after');
        expect(nominals(schedule, first - 400, first + 400)).toEqual(nominals(bare, first, first + 400));
        expect(ownChanges(of, schedule)).toEqual([]);
      }),
    );
  });
});

describe('a plan that changes', () => {
  it('leaves what was before the day, and has all after it as it says then', () => {
    fc.assert(
      fc.property(anyItem, anyItem, anyJoining, fc.integer({ min: -60, max: 500 }), (before, after, joins, later) => {
        fc.pre(after.recurrence.end.kind !== 'on');
        // What follows the last one has no dates of its own.
        fc.pre(![before, after].some(({ recurrence }) => recurrence.rules.some(({ kind }) => kind === 'follows')));
        const from = joins + later;
        const there = put(before, joins);
        const { schedule, kept } = followPlan(there, { before, after, joins, from });
        expect(kept).toEqual([]);
        const now = schedule ?? there;
        expect(ownChanges(after, now)).toEqual([]);
        if (!changedAspects(before, after).includes('rule')) return;
        const begins = Math.min(firstDayOf(before, joins), firstDayOf(after, joins));
        const day = begins >= from ? begins : Math.max(from, begins);
        expect(nominals(now, day, day + 500)).toEqual(nominals(put(after, joins), day, day + 500));
        expect(nominals(now, begins - 100, day - 1)).toEqual(nominals(there, begins - 100, day - 1));
      }),
    );
  });

  it('leaves alone what a client has of its own, and changes the rest', () => {
    const before = item('first Tuesday of each month');
    const after = { ...before, recurrence: parsePhrase('second Monday of each month', { start: '2026-01-01' }) };
    const own = { ...put(before, day('2026-11-01')), assignment: nobody };
    const thursday: OfPlan = {
      ...own,
      revisions: [
        {
          from: '2026-12-01',
          recurrence: parsePhrase('first Thursday of each month', { start: '2026-12-01' }),
          timing: PLAIN_TIMING,
        },
      ],
    };
    expect(ownChanges(before, thursday)).toEqual(['rule', 'who']);
    const change = {
      before,
      after: { ...after, assignment: nobody },
      joins: day('2026-11-01'),
      from: day('2027-01-01'),
    };
    expect(followPlan(thursday, change)).toEqual({ schedule: null, kept: ['rule', 'who'] });
    const followed = followPlan(own, change);
    expect(followed.kept).toEqual(['who']);
    expect(days(followed.schedule ?? own, '2026-12-01', '2027-02-28')).toEqual([
      ...['2026-12-01', '2027-01-11', '2027-02-08'],
    ]);
  });

  it('never writes over a rule of a client’s own that ends in time', () => {
    const before = item('first Tuesday of each month');
    const after = item('second Monday of each month');
    const { recurrence } = put(before, day('2026-11-01'));
    const summer: OfPlan = {
      ...put(before, day('2026-11-01')),
      revisions: [
        { from: '2027-04-01', recurrence: parsePhrase('every Friday', { start: '2027-04-01' }), timing: PLAIN_TIMING },
        { from: '2027-09-01', recurrence, timing: PLAIN_TIMING },
      ],
    };
    const change = { before, after, joins: day('2026-11-01') };
    expect(ownChanges(before, summer)).toEqual([]);
    expect(followPlan(summer, { ...change, from: day('2027-01-01') })).toEqual({ schedule: null, kept: ['rule'] });
    expect(followPlan(summer, { ...change, from: day('2027-10-01') }).kept).toEqual([]);
  });

  it('takes an estimate over and leaves what a task says otherwise', () => {
    const before = item('first Tuesday of each month', { estimateMinutes: 20 });
    const there = put(before, day('2026-11-01'));
    const [revision] = there.revisions;
    if (!revision) throw new Error('An estimate is a revision.');
    const titled = {
      ...there,
      revisions: [
        {
          ...revision,
          own: { '': { estimateMinutes: 20, titlePattern: 'Gas' }, paper: { priority: 'high' as const } },
        },
      ],
    };
    const { schedule } = followPlan(titled, {
      ...{ before, after: { ...before, estimateMinutes: null }, joins: day('2026-11-01'), from: day('2027-01-01') },
    });
    expect(schedule?.revisions.at(-1)?.own).toEqual({ '': { titlePattern: 'Gas' }, paper: { priority: 'high' } });
  });

  it('says how long each task of a set takes, and follows that task by task', () => {
    const before = item('first Tuesday of each month', { estimateMinutes: 20, stepMinutes: { paper: 5 } });
    const there = put(before, day('2026-11-01'));
    expect(there.revisions.at(-1)?.own).toEqual({ '': { estimateMinutes: 20 }, paper: { estimateMinutes: 5 } });
    expect(ownChanges(before, there)).toEqual([]);
    const from = day('2027-01-01');
    const after = { ...before, stepMinutes: { seal: 15 } };
    const { schedule, kept } = followPlan(there, { before, after, joins: day('2026-11-01'), from });
    expect(kept).toEqual([]);
    expect(schedule?.revisions.at(-1)?.own).toEqual({ '': { estimateMinutes: 20 }, seal: { estimateMinutes: 15 } });
    const [revision] = there.revisions;
    if (!revision) throw new Error('An estimate is a revision.');
    const own = { ...there, revisions: [{ ...revision, own: { ...revision.own, paper: { estimateMinutes: 9 } } }] };
    expect(ownChanges(before, own)).toEqual(['estimate']);
    expect(followPlan(own, { before, after, joins: day('2026-11-01'), from })).toEqual({
      ...{ schedule: null, kept: ['estimate'] },
    });
  });

  it('puts a client’s own back to what it says', () => {
    fc.assert(
      fc.property(anyItem, anyItem, anyJoining, fc.integer({ min: -60, max: 500 }), (of, other, joins, later) => {
        fc.pre(other.recurrence.end.kind !== 'on');
        expect(ownChanges(of, asThePlan(put(other, joins), of, joins, joins + later))).toEqual([]);
      }),
    );
    expect(OWN_ASPECTS).toHaveLength(4);
  });
});

describe('the year of a client on a plan', () => {
  const of = item('first Tuesday of each month', { estimateMinutes: 20 });
  const there = { ...untilDay(scheduleOfItem(of, day('2026-11-01')), '2026-12-31'), assignment: usual };
  const ends = ({ recurrence, revisions }: Planned) =>
    [recurrence, ...revisions.map((one) => one.recurrence)].map(({ end }) => end);

  it('ends whatever the plan comes to say, until it goes on', () => {
    expect(ends(there)).toEqual(Array(2).fill({ kind: 'on', date: '2026-12-31' }));
    expect(days(there, '2026-11-01', '2027-03-01')).toEqual(['2026-11-03', '2026-12-01']);
    const after = { ...of, recurrence: parsePhrase('second Monday of each month', { start: '2026-01-01' }) };
    for (const from of [day('2026-10-20'), day('2026-11-10')]) {
      const { schedule } = followPlan(there, { before: of, after, joins: day('2026-11-01'), from });
      expect(days(schedule ?? there, '2026-12-05', '2027-03-01')).toEqual(['2026-12-14']);
      expect(days(asThePlan(schedule ?? there, of, day('2026-11-01'), from), '2026-12-31', '2027-03-01')).toEqual([]);
    }
    const later = rolledOn(there, '2026-12-31', '2027-12-31');
    expect(days(later, '2026-11-01', '2027-03-01')).toHaveLength(4);
    expect(rolledOn(later, '2026-12-31', '2030-12-31')).toEqual(later);
  });
});

describe('a client who goes', () => {
  it('has what lies before the day, and nothing from it on', () => {
    fc.assert(
      fc.property(anyItem, anyJoining, fc.integer({ min: -30, max: 700 }), (of, joins, later) => {
        const there = { ...put(of, joins), pauses: [], exceptions: [] };
        const off = offFrom(there, joins + later);
        const begins = Math.min(joins, firstDayOf(of, joins));
        if (off === null) {
          expect(nominals(there, begins - 100, joins + later - 1)).toEqual([]);
          return;
        }
        const dated = (schedule: typeof there, from: CivilDay, to: CivilDay) =>
          planDays(schedule, calendar, from - 40, to + 40)
            .filter(isDated)
            .map(({ on }) => on)
            .filter((on) => on >= from && on <= to);
        // Around the day itself, a convention may have moved a date across it.
        expect(dated(off, joins + later + 10, joins + later + 400)).toEqual([]);
        expect(dated(off, begins - 10, joins + later - 10)).toEqual(dated(there, begins - 10, joins + later - 10));
      }),
    );
  });

  it('has no date added by hand after it, and no pause that goes on beyond', () => {
    const there = {
      ...put(item('every Monday, 3 times'), day('2026-11-02')),
      pauses: [{ from: '2026-11-05', to: null }],
      exceptions: [{ kind: 'add' as const, date: '2027-01-07' }],
    };
    const off = offFrom(there, day('2026-11-12'));
    expect(off?.exceptions).toEqual([]);
    expect(off?.pauses).toEqual([
      { from: '2026-11-05', to: '2026-11-12' },
      { from: '2026-11-12', to: null },
    ]);
  });
});
