import { type CivilDay, type Weekday, weekdayOf } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate } from '../civil-date/iso-date.ts';
import { readDuration, sayDuration } from '../wording/duration.ts';

/** Minutes of work on each weekday, Monday first: seven whole numbers from 0 to 1440. */
export type WeekMinutes = readonly number[];

/** The hours somebody works: one week that comes again, or two that take turns. */
export interface WeekHours {
  readonly weeks: readonly WeekMinutes[];
  /** A day in the first of the weeks. */
  readonly from: IsoDate;
}

/** When somebody works here at all, both days included; null where there is no such end. */
export interface Employment {
  readonly worksFrom: IsoDate | null;
  readonly worksUntil: IsoDate | null;
}

export const DAYS_A_WEEK = 7;
export const MOST_MINUTES_A_DAY = 1440;

/** The Monday of a day's week counts weeks, whatever day a workspace's calendars begin with (ISO 8601). */
const weekOf = (day: CivilDay): number => Math.floor((day + 3) / DAYS_A_WEEK);

/** The week of the pattern that a day lies in, from 0. */
export function weekInPattern({ weeks, from }: WeekHours, day: CivilDay): number {
  return weekCounted(weeks.length, dayOfIso(from), day);
}

/** The same by the first of so many weeks that take turns. */
export function weekCounted(count: number, from: CivilDay, day: CivilDay): number {
  const apart = weekOf(day) - weekOf(from);
  return ((apart % count) + count) % count;
}

/** Minutes of work that the pattern gives a day, 0 to 1440; holidays are whoever asks'. @param from a day in the first of the weeks */
export function minutesInWeeks(weeks: WeekHours['weeks'], from: CivilDay, day: CivilDay): number {
  return weeks[weekCounted(weeks.length, from, day)]?.[weekdayOf(day) - 1] ?? 0;
}

/** Whether somebody works here on a day. */
export function isHereOn({ worksFrom, worksUntil }: Employment, day: CivilDay): boolean {
  return (worksFrom === null || dayOfIso(worksFrom) <= day) && !hasLeftBy({ worksUntil }, day);
}

/** Whether somebody's last day here was before a day. */
export function hasLeftBy({ worksUntil }: Pick<Employment, 'worksUntil'>, day: CivilDay): boolean {
  return worksUntil !== null && dayOfIso(worksUntil) < day;
}

/** Minutes a week, the mean of two weeks that take turns. */
export function minutesAWeek({ weeks }: Pick<WeekHours, 'weeks'>): number {
  const all = weeks.flat().reduce((sum, minutes) => sum + minutes, 0);
  return all / Math.max(1, weeks.length);
}

/** A week with so many minutes on each of some weekdays. */
export function plainWeek(minutes: number, weekdays: readonly Weekday[]): WeekMinutes {
  return Array.from({ length: DAYS_A_WEEK }, (_, i) => (weekdays.includes((i + 1) as Weekday) ? minutes : 0));
}

/** Minutes of a day's work, written as hours: "7.5", "7:30", "7 h 30", nothing for none; null where it is none of them. */
export function readDayHours(text: string): number | null {
  const trimmed = text.trim().replace(',', '.');
  if (trimmed === '') return 0;
  const clock = /^(\d{1,2}):([0-5]\d)$/.exec(trimmed);
  const minutes = clock
    ? Number(clock[1]) * 60 + Number(clock[2])
    : /^\d{1,2}(\.\d{0,2})?$/.test(trimmed)
      ? Math.round(Number(trimmed) * 60)
      : readDuration(trimmed);
  return minutes === null || minutes > MOST_MINUTES_A_DAY ? null : minutes;
}

/** Minutes of a working day of which nobody has said them. */
const USUAL_DAY_MINUTES = 450;

/**
 * The minutes of a week in which these weekdays are worked: those that were off get as many as most others have, those that
 * are not among them none.
 */
export function weekWith(minutes: WeekMinutes, weekdays: readonly Weekday[]): number[] {
  const counts = new Map<number, number>();
  for (const one of minutes) if (one > 0) counts.set(one, (counts.get(one) ?? 0) + 1);
  const [[usual] = [USUAL_DAY_MINUTES]] = [...counts].sort(([, a], [, b]) => b - a);
  return Array.from({ length: DAYS_A_WEEK }, (_, i) =>
    weekdays.includes((i + 1) as Weekday) ? minutes[i] || (usual ?? USUAL_DAY_MINUTES) : 0,
  );
}

/** The same, as it is read: "7.5", and nothing for none. */
export function sayDayHours(minutes: number): string {
  if (minutes === 0) return '';
  const hours = minutes / 60;
  // Of thirds of an hour no short fraction is the whole truth.
  return Number.isInteger(hours * 100) ? String(hours) : sayDuration(minutes);
}
