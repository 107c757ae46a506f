import { type CivilDay, isoWeekOf, quarterOf, weekdayOf, yearMonthDay } from '../civil-date/civil-day.ts';
import { isoOfDay } from '../civil-date/iso-date.ts';
import { monthName, monthShort, sayDate, weekdayName } from './date-words.ts';
import { type TokenProblem, tokenProblems, tokensIn } from './tokens.ts';

/** What a title is filled in from. */
export interface TitleContext {
  readonly on: CivilDay;
  readonly client: string | null;
  readonly asset: string | null;
  readonly person: string | null;
  /** Which one of its series it is, counted from 1; null where that is not known. */
  readonly number?: number | null;
  /** Type of work: "arrival", "routine". */
  readonly type?: string | null;
}

export interface TitleToken {
  readonly name: string;
  /** What it stands for, for a picker. */
  readonly meaning: string;
  readonly fill: (context: TitleContext) => string;
}

/** The tokens that a title pattern may hold, written in braces. */
export const TITLE_TOKENS: readonly TitleToken[] = [
  { name: 'date', meaning: 'the date, 24 Nov 2026', fill: ({ on }) => sayDate(on) },
  {
    name: 'day',
    meaning: 'day and month, 24 Nov',
    fill: ({ on }) => `${yearMonthDay(on).day} ${monthShort(yearMonthDay(on).month)}`,
  },
  { name: 'iso', meaning: 'the date in figures, 2026-11-24', fill: ({ on }) => isoOfDay(on) },
  { name: 'weekday', meaning: 'the weekday, Tuesday', fill: ({ on }) => weekdayName(weekdayOf(on)) },
  { name: 'week', meaning: 'the week’s number, 48', fill: ({ on }) => String(isoWeekOf(on).week) },
  { name: 'month', meaning: 'the month, November', fill: ({ on }) => monthName(yearMonthDay(on).month) },
  { name: 'quarter', meaning: 'the quarter, Q4', fill: ({ on }) => `Q${quarterOf(on)}` },
  { name: 'year', meaning: 'the year, 2026', fill: ({ on }) => String(yearMonthDay(on).year) },
  { name: 'client', meaning: 'who it is for', fill: ({ client }) => client ?? '' },
  { name: 'asset', meaning: 'the vessel, crane or pontoon', fill: ({ asset }) => asset ?? '' },
  { name: 'person', meaning: 'who does it', fill: ({ person }) => person ?? '' },
  { name: 'type', meaning: 'the type of work', fill: ({ type }) => type ?? '' },
  {
    name: 'number',
    meaning: 'which one of its series, 12',
    fill: ({ number }) => (number == null ? '' : String(number)),
  },
];

/** What is wrong with a pattern, in words with a suggestion; none when it can be filled in. */
export const titleProblems = (pattern: string): TokenProblem[] =>
  tokenProblems(
    pattern,
    TITLE_TOKENS.map(({ name }) => name),
    'date',
  );

/**
 * The title of a task. A token without a value leaves nothing behind, not even the dot or the little word that joined it.
 * A text in braces that is no token stays as it is.
 */
export function fillTitle(pattern: string, context: TitleContext): string {
  const filled = pattern.replace(/\{([^{}]*)\}/g, (text, name: string) => {
    const token = tokenNamed(name);
    return token ? token.fill(context) || GONE : text;
  });
  return (
    filled
      .replace(JOINED_TO_NOTHING, ' ')
      .replaceAll(GONE, '')
      // A mark that closed up to what is gone closes up to what stood before it.
      .replace(/\s+([,;:])/g, '$1')
      .replace(/\s+/g, ' ')
      .replace(/^[\s·,–-]+|[\s·,–-]+$/g, '')
      .trim()
  );
}

/** Whether a pattern holds a token. */
export const hasToken = (pattern: string, name: string): boolean => tokensIn(pattern).includes(name);

/** In the order in which they are looked for: the longest forms of a date first, so that "24 Nov 2026" is not "{day} 2026". */
const TELLING_TOKENS = ['asset', 'client', 'person', 'date', 'iso', 'day', 'weekday', 'month', 'quarter', 'year'];

/**
 * The pattern that a title may have been filled in from: the names and dates that are its own become tokens again.
 * A title begun from another task then says the right month of its own accord.
 */
export function patternOfTitle(title: string, context: TitleContext): string {
  const braced = title.replace(/[{}]/g, '');
  return TELLING_TOKENS.reduce((pattern, name) => {
    const value = tokenNamed(name)?.fill(context) ?? '';
    return value.length < 2 ? pattern : replaceWhole(pattern, value, `{${name}}`);
  }, braced);
}

/** Replaces a text where it stands as words of its own, and not inside a token that is there already. */
function replaceWhole(text: string, value: string, by: string): string {
  return text
    .split(/(\{[a-z]+\})/)
    .map((piece) => {
      if (piece.startsWith('{')) return piece;
      const at = piece.indexOf(value);
      const edge = (character: string | undefined) => character === undefined || !/[\p{L}\d]/u.test(character);
      if (at === -1 || !edge(piece[at - 1]) || !edge(piece[at + value.length])) return piece;
      return piece.slice(0, at) + by + piece.slice(at + value.length);
    })
    .join('');
}

const GONE = '\u0000';
// biome-ignore lint/suspicious/noControlCharactersInRegex: the NUL is our own mark for an empty token
const JOINED_TO_NOTHING = /\s*[·,–-]?(?:\s+(?:to|of|for|by|from|with|at|on|in))?\s*\u0000(?=\s*[·,–-]|\s*$)/g;

function tokenNamed(name: string): TitleToken | undefined {
  return TITLE_TOKENS.find((token) => token.name === name.trim().toLowerCase());
}
