import { WEEKDAYS_ONLY, type WorkingCalendar } from '../calendar/working-calendar.ts';
import { type CivilDay, weekdayOf, yearMonthDay } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, isoOfDay } from '../civil-date/iso-date.ts';
import { monthIndexOf, monthStart } from '../civil-date/month.ts';
import { mayLackDay } from '../recurrence/canonical.ts';
import { occurrenceSeries } from '../recurrence/occurrences.ts';
import { parseRRuleParts, rruleWeekday } from '../recurrence/rrule/parts.ts';
import type { MonthsRule, Recurrence, Rule, YearsRule } from '../recurrence/rule.ts';
import { sayDate } from '../wording/date-words.ts';
import { awayParts } from './away-rrule.ts';
import { isDated, planDays } from './plan.ts';
import { PLAIN_TIMING } from './timing.ts';

export interface RRuleOptions {
  /** Which days are worked; Monday to Friday where left out. */
  readonly calendar?: WorkingCalendar;
  /** Last date to list where the dates have to be listed; five years from the start where left out. */
  readonly to?: IsoDate;
}

export interface WrittenRRule {
  /** iCalendar lines, joined by line feeds: DTSTART, RRULE, RDATE, EXDATE, and COMMENT where something has to be said. */
  readonly text: string;
  /** What RRULE could not say, in words; null where the lines say it all. */
  readonly remark: string | null;
}

/**
 * A recurrence as iCalendar lines (RFC 5545, section 3.8.5). What RRULE can't say (working days with holidays, moves off days
 * off, closed seasons) is written as RDATEs, the dates on which it is worked, for a stated span; a COMMENT line says so.
 * `parseRRule` reads it back as the same dates.
 * @throws NoWorkingDayError, InvalidDateError
 */
export function writeRRule(recurrence: Recurrence, options: RRuleOptions = {}): string {
  return explainRRule(recurrence, options).text;
}

/** The same, with what RRULE could not say told apart. */
export function explainRRule(
  recurrence: Recurrence,
  { calendar = WEEKDAYS_ONLY, to }: RRuleOptions = {},
): WrittenRRule {
  const { start, end, except = [] } = recurrence;
  const values = ruleValues(recurrence, calendar);
  if (values) {
    const tail = end.kind === 'on' ? `;UNTIL=${compact(end.date)}` : end.kind === 'after' ? `;COUNT=${end.count}` : '';
    const lines = values.map((value) => (value.startsWith('RDATE') ? value : `RRULE:${value}${tail}`));
    const day = dtstart(recurrence, calendar);
    // Other programs take DTSTART for an occurrence, which it is not where rules keep the start they are counted from.
    const isDate =
      recurrence.rules.length === 1 || occurrenceSeries({ ...recurrence, except: [] }, calendar).next(day - 1) === day;
    const out = [...except, ...(isDate ? [] : [isoOfDay(day)])].sort();
    const exdates = out.length > 0 ? [`EXDATE;VALUE=DATE:${out.map(compact).join(',')}`] : [];
    return { text: [`DTSTART;VALUE=DATE:${compact(isoOfDay(day))}`, ...lines, ...exdates].join('\n'), remark: null };
  }
  return listed(recurrence, calendar, to === undefined ? fiveYearsFrom(start) : dayOfIso(to));
}

/**
 * The first occurrence, which other programs take DTSTART to be; it keeps the interval's phase of a rule that is alone.
 * Several rules keep the start they are counted from, where another one would change what they give.
 */
function dtstart(recurrence: Recurrence, calendar: WorkingCalendar): CivilDay {
  const start = dayOfIso(recurrence.start);
  const first = occurrenceSeries({ ...recurrence, except: [] }, calendar).next(start - 1) ?? start;
  const { rules } = recurrence;
  return rules.length === 1 || rules.every((rule) => isInStep(rule, start, first)) ? first : start;
}

/** Whether a rule gives the same dates when it is counted from another day. */
function isInStep(rule: Rule, start: CivilDay, other: CivilDay): boolean {
  if (start === other) return true;
  switch (rule.kind) {
    case 'weeks':
      return rule.every === 1 || weekOf(start) === weekOf(other);
    case 'months':
      return rule.every === 1 || monthIndexOf(start) === monthIndexOf(other);
    case 'years':
      return rule.every === 1 || yearMonthDay(start).year === yearMonthDay(other).year;
    case 'days':
    case 'workingDays':
      return rule.every === 1;
    case 'dates':
      return true;
    case 'rrule':
    case 'follows':
      return false;
  }
}

/** The Monday of a day's week. */
const weekOf = (day: CivilDay) => day - weekdayOf(day) + 1;

function fiveYearsFrom(start: IsoDate): CivilDay {
  return monthStart(monthIndexOf(dayOfIso(start)) + 60) - 1;
}

function compact(date: IsoDate): string {
  return date.replaceAll('-', '');
}

/** The dates on which it is worked, one by one, up to a day. */
function listed(recurrence: Recurrence, calendar: WorkingCalendar, to: CivilDay): WrittenRRule {
  const schedule = { recurrence, timing: PLAIN_TIMING };
  const from = dayOfIso(recurrence.start) - 400;
  const dates = planDays(schedule, calendar, from, to)
    .filter(isDated)
    .map(({ on }) => compact(isoOfDay(on)));
  const goesOn = occurrenceSeries(recurrence, calendar).next(to) !== null;
  const why = 'RRULE can’t say this rule, so its dates are listed';
  const remark = goesOn
    ? `${why}, up to ${sayDate(to)}; it goes on after that.`
    : `${why}, all ${dates.length} of them.`;
  const head = `DTSTART;VALUE=DATE:${dates[0] ?? compact(recurrence.start)}`;
  const rdates = dates.length > 0 ? [`RDATE;VALUE=DATE:${dates.join(',')}`] : [];
  return { text: [head, ...rdates, `COMMENT:${remark.replace(/([,;\\])/g, '\\$1')}`].join('\n'), remark };
}

/** RECUR values (and RDATE lines) that give exactly the recurrence's dates, or null where there are none. */
function ruleValues(recurrence: Recurrence, calendar: WorkingCalendar): string[] | null {
  const { rules, end, dayOff, closed } = recurrence;
  if (dayOff !== 'none' || closed) return null;
  const values = rules.map((rule) => valuesOf(rule, calendar, recurrence.start));
  if (values.some((value) => value === null)) return null;
  const all = values.flatMap((value) => value ?? []);
  // A count is of all rules together, which RRULE can say of one only; an end cuts listed dates as well.
  if (end.kind === 'after' && (all.length !== 1 || rules[0]?.kind === 'dates')) return null;
  const ownEnd = rules.some((rule) => rule.kind === 'dates' || (rule.kind === 'rrule' && hasEnd(rule.text)));
  return end.kind !== 'never' && ownEnd ? null : all;
}

function hasEnd(text: string): boolean {
  const { count, until } = parseRRuleParts(text);
  return count !== null || until !== null;
}

/** @param start no listed date comes before it */
function valuesOf(rule: Rule, calendar: WorkingCalendar, start: IsoDate): string[] | null {
  switch (rule.kind) {
    case 'days': {
      const on = ([1, 2, 3, 4, 5, 6, 7] as const).filter((weekday) => !rule.except.includes(weekday));
      return [recur('DAILY', rule.every, rule.except.length > 0 && `BYDAY=${on.map(rruleWeekday).join()}`)];
    }
    case 'weeks':
      return [recur('WEEKLY', rule.every, `BYDAY=${rule.on.map(rruleWeekday).join()}`)];
    case 'months':
    case 'years':
      return monthValues(rule, calendar);
    case 'dates': {
      const dates = rule.dates.filter((date) => date >= start);
      // A date that stands there twice is one: some who read it take two for two.
      return dates.length > 0 ? [`RDATE;VALUE=DATE:${[...new Set(dates.map(compact))].join(',')}`] : [];
    }
    case 'rrule':
      return [rule.text];
    case 'workingDays':
    case 'follows':
      return null;
  }
}

function recur(freq: string, every: number, ...parts: (string | false)[]): string {
  return [`FREQ=${freq}`, every > 1 && `INTERVAL=${every}`, ...parts].filter((part) => part !== false).join(';');
}

function monthValues(rule: MonthsRule | YearsRule, calendar: WorkingCalendar): string[] | null {
  const isYearly = rule.kind === 'years';
  const freq = isYearly ? 'YEARLY' : 'MONTHLY';
  if (rule.away)
    return (
      awayParts(rule, rule.away)?.map(({ months, parts }) =>
        recur(freq, rule.every, months.length > 0 && `BYMONTH=${months.join()}`, ...parts),
      ) ?? null
    );
  const values = groupsOf(rule, calendar);
  if (!values) return null;
  return values.flatMap((value) => {
    // In a yearly rule BYSETPOS chooses among all the months together, so each month is a rule of its own.
    if (isYearly && value.includes('BYSETPOS'))
      return rule.months.map((month) => recur(freq, rule.every, `BYMONTH=${month}`, value));
    return [recur(freq, rule.every, rule.months.length > 0 && `BYMONTH=${rule.months.join()}`, value)];
  });
}

/** The places in a month, as BY parts; those that can stand in one rule together. Null where one of them can't be said. */
function groupsOf({ on, months, missing }: MonthsRule | YearsRule, calendar: WorkingCalendar): string[] | null {
  const groups: string[] = [];
  const dates: number[] = [];
  const weekdays: string[] = [];
  const positions = new Map<string, number[]>();
  const position = (byDay: string, nth: number) => positions.set(byDay, [...(positions.get(byDay) ?? []), nth]);
  for (const point of on) {
    switch (point.kind) {
      case 'date':
        if (missing === 'omit' || !mayLackDay({ on: [point], months })) dates.push(point.day);
        else if (missing === 'next') return null;
        // The last of the days up to it that the month has.
        else groups.push(`BYMONTHDAY=${daysUpTo(point.day)};BYSETPOS=-1`);
        break;
      case 'weekday':
        weekdays.push(`${point.nth}${rruleWeekday(point.weekday)}`);
        break;
      case 'anyWeekday':
        if (mayLackPosition(point.nth, point.weekdays.length)) return null;
        position(point.weekdays.map(rruleWeekday).join(), point.nth);
        break;
      case 'easter':
        return null;
      case 'workingDay':
        if (calendar.holidays.length > 0 || mayLackPosition(point.nth, calendar.workingWeekdays.length)) return null;
        position(calendar.workingWeekdays.map(rruleWeekday).join(), point.nth);
    }
  }
  if (dates.length > 0) groups.push(`BYMONTHDAY=${dates.join()}`);
  if (weekdays.length > 0) groups.push(`BYDAY=${weekdays.join()}`);
  for (const [byDay, nths] of positions) groups.push(`BYDAY=${byDay};BYSETPOS=${nths.join()}`);
  return groups;
}

/** Weekdays come at least so often in a month. */
const LEAST_WEEKS = 4;

/** Whether some month has no such position: other programs read BYSETPOS past the end of a set as they like. */
function mayLackPosition(nth: number, weekdays: number): boolean {
  return Math.abs(nth) > LEAST_WEEKS * weekdays;
}

function daysUpTo(day: number): string {
  return Array.from({ length: day - 27 }, (_, i) => 28 + i).join();
}
