import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { weekdayOf } from '../civil-date/civil-day.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { readTimeOfDay } from '../worksheet/cells.ts';
import { readDate, sayDate, sayDay, sayNear } from './date-words.ts';
import {
  CLOCKS,
  columnOf,
  DATE_ORDERS,
  sayTime,
  sayTimeSpan,
  USUAL_WAYS,
  WEEK_STARTS,
  weekdaysInOrder,
} from './ways.ts';

const TODAY = dayOfIso('2026-11-24');
const MONTH_FIRST = { dateOrder: 'month first' } as const;
const TWELVE = { ...USUAL_WAYS, clock: 12 } as const;

describe('ways of showing dates and times', () => {
  it('put the month first where people are used to it, and the year after a comma', () => {
    expect(sayDate(TODAY, MONTH_FIRST)).toBe('Nov 24, 2026');
    expect(sayDay(TODAY, TODAY, MONTH_FIRST)).toBe('Tue Nov 24');
    expect(sayDay(dayOfIso('2027-01-01'), TODAY, MONTH_FIRST)).toBe('Fri Jan 1, 2027');
    expect(sayNear(dayOfIso('2026-12-09'), TODAY, MONTH_FIRST)).toBe('Wed Dec 9');
  });

  it.each([
    ['00:00', '12 midnight'],
    ['00:30', '12:30 am'],
    ['08:00', '8 am'],
    ['11:59', '11:59 am'],
    ['12:00', '12 noon'],
    ['12:05', '12:05 pm'],
    ['23:00', '11 pm'],
  ])('say %s as %s by a clock of twelve hours', (time, said) => {
    expect(sayTime(time, TWELVE)).toBe(said);
    expect(sayTime(time, USUAL_WAYS)).toBe(time);
  });

  it('say which half of the day once, where it is the same', () => {
    expect(sayTimeSpan('08:15', '09:00', TWELVE)).toBe('8:15–9 am');
    expect(sayTimeSpan('11:30', '12:30', TWELVE)).toBe('11:30 am–12:30 pm');
    expect(sayTimeSpan('11:00', '12:00', TWELVE)).toBe('11 am–12 noon');
    expect(sayTimeSpan('08:15', '09:00', USUAL_WAYS)).toBe('08:15–09:00');
  });

  it('never change what is meant: what is shown is read back as the same day and time', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: dayOfIso('2001-01-01'), max: dayOfIso('2099-12-31') }),
        fc.integer({ min: 0, max: 1439 }),
        fc.constantFrom(...DATE_ORDERS),
        fc.constantFrom(...CLOCKS),
        (day, minutes, dateOrder, clock) => {
          const time = `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
          expect(readDate(sayDate(day, { dateOrder }), TODAY)).toBe(day);
          expect(readTimeOfDay(sayTime(time, { ...USUAL_WAYS, clock }))).toBe(time);
        },
      ),
    );
  });

  it('begin the week where people are used to it, and run on from there', () => {
    expect(weekdaysInOrder({ ...USUAL_WAYS, weekStarts: 7 })).toEqual([7, 1, 2, 3, 4, 5, 6]);
    fc.assert(
      fc.property(fc.integer({ min: -100_000, max: 100_000 }), fc.constantFrom(...WEEK_STARTS), (day, weekStarts) => {
        const ways = { ...USUAL_WAYS, weekStarts };
        expect(weekdaysInOrder(ways)[columnOf(weekdayOf(day), ways)]).toBe(weekdayOf(day));
      }),
    );
  });

  it.each(['13 pm', '0 am', '25', '8 xm', '12:60 pm', ''])('take “%s” for no time', (text) => {
    expect(readTimeOfDay(text)).toBeNull();
  });
});
