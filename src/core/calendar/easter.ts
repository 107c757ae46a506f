import { type CivilDay, civilDay } from '../civil-date/civil-day.ts';

/**
 * Easter Sunday of a year by the Gregorian reckoning, from 22 March to 25 April.
 * The algorithm for any year that Meeus gives in Astronomical Algorithms, chapter 8, from 1876.
 * @param year 1583 or later
 */
export function easterSunday(year: number): CivilDay {
  const a = year % 19;
  const b = Math.floor(year / 100);
  const c = year % 100;
  const e = b % 4;
  const g = Math.floor((8 * b + 13) / 25);
  const h = (19 * a + b - Math.floor(b / 4) - g + 15) % 30;
  const l = (32 + 2 * e + 2 * Math.floor(c / 4) - h - (c % 4)) % 7;
  const m = Math.floor((a + 11 * h + 22 * l) / 451);
  const n = h + l - 7 * m + 114;
  return civilDay(year, Math.floor(n / 31), (n % 31) + 1);
}
