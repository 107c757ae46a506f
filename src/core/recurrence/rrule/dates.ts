import {
  type CivilDay,
  civilDay,
  isLeapYear,
  type Weekday,
  weekdayOf,
  yearMonthDay,
} from '../../civil-date/civil-day.ts';
import { CYCLE_DAYS, monthIndexOf, monthOf, monthStart } from '../../civil-date/month.ts';
import { spend } from '../../reckoning.ts';
import { NO_DAY, weekdayMask } from '../month-point.ts';
import type { RuleDates } from '../rule-dates.ts';
import type { RRuleParts } from './parts.ts';

/** The last day that any rule is followed to. */
export const LAST_DAY: CivilDay = civilDay(9999, 12, 31);

/** The Gregorian calendar repeats after 400 years: a rule without a day in so many periods has none at all. */
const CYCLE_PERIODS = { YEARLY: 400, MONTHLY: 4800, WEEKLY: CYCLE_DAYS, DAILY: CYCLE_DAYS } as const;

/** After so many periods without a day it is looked at whether there can be one. */
const LONG_EMPTY = 40;

/**
 * Periods of which all that a rule meets are like one: those of 28 years, in which years begin on every weekday, leap years too;
 * months only those that an interval of months comes to. Days and weeks are looked at together, as no day of theirs is left out.
 */
function everyKindOfPeriod(
  { freq, interval, bySetPos, weekStart }: RRuleParts,
  start: CivilDay,
): (readonly [begin: CivilDay, end: CivilDay])[] {
  if (freq === 'WEEKLY' && bySetPos.length > 0) {
    const firstWeek = FIRST_MONDAY + weekStart - 1;
    return Array.from({ length: 4 * 366 }, (_, i) => [firstWeek + i * 7, firstWeek + i * 7 + 7] as const);
  }
  const months = freq === 'MONTHLY' ? 1 : 12;
  const step = freq === 'MONTHLY' ? commonDivisor(interval, 12) : 1;
  return Array.from({ length: (28 * 12) / months }, (_, i) => FIRST_MONTH + i * months)
    .filter((index) => (index - monthIndexOf(start)) % step === 0)
    .map((index) => [monthStart(index), monthStart(index + months)] as const);
}

function commonDivisor(a: number, b: number): number {
  return b === 0 ? a : commonDivisor(b, a % b);
}

const FIRST_MONTH = monthIndexOf(civilDay(2001, 1, 1));
/** 1 January 2001. */
const FIRST_MONDAY = civilDay(2001, 1, 1);

/**
 * The days of a RECUR value (RFC 5545, section 3.3.10) from its DTSTART on. A start that does not match the rule is not
 * one of them. A period is a year, month, week or day of the rule: its days are those of the period that pass every BY part,
 * which is what "expand" and "limit" of the RFC's table come to; BYSETPOS then chooses among the whole period's,
 * also in a first period that the start cuts.
 */
export function rruleDates(given: RRuleParts, start: CivilDay): RuleDates {
  const parts = withStart(given, start);
  const periods = periodsOf(parts, start);
  const passes = filterOf(parts);
  const until = parts.until?.day ?? LAST_DAY;

  const daysWithin = (begin: CivilDay, end: CivilDay): CivilDay[] => {
    const days: CivilDay[] = [];
    // Month by month, since most of what a day is asked for is the same for all of its month.
    for (let day = begin; day < end; ) {
      const inMonth = inMonthOf(day);
      const stop = Math.min(end, inMonth.end);
      spend(1);
      if (passes.month(inMonth.month)) {
        spend(stop - day);
        for (; day < stop; day++) if (passes.day(day, inMonth)) days.push(day);
      }
      day = stop;
    }
    return parts.bySetPos.length === 0 ? days : atPositions(days, parts.bySetPos);
  };
  const daysOf = (index: number) => daysWithin(periods.begin(index), periods.end(index));

  /** Where COUNT ends the rule: found by counting from the start, once. */
  let last: CivilDay | undefined = parts.count === null ? until : undefined;
  const lastDay = (): CivilDay => {
    if (last !== undefined) return last;
    last = LAST_DAY;
    let left = parts.count ?? 0;
    for (const day of each(start, LAST_DAY)) {
      if (--left > 0) continue;
      last = day;
      break;
    }
    return last;
  };

  /** Whether any period of any year has a day, whichever of them the interval meets. */
  let canHappen: boolean | undefined;
  const happens = (): boolean => {
    canHappen ??= everyKindOfPeriod(parts, start).some(([begin, end]) => daysWithin(begin, end).length > 0);
    return canHappen;
  };

  const each = function* (from: CivilDay, to: CivilDay) {
    let empty = 0;
    for (let index = periods.holding(from); periods.begin(index) <= to && empty <= CYCLE_PERIODS[parts.freq]; index++) {
      const days = daysOf(index);
      empty = days.length === 0 ? empty + 1 : 0;
      if (empty === LONG_EMPTY && !happens()) return;
      for (const day of days) if (day >= from && day <= to) yield day;
    }
  };
  const within = (from: CivilDay, to: CivilDay) => each(Math.max(from, start), Math.min(to, lastDay()));
  return {
    addBetween(into, from, to) {
      for (const day of within(from, to)) into.push(day);
    },
    firstFrom: (from, to) => within(from, to).next().value ?? NO_DAY,
  };
}

/** What the rule leaves unsaid comes from its start (RFC 5545: "derived from DTSTART"). */
function withStart(parts: RRuleParts, start: CivilDay): RRuleParts {
  const { month, day } = yearMonthDay(start);
  const weekday = { nth: null, weekday: weekdayOf(start) };
  const { freq, byMonth, byMonthDay, byYearDay, byWeekNo, byDay } = parts;
  if (byDay.length > 0 || byMonthDay.length > 0 || byYearDay.length > 0) return parts;
  switch (freq) {
    case 'DAILY':
      return parts;
    case 'WEEKLY':
      return { ...parts, byDay: [weekday] };
    case 'MONTHLY':
      return { ...parts, byMonthDay: [day] };
    case 'YEARLY':
      if (byWeekNo.length > 0) return { ...parts, byDay: [weekday] };
      return { ...parts, byMonth: byMonth.length > 0 ? byMonth : [month], byMonthDay: [day] };
  }
}

/** The periods of a rule, numbered from the one that holds the start; dead time between them belongs to the one before. */
interface Periods {
  holding(day: CivilDay): number;
  begin(index: number): CivilDay;
  /** The day after its last. */
  end(index: number): CivilDay;
}

function periodsOf({ freq, interval, weekStart }: RRuleParts, start: CivilDay): Periods {
  switch (freq) {
    case 'DAILY':
      return evenPeriods(start, 1, interval);
    case 'WEEKLY':
      return evenPeriods(start - ((weekdayOf(start) - weekStart + 7) % 7), 7, interval);
    case 'MONTHLY': {
      const origin = monthIndexOf(start);
      return {
        holding: (day) => Math.floor((monthIndexOf(day) - origin) / interval),
        begin: (index) => monthStart(origin + index * interval),
        end: (index) => monthStart(origin + index * interval + 1),
      };
    }
    case 'YEARLY': {
      const { year: origin } = yearMonthDay(start);
      return {
        holding: (day) => Math.floor((yearMonthDay(day).year - origin) / interval),
        begin: (index) => civilDay(origin + index * interval, 1, 1),
        end: (index) => civilDay(origin + index * interval + 1, 1, 1),
      };
    }
  }
}

function evenPeriods(origin: CivilDay, length: number, interval: number): Periods {
  const step = length * interval;
  return {
    holding: (day) => Math.floor((day - origin) / step),
    begin: (index) => origin + index * step,
    end: (index) => origin + index * step + length,
  };
}

/** A month, and where it lies in its year. */
interface InMonth {
  readonly year: number;
  readonly month: number;
  readonly first: CivilDay;
  /** The day after its last. */
  readonly end: CivilDay;
  readonly yearBegin: CivilDay;
}

function inMonthOf(day: CivilDay): InMonth {
  const index = monthIndexOf(day);
  const { year, month } = monthOf(index);
  return {
    year,
    month,
    first: monthStart(index),
    end: monthStart(index + 1),
    yearBegin: monthStart(index - month + 1),
  };
}

/** Whether a month can hold a day of the rule, and whether a day in it passes all BY parts but BYSETPOS. */
function filterOf(parts: RRuleParts): {
  readonly month: (month: number) => boolean;
  readonly day: (day: CivilDay, inMonth: InMonth) => boolean;
} {
  const { byMonth, byMonthDay, byYearDay, byWeekNo, byDay, weekStart } = parts;
  const months = weekdayMask(byMonth);
  const plain = weekdayMask(byDay.filter(({ nth }) => nth === null).map(({ weekday }) => weekday));
  const ordinals = byDay.filter(({ nth }) => nth !== null) as { nth: number; weekday: Weekday }[];
  // With a number, a weekday is counted in the month, or in the year where a yearly rule names no months.
  const inYear = parts.freq === 'YEARLY' && byMonth.length === 0;
  const passesDay = (day: CivilDay, { year, first, end, yearBegin }: InMonth) => {
    const date = day - first + 1;
    const monthLength = end - first;
    if (byMonthDay.length > 0 && !byMonthDay.includes(date) && !byMonthDay.includes(date - monthLength - 1))
      return false;
    const yearLength = isLeapYear(year) ? 366 : 365;
    const dayOfYear = day - yearBegin + 1;
    if (byYearDay.length > 0 && !byYearDay.includes(dayOfYear) && !byYearDay.includes(dayOfYear - yearLength - 1))
      return false;
    if (byWeekNo.length > 0 && !isInWeek(day, byWeekNo, weekStart)) return false;
    if (byDay.length === 0) return true;
    const weekday = weekdayOf(day);
    if ((plain & (1 << weekday)) !== 0) return true;
    if (ordinals.length === 0) return false;
    const place = inYear ? dayOfYear : date;
    const length = inYear ? yearLength : monthLength;
    const nth = Math.ceil(place / 7);
    const fromEnd = -Math.ceil((length - place + 1) / 7);
    return ordinals.some((ordinal) => ordinal.weekday === weekday && (ordinal.nth === nth || ordinal.nth === fromEnd));
  };
  return { month: (month) => months === 0 || (months & (1 << month)) !== 0, day: passesDay };
}

/** Week 1 is the first with four days or more in the year; weeks begin on WKST (ISO 8601 for Monday). */
function isInWeek(day: CivilDay, byWeekNo: readonly number[], weekStart: Weekday): boolean {
  const begin = day - ((weekdayOf(day) - weekStart + 7) % 7);
  // The week's fourth day tells whose week it is.
  const { year } = yearMonthDay(begin + 3);
  const firstWeek = firstWeekOf(year, weekStart);
  const number = (begin - firstWeek) / 7 + 1;
  const weeks = (firstWeekOf(year + 1, weekStart) - firstWeek) / 7;
  return byWeekNo.includes(number) || byWeekNo.includes(number - weeks - 1);
}

function firstWeekOf(year: number, weekStart: Weekday): CivilDay {
  const fourth = civilDay(year, 1, 4);
  return fourth - ((weekdayOf(fourth) - weekStart + 7) % 7);
}

function atPositions(days: readonly CivilDay[], positions: readonly number[]): CivilDay[] {
  const chosen = positions.flatMap((position) => days.at(position > 0 ? position - 1 : position) ?? []);
  return [...new Set(chosen)].sort((a, b) => a - b);
}
