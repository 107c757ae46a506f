import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import {
  type CivilDay,
  civilDay,
  daysInMonth,
  type MonthIndex,
  mondayOf,
  monthIndexOf,
  monthOf,
  weekdayOf,
} from '../civil-date/civil-day.ts';
import { dayOfPoint } from './month-point.ts';
import type { DaysRule, MonthsRule, Rule, WeeksRule, YearsRule } from './rule.ts';

/**
 * Adds to `into` the days that one rule gives within [from, to], both included and none before `start`.
 * Each rule is solved from the window, not walked from its start. Days of one rule come in order,
 * but for those that "first of the next month" pushes out; the caller sorts and drops doubles.
 */
export function addRuleDates(
  into: CivilDay[],
  rule: Rule,
  start: CivilDay,
  from: CivilDay,
  to: CivilDay,
  calendar: WorkingCalendar,
): void {
  const first = Math.max(from, start);
  if (first > to) return;
  switch (rule.kind) {
    case 'days':
      addDays(into, rule, start, first, to);
      break;
    case 'weeks':
      addWeeks(into, rule, start, first, to);
      break;
    case 'months':
    case 'years':
      addMonths(into, rule, start, first, to, calendar);
  }
}

function addDays(into: CivilDay[], rule: DaysRule, start: CivilDay, first: CivilDay, to: CivilDay): void {
  const left = weekdayMask(rule.except);
  for (let day = start + Math.ceil((first - start) / rule.every) * rule.every; day <= to; day += rule.every) {
    if ((left & (1 << weekdayOf(day))) === 0) into.push(day);
  }
}

function addWeeks(into: CivilDay[], rule: WeeksRule, start: CivilDay, first: CivilDay, to: CivilDay): void {
  const period = rule.every * 7;
  const origin = mondayOf(start);
  const weekdays = [...rule.on].sort((a, b) => a - b);
  for (let monday = origin + Math.floor((first - origin) / period) * period; monday <= to; monday += period) {
    for (const weekday of weekdays) {
      const day = monday + weekday - 1;
      if (day >= first && day <= to) into.push(day);
    }
  }
}

function addMonths(
  into: CivilDay[],
  rule: MonthsRule | YearsRule,
  start: CivilDay,
  first: CivilDay,
  to: CivilDay,
  calendar: WorkingCalendar,
): void {
  const cycle = monthCycle(rule, start);
  // The month before too: "the first of the next month" for a day it lacks may fall into the window.
  const lead = rule.missing === 'next' ? 1 : 0;
  const last = monthIndexOf(to);
  for (let index = cycle.from(monthIndexOf(first) - lead); index <= last; index = cycle.from(index + 1)) {
    const { year, month } = monthOf(index);
    const bounds = { first: civilDay(year, month, 1), length: daysInMonth(year, month) };
    for (const point of rule.on) {
      const day = dayOfPoint(point, bounds, rule.missing, calendar);
      if (day !== null && day >= first && day <= to) into.push(day);
    }
  }
}

/** The months of a rule, as a way to find the first of them at or after any month. */
export interface MonthCycle {
  from(index: MonthIndex): MonthIndex;
}

export function monthCycle(rule: MonthsRule | YearsRule, start: CivilDay): MonthCycle {
  const startIndex = monthIndexOf(start);
  // Years are counted from January of the start's year, so that their months keep their order in the year.
  const origin = rule.kind === 'years' ? startIndex - (startIndex % 12) : startIndex;
  const period = rule.kind === 'years' ? rule.every * 12 : rule.every;
  const span = rule.kind === 'years' ? 12 : 1;
  let mask = 0;
  for (const month of rule.months) mask |= 1 << month;
  const inMonths = (index: MonthIndex) => mask === 0 || (mask & (1 << monthOf(index).month)) !== 0;
  return {
    from(index) {
      let at = Math.max(index, startIndex - 1);
      // The cycle of (period, 12 months) repeats after 12 periods: no match by then means no match ever.
      const limit = at + period * 12 + 12;
      while (at <= limit) {
        const phase = (((at - origin) % period) + period) % period;
        if (phase >= span) {
          at += period - phase;
          continue;
        }
        if (inMonths(at)) return at;
        at++;
      }
      return Number.POSITIVE_INFINITY;
    },
  };
}

export function weekdayMask(weekdays: readonly number[]): number {
  let mask = 0;
  for (const weekday of weekdays) mask |= 1 << weekday;
  return mask;
}
