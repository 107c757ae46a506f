import type { Season } from '../../calendar/closed-season.ts';
import { dayOfIso, type IsoDate, isoOfDay } from '../../civil-date/iso-date.ts';
import { canonicalRecurrence } from '../canonical.ts';
import type { ClosedSeasons, Recurrence, Rule } from '../rule.ts';
import {
  besideOf,
  readClause,
  readDaytime,
  readEnd,
  readSeasons,
  readStart,
  type Said,
  withoutWeekdays,
} from './clauses.ts';
import type { PhraseContext } from './context.ts';
import { PhraseCursor } from './cursor.ts';
import { skipAnd } from './dates.ts';
import { isHabit, type PhraseHabits } from './habits.ts';
import type { NamedSeason } from './named-seasons.ts';
import { type PhraseProblem, problemOf, rruleFault } from './problem.ts';
import { readRules } from './rules.ts';
import { readSetOfDays } from './sets-of-days.ts';
import { type PhraseTimes, writeTimes } from './times.ts';
import { phraseTokens } from './tokens.ts';
import { NO_START, writePhrase } from './writer.ts';

export type PhraseReading =
  | ({ readonly kind: 'read' } & PhraseMeaning)
  | PhraseQuestion
  | { readonly kind: 'unread'; readonly problem: PhraseProblem };

/** A phrase that may mean two things or more: whoever said it is asked. */
export interface PhraseQuestion {
  readonly kind: 'choose';
  /** Two to four, the likeliest first. */
  readonly choices: readonly PhraseChoice[];
  /** Whether it may mean something else still. */
  readonly hasMore: boolean;
}

/** What a phrase says: the days, and the times of day where it says some. */
export interface PhraseMeaning {
  readonly recurrence: Recurrence;
  readonly times: PhraseTimes | null;
}

/** One of the things that a phrase may mean, as a phrase that means nothing else. */
export interface PhraseChoice extends PhraseMeaning {
  readonly phrase: string;
  /** Habits of speaking that it takes for granted, which may be settled by choosing it. */
  readonly habits: PhraseHabits;
}

export interface PhraseReadingOptions {
  /** Start of the recurrence where the phrase names none; `NO_START` where left out. */
  readonly start?: IsoDate;
  /** Dates without a year are the next ones from this day on; the start where left out. */
  readonly today?: IsoDate;
  /** The month 1–12 in which a year begins, and its quarters with it; January where left out. */
  readonly yearStarts?: number;
  /** What is settled of how people here speak. */
  readonly habits?: PhraseHabits;
  /** Parts of the year that have a name here. */
  readonly seasons?: readonly NamedSeason[];
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
 * @throws PhraseError where it says a time of day, which is no part of a recurrence; with the place, what was expected and a suggestion; or with what it may mean, where that is several things
 */
export function parsePhrase(text: string, options: PhraseReadingOptions = {}): Recurrence {
  const reading = readPhrase(text, options);
  switch (reading.kind) {
    case 'read':
      if (reading.times !== null) throw new PhraseError(problemOfTimes(text));
      return reading.recurrence;
    case 'choose':
      throw new PhraseError(problemOfChoice(text, reading));
    case 'unread':
      throw new PhraseError(reading.problem);
  }
}

function problemOfTimes(text: string): PhraseProblem {
  const time = phraseTokens(text).find(({ kind }) => kind === 'time');
  const message = 'A time of day can’t be taken here: say the days alone.';
  return { at: time?.at ?? 0, length: time ? time.end - time.at : 0, message, expected: [], suggestion: null };
}

/**
 * A phrase with two meanings where there is nobody to ask: what it may mean.
 * @param beside what stands after each of them, as its dates
 */
export function problemOfChoice(
  text: string,
  { choices, hasMore }: PhraseQuestion,
  beside: (choice: PhraseChoice) => string = () => '',
): PhraseProblem {
  const said = choices.map((choice) => `“${choice.phrase}”${beside(choice)}`);
  const likeliest = `${said.slice(0, -1).join(', ')} or ${said.at(-1)}`;
  const message = `This can mean ${likeliest}${hasMore ? ', and perhaps something else' : ''}: say which.`;
  return { at: 0, length: text.trimEnd().length, message, expected: [], suggestion: null };
}

/** The longest phrase that is read. */
const LONGEST_PHRASE = 2000;

/** What a phrase says, or null where it can't be read or may mean several things: for each keystroke, when nobody asks yet what is wrong. */
export function tryPhrase(text: string, options: PhraseReadingOptions = {}): PhraseMeaning | null {
  return text.length > LONGEST_PHRASE ? null : onlyOf(readings(text, options));
}

/** Reads a phrase, or says what it may mean, or what in it can't be read. */
export function readPhrase(text: string, options: PhraseReadingOptions = {}): PhraseReading {
  if (text.length > LONGEST_PHRASE) {
    const message = `This is longer than ${LONGEST_PHRASE} characters: a rule should fit into a sentence.`;
    return {
      kind: 'unread',
      problem: { at: LONGEST_PHRASE, length: text.length - LONGEST_PHRASE, message, expected: [], suggestion: null },
    };
  }
  const all = readings(text, options);
  const only = onlyOf(all);
  if (only) return { kind: 'read', ...only };
  if (all.found.length > 1)
    return { kind: 'choose', choices: all.found.map((one) => choiceOf(one, options)), hasMore: all.hasMore };
  if (all.found.length === 1) return { kind: 'unread', problem: tooManyWays(text) };
  const { cursor } = read(text, options);
  return { kind: 'unread', problem: problemOf(text, cursor, (other) => readings(other, options).found.length > 0) };
}

function choiceOf(
  { meaning, habits }: FoundMeaning,
  { start = NO_START, yearStarts = 1 }: PhraseReadingOptions,
): PhraseChoice {
  const { recurrence, times } = meaning;
  const days = writePhrase(recurrence, { start: recurrence.start === start ? 'unsaid' : 'said', yearStarts });
  return { ...meaning, phrase: days + (times ? writeTimes(times) : ''), habits };
}

function tooManyWays(text: string): PhraseProblem {
  const message =
    'So much here can be meant in two ways that it can’t be asked: say it in fewer words, or as several schedules.';
  return { at: 0, length: text.trimEnd().length, message, expected: [], suggestion: null };
}

/** The most readings that anybody is asked to choose from. */
const MOST_READINGS = 4;
/** Two questions with three answers each leave four readings after fewer; a long text that can't be read is given up soon. */
const MOST_ATTEMPTS = 12;

interface Readings {
  /** The likeliest first; none where it can't be read. */
  readonly found: readonly FoundMeaning[];
  /** Whether there are ways of reading that were not tried: one that was found may not be the only one then. */
  readonly hasMore: boolean;
}

interface FoundMeaning {
  readonly meaning: PhraseMeaning;
  readonly habits: PhraseHabits;
}

/** What it means where that is one thing, and known to be. */
function onlyOf({ found, hasMore }: Readings): PhraseMeaning | null {
  return found.length === 1 && !hasMore ? (found[0]?.meaning ?? null) : null;
}

/** All that a phrase may mean: as it is likeliest read, then with one question in it answered otherwise, then with two. */
function readings(text: string, options: PhraseReadingOptions): Readings {
  const found: FoundMeaning[] = [];
  const untried: ReadonlyMap<string, number>[] = [new Map()];
  for (let attempts = 0; untried.length > 0; attempts++) {
    if (attempts === MOST_ATTEMPTS || found.length === MOST_READINGS) return { found, hasMore: true };
    const picks = untried.shift() as ReadonlyMap<string, number>;
    const attempt = read(text, options, picks);
    if (
      attempt.kind === 'read' &&
      !found.some(({ meaning }) => JSON.stringify(meaning) === JSON.stringify(attempt.meaning))
    )
      found.push({ meaning: attempt.meaning, habits: habitsOf(attempt.cursor.asked, picks) });
    untried.push(...otherwise(attempt.cursor.asked, picks));
  }
  return { found, hasMore: false };
}

/** The questions of a reading that are habits, as it answers them. */
function habitsOf(asked: ReadonlyMap<string, number>, picks: ReadonlyMap<string, number>): PhraseHabits {
  return Object.fromEntries(
    [...asked.keys()].flatMap((key) => {
      const what = key.replace(/ \d+$/, '');
      return isHabit(what) ? [[what, picks.get(key) ?? 0]] : [];
    }),
  );
}

/** One more question answered otherwise than it is likeliest meant, of those that come after the ones already answered so. */
function otherwise(asked: ReadonlyMap<string, number>, picks: ReadonlyMap<string, number>): Map<string, number>[] {
  const questions = [...asked];
  const last = questions.findLastIndex(([question]) => picks.has(question));
  return questions
    .slice(last + 1)
    .flatMap(([question, number]) =>
      Array.from({ length: number - 1 }, (_, i) => new Map([...picks, [question, i + 1]])),
    );
}

type Attempt =
  | { readonly kind: 'read'; readonly meaning: PhraseMeaning; readonly cursor: PhraseCursor }
  | { readonly kind: 'stuck'; readonly cursor: PhraseCursor };

function read(text: string, options: PhraseReadingOptions, picks: ReadonlyMap<string, number> = new Map()): Attempt {
  const start = dayOfIso(options.start ?? NO_START);
  const today = options.today === undefined ? start : dayOfIso(options.today);
  const cursor = new PhraseCursor(text, picks, options.yearStarts, options.habits, options.seasons);
  const found = readRecurrence(cursor, { start, today });
  // What contradicts itself is said so, even where another way of reading would get past it.
  if (!found || !cursor.isAtEnd || cursor.refused) return { kind: 'stuck', cursor };
  const { recurrence, times } = found;
  // "Monthly from 3 May": what the rule leaves unsaid comes from a start that was read only after it.
  if (recurrence.start !== isoOfDay(start)) return read(text, { ...options, start: recurrence.start }, picks);
  return { kind: 'read', meaning: { recurrence: canonicalRecurrence(recurrence), times }, cursor };
}

function readRecurrence(c: PhraseCursor, context: PhraseContext): PhraseMeaning | null {
  const said: Said = {
    start: null,
    end: null,
    dayOff: null,
    daysOff: null,
    but: null,
    beside: null,
    omitted: [],
    moved: [],
    except: [],
    times: null,
  };
  // "From 1 March, every Friday": the start may come first, and is then known to what follows.
  while (
    c.try(() => readDaytime(c, said)) ??
    c.try(() => readStart(c, said, context)) ??
    (said.start === null ? null : c.try(() => readEnd(c, said, context)))
  )
    c.mark(',');
  const read = c.try(() => readSetOfDays(c, said)) ?? readRules(c, { ...context, start: said.start ?? context.start });
  if (!read?.every(isReadable)) return null;
  while (c.try(() => readClause(c, said, context)));
  const rules = said.but ? withoutWeekdays(read, said.but) : read;
  if (!rules) return null;
  const beside = besideOf(rules, said);
  if (said.beside && !beside)
    return c.refuse(
      said.beside.at,
      'Another weekday than the one beside can’t be taken instead: say “or the working day before” or “or the working day after”.',
    );
  const start = said.start ?? context.start;
  const recurrence = {
    start: isoOfDay(start),
    rules,
    end: said.end?.(start) ?? { kind: 'never' },
    dayOff: beside ?? said.dayOff ?? 'none',
    ...(said.daysOff && said.daysOff !== 'both' && { daysOff: said.daysOff }),
    ...closedOf(said),
    except: said.except.map(isoOfDay),
  };
  return { recurrence, times: said.times };
}

function isReadable(rule: Rule): boolean {
  if (rule.kind === 'rrule') return rruleFault(rule.text) === null;
  return !('every' in rule) || rule.every >= 1;
}

function closedOf({ omitted, moved }: Said): { closed?: ClosedSeasons } {
  if (moved.length > 0) return { closed: { seasons: [...moved, ...omitted], dates: 'move' } };
  return omitted.length > 0 ? { closed: { seasons: omitted, dates: 'omit' } } : {};
}

/** Seasons as a field of a form holds them, "Jan, 15 Jul to 20 Aug"; null where they can't be read. `writeSeasons` writes them. @param named those that may be said by a name */
export function readSeasonList(text: string, named: readonly NamedSeason[] = []): Season[] | null {
  const cursor = new PhraseCursor(text, new Map(), 1, {}, named);
  const seasons: Season[] = [];
  do {
    const some = cursor.season()?.spans ?? readSeasons(cursor);
    if (!some) return null;
    seasons.push(...some);
  } while (skipAnd(cursor));
  return cursor.isAtEnd ? seasons : null;
}
