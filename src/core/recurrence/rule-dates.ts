import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { followsDates } from './follows-dates.ts';
import { datesDates, daysDates, weeksDates, workingDaysDates } from './interval-dates.ts';
import { monthDates } from './month-dates.ts';
import { rruleDates } from './rrule/dates.ts';
import { parseRRuleParts } from './rrule/parts.ts';
import type { Rule } from './rule.ts';

/** The days of one rule, solved for any window instead of walked from its start. */
export interface RuleDates {
  /**
   * Adds the days within [from, to], both included and none before the start. They come in order but for points of a month
   * that stand in another order, and for what "the first of the next month" pushes out; the caller sorts and drops doubles.
   */
  addBetween(into: CivilDay[], from: CivilDay, to: CivilDay): void;
  /** The first day on or after `from` and up to `to`, none before the start; NO_DAY where there is none. */
  firstFrom(from: CivilDay, to: CivilDay): CivilDay;
}

export class InvalidRuleError extends Error {
  override readonly name = 'InvalidRuleError';
}

/** Makes a rule ready. @throws InvalidRuleError for an interval that steps nowhere; RRuleError for a foreign rule that can't be read */
export function ruleDates(rule: Rule, start: CivilDay, calendar: WorkingCalendar): RuleDates {
  if ('every' in rule && !(Number.isInteger(rule.every) && rule.every >= 1))
    throw new InvalidRuleError(`“every ${rule.every}” steps nowhere: an interval is a whole number from 1.`);
  if (rule.kind === 'years' && rule.months.length === 0)
    throw new InvalidRuleError('A yearly rule needs its month, 1 to 12.');
  switch (rule.kind) {
    case 'days':
      return daysDates(rule, start);
    case 'workingDays':
      return workingDaysDates(rule, start, calendar);
    case 'weeks':
      return weeksDates(rule, start);
    case 'months':
    case 'years':
      return monthDates(rule, start, calendar);
    case 'dates':
      return datesDates(rule, start);
    case 'rrule':
      return rruleDates(parseRRuleParts(rule.text), start);
    case 'follows':
      return followsDates(rule, start, calendar);
  }
}
