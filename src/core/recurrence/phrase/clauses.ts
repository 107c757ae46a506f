import type { Convention } from '../../calendar/business-day.ts';
import type { Season } from '../../calendar/closed-season.ts';
import { WEEKDAYS_ONLY } from '../../calendar/working-calendar.ts';
import { type CivilDay, civilDay, daysInMonth, type Weekday, yearMonthDay } from '../../civil-date/civil-day.ts';
import { isoOfDay } from '../../civil-date/iso-date.ts';
import { monthIndexOf, monthOf, monthStart } from '../../civil-date/month.ts';
import { NO_DAY } from '../month-point.ts';
import type { DaysOff, End, Rule, YearsRule } from '../rule.ts';
import { ruleDates } from '../rule-dates.ts';
import { TIMES } from './common-words.ts';
import type { PhraseContext } from './context.ts';
import type { PhraseCursor } from './cursor.ts';
import { readDate, readDates, readDayAndMonth, readMonthRange, readMonths, readNear, readTo } from './dates.ts';
import { readFeast } from './feasts.ts';
import { restOfYear } from './named-seasons.ts';
import { readBut } from './rules.ts';
import { type PhraseTimes, readTimes } from './times.ts';

/** What the clauses after the rules have said so far. */
export interface Said {
  start: CivilDay | null;
  end: ((start: CivilDay) => End) | null;
  dayOff: Convention | null;
  /** What the convention was said of. */
  daysOff: DaysOff | 'both' | null;
  /** Weekdays left out that are said after something else: "every day at 7, except Sundays". */
  but: readonly Weekday[] | null;
  /** A weekday that was said in the place of "the working day before": it has to be the one beside. */
  beside: Beside | null;
  omitted: Season[];
  moved: Season[];
  except: CivilDay[];
  times: PhraseTimes | null;
}

/** "The Thursday before": the side is that of the weekday where it is not said. */
export interface Beside {
  readonly weekday: Weekday;
  readonly side: 'before' | 'after' | null;
  /** Where it stands. */
  readonly at: number;
}

/** One clause after the rules, in any order; true when there was one. */
export function readClause(c: PhraseCursor, said: Said, context: PhraseContext): true | null {
  if (c.isAtEnd) return null;
  c.mark(',', ';');
  // "But August" says what is left out.
  if (!c.ahead(() => c.word('but') && readMonths(c) !== null)) c.filler('and', 'but');
  return (
    c.try(() => readDaytime(c, said)) ??
    c.try(() => readDayOff(c, said)) ??
    c.try(() => readClosed(c, said)) ??
    c.try(() => readStart(c, said, context)) ??
    c.try(() => readEnd(c, said, context)) ??
    c.try(() => readExcept(c, said, context)) ??
    c.try(() => readButLater(c, said))
  );
}

function readButLater(c: PhraseCursor, said: Said): true | null {
  if (said.but !== null) return null;
  said.but = readBut(c);
  return said.but && true;
}

/** Rules without the weekdays that were left out after them; null where not every rule has weekdays of its own to leave out. */
export function withoutWeekdays(rules: readonly Rule[], but: readonly Weekday[]): Rule[] | null {
  const left = rules.map((rule): Rule | null => {
    if (rule.kind === 'days' && rule.except.length === 0) return { ...rule, except: [...but] };
    if (rule.kind !== 'weeks') return null;
    const on = rule.on.filter((weekday) => !but.includes(weekday));
    return on.length > 0 && on.length < rule.on.length ? { ...rule, on } : null;
  });
  return left.every((rule) => rule !== null) ? left : null;
}

/** Times of day, said once. */
export function readDaytime(c: PhraseCursor, said: Said): true | null {
  if (said.times !== null) return null;
  said.times = readTimes(c);
  return said.times && true;
}

// ── days off ──

function readDayOff(c: PhraseCursor, said: Said): true | null {
  // What is done then says more than that there is none: "unless it is a weekend, then the Friday before".
  const found = c.try(() => readRoll(c)) ?? c.try(() => readSkip(c));
  if (found === null || said.dayOff !== null) return null;
  said.dayOff = found.convention;
  said.daysOff = found.of;
  said.beside = found.beside ?? null;
  return true;
}

const DAYS_OFF_WORDS = [
  'days off',
  'day off',
  'weekend or holiday',
  'weekend or a holiday',
  'weekend or bank holiday',
  'weekend or a bank holiday',
  'weekend or public holiday',
  'weekends or holidays',
  'weekends and public holidays',
  'holiday or weekend',
  'bank holiday or weekend',
  'holidays and weekends',
  'weekends and holidays',
  'weekends and bank holidays',
  'bank holidays and weekends',
  'weekends or bank holidays',
  'closed days',
  'non working days',
  'nonworking days',
];

const HOLIDAYS = [
  'holidays',
  'holiday',
  'public holidays',
  'public holiday',
  'bank holidays',
  'bank holiday',
  'bank hols',
];

const WEEKENDS = ['weekends', 'weekend', 'weekend days', 'weekend day', 'saturday or sunday', 'saturday or a sunday'];

/** Days off, or only some of them. */
function readDaysOff(c: PhraseCursor): DaysOff | 'both' | null {
  c.filler('a', 'the');
  // The longest first: "holidays and weekends" before "holidays".
  if (c.word(...DAYS_OFF_WORDS)) return 'both';
  if (c.word(...HOLIDAYS)) return 'holidays';
  return c.word(...WEEKENDS) ? 'weekends' : null;
}

interface SaidDaysOff {
  readonly convention: Convention;
  readonly of: DaysOff | 'both';
  readonly beside?: Beside;
}

function readSkip(c: PhraseCursor): SaidDaysOff | null {
  if (c.word('working days only', 'only on working days', 'on working days only', 'only working days'))
    return { convention: 'skip', of: 'both' };
  const isKept = c.word('even on', 'including');
  if (
    !isKept &&
    !c.word(
      'not on',
      'not',
      'skip',
      'skipping',
      'skipped on',
      'except on',
      'except',
      'excluding',
      'excl',
      'unless it is',
      'unless',
    )
  )
    return null;
  const of = readDaysOff(c);
  return of && { convention: isKept ? 'none' : 'skip', of };
}

/** "if it is a holiday", before or after what is done then */
function readIfOff(c: PhraseCursor, ...more: readonly string[]): DaysOff | 'both' | null {
  return c.word(
    'if it is',
    'if its',
    'if that is',
    'if thats',
    'if it falls on',
    'if that falls on',
    'if this is',
    'if this falls on',
    'when it is',
    'when it falls on',
    ...more,
  )
    ? readDaysOff(c)
    : null;
}

function readRoll(c: PhraseCursor): SaidDaysOff | null {
  const lead = c.try(() => {
    const of = readIfOff(c, 'if', 'on', 'when on', 'unless', 'unless it is', 'unless that is', 'unless it falls on');
    if (of !== null) c.mark(',');
    return of;
  });
  const isMoved = c.word('or', 'else', 'otherwise', 'or else', 'then', 'moved to', 'move to', 'rolled to');
  if (!isMoved && lead === null) return null;
  const beside = c.try(() => readBeside(c, lead));
  if (beside) return beside;
  c.filler('moved to', 'on');
  if (lead && c.word('skip it', 'skip', 'leave it out')) return { convention: 'skip', of: lead };
  if (lead && c.word('leave it there', 'leave it')) return { convention: 'none', of: lead };
  const convention = readMove(c);
  const of = lead ?? (convention && c.try(() => readIfOff(c)));
  return convention && { convention, of: of ?? 'both' };
}

/** "The Thursday before if that is a holiday": meant of days off that are said, never of all of them. */
function readBeside(c: PhraseCursor, lead: DaysOff | 'both' | null): SaidDaysOff | null {
  c.filler('moved to', 'on');
  c.filler('the');
  const at = c.place;
  const first = c.word('following', 'next') ? 'after' : c.word('previous', 'preceding', 'prior') ? 'before' : null;
  const weekday = c.weekday();
  if (weekday === null) return null;
  const side = first ?? (c.word('before') ? 'before' : c.word('after', 'following') ? 'after' : null);
  const of = lead ?? c.try(() => readIfOff(c, 'if'));
  if (of === null) return null;
  const convention = side === 'before' ? 'preceding' : 'following';
  return { convention, of, beside: { weekday: weekday as Weekday, side, at } };
}

/**
 * What a convention comes to that names a weekday: the one beside the weekday of the rules where a holiday falls on that, and
 * Friday or Monday where a weekend does. Null where it is another weekday than that: there is no such convention.
 */
export function besideOf(rules: readonly Rule[], { beside, daysOff }: Said): Convention | null {
  if (!beside) return null;
  const fits = (side: 'before' | 'after'): boolean => {
    if (beside.side !== null && beside.side !== side) return false;
    if (daysOff === 'weekends') return beside.weekday === (side === 'before' ? 5 : 1);
    const worked = weekdaysOf(rules);
    return (
      daysOff === 'holidays' &&
      worked === (side === 'before' ? (beside.weekday % 7) + 1 : ((beside.weekday + 5) % 7) + 1)
    );
  };
  return fits('before') ? 'preceding' : fits('after') ? 'following' : null;
}

/** The one weekday on which all dates of rules fall by themselves; null where there are several, or none can be told. */
function weekdaysOf(rules: readonly Rule[]): Weekday | null {
  const all = rules.map((rule): Weekday | null => {
    if (rule.kind === 'weeks') return rule.on.length === 1 ? (rule.on[0] ?? null) : null;
    if (rule.kind !== 'months' && rule.kind !== 'years') return null;
    const places = rule.on.map((point) => (point.kind === 'weekday' ? point.weekday : null));
    return places.every((place) => place === places[0]) ? (places[0] ?? null) : null;
  });
  return all.every((weekday) => weekday === all[0]) ? (all[0] ?? null) : null;
}

function readMove(c: PhraseCursor): Convention | null {
  c.filler('the');
  const convention = readConvention(c);
  if (convention === null) return null;
  const sameMonth = c.word(
    'in the same month',
    'within the same month',
    'of the same month',
    'within the month',
    'same month',
    'in that month',
  );
  if (!sameMonth) return convention;
  return convention === 'following'
    ? 'modifiedFollowing'
    : convention === 'preceding'
      ? 'modifiedPreceding'
      : convention;
}

const WORKING_DAY = ['working day', 'workday', 'business day', 'work day'];

function readConvention(c: PhraseCursor): Convention | null {
  if (c.word('nearest', 'closest')) return c.word(...WORKING_DAY) ? 'nearest' : null;
  if (c.word('previous', 'preceding', 'prior', 'last')) {
    if (!c.word(...WORKING_DAY)) return null;
    c.filler('before');
    return 'preceding';
  }
  if (c.word('next', 'following', 'first')) {
    if (!c.word(...WORKING_DAY)) return null;
    c.filler('after');
    return 'following';
  }
  if (!c.word(...WORKING_DAY)) return null;
  if (c.word('before')) return beforeIt(c, 'preceding');
  return c.word('after') ? beforeIt(c, 'following') : null;
}

function beforeIt(c: PhraseCursor, convention: Convention): Convention {
  c.filler('it', 'that');
  return convention;
}

// ── closed seasons ──

function readClosed(c: PhraseCursor, said: Said): true | null {
  if (c.word('moved out of', 'kept out of')) return add(said.moved, readSeasons(c));
  if (c.word('only in', 'only during', 'only from', 'only', 'in', 'during', 'throughout')) {
    c.filler('the');
    const named = c.season();
    if (named) return add(said.omitted, restOfYear(named.spans));
    const open = c.try(() => readMonthRange(c)) ?? readMonths(c);
    return add(said.omitted, open && seasonsBut(open));
  }
  const span = c.try(() => (c.word('between') ? readDaysApart(c) : null));
  if (span) return add(said.omitted, [span]);
  const months =
    c.try(() => (c.word('from') ? readMonthRange(c) : null)) ??
    c.try(() => (c.word('between') ? readMonthRange(c, readAnd) : null));
  if (months) return add(said.omitted, seasonsBut(months));
  const outside = c.try(() => {
    if (!c.word('outside', 'out of')) return null;
    c.filler('the');
    return c.season();
  });
  if (outside) return add(said.omitted, outside.spans);
  if (!c.word('not', 'never', 'closed', 'except', 'excluding', 'no work', 'but')) return null;
  if (c.word('between')) return add(said.omitted, readSpanOfYear(c, readAnd));
  // "Except August" as "except in August"; "except 25 Dec" is a date.
  const isSaid = c.word('in', 'from', 'during');
  const named = c.try(() => {
    c.filler('the');
    return c.season();
  });
  if (named) return add(said.omitted, named.spans);
  if (!isSaid && c.ahead(() => readDayAndMonth(c) !== null)) return null;
  return add(said.omitted, readSeasons(c));
}

/** After "between", the time that is left out: "1 March and 31 May" leaves out from 1 June to the end of February. */
function readDaysApart(c: PhraseCursor): Season | null {
  const from = readDayAndMonth(c);
  if (!from || !readAnd(c)) return null;
  const to = readDayAndMonth(c);
  // With a year it is a start and an end.
  if (!to || c.ahead(() => c.number() !== null)) return null;
  return { from: dayOfYearBeside(to.month, to.day, 1), to: dayOfYearBeside(from.month, from.day, -1) };
}

/** The day before or after a day of the year; what is before 1 March is the 29th of February. */
function dayOfYearBeside(month: number, day: number, step: 1 | -1): string {
  const beside = yearMonthDay(civilDay(2000, month, day) + step);
  return monthDay(beside.month, beside.day);
}

function add<T>(into: T[], found: readonly T[] | null): true | null {
  if (!found || found.length === 0) return null;
  into.push(...found);
  return true;
}

function readAnd(c: PhraseCursor): boolean {
  return c.word('and');
}

/** "Jan and Aug", "Nov to Feb", "15 Dec to 10 Jan" */
export function readSeasons(c: PhraseCursor): Season[] | null {
  return c.try(() => readSpanOfYear(c, readTo)) ?? readMonths(c)?.map((month) => wholeMonths(month, month)) ?? null;
}

function readSpanOfYear(c: PhraseCursor, isTo: (c: PhraseCursor) => boolean): Season[] | null {
  const months = c.try(() => readMonthRange(c, isTo));
  if (months) return [wholeMonths(months[0] as number, months.at(-1) as number)];
  const from = readDayAndMonth(c);
  if (!from || !isTo(c)) return null;
  const to = readDayAndMonth(c);
  return to && [{ from: monthDay(from.month, from.day), to: monthDay(to.month, to.day) }];
}

function wholeMonths(from: number, to: number): Season {
  return { from: monthDay(from, 1), to: monthDay(to, daysInMonth(2000, to)) };
}

function monthDay(month: number, day: number): string {
  return `${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
}

/** The stretches of months that are not among these. */
function seasonsBut(open: readonly number[]): Season[] {
  const isOpen = (month: number) => open.includes(((month - 1) % 12) + 1);
  const seasons: Season[] = [];
  const first = Array.from({ length: 12 }, (_, i) => i + 1).find((month) => isOpen(month) && !isOpen(month + 1));
  if (first === undefined) return [];
  for (let month = first + 1; month < first + 12; month++) {
    if (isOpen(month)) continue;
    const from = month;
    while (month + 1 < first + 12 && !isOpen(month + 1)) month++;
    seasons.push(wholeMonths(((from - 1) % 12) + 1, ((month - 1) % 12) + 1));
  }
  return seasons;
}

// ── start and end ──

export function readStart(c: PhraseCursor, said: Said, context: PhraseContext): true | null {
  if (
    said.start !== null ||
    !c.word('from', 'starting', 'starts', 'beginning', 'begins', 'since', 'as of', 'effective')
  )
    return null;
  c.filler('on', 'from', 'in', 'with');
  const day =
    c.try(() => readDate(c, context.today)) ??
    c.try(() => readMonthAsDay(c, context.today, 'first')) ??
    c.try(() => readNear(c, context.today));
  if (day === null) return null;
  said.start = day;
  return true;
}

export function readEnd(c: PhraseCursor, said: Said, context: PhraseContext): true | null {
  if (said.end !== null) return null;
  const from = Math.max(said.start ?? context.start, context.today);
  said.end = c.try(() => readUntil(c, from)) ?? c.try(() => readCount(c)) ?? c.try(() => readSpan(c));
  return said.end && true;
}

function readUntil(c: PhraseCursor, from: CivilDay): Said['end'] {
  if (!c.word('until', 'till', 'to', 'up to', 'through', 'ending', 'ends', 'end', 'no later than')) return null;
  if (c.word('further notice', 'stopped', 'told otherwise')) return () => ({ kind: 'never' });
  c.filler('on', 'in', 'at');
  const feast = c.try(() => readFeast(c));
  if (feast) {
    const day = firstOf(feast, from);
    return day === null ? null : () => ({ kind: 'on', date: isoOfDay(day) });
  }
  const isEnd = c.word('the end of', 'end of');
  const day =
    c.try(() => readDate(c, from)) ?? c.try(() => readMonthAsDay(c, from, 'last')) ?? (isEnd ? readYearEnd(c) : null);
  return day === null ? null : () => ({ kind: 'on', date: isoOfDay(day) });
}

/** The first day of a yearly rule that needs no calendar, from a day on. */
function firstOf(rule: YearsRule, from: CivilDay): CivilDay | null {
  const day = ruleDates(rule, from, WEEKDAYS_ONLY).firstFrom(from, from + 2 * 366);
  return day === NO_DAY ? null : day;
}

/** "March 2027", or the next March: its first or last day. */
function readMonthAsDay(c: PhraseCursor, from: CivilDay, which: 'first' | 'last'): CivilDay | null {
  const month = c.month();
  if (month === null) return null;
  const year = c.try(() => c.number());
  if (year !== null && (year < 1900 || year > 9999)) return null;
  const here = monthIndexOf(from);
  const index = year === null ? here + ((month - monthOf(here).month + 12) % 12) : year * 12 + month - 1;
  return which === 'first' ? monthStart(index) : monthStart(index + 1) - 1;
}

function readYearEnd(c: PhraseCursor): CivilDay | null {
  const year = c.number();
  return year === null || year < 1900 || year > 9999 ? null : monthStart(year * 12 + 12) - 1;
}

/** "12 times", "for 10 occurrences", "once" */
function readCount(c: PhraseCursor): Said['end'] {
  const after =
    (count: number): Said['end'] =>
    () => ({ kind: 'after', count });
  if (c.word('just once', 'only once', 'once only', 'once')) return after(1);
  if (c.word('twice')) return after(2);
  c.filler('for', 'after', 'ending after', 'ends after');
  const isTimes = c.word('x');
  const count = c.number();
  return count !== null && count > 0 && (isTimes || c.word(...TIMES)) ? after(count) : null;
}

/** "for 6 months", "for a year": up to the day before that much later. */
function readSpan(c: PhraseCursor): Said['end'] {
  if (!c.word('for', 'over')) return null;
  c.filler('the next', 'the');
  const count = c.number() ?? (c.word('a', 'an', 'one') ? 1 : null);
  if (count === null || count < 1) return null;
  const on =
    (endOf: (start: CivilDay) => CivilDay): Said['end'] =>
    (start) => ({ kind: 'on', date: isoOfDay(endOf(start)) });
  const months = (n: number) =>
    on((start) => monthStart(monthIndexOf(start) + n) + start - monthStart(monthIndexOf(start)) - 1);
  if (c.word('days', 'day')) return on((start) => start + count - 1);
  if (c.word('weeks', 'week')) return on((start) => start + count * 7 - 1);
  if (c.word('months', 'month')) return months(count);
  return c.word('years', 'year') ? months(count * 12) : null;
}

function readExcept(c: PhraseCursor, said: Said, context: PhraseContext): true | null {
  if (!c.word('except', 'except on', 'excluding', 'not on', 'skipping', 'without')) return null;
  c.filler('on', 'for');
  return add(said.except, readDates(c, Math.max(said.start ?? context.start, context.today), 'with or without'));
}
