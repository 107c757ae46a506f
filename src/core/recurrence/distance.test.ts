import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { type WorkingCalendar, workingCalendar } from '../calendar/working-calendar.ts';
import { type CivilDay, type Weekday, weekdayOf } from '../civil-date/civil-day.ts';
import { shiftOf } from './distance.ts';
import { anyDay, anyDistance } from './generated.ts';
import { occurrencesBetween } from './occurrences.ts';
import { parsePhrase } from './phrase/reader.ts';
import type { Distance } from './rule.ts';

const anyCalendar = fc
  .record({
    weekdays: fc.uniqueArray(
      fc.integer({ min: 1, max: 7 }).map((n) => n as Weekday),
      { minLength: 1, maxLength: 7 },
    ),
    holidays: fc.uniqueArray(fc.integer({ min: 18_800, max: 23_600 }), { maxLength: 60 }),
  })
  .map(({ weekdays, holidays }) => workingCalendar(weekdays, new Map(holidays.map((day) => [day, 'Closed']))));

/** The same, one day after another. */
function walked(place: CivilDay, { amount, of, way }: Distance, calendar: WorkingCalendar): CivilDay {
  const step = way === 'before' || way === 'onOrBefore' ? -1 : 1;
  const counts = (day: CivilDay) =>
    of === 'day' || (of === 'workingDay' ? calendar.isWorkingDay(day) : weekdayOf(day) === of);
  let day = way === 'before' || way === 'after' ? place + step : place;
  for (let left = amount; ; day += step) if (counts(day) && --left === 0) return day;
}

describe('a distance', () => {
  it('is as far as walking day by day', () => {
    fc.assert(
      fc.property(anyDay, anyDistance, anyCalendar, (place, distance, calendar) => {
        expect(shiftOf(distance, calendar).from(place)).toBe(walked(place, distance, calendar));
      }),
    );
  });

  it('keeps the order of places, and knows between which of them a day can come from', () => {
    fc.assert(
      fc.property(anyDay, anyDay, anyDistance, anyCalendar, (place, day, distance, calendar) => {
        const shift = shiftOf(distance, calendar);
        expect(shift.from(place + 1)).toBeGreaterThanOrEqual(shift.from(place));
        expect(shift.from(shift.earliest(day) - 1)).toBeLessThan(day);
        expect(shift.from(shift.latest(day) + 1)).toBeGreaterThan(day);
      }),
    );
  });
});

/** Holidays: Friday and Monday at Christmas, Friday at New Year, Friday and Monday at Easter. */
const calendar = makeCalendar({
  workingWeekdays: [1, 2, 3, 4, 5],
  holidays: ['2026-12-25', '2026-12-28', '2027-01-01', '2027-03-26', '2027-03-29'],
});

describe('dates that are counted from others, worked out by hand', () => {
  it.each([
    ['3 working days before month end', '2026-12-24 2027-01-27 2027-02-24 2027-03-24'],
    ['first working day on or after the 25th', '2026-12-29 2027-01-25 2027-02-25 2027-03-25'],
    ['Friday before the 25th', '2026-12-18 2027-01-22 2027-02-19 2027-03-19'],
    ['Friday on or before the 25th', '2026-12-25 2027-01-22 2027-02-19 2027-03-19'],
    ['10 days after quarter end', '2027-01-10 2027-04-10 2027-07-10'],
    ['5 working days before 31 January', '2027-01-25 2028-01-24'],
    ['the day after the first Monday', '2026-12-08 2027-01-05 2027-02-02'],
    ['a month and 7 days after each quarter’s end', '2027-02-07 2027-05-07 2027-08-07 2027-11-07'],
    ['Wednesday after the second Tuesday', '2026-12-09 2027-01-13 2027-02-10'],
    ['2 working days after the 1st and 15th of each month', '2026-12-03 2026-12-17 2027-01-05 2027-01-19'],
    ['last working day before the 1st', '2026-11-30 2026-12-31 2027-01-29'],
    ['a fortnight before 5 April', '2027-03-22 2028-03-22'],
    ['30th working day of the quarter', '2027-02-12 2027-05-12'],
    ['5th Friday of every quarter', '2027-01-29 2027-04-30'],
    ['tenth Monday of the year', '2027-03-08 2028-03-06'],
    ['the Thursday before the last Friday', '2026-12-24 2027-01-28'],
    ['3 days before the last day of Feb', '2027-02-25 2028-02-26'],
    ['second Monday on or after the 13th', '2026-12-21 2027-01-25'],
    ['yearly, 90 days before 31 December', '2027-10-02 2028-10-02'],
    ['every 2 months, the day before the 1st', '2026-12-31 2027-02-28 2027-04-30'],
    ['third working day after the last working day of the quarter', '2027-01-06 2027-04-05'],
  ])('%s: %s', (phrase, dates) => {
    const expected = dates.split(' ');
    const recurrence = parsePhrase(phrase, { start: '2026-11-28' });
    expect(occurrencesBetween(recurrence, '2026-11-28', '2029-12-31', calendar).slice(0, expected.length)).toEqual(
      expected,
    );
  });

  it('come from a place before the start too, and never before it themselves', () => {
    const after = parsePhrase('10 days after month end', { start: '2026-12-03' });
    expect(occurrencesBetween(after, '2026-11-01', '2027-01-31')).toEqual(['2026-12-10', '2027-01-10']);
    const before = parsePhrase('10 days before month end', { start: '2026-12-22' });
    expect(occurrencesBetween(before, '2026-12-01', '2027-01-31')).toEqual(['2027-01-21']);
  });
});
