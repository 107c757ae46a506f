import type { Convention } from '../calendar/business-day.ts';
import type { Season } from '../calendar/closed-season.ts';
import { type CivilDay, daysInMonth } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, isoOfDay } from '../civil-date/iso-date.ts';
import { monthIndexOf, monthOf, monthStart } from '../civil-date/month.ts';
import { editDistance } from '../wording/spelling.ts';
import { canonicalRecurrence } from './canonical.ts';
import { PhraseCursor } from './phrase-cursor.ts';
import { readDate, readDates, readDayAndMonth, readMonthRange, readMonths, readTo } from './phrase-dates.ts';
import { type PhraseContext, readRules } from './phrase-rules.ts';
import { cardinalNamed, FULL_NAMES, monthNamed, phraseTokens } from './phrase-tokens.ts';
import { NO_START } from './phrase-writer.ts';
import { parseRRuleParts, RRuleError } from './rrule-parts.ts';
import type { ClosedSeasons, End, Recurrence, Rule } from './rule.ts';

/** Where a phrase stops making sense, what was expected there, and what may have been meant. */
export interface PhraseProblem {
  /** Index of the first character that was not understood; the length of the text where something is missing. */
  readonly at: number;
  /** How many characters; 0 where something is missing. */
  readonly length: number;
  /** In words, for people. */
  readonly message: string;
  /** What would have been understood there. */
  readonly expected: readonly string[];
  /** The whole phrase as it may have been meant; null where nothing is near. */
  readonly suggestion: string | null;
}

export type PhraseReading =
  | { readonly kind: 'read'; readonly recurrence: Recurrence }
  | { readonly kind: 'unread'; readonly problem: PhraseProblem };

export interface PhraseReadingOptions {
  /** Start of the recurrence where the phrase names none; `NO_START` where left out. */
  readonly start?: IsoDate;
  /** Dates without a year are the next ones from this day on; the start where left out. */
  readonly today?: IsoDate;
}

/** A phrase that can't be read, thrown by `parsePhrase`. */
export class PhraseError extends Error {
  override readonly name = 'PhraseError';
  constructor(readonly problem: PhraseProblem) {
    super(problem.suggestion ? `${problem.message} Did you mean “${problem.suggestion}”?` : problem.message);
  }
}

/**
 * Reads a phrase in plain British English, "every 2 weeks on Tue and Thu", "last working day of every quarter",
 * "1st and 15th, or the working day before", as a recurrence in its canonical form. What `writePhrase` writes is read
 * back as the same recurrence.
 * @throws PhraseError with the place, what was expected and a suggestion
 */
export function parsePhrase(text: string, options: PhraseReadingOptions = {}): Recurrence {
  const reading = readPhrase(text, options);
  if (reading.kind === 'unread') throw new PhraseError(reading.problem);
  return reading.recurrence;
}

/** The longest phrase that is read. */
const LONGEST_PHRASE = 2000;

/** Reads a phrase, or says what in it can't be read. */
export function readPhrase(text: string, options: PhraseReadingOptions = {}): PhraseReading {
  if (text.length > LONGEST_PHRASE) {
    const message = `This is longer than ${LONGEST_PHRASE} characters: a rule should fit into a sentence.`;
    return {
      kind: 'unread',
      problem: { at: LONGEST_PHRASE, length: text.length - LONGEST_PHRASE, message, expected: [], suggestion: null },
    };
  }
  const attempt = read(text, options);
  if (attempt.kind === 'read') return attempt;
  return { kind: 'unread', problem: problemOf(text, attempt.cursor, (other) => read(other, options).kind === 'read') };
}

type Attempt = { kind: 'read'; recurrence: Recurrence } | { kind: 'stuck'; cursor: PhraseCursor };

function read(text: string, options: PhraseReadingOptions): Attempt {
  const start = dayOfIso(options.start ?? NO_START);
  const today = options.today === undefined ? start : dayOfIso(options.today);
  const cursor = new PhraseCursor(text);
  const recurrence = readRecurrence(cursor, { start, today });
  if (!recurrence || !cursor.isAtEnd) return { kind: 'stuck', cursor };
  // "Monthly from 3 May": what the rule leaves unsaid comes from a start that was read only after it.
  if (recurrence.start !== isoOfDay(start)) return read(text, { ...options, start: recurrence.start });
  return { kind: 'read', recurrence: canonicalRecurrence(recurrence) };
}

/** What the clauses after the rules have said so far. */
interface Said {
  start: CivilDay | null;
  end: ((start: CivilDay) => End) | null;
  dayOff: Convention | null;
  omitted: Season[];
  moved: Season[];
  except: CivilDay[];
}

function readRecurrence(c: PhraseCursor, context: PhraseContext): Recurrence | null {
  const said: Said = { start: null, end: null, dayOff: null, omitted: [], moved: [], except: [] };
  // "From 1 March, every Friday": the start may come first, and is then known to what follows.
  while (c.try(() => readStart(c, said, context))) c.mark(',');
  const rules = readRules(c, { ...context, start: said.start ?? context.start });
  if (!rules?.every(isReadable)) return null;
  while (c.try(() => readClause(c, said, context)));
  const start = said.start ?? context.start;
  return {
    start: isoOfDay(start),
    rules,
    end: said.end?.(start) ?? { kind: 'never' },
    dayOff: said.dayOff ?? 'none',
    ...closedOf(said),
    except: said.except.map(isoOfDay),
  };
}

function isReadable(rule: Rule): boolean {
  if ('every' in rule && rule.every < 1) return false;
  if (rule.kind !== 'rrule') return true;
  try {
    parseRRuleParts(rule.text);
    return true;
  } catch (error) {
    if (error instanceof RRuleError) return false;
    throw error;
  }
}

function closedOf({ omitted, moved }: Said): { closed?: ClosedSeasons } {
  if (moved.length > 0) return { closed: { seasons: [...moved, ...omitted], dates: 'move' } };
  return omitted.length > 0 ? { closed: { seasons: omitted, dates: 'omit' } } : {};
}

/** One clause after the rules, in any order; true when there was one. */
function readClause(c: PhraseCursor, said: Said, context: PhraseContext): true | null {
  c.mark(',', ';');
  c.filler('and', 'but');
  return (
    c.try(() => readDayOff(c, said)) ??
    c.try(() => readClosed(c, said)) ??
    c.try(() => readStart(c, said, context)) ??
    c.try(() => readEnd(c, said, context)) ??
    c.try(() => readExcept(c, said, context))
  );
}

// ── days off ──

function readDayOff(c: PhraseCursor, said: Said): true | null {
  const convention = c.try(() => readSkip(c)) ?? c.try(() => readRoll(c));
  if (convention === null || said.dayOff !== null) return null;
  said.dayOff = convention;
  return true;
}

const DAYS_OFF = [
  'days off',
  'a day off',
  'holidays',
  'holidays and weekends',
  'weekends and holidays',
  'public holidays',
  'bank holidays',
  'closed days',
  'non working days',
  'nonworking days',
];

function readSkip(c: PhraseCursor): Convention | null {
  if (c.word('working days only', 'only on working days', 'on working days only', 'only working days')) return 'skip';
  if (c.word('even on')) return c.word(...DAYS_OFF) ? 'none' : null;
  if (!c.word('not on', 'not', 'skip', 'skipping', 'except on', 'except', 'excluding', 'unless it is', 'unless'))
    return null;
  return c.word(...DAYS_OFF) ? 'skip' : null;
}

function readRoll(c: PhraseCursor): Convention | null {
  const lead = c.when(() => {
    if (!c.word('if it is', 'if that is', 'if it falls on', 'if', 'on', 'when on', 'when it is')) return false;
    c.filler('a');
    if (!c.word('day off', 'weekend or holiday', 'weekend or a holiday', 'holiday', 'weekend', ...DAYS_OFF))
      return false;
    c.mark(',');
    return true;
  });
  if (!c.word('or', 'else', 'otherwise', 'or else', 'moved to', 'move to', 'rolled to') && !lead) return null;
  c.filler('moved to', 'on');
  if (lead && c.word('skip it', 'skip', 'leave it out')) return 'skip';
  if (lead && c.word('leave it there', 'leave it')) return 'none';
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
  if (c.word('previous', 'preceding', 'prior', 'last')) return c.word(...WORKING_DAY) ? 'preceding' : null;
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
  if (c.word('only in', 'only from', 'only', 'in')) {
    const open = c.try(() => readMonthRange(c)) ?? readMonths(c);
    return add(said.omitted, open && seasonsBut(open));
  }
  const months =
    c.try(() => (c.word('from') ? readMonthRange(c) : null)) ??
    c.try(() => (c.word('between') ? readMonthRange(c, readAnd) : null));
  if (months) return add(said.omitted, seasonsBut(months));
  if (!c.word('not', 'never', 'closed', 'except', 'excluding', 'no work')) return null;
  if (c.word('between')) return add(said.omitted, readSpanOfYear(c, readAnd));
  return c.word('in', 'from', 'during') ? add(said.omitted, readSeasons(c)) : null;
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
function readSeasons(c: PhraseCursor): Season[] | null {
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

function readStart(c: PhraseCursor, said: Said, context: PhraseContext): true | null {
  if (
    said.start !== null ||
    !c.word('from', 'starting', 'starts', 'beginning', 'begins', 'since', 'as of', 'effective')
  )
    return null;
  c.filler('on', 'from', 'in', 'with');
  const day = c.try(() => readDate(c, context.today)) ?? c.try(() => readMonthAsDay(c, context.today, 'first'));
  if (day === null) return null;
  said.start = day;
  return true;
}

function readEnd(c: PhraseCursor, said: Said, context: PhraseContext): true | null {
  if (said.end !== null) return null;
  const from = Math.max(said.start ?? context.start, context.today);
  said.end = c.try(() => readUntil(c, from)) ?? c.try(() => readCount(c)) ?? c.try(() => readSpan(c));
  return said.end && true;
}

function readUntil(c: PhraseCursor, from: CivilDay): Said['end'] {
  if (!c.word('until', 'till', 'to', 'up to', 'through', 'ending', 'ends', 'end', 'no later than')) return null;
  c.filler('on', 'in', 'at');
  const isEnd = c.word('the end of', 'end of');
  const day =
    c.try(() => readDate(c, from)) ?? c.try(() => readMonthAsDay(c, from, 'last')) ?? (isEnd ? readYearEnd(c) : null);
  return day === null ? null : () => ({ kind: 'on', date: isoOfDay(day) });
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
  const count = c.number();
  return count !== null && count > 0 && c.word('times', 'time', 'occurrences', 'occurrence', 'x') ? after(count) : null;
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

// ── what went wrong ──

function problemOf(text: string, cursor: PhraseCursor, canBeRead: (text: string) => boolean): PhraseProblem {
  const { token, expected } = cursor.failure;
  const at = token?.at ?? text.trimEnd().length;
  const length = token ? token.end - token.at : 0;
  const words = expected.map((what) => what.replace(/^\[|\]$/g, ''));
  const place = { at, length, expected: words };
  const [foreign] = phraseTokens(text).filter(({ kind }) => kind === 'rrule');
  if (foreign) {
    const fault = rruleFault(foreign.text);
    if (fault)
      return {
        ...place,
        at: foreign.at + fault.at,
        length: foreign.text.length - fault.at,
        message: fault.message,
        suggestion: null,
      };
  }
  if (text.trim() === '')
    return {
      ...place,
      message: 'Say when, like “every 2 weeks on Tue” or “last working day of each month”.',
      suggestion: null,
    };
  const noDay = missingDate(text);
  if (noDay) return { ...place, ...noDay, suggestion: null };
  const typed = token ? text.slice(token.at, token.end) : '';
  if (token && isTimeOfDay(text.slice(Math.max(0, token.at - 4), token.end + 3)))
    return {
      ...place,
      message: `“${typed}”: a time of day is set under “Each time”, not in the phrase.`,
      suggestion: null,
    };
  const after =
    at > 0 && text.slice(0, at).trim() !== ''
      ? ` after “${text.slice(0, at).trim().split(/\s+/).slice(-3).join(' ')}”`
      : '';
  const wanted = sayExpected(words);
  const message = token
    ? after === ''
      ? `“${typed}” is not understood: begin like “every Mon”, “monthly on the 15th” or “last working day of each month”.`
      : `“${typed}” is not understood${after}${wanted && `: ${wanted} would be`}.`
    : `Something is missing${after}${wanted && `: ${wanted}`}.`;
  return { ...place, message, suggestion: suggest(text, at, length, expected, canBeRead) };
}

/** A date in the text that no calendar has, "30 Feb 2027". */
function missingDate(text: string): Pick<PhraseProblem, 'at' | 'length' | 'message'> | null {
  const tokens = phraseTokens(text);
  for (const [i, token] of tokens.entries()) {
    const message = (said: string) => `There is no ${said}.`;
    if (token.kind === 'date' && token.day === null)
      return { at: token.at, length: token.end - token.at, message: message(token.text) };
    const [next, after] = [tokens[i + 1], tokens[i + 2]];
    const month = next?.kind === 'word' ? monthNamed(next.text) : null;
    if ((token.kind !== 'number' && token.kind !== 'ordinal') || !next || month === null) continue;
    const year = after?.kind === 'number' && after.value >= 1900 && after.value <= 9999 ? after : null;
    if (token.value <= daysInMonth(year?.value ?? 2000, month) || token.value > 31) continue;
    const end = year?.end ?? next.end;
    return { at: token.at, length: end - token.at, message: message(text.slice(token.at, end)) };
  }
  return null;
}

function rruleFault(text: string): RRuleError | null {
  try {
    parseRRuleParts(text);
    return null;
  } catch (error) {
    if (error instanceof RRuleError) return error;
    throw error;
  }
}

function isTimeOfDay(around: string): boolean {
  return /\d\s*(?:am|pm)\b|\d:\d\d|\bat\s+\d/i.test(around);
}

/** The first few of what was expected, kinds of words before single ones; the rest would not be read. */
function sayExpected(words: readonly string[]): string {
  const kinds = words.filter((word) => word.startsWith('a '));
  const single = words.filter((word) => !kinds.includes(word)).map((word) => `“${word}”`);
  const some = [...kinds, ...single].slice(0, 4);
  return some.length <= 1 ? (some[0] ?? '') : `${some.slice(0, -1).join(', ')} or ${some.at(-1)}`;
}

/** Words that often complete a phrase, the likeliest first; after a number, other ones. */
const PLURALS = ['weeks', 'months', 'days'];
const COMPLETIONS = [
  'Fri',
  'week',
  'month',
  'day',
  'each month',
  'of each month',
  'working day',
  'working day before',
  'the working day before',
  'completion',
  'times',
  'done',
  '1 Mar',
  '2 weeks',
];
const OTHER_WORDS = [
  'every',
  'weekly',
  'monthly',
  'quarterly',
  'yearly',
  'daily',
  'fortnightly',
  'weeks',
  'months',
  'until',
  'working',
];

/** The nearest phrase that can be read: a word put right, left out, or added where one is missing. */
function suggest(
  text: string,
  at: number,
  length: number,
  expected: readonly string[],
  canBeRead: (text: string) => boolean,
): string | null {
  const [before, typed, rest] = [text.slice(0, at), text.slice(at, at + length).toLowerCase(), text.slice(at + length)];
  const literal = expected.filter((word) => !word.startsWith('['));
  if (typed === '') {
    const completions = /\d\s*$/.test(text) ? [...PLURALS, ...COMPLETIONS] : COMPLETIONS;
    const missing = [...completions, ...literal].find((word) => canBeRead(`${text.trimEnd()} ${word}`));
    return missing === undefined ? null : `${text.trim()} ${missing}`;
  }
  const candidates = [...new Set([...literal, ...FULL_NAMES, ...OTHER_WORDS])];
  const near = candidates
    .map((word) => ({ word, distance: editDistance(typed, word) }))
    .filter(({ word, distance }) => distance > 0 && distance <= (word.length > 5 ? 3 : word.length > 3 ? 2 : 1))
    .sort((a, b) => a.distance - b.distance);
  for (const { word } of near) if (canBeRead(before + word + rest)) return tidy(before + word + rest);
  if (cardinalNamed(typed) === null && canBeRead(before + rest)) return tidy(before + rest);
  return null;
}

function tidy(text: string): string {
  return text.replace(/\s+/g, ' ').replace(/ ,/g, ',').trim();
}
