import { type CivilDay, civilDay, daysInMonth, yearMonthDay } from '../civil-date/civil-day.ts';
import type { WorkingCalendar } from './working-calendar.ts';

/** A day of any year, `MM-DD`. A season up to `02-29` ends with February, in every year. */
export type MonthDay = string;

/** A part of every year in which a schedule's work is not done, both days included; it may run over the end of the year. */
export interface Season {
  readonly from: MonthDay;
  readonly to: MonthDay;
}

/** Month and day of an `MM-DD` text, or null where no year has that day. */
export function tryMonthDay(text: MonthDay): { readonly month: number; readonly day: number } | null {
  const match = /^(\d\d)-(\d\d)$/.exec(text);
  if (!match) return null;
  const [month, day] = [Number(match[1]), Number(match[2])];
  return month >= 1 && month <= 12 && day >= 1 && day <= daysInMonth(2000, month) ? { month, day } : null;
}

export class InvalidSeasonError extends Error {
  override readonly name = 'InvalidSeasonError';
  constructor(readonly given: string) {
    super(`“${given}” is not a day of the year: it should be written MM-DD, like 01-31.`);
  }
}

/** Tells whether a day lies in one of the seasons. @throws InvalidSeasonError */
export function closedOn(seasons: readonly Season[]): (day: CivilDay) => boolean {
  if (seasons.length === 0) return () => false;
  const spans = seasons.map(({ from, to }) => ({ from: placeInYear(from), to: placeInYear(to) }));
  return (day) => {
    const { month, day: date } = yearMonthDay(day);
    const place = month * 32 + date;
    return spans.some(({ from, to }) => (from <= to ? place >= from && place <= to : place >= from || place <= to));
  };
}

function placeInYear(text: MonthDay): number {
  const at = tryMonthDay(text);
  if (at === null) throw new InvalidSeasonError(text);
  return at.month * 32 + at.day;
}

/** The same calendar with the seasons closed as well: for moving dates, not for counting working days. */
export function withClosedSeasons(calendar: WorkingCalendar, seasons: readonly Season[]): WorkingCalendar {
  if (seasons.length === 0) return calendar;
  const isClosed = closedOn(seasons);
  return { ...calendar, isWorkingDay: (day) => calendar.isWorkingDay(day) && !isClosed(day) };
}

/** Days of the longest stretch that seasons close without a break, 366 when they close the whole year. */
export function longestClosure(seasons: readonly Season[]): number {
  if (seasons.length === 0) return 0;
  const isClosed = closedOn(seasons);
  let longest = 0;
  let run = 0;
  // Two years, so that a stretch over the new year is seen whole; the first of them is a leap year.
  for (let day = civilDay(2024, 1, 1); day < civilDay(2026, 1, 1); day++) {
    run = isClosed(day) ? run + 1 : 0;
    longest = Math.max(longest, run);
  }
  return Math.min(longest, 366);
}
