import Holidays from 'date-holidays';
import { expect, it } from 'vitest';
import { isoOfDay } from '../civil-date/iso-date.ts';
import { easterSunday } from './easter.ts';

it('is the Sunday that the almanacs give', () => {
  const years = [1818, 1943, 2000, 2008, 2011, 2024, 2025, 2026, 2027, 2028, 2038, 2076, 2285];
  expect(years.map((year) => isoOfDay(easterSunday(year)))).toEqual([
    ...['1818-03-22', '1943-04-25', '2000-04-23', '2008-03-23', '2011-04-24', '2024-03-31', '2025-04-20', '2026-04-05'],
    ...['2027-03-28', '2028-04-16', '2038-04-25', '2076-04-19', '2285-03-22'],
  ]);
});

it('is the one that the holidays of a country are counted from', () => {
  const calendar = new Holidays('GB', 'ENG');
  for (let year = 1990; year < 2090; year++) {
    const monday = calendar.getHolidays(year).find(({ name }) => name === 'Easter Monday');
    expect(monday?.date.slice(0, 10)).toBe(isoOfDay(easterSunday(year) + 1));
  }
});
