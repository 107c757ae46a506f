import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type DayOfCalls, dayOfCalls, type HourOfCalls, hoursCompared, streaksOf } from './figures.ts';

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
