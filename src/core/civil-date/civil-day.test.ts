import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { civilDay, daysInMonth, isoWeekOf, mondayOf, quarterOf, weekdayOf, yearMonthDay } from './civil-day.ts';
import { dayOfIso, isoOfDay, tryDayOfIso, tryMinutesOfTime } from './iso-date.ts';
import { monthIndex, monthIndexOf, monthOf, monthStart } from './month.ts';

const anyDay = fc.integer({ min: civilDay(1, 1, 1), max: civilDay(9999, 12, 31) });

describe('civil days', () => {
  it('count from 1970-01-01, a Thursday', () => {
    expect(civilDay(1970, 1, 1)).toBe(0);
    expect(weekdayOf(0)).toBe(4);
    expect(dayOfIso('2026-11-24')).toBe(20_781);
    expect(weekdayOf(dayOfIso('2026-11-24'))).toBe(2);
  });

  it('go to year, month and day and back', () => {
    fc.assert(
      fc.property(anyDay, (day) => {
        const { year, month, day: date } = yearMonthDay(day);
        expect(civilDay(year, month, date)).toBe(day);
        expect(dayOfIso(isoOfDay(day))).toBe(day);
      }),
    );
  });

  it('agree with the JavaScript calendar', () => {
    fc.assert(
      fc.property(anyDay, (day) => {
        const date = new Date(day * 86_400_000);
        expect(isoOfDay(day)).toBe(date.toISOString().slice(0, 10));
        expect(weekdayOf(day) % 7).toBe(date.getUTCDay());
      }),
    );
  });

  it('know leap years by the Gregorian rule', () => {
    expect([1900, 2000, 2024, 2026, 2100].map((year) => daysInMonth(year, 2))).toEqual([28, 29, 29, 28, 28]);
  });

  it('number weeks by ISO 8601, across the ends of years', () => {
    expect(isoWeekOf(dayOfIso('2026-12-31'))).toEqual({ year: 2026, week: 53 });
    expect(isoWeekOf(dayOfIso('2027-01-03'))).toEqual({ year: 2026, week: 53 });
    expect(isoWeekOf(dayOfIso('2027-01-04'))).toEqual({ year: 2027, week: 1 });
    expect(isoWeekOf(dayOfIso('2024-12-30'))).toEqual({ year: 2025, week: 1 });
  });

  it('begin a week on Monday', () => {
    fc.assert(
      fc.property(anyDay, (day) => {
        expect(weekdayOf(mondayOf(day))).toBe(1);
        expect(day - mondayOf(day)).toBeLessThan(7);
      }),
    );
  });

  it('lie between the start of their month and the next', () => {
    fc.assert(
      fc.property(anyDay, (day) => {
        const { year, month, day: date } = yearMonthDay(day);
        expect(monthIndexOf(day)).toBe(monthIndex(year, month));
        expect(monthStart(monthIndexOf(day))).toBe(day - date + 1);
        expect(monthStart(monthIndexOf(day) + 1)).toBe(day - date + 1 + daysInMonth(year, month));
      }),
    );
  });

  it('give months as one integer and quarters', () => {
    expect(monthOf(monthIndexOf(dayOfIso('2027-02-14')))).toEqual({ year: 2027, month: 2 });
    expect(['2026-01-01', '2026-03-31', '2026-04-01', '2026-12-31'].map((date) => quarterOf(dayOfIso(date)))).toEqual([
      1, 1, 2, 4,
    ]);
  });
});

describe('ISO dates', () => {
  it.each([
    '2026-02-29',
    '2026-13-01',
    '2026-00-10',
    '2026-04-31',
    '26-01-01',
    '2026-1-1',
    '0000-01-01',
    '2026-11-24T08:00',
    '',
  ])('refuse %j', (text) => {
    expect(tryDayOfIso(text)).toBeNull();
    expect(() => dayOfIso(text)).toThrow(`“${text}” is not a date`);
  });

  it('read times of day from 00:00 to 23:59', () => {
    expect(tryMinutesOfTime('00:00')).toBe(0);
    expect(tryMinutesOfTime('23:59')).toBe(1439);
    expect(['24:00', '7:30', '12:60', 'noon'].map(tryMinutesOfTime)).toEqual([null, null, null, null]);
  });
});
