import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { leftByLeave, minutesByHours, type Worker } from '../assignment/availability.ts';
import { type CivilDay, weekdayOf } from '../civil-date/civil-day.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { periodAround, QUOTA_PERIODS, type QuotaAmount, spreadCalls } from './spread.ts';

const NOBODY_AWAY = { leave: [], tickets: [], deputyId: null, worksFrom: null, worksUntil: null } as const;
const worker = (id: string, week: readonly number[], rest: Partial<Worker> = {}): Worker => ({
  ...{ id, weeks: [week], weeksFrom: dayOfIso('2026-01-05'), shifts: [], shiftChanges: new Map(), ...NOBODY_AWAY },
  ...rest,
});
const day = dayOfIso;
const ALWAYS = { isHoliday: () => false, isIn: () => true };
const holidays = (...dates: string[]) => ({
  isHoliday: (on: CivilDay) => dates.map(day).includes(on),
  isIn: () => true,
});
const A_WEEK: QuotaAmount = {
  ...{ count: 55, per: 'week', share: 'hours', mostADay: 15, holidays: 'madeUp', leave: 'off' },
};
const full = worker('full', [420, 420, 420, 420, 420, 0, 0]);
const part = worker('part', [300, 300, 300, 300, 300, 0, 0]);

describe('a quota of a week', () => {
  it('falls on the days that somebody works, the same for days of as many hours, in proportion for others', () => {
    const spread = spreadCalls(A_WEEK, [full, part], ALWAYS);
    expect(spread.periodOf('full', day('2026-12-02')).days).toEqual([11, 11, 11, 11, 11, 0, 0]);
    expect(spread.periodOf('part', day('2026-12-02'))).toMatchObject({ asked: 39, days: [8, 8, 8, 8, 7, 0, 0] });
    const halfFriday = worker('full', [480, 480, 480, 480, 240, 0, 0]);
    const same = spreadCalls({ ...A_WEEK, share: 'same', mostADay: null }, [halfFriday], ALWAYS);
    expect(same.periodOf('full', day('2026-12-02')).days).toEqual([12, 12, 12, 13, 6, 0, 0].sort((a, b) => b - a));
  });

  it('is made up for on a holiday and taken off on leave, or the other way round; what does not fit is said', () => {
    const away = { ...full, leave: [{ from: day('2026-12-24'), to: day('2026-12-24') }] };
    const calendar = holidays('2026-12-25', '2026-12-28', '2027-01-01');
    const christmas = spreadCalls(A_WEEK, [away], calendar);
    expect(christmas.periodOf('full', day('2026-12-21'))).toMatchObject({ days: [14, 14, 14, 0, 0, 0, 0], off: 13 });
    expect(christmas.periodOf('full', day('2026-12-31'))).toMatchObject({ days: [0, 15, 15, 15, 0, 0, 0], beyond: 10 });
    const other = spreadCalls({ ...A_WEEK, holidays: 'off', leave: 'madeUp', mostADay: null }, [away], calendar);
    expect(other.periodOf('full', day('2026-12-21'))).toMatchObject({ days: [14, 14, 14, 0, 0, 0, 0], off: 13 });
    const gone = { ...full, leave: [{ from: day('2026-12-20'), to: day('2026-12-31') }] };
    expect(
      spreadCalls({ ...A_WEEK, leave: 'madeUp' }, [gone], ALWAYS).periodOf('full', day('2026-12-22')),
    ).toMatchObject({ days: [0, 0, 0, 0, 0, 0, 0], unplaced: 55 });
  });

  it('of half a day away has half the calls, and of one that begins on a Wednesday those from then on', () => {
    const half = { ...full, leave: [{ from: day('2026-12-01'), to: day('2026-12-01'), half: 'morning' as const }] };
    expect(spreadCalls({ ...A_WEEK, count: 50 }, [half], ALWAYS).periodOf('full', day('2026-12-01'))).toMatchObject({
      ...{ days: [10, 5, 10, 10, 10, 0, 0], off: 5 },
    });
    const begun = { ...ALWAYS, isIn: (on: CivilDay) => on >= day('2026-12-02') };
    expect(spreadCalls({ ...A_WEEK, count: 50 }, [full], begun).periodOf('full', day('2026-12-02'))).toMatchObject({
      ...{ days: [0, 0, 10, 10, 10, 0, 0], off: 0, outside: 20 },
    });
  });
});

const anyWorker = (id: string) =>
  fc
    .record({
      weeks: fc.array(fc.array(fc.constantFrom(0, 0, 240, 300, 480), { minLength: 7, maxLength: 7 }), {
        ...{ minLength: 1, maxLength: 2 },
      }),
      leave: fc.array(
        fc.record({
          start: fc.integer({ min: 0, max: 90 }),
          days: fc.integer({ min: 0, max: 9 }),
          half: fc.constantFrom(null, 'morning' as const, 'afternoon' as const),
        }),
        { maxLength: 4 },
      ),
      from: fc.option(fc.integer({ min: 0, max: 40 })),
    })
    .map(({ weeks, leave, from }) => ({
      ...worker(id, []),
      ...{ weeks, worksFrom: from === null ? null : START + from },
      leave: leave.map(({ start, days, half }) => ({
        ...{ from: START + start, to: START + start + days },
        ...(half === null ? {} : { half }),
      })),
    }));
const START = dayOfIso('2026-11-01');
const anyAmount: fc.Arbitrary<QuotaAmount> = fc.record({
  count: fc.integer({ min: 1, max: 400 }),
  per: fc.constantFrom(...QUOTA_PERIODS),
  share: fc.constantFrom('same', 'hours'),
  mostADay: fc.option(fc.integer({ min: 1, max: 40 })),
  holidays: fc.constantFrom('madeUp', 'off'),
  leave: fc.constantFrom('madeUp', 'off'),
});
const anyHolidays = fc.array(fc.integer({ min: 0, max: 90 }), { maxLength: 8 });

describe('a spread', () => {
  it('is exact over every period, even, and on no day off', () => {
    fc.assert(
      fc.property(anyAmount, anyWorker('a'), anyWorker('b'), anyHolidays, (amount, a, b, off) => {
        const calendar = { isHoliday: (on: CivilDay) => off.includes(on - START), isIn: (on: CivilDay) => on >= START };
        const spread = spreadCalls(amount, [a, b], calendar);
        for (let on = START; on < START + 92; on++) {
          const period = spread.periodOf('a', on);
          const sum = period.days.reduce((total, calls) => total + calls, 0);
          expect(sum + period.off + period.outside + period.beyond + period.unplaced).toBe(period.asked);
          expect(Math.min(...period.days, period.off, period.beyond)).toBeGreaterThanOrEqual(0);
          const calls = spread.on('a', on);
          const isOff = minutesByHours(a, on) === 0 || leftByLeave(a, on) === 0 || calendar.isHoliday(on);
          if (isOff) expect(calls).toBe(0);
          if (amount.mostADay !== null) expect(calls).toBeLessThanOrEqual(amount.mostADay);
        }
        for (const { from, to } of periods(amount, START + 45)) {
          const whole = days(from, to).filter(
            (on) =>
              minutesByHours(a, on) === 480 &&
              leftByLeave(a, on) === 1 &&
              !calendar.isHoliday(on) &&
              calendar.isIn(on) &&
              (a.worksFrom === null || a.worksFrom <= on),
          );
          const calls = whole.map((on) => spread.on('a', on));
          if (calls.length > 0) expect(Math.max(...calls) - Math.min(...calls)).toBeLessThanOrEqual(1);
        }
      }),
    );
  });

  it('of a day does not depend on what was asked before, nor on the order of people', () => {
    fc.assert(
      fc.property(anyAmount, anyWorker('a'), anyWorker('b'), fc.integer({ min: 0, max: 80 }), (amount, a, b, at) => {
        const fresh = spreadCalls(amount, [b, a], ALWAYS).on('a', START + at);
        const spread = spreadCalls(amount, [a, b], ALWAYS);
        for (const on of days(START, START + 80)) spread.on('b', on);
        expect(spread.on('a', START + at)).toBe(fresh);
      }),
    );
  });
});

const days = (from: CivilDay, to: CivilDay) => Array.from({ length: to - from + 1 }, (_, i) => from + i);
const periods = ({ per }: QuotaAmount, until: CivilDay) => {
  const all: { from: CivilDay; to: CivilDay }[] = [];
  for (let on = START; on < until; on = (all.at(-1)?.to ?? on) + 1) all.push(periodAround(per, on));
  return all;
};

describe('a period', () => {
  it('is a day, a week from Monday or a calendar month', () => {
    expect(periodAround('week', day('2026-11-29'))).toEqual({ from: day('2026-11-23'), to: day('2026-11-29') });
    expect(weekdayOf(periodAround('week', day('2027-01-03')).from)).toBe(1);
    expect(periodAround('month', day('2028-02-10'))).toEqual({ from: day('2028-02-01'), to: day('2028-02-29') });
    expect(periodAround('day', START)).toEqual({ from: START, to: START });
  });
});
