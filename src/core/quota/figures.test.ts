import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type DayOfCalls,
  dayOfCalls,
  type HourOfCalls,
  hoursCompared,
  PROMISES_KEPT,
  promiseKept,
  streaksOf,
} from './figures.ts';

const day = fc.constantFrom<DayOfCalls>('whole', 'part', 'none', 'noList');

describe('whole lists in a row', () => {
  it('are ended by a list that was not whole, and by no day without one', () => {
    expect(streaksOf(['whole', 'whole', 'noList', 'whole', 'part', 'whole', 'noList'])).toEqual({
      ...{ lists: 5, whole: 4, inRow: 1, best: 3 },
    });
    expect(streaksOf([])).toEqual({ lists: 0, whole: 0, inRow: 0, best: 0 });
  });

  it('never count more than there are, and days without a list change nothing', () => {
    fc.assert(
      fc.property(fc.array(day, { maxLength: 60 }), (days) => {
        const { lists, whole, inRow, best } = streaksOf(days);
        expect(inRow).toBeLessThanOrEqual(best);
        expect(best).toBeLessThanOrEqual(whole);
        expect(whole).toBeLessThanOrEqual(lists);
        expect(streaksOf(days.filter((one) => one !== 'noList'))).toEqual({ lists, whole, inRow, best });
      }),
    );
  });

  it('tells a day by what was listed and rung', () => {
    expect([
      dayOfCalls({ listed: 0, rung: 0 }),
      dayOfCalls({ listed: 3, rung: 3 }),
      dayOfCalls({ listed: 3, rung: 2 }),
      dayOfCalls({ listed: 3, rung: 0 }),
    ]).toEqual(['noList', 'whole', 'part', 'none']);
  });
});

describe('the best and the worst hour', () => {
  const hour = (at: number, rung: number, reached: number): HourOfCalls => ({ hour: at, rung, reached });

  it('are those in which most and fewest of a hundred are reached, of hours with enough calls', () => {
    const compared = hoursCompared([hour(9, 100, 31), hour(16, 40, 23), hour(12, 60, 30), hour(18, 3, 3)]);
    expect([compared?.best.hour, compared?.worst.hour]).toEqual([16, 9]);
  });

  it('are not told where nothing differs, or too few were rung', () => {
    expect(hoursCompared([hour(9, 40, 20), hour(10, 20, 10)])).toBeNull();
    expect(hoursCompared([hour(9, 19, 0), hour(10, 19, 19)])).toBeNull();
    expect(hoursCompared([])).toBeNull();
  });
});

describe('a promised call', () => {
  const at = (minutes: number | null) => ({ day: 100, minutes });
  const on = (day: number, minutes: number) => ({ day, minutes });

  it.each([
    ['before its day', at(600), on(99, 1439), 'sooner'],
    ['before its time', at(600), on(100, 500), 'kept'],
    ['within the hour', at(600), on(100, 660), 'kept'],
    ['after it', at(600), on(100, 661), 'later'],
    ['on its day, where no time was said', at(null), on(100, 1439), 'kept'],
    ['late in the evening, before midnight', at(1430), on(100, 1439), 'kept'],
    ['on the day after', at(600), on(101, 0), 'late'],
  ] as const)('is rung %s', (_, promised, rung, kept) => {
    expect(promiseKept(promised, rung, on(200, 0))).toBe(kept);
  });

  it('that nobody has made is to come until its hour is over, or its day where no time was said; then it is owed', () => {
    expect(promiseKept(at(600), null, on(100, 660))).toBe('toCome');
    expect(promiseKept(at(600), null, on(100, 661))).toBe('owed');
    expect(promiseKept(at(null), null, on(100, 1439))).toBe('toCome');
    expect(promiseKept(at(null), null, on(101, 0))).toBe('owed');
  });

  it('is kept in one way, and once owed stays so until somebody rings', () => {
    const minutes = fc.integer({ min: 0, max: 1439 });
    const day = fc.integer({ min: 95, max: 105 });
    const moment = fc.record({ day, minutes });
    fc.assert(
      fc.property(fc.option(minutes), fc.option(moment), moment, minutes, (time, rung, now, later) => {
        const kept = promiseKept(at(time), rung, now);
        expect(PROMISES_KEPT).toContain(kept);
        expect(kept === 'owed' || kept === 'toCome').toBe(rung === null);
        if (kept === 'owed') expect(promiseKept(at(time), null, on(now.day + 1, later))).toBe('owed');
      }),
    );
  });
});
