import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { civilDay, daysInMonth, weekdayOf, yearMonthDay } from '../civil-date/civil-day.ts';
import { isoOfDay } from '../civil-date/iso-date.ts';
import { anyPoint } from './generated.ts';
import { NO_DAY, pointFinder } from './month-point.ts';
import { MISSING_DAY_POLICIES, type MissingDay, type MonthPoint } from './rule.ts';

const calendar = makeCalendar({
  workingWeekdays: [1, 2, 3, 4, 5],
  holidays: ['2026-12-25', '2026-12-28', '2027-01-01'],
});
const month = (year: number, of: number) => ({ first: civilDay(year, of, 1), length: daysInMonth(year, of) });
const dayOfPoint = (point: MonthPoint, year: number, of: number, missing: MissingDay) => {
  const { first, length } = month(year, of);
  const day = pointFinder(point, missing, calendar)(first, first + length);
  return day === NO_DAY ? null : day;
};
const at = (point: MonthPoint, year: number, of: number, missing: MissingDay = 'last') => {
  const day = dayOfPoint(point, year, of, missing);
  return day === null ? null : isoOfDay(day);
};

describe('a place in a month', () => {
  it.each<[MonthPoint, number, number, MissingDay, string | null]>([
    [{ kind: 'date', day: 1 }, 2026, 11, 'last', '2026-11-01'],
    [{ kind: 'date', day: 30 }, 2027, 2, 'last', '2027-02-28'],
    [{ kind: 'date', day: 30 }, 2027, 2, 'next', '2027-03-01'],
    [{ kind: 'date', day: 30 }, 2027, 2, 'omit', null],
    [{ kind: 'date', day: 31 }, 2026, 12, 'next', '2026-12-31'],
    [{ kind: 'date', day: 31 }, 2026, 11, 'next', '2026-12-01'],
    [{ kind: 'date', day: -1 }, 2028, 2, 'last', '2028-02-29'],
    [{ kind: 'date', day: -30 }, 2027, 2, 'last', null],
    [{ kind: 'date', day: -30 }, 2026, 11, 'last', '2026-11-01'],
    [{ kind: 'weekday', nth: 1, weekday: 7 }, 2026, 11, 'last', '2026-11-01'],
    [{ kind: 'weekday', nth: 5, weekday: 7 }, 2026, 11, 'last', '2026-11-29'],
    [{ kind: 'weekday', nth: 5, weekday: 2 }, 2026, 11, 'last', null],
    [{ kind: 'weekday', nth: -1, weekday: 1 }, 2026, 11, 'last', '2026-11-30'],
    [{ kind: 'weekday', nth: -5, weekday: 1 }, 2026, 11, 'last', '2026-11-02'],
    [{ kind: 'weekday', nth: -5, weekday: 2 }, 2026, 11, 'last', null],
    [{ kind: 'anyWeekday', nth: -1, weekdays: [1, 2, 3, 4, 5] }, 2027, 1, 'last', '2027-01-29'],
    [{ kind: 'anyWeekday', nth: 1, weekdays: [6, 7] }, 2026, 11, 'last', '2026-11-01'],
    [{ kind: 'anyWeekday', nth: 2, weekdays: [2, 4] }, 2026, 11, 'last', '2026-11-05'],
    [{ kind: 'anyWeekday', nth: 11, weekdays: [2, 4] }, 2026, 11, 'last', null],
    [{ kind: 'workingDay', nth: 1 }, 2027, 1, 'last', '2027-01-04'],
    [{ kind: 'workingDay', nth: -1 }, 2026, 12, 'last', '2026-12-31'],
    [{ kind: 'workingDay', nth: -4 }, 2026, 12, 'last', '2026-12-24'],
    [{ kind: 'workingDay', nth: 21 }, 2026, 12, 'last', '2026-12-31'],
    [{ kind: 'workingDay', nth: 22 }, 2026, 12, 'last', null],
  ])('%j of %d-%d with %s is %s', (point, year, of, missing, expected) => {
    expect(at(point, year, of, missing)).toBe(expected);
  });

  it('lies in its month, but for the first of the next where that is wanted', () => {
    fc.assert(
      fc.property(
        anyPoint,
        fc.integer({ min: 1990, max: 2060 }),
        fc.integer({ min: 1, max: 12 }),
        fc.constantFrom(...MISSING_DAY_POLICIES),
        (point, year, of, missing) => {
          const day = dayOfPoint(point, year, of, missing);
          if (day === null) return;
          const { first, length } = month(year, of);
          const isNext = day === first + length;
          expect(
            day >= first && (day < first + length || (isNext && missing === 'next' && point.kind === 'date')),
          ).toBe(true);
          if (point.kind === 'weekday') expect(weekdayOf(day)).toBe(point.weekday);
          if (point.kind === 'anyWeekday') expect(point.weekdays).toContain(weekdayOf(day));
          if (point.kind === 'workingDay') expect(calendar.isWorkingDay(day)).toBe(true);
          if (point.kind === 'date' && point.day > 0 && point.day <= length)
            expect(yearMonthDay(day).day).toBe(point.day);
        },
      ),
    );
  });

  it('counted from either end finds the same days', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1990, max: 2060 }),
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 1, max: 31 }),
        (year, of, day) => {
          const { length } = month(year, of);
          if (day > length) return;
          expect(at({ kind: 'date', day }, year, of)).toBe(at({ kind: 'date', day: day - length - 1 }, year, of));
        },
      ),
    );
  });
});
