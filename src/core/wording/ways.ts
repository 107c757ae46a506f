import type { Weekday } from '../civil-date/civil-day.ts';
import type { IsoTime } from '../civil-date/iso-date.ts';

/** Weekdays on which a week may begin, Monday 1: where people are used to which differs (CLDR, weekData). */
export const WEEK_STARTS = [1, 6, 7] as const;
export const DATE_ORDERS = ['day first', 'month first'] as const;
/** Hours on the face of the clock. */
export const CLOCKS = [24, 12] as const;

/** How somebody is used to seeing dates and times; what they mean never depends on it. */
export interface Ways {
  readonly weekStarts: (typeof WEEK_STARTS)[number];
  readonly dateOrder: (typeof DATE_ORDERS)[number];
  readonly clock: (typeof CLOCKS)[number];
}

/** Those of somebody's own; what is left out is as the workspace has it. */
export type OwnWays = Partial<Ways>;

export const USUAL_WAYS: Ways = { weekStarts: 1, dateOrder: 'day first', clock: 24 };

/** "08:30", or "8:30 am"; the full hours of a twelve-hour clock are said short: "8 am", "12 noon", "12 midnight". */
export function sayTime(time: IsoTime, { clock }: Ways): string {
  if (clock === 24) return time;
  if (time === '00:00') return '12 midnight';
  if (time === '12:00') return '12 noon';
  const [hours = 0, minutes = 0] = time.split(':').map(Number);
  const shown = minutes === 0 ? `${hours % 12 || 12}` : `${hours % 12 || 12}:${time.slice(3)}`;
  return `${shown} ${hours < 12 ? 'am' : 'pm'}`;
}

/** "08:00–09:30", or "8–9:30 am": which half of the day is said once where it is the same. */
export function sayTimeSpan(from: IsoTime, to: IsoTime, ways: Ways): string {
  const [first, last] = [sayTime(from, ways), sayTime(to, ways)];
  const half = / [ap]m$/.exec(last)?.[0];
  return `${half !== undefined && first.endsWith(half) ? first.slice(0, -half.length) : first}–${last}`;
}

/** The place of a weekday in the week as it is seen, 0 for its first day. */
export function columnOf(weekday: Weekday, { weekStarts }: Ways): number {
  return (weekday - weekStarts + 7) % 7;
}

/** The weekdays in the order in which they are seen. */
export function weekdaysInOrder({ weekStarts }: Ways): Weekday[] {
  return Array.from({ length: 7 }, (_, i) => (((weekStarts - 1 + i) % 7) + 1) as Weekday);
}
