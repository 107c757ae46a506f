import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { isSummaryOwed, SUMMARY_BANDS, SUMMARY_DAYS, saySummary, usualSummary } from './summary.ts';

const wish = fc.record({
  at: fc.integer({ min: 0, max: 1439 }).map((minutes) => {
    const two = (n: number) => String(n).padStart(2, '0');
    return `${two(Math.floor(minutes / 60))}:${two(minutes % 60)}`;
  }),
  days: fc.constantFrom(...SUMMARY_DAYS),
  evenIfEmpty: fc.boolean(),
});

describe('a summary', () => {
  it('is owed from its time on, to the end of the day, on the days that are wished', () => {
    fc.assert(
      fc.property(wish, fc.integer({ min: 0, max: 1439 }), fc.boolean(), (wished, minutes, isAtWork) => {
        const owed = isSummaryOwed(wished, { minutes, isAtWork });
        const [hours = 0, rest = 0] = wished.at.split(':').map(Number);
        const isDay = wished.days === 'every' || (wished.days === 'working' && isAtWork);
        expect(owed).toBe(isDay && minutes >= hours * 60 + rest);
        // Once owed it stays so until somebody sends it.
        if (owed) expect(isSummaryOwed(wished, { minutes: 1439, isAtWork })).toBe(true);
      }),
    );
  });

  it('comes to whoever answers for all of it unless they say otherwise, and to nobody else unless they ask', () => {
    expect(usualSummary('manager').days).toBe('working');
    for (const access of ['planner', 'member', 'viewer'] as const) expect(usualSummary(access).days).toBe('none');
  });

  it('says in its first line what there is, or that there is nothing', () => {
    const day = dayOfIso('2026-11-24');
    expect(
      saySummary(
        day,
        new Map([
          ['due', 61],
          ['late', 7],
          ['away', 2],
        ]),
      ),
    ).toBe('Tue 24 Nov: 7 late, 61 due today');
    expect(saySummary(day, new Map([['late', 0]]))).toBe('Tue 24 Nov: nothing is late or due');
    // Of what somebody leaves out it is not said that there is none.
    expect(saySummary(day, new Map(), undefined, false)).toBe('Tue 24 Nov: nothing of what you chose');
    expect(new Set(SUMMARY_BANDS).size).toBe(SUMMARY_BANDS.length);
  });
});
