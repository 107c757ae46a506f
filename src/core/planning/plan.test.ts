import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { monthIndexOf } from '../civil-date/month.ts';
import { anyDay, anyRecurrence } from '../recurrence/generated.ts';
import type { MonthPoint, Recurrence } from '../recurrence/rule.ts';
import { occurrencesWithinHorizon } from './horizon.ts';
import { planBetween } from './iso-plan.ts';
import { outlook, planYear } from './outlook.ts';
import { isDated, planDays } from './plan.ts';
import { remarks } from './remarks.ts';
import type { PlannedSchedule } from './schedule-plan.ts';
import { ON_THE_DAY, PLAIN_TIMING as ON_TIME } from './timing.ts';

const HOLIDAYS = ['2026-12-25', '2026-12-28', '2027-01-01', '2027-03-26', '2027-03-29', '2027-05-03', '2027-05-31'];
const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: HOLIDAYS });

const dates = (...days: number[]): MonthPoint[] => days.map((day) => ({ kind: 'date', day }));
const schedule = (recurrence: Partial<Recurrence>, rest: Partial<PlannedSchedule> = {}): PlannedSchedule => ({
  recurrence: { start: '2026-01-01', rules: [], end: { kind: 'never' }, dayOff: 'none', ...recurrence },
  timing: ON_TIME,
  pauses: [],
  ...rest,
});
const payroll = schedule({
  rules: [
    { kind: 'months', every: 1, months: [], on: [...dates(15), { kind: 'workingDay', nth: -1 }], missing: 'last' },
  ],
  dayOff: 'preceding',
});
const onDays = (planned: PlannedSchedule, from: string, to: string) =>
  planBetween(planned, calendar, from, to).map(({ nominal, on, kind }) =>
    kind === 'dated' ? (nominal === on ? on : `${nominal}→${on}`) : `${nominal}✗`,
  );

describe('the plan of a schedule', () => {
  it('pays on the 15th and the last working day, or the working day before', () => {
    expect(onDays(payroll, '2026-11-01', '2027-01-31')).toEqual([
      '2026-11-15→2026-11-13',
      '2026-11-30',
      '2026-12-15',
      '2026-12-31',
      '2027-01-15',
      '2027-01-29',
    ]);
  });

  it.each([
    ['none', '2027-02-28'],
    ['following', '2027-02-28→2027-03-01'],
    ['preceding', '2027-02-28→2027-02-26'],
    ['modifiedFollowing', '2027-02-28→2027-02-26'],
    ['modifiedPreceding', '2027-02-28→2027-02-26'],
    ['nearest', '2027-02-28→2027-03-01'],
    ['skip', '2027-02-28✗'],
  ] as const)('treats the 31st, which in February 2027 is Sunday the 28th, by %s', (dayOff, expected) => {
    const planned = schedule({
      rules: [{ kind: 'months', every: 1, months: [2], on: dates(31), missing: 'last' }],
      dayOff,
    });
    expect(onDays(planned, '2027-02-20', '2027-03-10')).toEqual([expected]);
  });

  it('knows 29 February in a year without one', () => {
    const planned = schedule({
      rules: [{ kind: 'years', every: 1, months: [2], on: dates(29), missing: 'last' }],
      dayOff: 'preceding',
    });
    expect(onDays(planned, '2027-01-01', '2028-12-31')).toEqual(['2027-02-28→2027-02-26', '2028-02-29']);
  });

  it('moves a Monday briefing off Easter Monday, over the clock change before it', () => {
    const planned = schedule({ rules: [{ kind: 'weeks', every: 1, on: [1] }], dayOff: 'following' });
    expect(onDays(planned, '2027-03-20', '2027-04-06')).toEqual(['2027-03-22', '2027-03-29→2027-03-30', '2027-04-05']);
  });

  it('makes one of two dates on the same day: the one that falls there by itself', () => {
    const planned = schedule({ rules: [{ kind: 'days', every: 1, except: [] }], dayOff: 'preceding' });
    const plan = planBetween(planned, calendar, '2026-11-20', '2026-11-20');
    expect(plan.filter(({ kind }) => kind === 'dated')).toMatchObject([{ nominal: '2026-11-20' }]);
    expect(plan.filter(({ kind }) => kind === 'omitted')).toMatchObject([
      { nominal: '2026-11-21', because: 'same day as another' },
      { nominal: '2026-11-22' },
    ]);
  });

  it('gives each task its own dates, in days and working days', () => {
    const planned: PlannedSchedule = {
      ...payroll,
      timing: {
        ...ON_TIME,
        appears: { amount: -4, unit: 'workingDay' },
        starts: { amount: -2, unit: 'day' },
        due: { amount: 1, unit: 'workingDay' },
      },
    };
    expect(planBetween(planned, calendar, '2026-12-31', '2026-12-31')).toMatchObject([
      {
        kind: 'dated',
        nominal: '2026-12-31',
        on: '2026-12-31',
        appears: '2026-12-23',
        starts: '2026-12-29',
        due: '2027-01-04',
      },
    ]);
  });

  it('makes nothing while paused, and shows the gap', () => {
    const weekly = schedule(
      { rules: [{ kind: 'weeks', every: 1, on: [2] }] },
      { pauses: [{ from: '2026-11-24', to: '2026-12-08' }] },
    );
    expect(onDays(weekly, '2026-11-17', '2026-12-10')).toEqual([
      '2026-11-17',
      '2026-11-24✗',
      '2026-12-01✗',
      '2026-12-08',
    ]);
    const open = { ...weekly, pauses: [{ from: '2026-11-24', to: null }] };
    expect(planBetween(open, calendar, '2030-01-01', '2030-02-01').every(({ kind }) => kind === 'omitted')).toBe(true);
  });

  it('is the same for a day whatever window is asked for', () => {
    fc.assert(
      fc.property(anyRecurrence, anyDay, fc.nat(120), fc.nat(120), (recurrence, from, a, b) => {
        const planned = schedule(recurrence);
        const parts = [
          ...planDays(planned, calendar, from, from + a),
          ...planDays(planned, calendar, from + a + 1, from + a + b + 1),
        ];
        expect(parts).toEqual(planDays(planned, calendar, from, from + a + b + 1));
      }),
    );
  });

  it('never works twice on one day', () => {
    fc.assert(
      fc.property(anyRecurrence, anyDay, (recurrence, from) => {
        const days = planDays(schedule(recurrence), calendar, from, from + 400)
          .filter(isDated)
          .map(({ on }) => on);
        expect(new Set(days).size).toBe(days.length);
      }),
    );
  });
});

describe('the horizon', () => {
  it('owes what appears within it, however far its day lies', () => {
    const planned: PlannedSchedule = {
      ...schedule({ rules: [{ kind: 'weeks', every: 1, on: [2] }] }),
      timing: { ...ON_TIME, appears: { amount: -14, unit: 'day' } },
    };
    const owed = occurrencesWithinHorizon(planned, calendar, {
      from: dayOfIso('2026-11-24'),
      upTo: dayOfIso('2026-12-01'),
    });
    expect(owed.map(({ on }) => isoOfDay(on))).toEqual(['2026-11-24', '2026-12-01', '2026-12-08', '2026-12-15']);
  });

  it('misses none when it is asked day after day', () => {
    fc.assert(
      fc.property(
        anyRecurrence,
        anyDay,
        fc.integer({ min: -30, max: 0 }),
        fc.constantFrom('day', 'workingDay'),
        (recurrence, start, amount, unit) => {
          const planned: PlannedSchedule = {
            ...schedule(recurrence),
            timing: { ...ON_TIME, appears: { amount, unit: unit as 'day' | 'workingDay' } },
          };
          const made = new Set<number>();
          for (let day = start; day < start + 40; day++) {
            for (const { nominal } of occurrencesWithinHorizon(planned, calendar, {
              from: Math.max(start, day - 1),
              upTo: day + 10,
            }))
              made.add(nominal);
          }
          const wanted = planDays(planned, calendar, start, start + 49)
            .filter(isDated)
            .filter(({ appears, isForeseen }) => appears <= start + 49 && !isForeseen);
          for (const { nominal } of wanted) expect(made.has(nominal)).toBe(true);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('the outlook', () => {
  const today = dayOfIso('2026-11-24');

  it('counts a year and its hours, and shows the months from this one', () => {
    const seen = outlook(payroll, calendar, today, 90);
    expect(seen).toMatchObject({ timesAYear: 24, minutesAYear: 24 * 90 });
    expect(seen.coming).toHaveLength(24);
    const year = planYear(payroll, calendar, monthIndexOf(today));
    expect(year).toMatchObject({ from: dayOfIso('2026-11-01'), to: dayOfIso('2027-10-31') });
    expect(year.occurrences).toHaveLength(24);
    expect(seen.next[0]).toMatchObject({ on: dayOfIso('2026-11-30') });
  });

  it('finds the next dates of a rare rule', () => {
    const leap = schedule({ rules: [{ kind: 'years', every: 1, months: [2], on: dates(29), missing: 'omit' }] });
    const seen = outlook(leap, calendar, today, 60);
    expect(seen.timesAYear).toBe(0);
    expect(isoOfDay(seen.next.find(isDated)?.on ?? 0)).toBe('2028-02-29');
  });

  it('remarks on what a careful reader would', () => {
    const say = (planned: PlannedSchedule) =>
      remarks(planned, outlook(planned, calendar, today, 60), { calendar, today }).map(({ text }) => text);
    expect(say(payroll)).toEqual(['2 of the 24 are moved off a day off: Sat 15 May 2027 and Sun 15 Aug 2027.']);
    expect(say(schedule({ rules: [{ kind: 'weeks', every: 4, on: [2] }] }))).toEqual([
      'Every four weeks is 13 times a year; once a month would be 12.',
    ]);
    expect(
      say(schedule({ rules: [{ kind: 'months', every: 1, months: [], on: dates(31), missing: 'omit' }] }))[0],
    ).toBe('The 31st is missing in 5 of 12 months; those are left out.');
    expect(say(schedule({ rules: [{ kind: 'weeks', every: 1, on: [5] }] }))[0]).toBe(
      '3 dates in the coming year land on a day off: Fri 25 Dec (holiday), Fri 1 Jan 2027 (holiday) and Fri 26 Mar 2027 (holiday).',
    );
    expect(
      say(schedule({ rules: [{ kind: 'weeks', every: 1, on: [1] }], end: { kind: 'on', date: '2026-10-30' } }))[0],
    ).toBe('It has ended: its last day was Fri 30 Oct.');
    const back = {
      ...payroll,
      timing: { ...ON_TIME, appears: ON_THE_DAY, starts: { amount: -2, unit: 'day' } as const },
    };
    expect(say(back)[0]).toBe('It appears later than it starts: people would see it when they should have begun.');
  });
});
