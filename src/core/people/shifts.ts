import { type CivilDay, type Weekday, weekdayOf } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, type IsoTime, isoTimeOf, tryMinutesOfTime } from '../civil-date/iso-date.ts';
import { DAYS_A_WEEK, MOST_MINUTES_A_DAY, weekCounted } from './week-hours.ts';

/** A stretch of work on the day on which it begins. */
export interface Shift {
  readonly from: IsoTime;
  /** Not after `from` where it ends on the day after: 22:00 to 06:00, 16:00 to 00:00. */
  readonly to: IsoTime;
  /** Minutes of it that are no work, 0 to less than it is long. */
  readonly breakMinutes: number;
  /** As what it is worked; null for whatever they are here. */
  readonly role: string | null;
}

/** A shift that comes again on some weekdays of one of the weeks of somebody's hours. */
export interface PatternShift extends Shift {
  /** The week it stands in, from 0. */
  readonly week: number;
  readonly weekdays: readonly Weekday[];
}

/** What somebody works on one date instead of what their pattern says; nothing where there is no shift in it. */
export interface ShiftChange {
  readonly on: IsoDate;
  readonly shifts: readonly Shift[];
}

/** Minutes after midnight of a day, 0 to 2880; what lies beyond 1440 is on the day after. */
export interface DayWindow {
  readonly from: number;
  readonly to: number;
}

export const WHOLE_DAY: DayWindow = { from: 0, to: MOST_MINUTES_A_DAY };

function minutesOfTime(time: IsoTime): number {
  const minutes = tryMinutesOfTime(time);
  if (minutes === null) throw new RangeError(`“${time}” is no time of day: it should be written HH:MM.`);
  return minutes;
}

/**
 * When a shift begins and ends, in minutes after midnight of its day.
 * @throws RangeError where one of its times is none
 */
export function windowOfShift({ from, to }: Pick<Shift, 'from' | 'to'>): DayWindow {
  const [begins, ends] = [minutesOfTime(from), minutesOfTime(to)];
  return { from: begins, to: ends > begins ? ends : ends + MOST_MINUTES_A_DAY };
}

/** Minutes of work in a shift, without its break; below 1 where the break is all of it. */
export function minutesOfShift(shift: Pick<Shift, 'from' | 'to' | 'breakMinutes'>): number {
  const { from, to } = windowOfShift(shift);
  return to - from - shift.breakMinutes;
}

/** Minutes of work on each weekday that a pattern comes to, for as many weeks as take turns. */
export function weeksOfShifts(pattern: readonly PatternShift[], weeks: number): number[][] {
  return Array.from({ length: weeks }, (_, week) =>
    Array.from({ length: DAYS_A_WEEK }, (__, i) =>
      pattern
        .filter((one) => one.week === week && one.weekdays.includes((i + 1) as Weekday))
        .reduce((sum, one) => sum + minutesOfShift(one), 0),
    ),
  );
}

/** The shifts of a pattern on a day. @param weeks how many weeks take turns @param weeksFrom a day in the first of them */
export function patternOn(
  pattern: readonly PatternShift[],
  weeks: number,
  weeksFrom: CivilDay,
  day: CivilDay,
): readonly PatternShift[] {
  if (pattern.length === 0) return pattern;
  const week = weekCounted(weeks, weeksFrom, day);
  const weekday = weekdayOf(day);
  return pattern.filter((one) => one.week === week && one.weekdays.includes(weekday));
}

/** Whether two stretches have a moment in common; one without length is that moment. */
export function overlaps(one: DayWindow, other: DayWindow): boolean {
  return one.from < Math.max(other.to, other.from + 1) && other.from < Math.max(one.to, one.from + 1);
}

/** The first of some shifts of one day that can't be: without work in it, or beside another at the same time; null where all can. */
export function faultOfDay(shifts: readonly Shift[]): ShiftFault | null {
  for (const [at, shift] of shifts.entries()) {
    if (minutesOfShift(shift) <= 0) return { at, because: 'break' };
    const window = windowOfShift(shift);
    if (shifts.slice(0, at).some((other) => overlaps(windowOfShift(other), window)))
      return { at, because: 'two at once' };
  }
  return null;
}

export interface ShiftFault {
  /** Its place among those that were asked about. */
  readonly at: number;
  readonly because: 'break' | 'two at once';
}

/**
 * The first shift of a pattern that can't be, or null where all can. One that goes past midnight is held against those of the
 * day after as well, of every week that may follow.
 */
export function faultOfPattern(pattern: readonly PatternShift[], weeks: number): ShiftFault | null {
  for (const [at, shift] of pattern.entries()) {
    if (minutesOfShift(shift) <= 0) return { at, because: 'break' };
    const clashes = pattern.slice(0, at + 1).some((other) => clash(other, shift, weeks, other === shift));
    if (clashes) return { at, because: 'two at once' };
  }
  return null;
}

function clash(one: PatternShift, other: PatternShift, weeks: number, isSame: boolean): boolean {
  const [a, b] = [windowOfShift(one), windowOfShift(other)];
  const place = (week: number, weekday: Weekday) => week * DAYS_A_WEEK + weekday - 1;
  const all = weeks * DAYS_A_WEEK;
  const later = (window: DayWindow, days: number) => ({
    from: window.from + days * MOST_MINUTES_A_DAY,
    to: window.to + days * MOST_MINUTES_A_DAY,
  });
  return one.weekdays.some((first) =>
    other.weekdays.some((second) => {
      const apart = (place(other.week, second) - place(one.week, first) + all) % all;
      if (apart === 0) return !isSame && overlaps(a, b);
      return (apart === 1 && overlaps(a, later(b, 1))) || (apart === all - 1 && overlaps(later(a, 1), b));
    }),
  );
}

/** Days from today on whose own hours are others than before, in no order. */
export function daysOfOtherHours(
  before: readonly ShiftChange[],
  now: readonly ShiftChange[],
  today: CivilDay,
): CivilDay[] {
  const said = (changes: readonly ShiftChange[]) =>
    new Map(changes.map(({ on, shifts }) => [on, shifts.map(keyOf).join()]));
  const [was, is] = [said(before), said(now)];
  return [...new Set([...was.keys(), ...is.keys()])]
    .filter((on) => was.get(on) !== is.get(on))
    .map(dayOfIso)
    .filter((day) => day >= today);
}

const keyOf = ({ from, to, breakMinutes, role }: Shift) => `${from} ${to} ${breakMinutes} ${role}`;

/** The pattern that hours without times are first written as: a stretch from nine on, for each length of day. */
export function patternOfWeeks(weeks: readonly (readonly number[])[]): PatternShift[] {
  return weeks.flatMap((minutes, week) =>
    [...new Set(minutes.filter((one) => one > 0))].map((length) => ({
      ...{ week, from: BEGINS, to: timeAfter(length), breakMinutes: 0, role: null },
      weekdays: minutes.flatMap((one, i) => (one === length ? [(i + 1) as Weekday] : [])),
    })),
  );
}

const BEGINS = '09:00';

function timeAfter(minutes: number): IsoTime {
  const end = (minutesOfTime(BEGINS) + minutes) % MOST_MINUTES_A_DAY;
  return isoTimeOf(end);
}
