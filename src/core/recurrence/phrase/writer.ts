import type { Convention } from '../../calendar/business-day.ts';
import type { Season } from '../../calendar/closed-season.ts';
import { daysInMonth, type Weekday } from '../../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate } from '../../civil-date/iso-date.ts';
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
} from '../../wording/date-words.ts';
import { inMonthOrder, mayLackDay } from '../canonical.ts';
import type {
  ClosedSeasons,
  DaysOff,
  Distance,
  FollowsRule,
  MonthPoint,
  MonthsRule,
  Recurrence,
  Rule,
  Way,
  YearsRule,
} from '../rule.ts';
import { daysFromEaster, feastNamed, isByEaster } from './feasts.ts';
import {
  isFromTheEnd,
  lastMonth,
  leavesItsMonth,
  placeInPeriod,
  quarterEnds,
  quarterStarts,
} from './quarter-places.ts';

export interface PhraseOptions {
  /** Whether the phrase ends with where the recurrence starts: "from 1 Mar 2027". The start of no one, `NO_START`, never is. */
  readonly start?: 'said' | 'unsaid';
  /** The month 1–12 in which a year begins, and its quarters with it; January where left out. */
  readonly yearStarts?: number;
}

/** The start of a recurrence that names none: a Monday, the 1st, in January, long ago. */
export const NO_START: IsoDate = '1900-01-01';

/**
 * A recurrence as a phrase: "15th and the last working day of each month, or the working day before".
 * `parsePhrase` reads it back as the same recurrence.
 */
export function writePhrase(recurrence: Recurrence, options: PhraseOptions = {}): string {
  return phraseParts(recurrence, options)
    .map(({ text }) => text)
    .join('');
}

/** A piece of the phrase, and what it is about. The texts joined are the phrase. */
export interface PhrasePart {
  readonly about:
    | { readonly kind: 'rule'; readonly index: number }
    | { readonly kind: 'dayOff' | 'closed' | 'start' | 'end' | 'except' | 'link' };
  readonly text: string;
}

/** The phrase in pieces, so that a form can tie each to its control. */
export function phraseParts(
  recurrence: Recurrence,
  { start = 'said', yearStarts = 1 }: PhraseOptions = {},
): PhrasePart[] {
  const { rules, dayOff, daysOff, end, closed, except = [] } = recurrence;
  const parts: PhrasePart[] = [];
  const add = (kind: Exclude<PhrasePart['about']['kind'], 'rule' | 'link'>, link: string, text: string) => {
    if (text !== '') parts.push({ about: { kind: 'link' }, text: link }, { about: { kind }, text });
  };
  rules.forEach((_, index) => {
    if (index > 0) parts.push({ about: { kind: 'link' }, text: index === rules.length - 1 ? ' and ' : ', ' });
    parts.push({ about: { kind: 'rule', index }, text: writeRuleOf(rules, index, yearStarts) });
  });
  add('dayOff', ', ', writeDayOff(dayOff, daysOff));
  add('closed', ', ', closed ? writeClosed(closed) : '');
  if (start === 'said' && recurrence.start !== NO_START) add('start', ' ', `from ${sayIso(recurrence.start)}`);
  if (end.kind === 'on') add('end', ' ', `until ${sayIso(end.date)}`);
  if (end.kind === 'after') add('end', ', ', sayTimes(end.count));
  add('except', ', ', except.length > 0 ? `except ${joinAnd(except.map(sayIso))}` : '');
  return parts;
}

/** "once", "twice", "12 times" */
function sayTimes(count: number): string {
  return count === 1 ? 'once' : count === 2 ? 'twice' : plural(count, 'time');
}

function sayIso(date: IsoDate): string {
  return sayDate(dayOfIso(date));
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

function writeDayOff(dayOff: Convention, daysOff: DaysOff | undefined): string {
  if (daysOff === undefined || dayOff === 'none') return ROLL_WORDS[dayOff];
  // "Not on weekends" takes weekdays out of a rule that names some.
  if (dayOff === 'skip') return daysOff === 'holidays' ? 'not on holidays' : 'skipped on weekends';
  return `${ROLL_WORDS[dayOff]} if that is a ${daysOff === 'holidays' ? 'holiday' : 'weekend'}`;
}

function writeClosed({ seasons, dates }: ClosedSeasons): string {
  const { months, spans } = inWords(seasons);
  const [inMonths, inSpan] = dates === 'omit' ? ['not in ', 'not from '] : ['moved out of ', 'moved out of '];
  return [...months.map((words) => inMonths + words), ...spans.map((words) => inSpan + words)].join(', ');
}

/** Seasons as a list: "Jan and Aug, 15 Dec to 10 Jan". */
export function writeSeasons(seasons: readonly Season[]): string {
  const { months, spans } = inWords(seasons);
  return [...months, ...spans].join(', ');
}

/** Single months together, and each longer or shorter span. */
function inWords(seasons: readonly Season[]): { readonly months: string[]; readonly spans: string[] } {
  const single = seasons.filter((season) => wholeMonths(season)?.length === 1);
  const months = joinAnd(single.map(({ from }) => monthShort(Number(from.slice(0, 2)))));
  const spans = seasons.filter((season) => !single.includes(season)).map(writeSpan);
  return { months: months === '' ? [] : [months], spans };
}

function writeSpan(season: Season): string {
  const months = wholeMonths(season);
  if (months) return `${monthShort(months[0] as number)} to ${monthShort(months.at(-1) as number)}`;
  const say = (text: string) => `${Number(text.slice(3))} ${monthShort(Number(text.slice(0, 2)))}`;
  return `${say(season.from)} to ${say(season.to)}`;
}

/** The months 1–12 of a season that is made of whole ones, or null. */
function wholeMonths({ from, to }: Season): number[] | null {
  const [first, last] = [Number(from.slice(0, 2)), Number(to.slice(0, 2))];
  // In a leap year: February is whole with its 29th.
  if (!from.endsWith('-01') || Number(to.slice(3)) !== daysInMonth(2000, last)) return null;
  return Array.from({ length: ((last - first + 12) % 12) + 1 }, (_, i) => ((first - 1 + i) % 12) + 1);
}

/**
 * A rule, which others may follow. "Every 2 months on the 5th and 20th of each month" would leave open whose the 20th is, so
 * before what begins with places in months its own are closed: "5th of every 2 months and 20th of each month".
 */
function writeRuleOf(rules: readonly Rule[], index: number, yearStarts: number): string {
  const rule = rules[index] as Rule;
  // After "every week on Mon and", one Friday before a day is no other weekday of it.
  if (index > 0 && rule.kind === 'months' && rule.every === 1 && rule.away) return withThe(writeRule(rule, yearStarts));
  if (!isOpen(rule) || !beginsWithPlaces(rules, index + 1)) return writeRule(rule, yearStarts);
  return `${writePlaces(rule)} of every ${rule.every} months${writeMissing(rule)}`;
}

/** Whether more places could be read as its own. */
function isOpen(rule: Rule): rule is MonthsRule {
  return rule.kind === 'months' && rule.every > 1 && rule.months.length === 0;
}

function beginsWithPlaces(rules: readonly Rule[], index: number): boolean {
  const rule = rules[index];
  if (rule?.kind !== 'months' || rule.away) return false;
  return rule.every === 1 || (isOpen(rule) && beginsWithPlaces(rules, index + 1));
}

/** One rule in words. */
function writeRule(rule: Rule, yearStarts: number): string {
  switch (rule.kind) {
    case 'days': {
      const but = rule.except.length > 0 ? ` but ${joinAnd(inWeekOrder(rule.except).map(weekdayShort))}` : '';
      return rule.every === 1 ? `every day${but}` : `every ${rule.every} days${but}`;
    }
    case 'workingDays':
      return rule.every === 1 ? 'every working day' : `every ${rule.every} working days`;
    case 'weeks': {
      const on = inWeekOrder(rule.on);
      if (on.join() === '1,2,3,4,5')
        return rule.every === 1 ? 'every weekday' : `every ${rule.every} weeks on weekdays`;
      if (on.join() === '6,7' && rule.every === 1) return 'every weekend';
      return `${rule.every === 1 ? 'every week' : `every ${rule.every} weeks`} on ${joinAnd(on.map(weekdayShort))}`;
    }
    case 'months':
      return writeMonths(rule, yearStarts);
    case 'years':
      return writeYears(rule, yearStarts);
    case 'dates':
      return `on ${joinAnd(rule.dates.map(sayIso))}`;
    case 'rrule':
      return `by RRULE ${rule.text}`;
    case 'follows':
      return writeFollows(rule);
  }
}

const MILESTONE_WORDS = { done: 'done', underWay: 'under way', toCheck: 'to be checked' } as const;
const UNIT_WORDS = { day: 'day', workingDay: 'working day', week: 'week', month: 'month' } as const;

function writeFollows({ reaches, amount, unit }: FollowsRule): string {
  if (amount === 0) return `as soon as the last one is ${MILESTONE_WORDS[reaches]}`;
  const every = amount === 1 ? `every ${UNIT_WORDS[unit]}` : `every ${amount} ${UNIT_WORDS[unit]}s`;
  return `${every} after ${reaches === 'done' ? 'completion' : `the last one is ${MILESTONE_WORDS[reaches]}`}`;
}

function inWeekOrder<T extends number>(weekdays: readonly T[]): T[] {
  return [...weekdays].sort((a, b) => a - b);
}

function writeMonths(rule: MonthsRule, yearStarts: number): string {
  const missing = writeMissing(rule);
  if (rule.every > 1) {
    const within = rule.months.length > 0 ? ` in ${joinAnd(rule.months.map(monthShort))}` : '';
    const places = rule.away ? `, ${withThe(writePlaces(rule))}` : ` on the ${writePlaces(rule)}`;
    return `every ${rule.every} months${places}${within}${missing}`;
  }
  const ofQuarter =
    rule.away && writeMonthList(rule, yearStarts) === 'every quarter'
      ? placeInPeriod(rule.away, rule.on, 'quarter')
      : null;
  if (ofQuarter) return `${writePoints([ofQuarter])} of every quarter`;
  return `${writePlaces(rule)} of ${writeMonthList(rule, yearStarts)}${missing}`;
}

/** The places, or how far from them: "first and third Tuesday", "3 working days before the last day". */
function writePlaces({ on, away }: MonthsRule | YearsRule): string {
  return away ? `${writeDistance(away)} the ${writePoints(on)}` : writePoints(on);
}

/** "the Friday before", "3 working days before" */
function withThe(distance: string): string {
  return distance.replace(/^(?!\d)/, 'the ');
}

const WAY_WORDS: Record<Way, string> = {
  before: 'before',
  after: 'after',
  onOrBefore: 'on or before',
  onOrAfter: 'on or after',
};

/** "3 working days before", "first working day on or after", "Friday before", "2 weeks after" */
export function writeDistance({ amount, of, way }: Distance): string {
  return `${sayAmount(amount, of, way)} ${WAY_WORDS[way]}`;
}

function sayAmount(amount: number, of: Distance['of'], way: Way): string {
  const isRanked = of !== 'day' && (of !== 'workingDay' || way === 'onOrBefore' || way === 'onOrAfter');
  if (isRanked) {
    const noun = of === 'workingDay' ? 'working day' : weekdayName(of);
    return amount === 1 && of !== 'workingDay' ? noun : `${ordinalWord(amount)} ${noun}`;
  }
  const noun = of === 'day' ? 'day' : 'working day';
  if (amount === 1) return noun;
  return of === 'day' && amount >= 14 && amount % 7 === 0 ? `${amount / 7} weeks` : `${amount} ${noun}s`;
}

function writeMonthList(rule: MonthsRule, yearStarts: number): string {
  const months = rule.months.join();
  if (months === '') return 'each month';
  if (!rule.on.some(leavesItsMonth)) {
    if (months === quarterEnds(yearStarts).join() && rule.on.every(isFromTheEnd)) return 'every quarter';
    if (months === quarterStarts(yearStarts).join() && !rule.on.some(isFromTheEnd)) return 'every quarter';
  }
  return joinAnd(rule.months.map(monthShort));
}

function writeYears(rule: YearsRule, yearStarts: number): string {
  const often = rule.every === 1 ? 'yearly' : `every ${rule.every} years`;
  const missing = writeLeapDay(rule) ?? writeMissing(rule);
  const months = joinAnd(rule.months.map(monthName));
  const points = inMonthOrder(rule.on);
  const ofYear =
    rule.away &&
    rule.every === 1 &&
    rule.months.join() === String(rule.away.way === 'onOrBefore' ? lastMonth(yearStarts) : yearStarts)
      ? placeInPeriod(rule.away, rule.on, 'year')
      : null;
  if (ofYear) return `${writePoints([ofYear])} of the year`;
  const fromEaster = daysFromEaster(rule);
  const feast = fromEaster === null ? null : feastNamed(fromEaster);
  if (feast !== null) return `${often} on ${feast}`;
  const link = rule.away ? `, ${withThe(writeDistance(rule.away))} ` : ' on ';
  if (isByEaster(rule)) return `${often}${link}Easter Sunday`;
  const dates = points.flatMap((point) => (point.kind === 'date' && point.day > 0 ? [point.day] : []));
  if (dates.length === points.length) return `${often}${link}${joinAnd(dates.map(String))} ${months}${missing}`;
  return `${often}${link}the ${writePoints(points)} of ${months}${missing}`;
}

function writeLeapDay(rule: YearsRule): string | null {
  if (rule.months.join() !== '2' || rule.on.length !== 1) return null;
  const [point] = rule.on;
  if (point?.kind !== 'date' || point.day !== 29) return null;
  return { last: ', or the 28th', next: ', or 1 March', omit: ', in leap years only' }[rule.missing];
}

/** Places in a month; neighbours with the same noun share it: "first and third Tuesday". */
function writePoints(points: readonly MonthPoint[]): string {
  const groups: { places: string[]; noun: string }[] = [];
  for (const point of inMonthOrder(points)) {
    const { place, noun } = wordsOf(point);
    const last = groups.at(-1);
    if (last && noun !== '' && noun !== 'day' && last.noun === noun) last.places.push(place);
    else groups.push({ places: [place], noun });
  }
  return joinAnd(
    groups.map(({ places, noun }, i) => {
      // "15th and last working day" could be the 15th working day.
      const isAfterDate = noun !== '' && noun !== 'day' && groups[i - 1]?.noun === '';
      return `${isAfterDate ? 'the ' : ''}${joinAnd(places)} ${noun}`.trim();
    }),
  );
}

function wordsOf(point: MonthPoint): { readonly place: string; readonly noun: string } {
  const place = (nth: number) => (nth > 0 ? ordinalWord(nth) : fromTheEnd(-nth));
  switch (point.kind) {
    case 'date':
      return point.day > 0 ? { place: ordinal(point.day), noun: '' } : { place: fromTheEnd(-point.day), noun: 'day' };
    case 'weekday':
      return { place: place(point.nth), noun: weekdayName(point.weekday) };
    case 'anyWeekday':
      return { place: place(point.nth), noun: writeWeekdaySet(point.weekdays) };
    case 'workingDay':
      return { place: place(point.nth), noun: 'working day' };
    case 'easter':
      return { place: 'Easter Sunday', noun: '' };
  }
}

function writeWeekdaySet(weekdays: readonly Weekday[]): string {
  const names = inWeekOrder(weekdays);
  if (names.join() === '1,2,3,4,5') return 'weekday';
  if (names.join() === '6,7') return 'weekend day';
  return names.map(weekdayShort).join(' or ');
}

/** "last", "last but one", "third last" */
function fromTheEnd(n: number): string {
  if (n === 1) return 'last';
  return n === 2 ? 'last but one' : `${ordinalWord(n)} last`;
}

/** What is said of months that lack the day; nothing where every month has it. */
function writeMissing(rule: MonthsRule | YearsRule): string {
  if (!mayLackDay(rule)) return '';
  return { last: ', or the last day', next: ', or the 1st after', omit: ', where there is one' }[rule.missing];
}
