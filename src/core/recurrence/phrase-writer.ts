import type { Convention } from '../calendar/business-day.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import {
  joinAnd,
  monthName,
  monthShort,
  ordinal,
  ordinalWord,
  plural,
  sayDate,
  weekdayName,
  weekdayShort,
} from '../wording/date-words.ts';
import type { End, MissingDay, MonthPoint, MonthsRule, Recurrence, Rule, YearsRule } from './rule.ts';

/** A recurrence as a phrase: "15th and last working day of each month, or the working day before". Its start is not said. */
export function writePhrase(recurrence: Recurrence): string {
  return phraseParts(recurrence)
    .map(({ text }) => text)
    .join('');
}

/** A piece of the phrase, and what it is about. The texts joined are the phrase. */
export interface PhrasePart {
  readonly about: { readonly kind: 'rule'; readonly index: number } | { readonly kind: 'dayOff' | 'end' | 'link' };
  readonly text: string;
}

/** The phrase in pieces, so that a form can tie each to its control. */
export function phraseParts({ rules, dayOff, end }: Recurrence): PhrasePart[] {
  const parts: PhrasePart[] = [];
  rules.forEach((rule, index) => {
    if (index > 0) parts.push({ about: { kind: 'link' }, text: index === rules.length - 1 ? ' and ' : ', ' });
    parts.push({ about: { kind: 'rule', index }, text: writeRule(rule) });
  });
  const roll = ROLL_WORDS[dayOff];
  if (roll) parts.push({ about: { kind: 'link' }, text: ', ' }, { about: { kind: 'dayOff' }, text: roll });
  const ending = writeEnd(end);
  if (ending)
    parts.push(
      { about: { kind: 'link' }, text: end.kind === 'after' ? ', ' : ' ' },
      { about: { kind: 'end' }, text: ending },
    );
  return parts;
}

const ROLL_WORDS: Record<Convention, string> = {
  none: '',
  following: 'or the working day after',
  preceding: 'or the working day before',
  modifiedFollowing: 'or the working day after in the same month',
  modifiedPreceding: 'or the working day before in the same month',
  nearest: 'or the nearest working day',
  skip: 'not on days off',
};

function writeEnd(end: End): string {
  if (end.kind === 'on') return `until ${sayDate(dayOfIso(end.date))}`;
  return end.kind === 'after' ? plural(end.count, 'time') : '';
}

/** One rule in words. */
export function writeRule(rule: Rule): string {
  switch (rule.kind) {
    case 'days': {
      const but = rule.except.length > 0 ? ` but ${joinAnd(inWeekOrder(rule.except).map(weekdayShort))}` : '';
      return rule.every === 1 ? `every day${but}` : `every ${rule.every} days${but}`;
    }
    case 'weeks': {
      const on = inWeekOrder(rule.on);
      if (on.join() === '1,2,3,4,5')
        return rule.every === 1 ? 'every weekday' : `every ${rule.every} weeks on weekdays`;
      return `${rule.every === 1 ? 'every week' : `every ${rule.every} weeks`} on ${joinAnd(on.map(weekdayShort))}`;
    }
    case 'months':
      return writeMonths(rule);
    case 'years':
      return writeYears(rule);
  }
}

function inWeekOrder<T extends number>(weekdays: readonly T[]): T[] {
  return [...weekdays].sort((a, b) => a - b);
}

function writeMonths(rule: MonthsRule): string {
  const points = joinAnd(inMonthOrder(rule.on).map(writePoint));
  const missing = writeMissing(rule.on, rule.missing);
  if (rule.every > 1) {
    const within = rule.months.length > 0 ? ` in ${joinAnd(rule.months.map(monthShort))}` : '';
    return `every ${rule.every} months on the ${points}${within}${missing}`;
  }
  return `${points} of ${writeMonthList(rule)}${missing}`;
}

const QUARTER_ENDS = '3,6,9,12';
const QUARTER_STARTS = '1,4,7,10';

function writeMonthList(rule: MonthsRule): string {
  const months = rule.months.join();
  if (months === '') return 'each month';
  if (months === QUARTER_ENDS && rule.on.every(isFromTheEnd)) return 'every quarter';
  if (months === QUARTER_STARTS && !rule.on.some(isFromTheEnd)) return 'every quarter';
  return joinAnd(rule.months.map(monthShort));
}

function isFromTheEnd(point: MonthPoint): boolean {
  return point.kind === 'date' ? point.day < 0 : point.nth < 0;
}

function writeYears(rule: YearsRule): string {
  const often = rule.every === 1 ? 'yearly' : `every ${rule.every} years`;
  const missing = writeLeapDay(rule) ?? writeMissing(rule.on, rule.missing);
  const months = joinAnd(rule.months.map(monthName));
  const points = inMonthOrder(rule.on);
  const dates = points.flatMap((point) => (point.kind === 'date' && point.day > 0 ? [point.day] : []));
  if (dates.length === points.length) {
    return dates.length === 1
      ? `${often} on ${dates[0]} ${months}${missing}`
      : `${often} on ${joinAnd(dates.map(String))} ${months}${missing}`;
  }
  return `${often} on the ${joinAnd(points.map(writePoint))} of ${months}${missing}`;
}

function writeLeapDay(rule: YearsRule): string | null {
  if (rule.months.join() !== '2' || rule.on.length !== 1) return null;
  const [point] = rule.on;
  if (point?.kind !== 'date' || point.day !== 29) return null;
  return { last: ', or the 28th', next: ', or 1 March', omit: ', in leap years only' }[rule.missing];
}

function writePoint(point: MonthPoint): string {
  switch (point.kind) {
    case 'date':
      return point.day > 0 ? ordinal(point.day) : `${fromTheEnd(-point.day)} day`;
    case 'weekday':
      return `${point.nth > 0 ? ordinalWord(point.nth) : fromTheEnd(-point.nth)} ${weekdayName(point.weekday)}`;
    case 'workingDay':
      return `${point.nth > 0 ? ordinalWord(point.nth) : fromTheEnd(-point.nth)} working day`;
  }
}

/** "last", "last but one", "third last" */
function fromTheEnd(n: number): string {
  if (n === 1) return 'last';
  return n === 2 ? 'last but one' : `${ordinalWord(n)} last`;
}

/** What is said of months that lack the day; nothing where every month has it. */
function writeMissing(points: readonly MonthPoint[], missing: MissingDay): string {
  if (!points.some((point) => point.kind === 'date' && point.day > 28)) return '';
  return { last: ', or the last day', next: ', or the 1st after', omit: ', where there is one' }[missing];
}

/** Dates first, then those counted from the end. */
function inMonthOrder(points: readonly MonthPoint[]): MonthPoint[] {
  return [...points].sort((a, b) => rank(a) - rank(b));
}

function rank(point: MonthPoint): number {
  if (point.kind === 'date') return point.day > 0 ? point.day : 100 + point.day;
  const place = point.kind === 'weekday' ? point.nth * 7 - 3 : point.nth * 1.4;
  return point.nth > 0 ? place : 100 + place;
}
