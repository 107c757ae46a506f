import { type CivilDay, civilDay, daysInMonth, yearMonthDay } from './civil-day.ts';

/** Months since January of year 0: a month as one integer, so that "every 3 months" is a remainder. */
export type MonthIndex = number;

export function monthIndex(year: number, month: number): MonthIndex {
  return year * 12 + month - 1;
}

/** Year and month (1–12) of a month. */
export function monthOf(index: MonthIndex): { readonly year: number; readonly month: number } {
  const year = Math.floor(index / 12);
  return { year, month: index - year * 12 + 1 };
}

/** The Gregorian calendar repeats after 400 years: 4,800 months of together 146,097 days. */
const CYCLE_MONTHS = 4800;
export const CYCLE_DAYS = 146_097;
const YEAR_0 = civilDay(0, 1, 1);

/** First days of the months of the years around ours, 1600–2399; the rest of time is a whole number of cycles away. */
const NEAR = 1600 * 12;
const STARTS = Int32Array.from({ length: 2 * CYCLE_MONTHS }, (_, i) =>
  civilDay(1600 + Math.floor(i / 12), (i % 12) + 1, 1),
);

/** The first day of a month: a look into a table, for what asks for thousands of months. */
export function monthStart(index: MonthIndex): CivilDay {
  const near = STARTS[index - NEAR];
  if (near !== undefined) return near;
  const cycles = Math.floor((index - NEAR) / CYCLE_MONTHS);
  return cycles * CYCLE_DAYS + (STARTS[index - NEAR - cycles * CYCLE_MONTHS] as number);
}

/** The month that holds a day: estimated from the mean length of a month, then put right by the table. */
export function monthIndexOf(day: CivilDay): MonthIndex {
  let index = Math.floor(((day - YEAR_0) * CYCLE_MONTHS) / CYCLE_DAYS);
  while (monthStart(index) > day) index--;
  while (monthStart(index + 1) <= day) index++;
  return index;
}

/** The same date so many months later, or the last day of a shorter month. @param months whole; negative for earlier */
export function monthsLater(day: CivilDay, months: number): CivilDay {
  const index = monthIndexOf(day) + months;
  const { year, month } = monthOf(index);
  return monthStart(index) + Math.min(yearMonthDay(day).day, daysInMonth(year, month)) - 1;
}
