import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Weekday } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import {
  daysOfOtherHours,
  faultOfDay,
  faultOfPattern,
  minutesOfShift,
  overlaps,
  type PatternShift,
  patternOfWeeks,
  patternOn,
  type Shift,
  weeksOfShifts,
  windowOfShift,
} from './shifts.ts';
import { minutesInWeeks } from './week-hours.ts';

const shift = (from: string, to: string, breakMinutes = 0, role: string | null = null): Shift => ({
  ...{ from, to, breakMinutes, role },
});
const on = (weekdays: Weekday[], of: Shift, week = 0): PatternShift => ({ ...of, week, weekdays });

const time = fc
  .integer({ min: 0, max: 1439 })
  .map((at) => `${String(Math.floor(at / 60)).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`);
const anyShift = fc.record<Shift>({
  from: time,
  to: time,
  breakMinutes: fc.integer({ min: 0, max: 90 }),
  role: fc.constant(null),
});
const weekdays = fc.subarray<Weekday>([1, 2, 3, 4, 5, 6, 7], { minLength: 1 });
const anyPattern = fc.array(
  fc.tuple(anyShift, weekdays, fc.integer({ min: 0, max: 1 })).map(([one, days, week]) => on(days, one, week)),
  { maxLength: 4 },
);

describe('a shift', () => {
  it('may go past midnight, and is as long as it lasts without its break', () => {
    expect(windowOfShift(shift('07:00', '15:00'))).toEqual({ from: 420, to: 900 });
    expect(windowOfShift(shift('22:00', '06:00'))).toEqual({ from: 1320, to: 1800 });
    expect(windowOfShift(shift('16:00', '00:00'))).toEqual({ from: 960, to: 1440 });
    expect(minutesOfShift(shift('22:00', '06:00', 30))).toBe(450);
    expect(() => windowOfShift(shift('7', '15:00'))).toThrow(RangeError);
  });

  it('has a moment in common with another, or not', () => {
    const [early, late, point] = [
      { from: 420, to: 900 },
      { from: 900, to: 1320 },
      { from: 900, to: 900 },
    ];
    expect(overlaps(early, late)).toBe(false);
    expect(overlaps(early, { from: 899, to: 1000 })).toBe(true);
    expect([overlaps(point, late), overlaps(point, early), overlaps(point, point)]).toEqual([true, false, true]);
  });
});

describe('a pattern of shifts', () => {
  it('comes to the minutes of a week, each day’s those of its shifts', () => {
    fc.assert(
      fc.property(
        anyPattern,
        fc.integer({ min: 1, max: 2 }),
        fc.integer({ min: 0, max: 40_000 }),
        (pattern, count, day) => {
          const weeks = weeksOfShifts(pattern, count);
          const from = dayOfIso('2026-11-24');
          const sum = patternOn(pattern, count, from, day).reduce((all, one) => all + minutesOfShift(one), 0);
          expect(minutesInWeeks(weeks, from, day)).toBe(sum);
        },
      ),
    );
  });

  it('has no two at once, past midnight and from week to week too', () => {
    const early = on([1, 2, 3], shift('07:00', '15:00'));
    expect(faultOfPattern([early, on([3, 4], shift('14:00', '18:00'))], 1)).toEqual({ at: 1, because: 'two at once' });
    expect(faultOfPattern([early, on([3, 4], shift('15:00', '18:00'))], 1)).toBeNull();
    // The night of Sunday ends on Monday: of the same week where it comes again, of the other where two take turns.
    const night = on([7], shift('22:00', '08:00'));
    expect(faultOfPattern([early, night], 1)).toEqual({ at: 1, because: 'two at once' });
    expect(faultOfPattern([early, night], 2)).toBeNull();
    expect(faultOfPattern([early, { ...night, week: 1 }], 2)).toEqual({ at: 1, because: 'two at once' });
    expect(faultOfPattern([on([1, 2], shift('08:00', '09:00', 60))], 1)).toEqual({ at: 0, because: 'break' });
    // Around the clock, every day.
    expect(faultOfPattern([on([1, 2, 3, 4, 5, 6, 7], shift('06:00', '06:00'))], 1)).toBeNull();
  });

  it('that has no fault gives nobody two shifts at one minute', () => {
    fc.assert(
      fc.property(anyPattern, fc.integer({ min: 1, max: 2 }), (pattern, count) => {
        const those = pattern.filter(({ week }) => week < count);
        if (faultOfPattern(those, count) !== null) return;
        const from = dayOfIso('2026-11-23');
        const all = Array.from({ length: 7 * count + 1 }, (_, i) =>
          patternOn(those, count, from, from + i).map((one) => {
            const window = windowOfShift(one);
            return { from: window.from + i * 1440, to: window.to + i * 1440 };
          }),
        )
          .flat()
          .sort((a, b) => a.from - b.from);
        for (let i = 1; i < all.length; i++) expect(all[i]?.from).toBeGreaterThanOrEqual(all[i - 1]?.to as number);
      }),
    );
  });

  it('is first written from hours without times as what comes to the same', () => {
    const weeks = [
      [450, 450, 450, 0, 240, 0, 0],
      [0, 0, 0, 0, 0, 600, 1440],
    ];
    const pattern = patternOfWeeks(weeks);
    expect(pattern.map(({ week, weekdays: days, from, to }) => [week, days, from, to])).toEqual([
      [0, [1, 2, 3], '09:00', '16:30'],
      [0, [5], '09:00', '13:00'],
      [1, [6], '09:00', '19:00'],
      [1, [7], '09:00', '09:00'],
    ]);
    expect(weeksOfShifts(pattern, 2)).toEqual(weeks);
  });
});

it('says of one day which shift can’t be', () => {
  expect(faultOfDay([shift('07:00', '11:00'), shift('10:00', '12:00')])).toEqual({ at: 1, because: 'two at once' });
  expect(faultOfDay([shift('07:00', '11:00'), shift('11:00', '12:00')])).toBeNull();
});

it('says on which days to come the own hours are others', () => {
  const day = (on: string, ...shifts: Shift[]) => ({ on, shifts });
  const before = [day('2026-11-20'), day('2026-11-25'), day('2026-11-26', shift('07:00', '11:00')), day('2026-11-27')];
  const now = [
    day('2026-11-26', shift('07:00', '12:00')),
    day('2026-11-27'),
    day('2026-11-30', shift('09:00', '17:00')),
  ];
  const found = daysOfOtherHours(before, now, dayOfIso('2026-11-24'));
  expect(found.sort().map(isoOfDay)).toEqual(['2026-11-25', '2026-11-26', '2026-11-30']);
});
