import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { yearMonthDay } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { nextLettingGo, RETENTION_GRACE_DAYS } from './retention.ts';

const next = (years: number, since: string, done: string | null, today: string) => {
  const { on, before } = nextLettingGo(
    { years, since: dayOfIso(since) },
    done === null ? null : dayOfIso(done),
    dayOfIso(today),
  );
  return [isoOfDay(on), isoOfDay(before)];
};

describe('finished work that is not kept any longer', () => {
  it.each([
    ['on the first of the next month', 3, '2026-11-10', '2023-11-01', '2026-11-24', ['2026-12-01', '2023-12-01']],
    ['a week after it was set, at least', 3, '2026-11-25', null, '2026-11-25', ['2027-01-01', '2024-01-01']],
    ['that very day, a week to the day after', 3, '2026-11-24', null, '2026-11-24', ['2026-12-01', '2023-12-01']],
    ['on the first itself', 3, '2026-06-01', '2023-11-01', '2026-12-01', ['2026-12-01', '2023-12-01']],
    ['today, where the first was missed', 3, '2026-06-01', '2023-10-01', '2026-11-24', ['2026-11-24', '2023-11-01']],
    ['once more is kept, when that is over', 5, '2026-06-01', '2023-11-01', '2026-11-24', ['2028-12-01', '2023-12-01']],
    ['in a leap year', 1, '2027-06-01', '2027-02-01', '2028-02-20', ['2028-03-01', '2027-03-01']],
  ] as const)('goes %s', (_, years, since, done, today, expected) => {
    expect(next(years, since, done, today)).toEqual(expected);
  });

  it('goes by whole months, never within the grace, never what is younger, each once', () => {
    const day = fc.integer({ min: dayOfIso('2000-01-01'), max: dayOfIso('2060-12-31') });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 30 }), day, fc.nat(4000), (years, since, later) => {
        let today = since + later;
        let done: number | null = null;
        for (let n = 0; n < 4; n++) {
          const { on, before } = nextLettingGo({ years, since }, done, today);
          expect(on).toBeGreaterThanOrEqual(Math.max(today, since + RETENTION_GRACE_DAYS));
          expect(yearMonthDay(before).day).toBe(1);
          const [from, to] = [yearMonthDay(before), yearMonthDay(on)];
          expect(to.year * 12 + to.month - from.year * 12 - from.month).toBe(12 * years);
          if (done !== null) expect(before).toBeGreaterThan(done);
          done = before;
          today = on;
        }
      }),
    );
  });
});
