import type { Season } from '../../calendar/closed-season.ts';
import { dayOfIso, type IsoDate, isoOfDay } from '../../civil-date/iso-date.ts';
import { canonicalRecurrence } from '../canonical.ts';
import type { ClosedSeasons, Recurrence, Rule } from '../rule.ts';
import { readClause, readSeasons, readStart, type Said } from './clauses.ts';
import type { PhraseContext } from './context.ts';
import { PhraseCursor } from './cursor.ts';
import { skipAnd } from './dates.ts';
import { type PhraseProblem, problemOf, rruleFault } from './problem.ts';
import { readRules } from './rules.ts';
import { NO_START } from './writer.ts';

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

/** The recurrence of a phrase, or null where it can't be read: for each keystroke, when nobody asks yet what is wrong. */
export function tryPhrase(text: string, options: PhraseReadingOptions = {}): Recurrence | null {
  const attempt = text.length > LONGEST_PHRASE ? null : read(text, options);
  return attempt?.kind === 'read' ? attempt.recurrence : null;
}

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
  if (rule.kind === 'rrule') return rruleFault(rule.text) === null;
  return !('every' in rule) || rule.every >= 1;
}

function closedOf({ omitted, moved }: Said): { closed?: ClosedSeasons } {
  if (moved.length > 0) return { closed: { seasons: [...moved, ...omitted], dates: 'move' } };
  return omitted.length > 0 ? { closed: { seasons: omitted, dates: 'omit' } } : {};
}

/** Seasons as a field of a form holds them, "Jan, 15 Jul to 20 Aug"; null where they can't be read. `writeSeasons` writes them. */
export function readSeasonList(text: string): Season[] | null {
  const cursor = new PhraseCursor(text);
  const seasons: Season[] = [];
  do {
    const some = readSeasons(cursor);
    if (!some) return null;
    seasons.push(...some);
  } while (skipAnd(cursor));
  return cursor.isAtEnd ? seasons : null;
}
