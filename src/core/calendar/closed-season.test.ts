import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import {
  closedOn,
  InvalidSeasonError,
  longestClosure,
  type Season,
  tryMonthDay,
  withClosedSeasons,
} from './closed-season.ts';
import { makeCalendar } from './iso-calendar.ts';

const closed = (seasons: Season[], date: string) => closedOn(seasons)(dayOfIso(date));

describe('a closed season', () => {
  it.each<[Season, string, boolean]>([
    [{ from: '01-01', to: '01-31' }, '2027-01-31', true],
    [{ from: '01-01', to: '01-31' }, '2027-02-01', false],
    [{ from: '12-15', to: '01-10' }, '2026-12-14', false],
    [{ from: '12-15', to: '01-10' }, '2026-12-15', true],
    [{ from: '12-15', to: '01-10' }, '2027-01-10', true],
    [{ from: '12-15', to: '01-10' }, '2027-01-11', false],
    [{ from: '02-01', to: '02-29' }, '2027-02-28', true],
    [{ from: '02-01', to: '02-29' }, '2028-02-29', true],
    [{ from: '02-29', to: '03-10' }, '2027-02-28', false],
    [{ from: '02-29', to: '03-10' }, '2027-03-01', true],
    [{ from: '06-15', to: '06-15' }, '2027-06-15', true],
  ])('%j holds %s: %s', (season, date, expected) => {
    expect(closed([season], date)).toBe(expected);
  });

  it('is refused where no year has its day', () => {
    expect(['02-30', '13-01', '1-1', '00-10', 'January'].map(tryMonthDay)).toEqual([null, null, null, null, null]);
    expect(() => closedOn([{ from: '02-30', to: '03-01' }])).toThrow(InvalidSeasonError);
  });

  it('closes a calendar for moving dates, and leaves counting alone', () => {
    const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: [] });
    const shut = withClosedSeasons(calendar, [{ from: '01-01', to: '01-31' }]);
    const monday = dayOfIso('2027-01-04');
    expect([calendar.isWorkingDay(monday), shut.isWorkingDay(monday)]).toEqual([true, false]);
    expect(shut.numberOf(monday)).toBe(calendar.numberOf(monday));
    expect(withClosedSeasons(calendar, [])).toBe(calendar);
  });

  it('tells its longest stretch, also over the new year and where seasons meet', () => {
    expect(longestClosure([])).toBe(0);
    expect(longestClosure([{ from: '06-01', to: '06-10' }])).toBe(10);
    expect(longestClosure([{ from: '12-15', to: '01-10' }])).toBe(27);
    expect(
      longestClosure([
        { from: '12-01', to: '12-31' },
        { from: '01-01', to: '01-31' },
      ]),
    ).toBe(62);
    expect(longestClosure([{ from: '01-01', to: '12-31' }])).toBe(366);
  });

  it('and what is left of the year share each day between them', () => {
    const monthDay = fc.integer({ min: 0, max: 364 }).map((n) => isoOfDay(dayOfIso('2027-01-01') + n).slice(5));
    fc.assert(
      fc.property(monthDay, monthDay, fc.integer({ min: 20_000, max: 22_000 }), (from, to, day) => {
        const next = (text: string) => isoOfDay(dayOfIso(`2027-${text}`) + 1).slice(5);
        const before = (text: string) => isoOfDay(dayOfIso(`2027-${text}`) - 1).slice(5);
        fc.pre(next(to) !== from && !isoOfDay(day).endsWith('02-29'));
        const inside = closedOn([{ from, to }])(day);
        const outside = closedOn([{ from: next(to), to: before(from) }])(day);
        expect(inside).not.toBe(outside);
      }),
    );
  });
});
