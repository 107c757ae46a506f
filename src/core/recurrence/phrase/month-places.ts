import type { Weekday } from '../../civil-date/civil-day.ts';
import type { MissingDay, MonthPoint } from '../rule.ts';
import { isWorkingDay, MONDAY_TO_FRIDAY, TIMES, WEEKEND } from './common-words.ts';
import type { PhraseCursor } from './cursor.ts';
import { skipAnd } from './dates.ts';
import { isAwayAhead } from './distances.ts';

/** Places in a month, joined: "1st and 15th", "first and third Monday", "15th and the last working day". */
export function readPoints(c: PhraseCursor): MonthPoint[] | null {
  const joined = readJoined(c);
  return joined.length > 0 ? joined.flat() : null;
}

/**
 * Places whose period has been said before: a last one with "of" after it begins another rule, "… and 1st of each month".
 * @param again words for the same period, which may be said once more
 */
export function readPointsBefore(c: PhraseCursor, again: readonly string[]): MonthPoint[] | null {
  let count = 0;
  const readFirst = (most: number) =>
    c.try(() => {
      const joined = readJoined(c, most);
      count = joined.length;
      if (count === 0) return null;
      if (again.length > 0) c.filler(...again);
      return c.ahead(() => c.word('of')) ? null : joined.flat();
    });
  return readFirst(Number.POSITIVE_INFINITY) ?? (count > 1 ? readFirst(count - 1) : null);
}

/** Places joined by "and" or commas, those that share a noun together. */
function readJoined(c: PhraseCursor, most = Number.POSITIVE_INFINITY): MonthPoint[][] {
  c.filler('the');
  const joined: MonthPoint[][] = [];
  while (joined.length < most) {
    if (joined.length > 0 && c.ahead(() => readShortMonth(c) !== null)) break;
    const next = c.try(() => (joined.length === 0 || skipAnd(c) || isStroke(c) ? readPoint(c) : null));
    if (!next) break;
    joined.push(next);
  }
  return joined;
}

/** "10th/20th/30th" */
function isStroke(c: PhraseCursor): boolean {
  return c.mark('/') && c.ahead(() => c.ordinal() !== null);
}

/** One place in a month, or several that share their noun: "first and last Friday", "5th and 10th working day". */
function readPoint(c: PhraseCursor): MonthPoint[] | null {
  c.filler('the', 'on the');
  c.filler('day', 'days', 'date', 'dates');
  // "First working day on or after the 15th" is counted from another.
  const whole = <T>(found: T): T | null => (isAwayAhead(c) ? null : found);
  const shared = c.ahead(() => readShared(c, 'the') !== null && isAwayAhead(c)) ? null : c.try(() => readShared(c));
  if (shared) return whole(shared);
  const several = c.try(() => readFirstFew(c));
  if (several) return whole(several);
  const closing = c.try(() => readClosingDay(c));
  if (closing) return whole([closing]);
  const first = readPlace(c);
  if (!first) return null;
  // “2 working days” is no place in a month.
  const noun = first.isNumber ? null : c.try(() => readNoun(c));
  if (noun) return whole([pointOf(first.n, noun)]);
  if (first.inFigures || first.n > 5) return [{ kind: 'date', day: first.n }];
  if (first.n === -1 || first.n > 0) {
    c.expect('day');
    c.expect('working day');
    c.expect('[a weekday]');
    // "1st and last of the month", "the third": a date all the same.
    return [{ kind: 'date', day: first.n }];
  }
  return null;
}

/** "WD3", as a month's closing counts its working days. */
function readClosingDay(c: PhraseCursor): MonthPoint | null {
  const nth = c.word('wd') ? c.number() : null;
  return nth === null || nth < 1 || nth > 23 ? null : { kind: 'workingDay', nth };
}

/** "first three working days", "last two Fridays" */
function readFirstFew(c: PhraseCursor): MonthPoint[] | null {
  const fromEnd = c.word('last', 'final');
  if (!fromEnd && !c.word('first')) return null;
  const count = c.number();
  if (count === null || count < 2 || count > 31) return null;
  const noun = readNoun(c);
  return noun && Array.from({ length: count }, (_, i) => pointOf(fromEnd ? -1 - i : i + 1, noun));
}

/**
 * Two places or more before one noun, which holds for as many of them as it can: those before it are dates.
 * @param before what has to stand before the last of them: "1st and the second Sunday before the 5th" are two rules
 */
function readShared(c: PhraseCursor, before?: 'the'): MonthPoint[] | null {
  const first = readPlace(c);
  if (!first) return null;
  const places = [first];
  while (!c.ahead(() => readShortMonth(c) !== null) && c.when(() => skipAnd(c))) {
    const hasThe = c.filler('the');
    const next = readPlace(c);
    if (!next) return null;
    places.push({ ...next, hasThe });
    const noun = next.isNumber ? null : c.try(() => readNoun(c));
    if (!noun) continue;
    if (before && !hasThe) return null;
    const from = places.findLastIndex((place, i) => i > 0 && !shares(c, places[i - 1] as PlaceWord, place, noun));
    return places.map(({ n }, i) => (i < from ? { kind: 'date', day: n } : pointOf(n, noun)));
  }
  return null;
}

/** Weekdays come five times in a month at most. */
const MOST_WEEKDAYS = 5;

/** From here on a place of a working day is as likely meant as a date: "15th and the last working day". */
const LIKELY_DATE = 6;

/** Whether the noun after a place holds for the one before it as well. */
function shares(c: PhraseCursor, before: PlaceWord, place: PlaceWord, noun: Noun): boolean {
  if (noun.kind === 'day') return true;
  if (!before.inFigures) return true;
  if (noun.kind === 'weekday' && noun.weekdays.length === 1 && before.n > MOST_WEEKDAYS) return false;
  // "1st and the third Monday", as it is written; "the 1st and the 3rd Monday" may be either.
  if (place.hasThe) return place.inFigures && c.pick('with the noun', 2) === 0;
  if (place.inFigures || noun.kind === 'weekday' || before.n < LIKELY_DATE) return true;
  return c.pick('with the noun', 2) === 1;
}

interface PlaceWord {
  /** From 1, or from the end: -1 is the last. */
  readonly n: number;
  readonly inFigures: boolean;
  /** A plain number, no ordinal: never a place of its own before a noun. */
  readonly isNumber: boolean;
  /** Said after "the". */
  readonly hasThe?: boolean;
}

function readPlace(c: PhraseCursor): PlaceWord | null {
  if (c.word('last but one', 'penultimate', 'next to last')) return { n: -2, inFigures: false, isNumber: false };
  if (c.word('last but two')) return { n: -3, inFigures: false, isNumber: false };
  if (c.word('last', 'final')) return { n: -1, inFigures: false, isNumber: false };
  const ordinal = c.try(() => c.ordinal());
  if (ordinal) {
    if (ordinal.n < 1 || ordinal.n > 31) return null;
    if (c.word('last', 'to last', 'from last')) return { n: -ordinal.n, inFigures: ordinal.inFigures, isNumber: false };
    return { ...ordinal, isNumber: false };
  }
  // “, 5 times” is how often, not the fifth.
  const number = c.try(() => {
    const n = c.number();
    // Nor is "3 working days before".
    return n === null || c.ahead(() => c.word(...TIMES) || isCounted(c)) ? null : n;
  });
  return number === null || number < 1 || number > 31 ? null : { n: number, inFigures: true, isNumber: true };
}

function isCounted(c: PhraseCursor): boolean {
  return (isWorkingDay(c) || c.word('days', 'day', 'weeks', 'week', 'months', 'month')) && isAwayAhead(c);
}

type Noun =
  | { readonly kind: 'workingDay' }
  | { readonly kind: 'day' }
  | { readonly kind: 'weekday'; readonly weekdays: readonly Weekday[] };

function readNoun(c: PhraseCursor): Noun | null {
  if (isWorkingDay(c)) return { kind: 'workingDay' };
  if (c.word('days', 'day')) return { kind: 'day' };
  if (c.word('weekday', 'weekdays')) return { kind: 'weekday', weekdays: MONDAY_TO_FRIDAY };
  if (c.word('weekend day', 'weekend days', 'day of the weekend')) return { kind: 'weekday', weekdays: WEEKEND };
  const first = c.weekday();
  if (first === null) return null;
  const weekdays = [first as Weekday];
  for (;;) {
    const next = c.try(() => (c.word('or') ? c.weekday() : null));
    if (next === null) return { kind: 'weekday', weekdays };
    weekdays.push(next as Weekday);
  }
}

function pointOf(n: number, noun: Noun): MonthPoint {
  if (noun.kind === 'day') return { kind: 'date', day: n };
  if (noun.kind === 'workingDay') return { kind: 'workingDay', nth: n };
  const [first] = noun.weekdays;
  return noun.weekdays.length === 1 && first !== undefined
    ? { kind: 'weekday', nth: n, weekday: first }
    : { kind: 'anyWeekday', nth: n, weekdays: noun.weekdays };
}

/** What is said of months without the day; the last day where nothing is. */
export function readMissing(c: PhraseCursor): MissingDay {
  const ofFebruary = c.try(() => readShortMonth(c));
  if (ofFebruary) return ofFebruary;
  const said = c.try((): MissingDay | null => {
    c.mark(',');
    if (c.word('where there is one', 'if there is one', 'when there is one', 'where it exists', 'if it exists'))
      return 'omit';
    if (!c.word('or', 'else')) return null;
    c.filler('on');
    c.filler('the');
    if (c.word('last day', 'last day of the month', 'month end', 'last')) return c.word('working') ? null : 'last';
    if (c.when(() => c.ordinal()?.n === 1))
      return c.word('after', 'of the next', 'of the month after', 'of the next month') ? 'next' : null;
    return null;
  });
  return said ?? 'last';
}

/** "30th or the last day in February", ", last day in Feb"; "30th and last day of Feb" are two. */
function readShortMonth(c: PhraseCursor): MissingDay | null {
  c.mark(',');
  c.filler('or', 'else');
  c.filler('the');
  if (!c.word('last day', 'end') || !c.word('in', 'of') || c.month() !== 2) return null;
  return c.ahead(() => skipAnd(c) && c.month() !== null) ? null : 'last';
}

export function dates(...days: number[]): MonthPoint[] {
  return days.map((day) => ({ kind: 'date', day }));
}
