import { shiftWorkingDays, type WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { monthsLater } from '../civil-date/month.ts';
import { spend } from '../reckoning.ts';
import { daysDates, numberedDates } from './interval-dates.ts';
import { NO_DAY } from './month-point.ts';
import type { FollowsRule } from './rule.ts';
import type { RuleDates } from './rule-dates.ts';

/**
 * The nominal day of the one that follows, once the last one has reached its milestone.
 * A month later is the same date, or the last day of a shorter month. Never earlier than the day after the last one's
 * nominal day: that names an occurrence, so two can't share it.
 * @param lastNominal nominal day of the last one
 * @param reachedOn day on which it was done, or under way, or finished for checking
 */
export function dayFollowing(
  rule: FollowsRule,
  lastNominal: CivilDay,
  reachedOn: CivilDay,
  calendar: WorkingCalendar,
): CivilDay {
  return Math.max(lastNominal + 1, later(rule, reachedOn, calendar));
}

function later({ amount, unit }: FollowsRule, day: CivilDay, calendar: WorkingCalendar): CivilDay {
  if (amount === 0) return day;
  switch (unit) {
    case 'day':
      return day + amount;
    case 'week':
      return day + amount * 7;
    case 'workingDay':
      return shiftWorkingDays(day, amount, calendar);
    case 'month':
      return monthsLater(day, amount);
  }
}

/** What is to be foreseen while nothing has happened yet: the start, and the others as if each were done on its own day. */
export function followsDates(rule: FollowsRule, start: CivilDay, calendar: WorkingCalendar): RuleDates {
  const { amount, unit } = rule;
  // "As soon as" can't be foreseen beyond the first.
  if (amount === 0) return onlyStart(start);
  switch (unit) {
    case 'day':
    case 'week':
      return daysDates({ kind: 'days', every: unit === 'day' ? amount : amount * 7, except: [] }, start);
    case 'workingDay': {
      const first = onlyStart(start);
      const others = numberedDates(calendar.numberOf(start) + amount, amount, start + 1, calendar);
      return {
        addBetween(into, from, to) {
          first.addBetween(into, from, to);
          others.addBetween(into, from, to);
        },
        firstFrom: (from, to) => (from <= start ? first : others).firstFrom(from, to),
      };
    }
    case 'month':
      return monthsApart(start, amount);
  }
}

function onlyStart(start: CivilDay): RuleDates {
  return {
    addBetween(into, from, to) {
      if (from <= start && start <= to) into.push(start);
    },
    firstFrom: (from, to) => (from <= start && start <= to ? start : NO_DAY),
  };
}

/** Month after month from the last one: a date that was shortened to a month's end stays short. */
function monthsApart(start: CivilDay, months: number): RuleDates {
  const walk = function* (from: CivilDay, to: CivilDay) {
    for (let day = start; day <= to; day = monthsLater(day, months)) {
      spend(1);
      if (day >= from) yield day;
    }
  };
  return {
    addBetween(into, from, to) {
      into.push(...walk(from, to));
    },
    firstFrom: (from, to) => walk(from, to).next().value ?? NO_DAY,
  };
}
