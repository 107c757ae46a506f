import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { CONVENTIONS, type Convention } from './business-day.ts';
import { addWorkingDays, makeCalendar, rollDate } from './iso-calendar.ts';
import { NoWorkingDayError, shiftWorkingDays, workingDaysBetween } from './working-calendar.ts';

/** Christmas 2026 falls on a Friday; Monday 28 December stands in for Boxing Day. */
const calendar = makeCalendar({
  workingWeekdays: [1, 2, 3, 4, 5],
  holidays: ['2026-12-25', '2026-12-28', '2027-01-01'],
});

describe('a date on a day off', () => {
  it.each<[string, Convention, string | null]>([
    ['2026-12-26', 'none', '2026-12-26'],
    ['2026-12-26', 'following', '2026-12-29'],
    ['2026-12-26', 'preceding', '2026-12-24'],
    ['2026-12-26', 'nearest', '2026-12-24'],
    ['2026-12-27', 'nearest', '2026-12-29'],
    ['2026-12-26', 'skip', null],
    ['2027-01-01', 'preceding', '2026-12-31'],
    ['2027-01-01', 'modifiedPreceding', '2027-01-04'],
    ['2027-01-31', 'following', '2027-02-01'],
    ['2027-01-31', 'modifiedFollowing', '2027-01-29'],
    ['2027-01-30', 'modifiedFollowing', '2027-01-29'],
    ['2027-05-15', 'modifiedFollowing', '2027-05-17'],
  ])('%s under %s is worked on %s', (date, convention, expected) => {
    expect(rollDate(date, convention, calendar)).toBe(expected);
  });

  it('breaks a tie between two days off towards the later', () => {
    const one = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: ['2026-11-25'] });
    expect(rollDate('2026-11-25', 'nearest', one)).toBe('2026-11-26');
  });

  it('lands on a working day, and stays there when asked again', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20_000, max: 22_000 }), fc.constantFrom(...CONVENTIONS), (day, convention) => {
        const date = new Date(day * 86_400_000).toISOString().slice(0, 10);
        const rolled = rollDate(date, convention, calendar);
        if (rolled === null) {
          expect(convention).toBe('skip');
          return;
        }
        if (convention !== 'none') expect(calendar.isWorkingDay(dayOfIso(rolled))).toBe(true);
        expect(rollDate(rolled, convention, calendar)).toBe(rolled);
      }),
    );
  });
});

describe('counting in working days', () => {
  it('steps strictly after or before, over weekends and holidays', () => {
    expect(addWorkingDays('2026-12-24', 1, calendar)).toBe('2026-12-29');
    expect(addWorkingDays('2026-12-29', -1, calendar)).toBe('2026-12-24');
    expect(addWorkingDays('2026-11-27', 4, calendar)).toBe('2026-12-03');
  });

  it('takes the day itself for none, or the next working day', () => {
    expect(addWorkingDays('2026-11-24', 0, calendar)).toBe('2026-11-24');
    expect(addWorkingDays('2026-12-25', 0, calendar)).toBe('2026-12-29');
  });

  it('goes there and back from a working day', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20_000, max: 22_000 }), fc.integer({ min: -40, max: 40 }), (day, n) => {
        const from = addWorkingDays(new Date(day * 86_400_000).toISOString().slice(0, 10), 0, calendar);
        expect(addWorkingDays(addWorkingDays(from, n, calendar), -n, calendar)).toBe(from);
        expect(workingDaysBetween(dayOfIso(from), dayOfIso(addWorkingDays(from, n, calendar)), calendar)).toBe(
          n === 0 ? 0 : n,
        );
      }),
    );
  });
});

describe('the numbers of working days', () => {
  const anyCalendar = fc
    .record({
      weekdays: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1, maxLength: 7 }),
      holidays: fc.uniqueArray(fc.integer({ min: 20_000, max: 20_400 }), { maxLength: 60 }),
    })
    .map(({ weekdays, holidays }) =>
      makeCalendar({
        workingWeekdays: weekdays,
        holidays: holidays.map((day) => new Date(day * 86_400_000).toISOString().slice(0, 10)),
      }),
    );
  const anyDay = fc.integer({ min: 19_900, max: 20_500 });

  it('go up by one with each working day, and only then', () => {
    fc.assert(
      fc.property(anyCalendar, anyDay, (any, day) => {
        expect(any.numberOf(day) - any.numberOf(day - 1)).toBe(any.isWorkingDay(day) ? 1 : 0);
      }),
    );
  });

  it('lead back to their days, however many holidays lie between', () => {
    fc.assert(
      fc.property(anyCalendar, anyDay, (any, day) => {
        const last = any.dayNumbered(any.numberOf(day));
        expect(any.isWorkingDay(last)).toBe(true);
        expect(last).toBeLessThanOrEqual(day);
        for (let between = last + 1; between <= day; between++) expect(any.isWorkingDay(between)).toBe(false);
      }),
    );
  });

  it('count far ahead what walking would', () => {
    fc.assert(
      fc.property(anyCalendar, anyDay, fc.integer({ min: -80, max: 80 }), (any, day, n) => {
        let walked = day;
        for (let left = Math.abs(n); left > 0; ) {
          walked += Math.sign(n);
          if (any.isWorkingDay(walked)) left--;
        }
        if (n === 0) while (!any.isWorkingDay(walked)) walked++;
        expect(shiftWorkingDays(day, n, any)).toBe(walked);
      }),
    );
  });
});

describe('a calendar', () => {
  it('needs a weekday to work on', () => {
    expect(() => makeCalendar({ workingWeekdays: [], holidays: [] })).toThrow('at least one weekday');
    expect(() => makeCalendar({ workingWeekdays: [8], holidays: [] })).toThrow('8 is not a weekday');
  });

  it('says so when it has no working day for more than a year', () => {
    const start = dayOfIso('2027-01-01');
    const closed = makeCalendar({
      workingWeekdays: [1],
      holidays: Array.from({ length: 900 }, (_, i) =>
        new Date((start - 450 + i) * 86_400_000).toISOString().slice(0, 10),
      ),
    });
    expect(() => rollDate('2027-01-01', 'following', closed)).toThrow(NoWorkingDayError);
  });

  it('names its holidays', () => {
    const named = makeCalendar({
      workingWeekdays: [1, 2, 3, 4, 5],
      holidays: [{ date: '2026-12-25', name: 'Christmas Day' }],
    });
    expect(named.holidayName(dayOfIso('2026-12-25'))).toBe('Christmas Day');
    expect(named.holidayName(dayOfIso('2026-12-24'))).toBeUndefined();
  });
});
