import { type CivilDay, isoWeekOf, quarterOf, weekdayOf, yearMonthDay } from '../civil-date/civil-day.ts';
import { monthName, monthShort, sayDate, weekdayName } from './date-words.ts';
import { editDistance } from './spelling.ts';

/** What a title is filled in from. */
export interface TitleContext {
  readonly on: CivilDay;
  readonly client: string | null;
  readonly asset: string | null;
  readonly person: string | null;
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
  { name: 'weekday', meaning: 'the weekday, Tuesday', fill: ({ on }) => weekdayName(weekdayOf(on)) },
  { name: 'week', meaning: 'the week’s number, 48', fill: ({ on }) => String(isoWeekOf(on).week) },
  { name: 'month', meaning: 'the month, November', fill: ({ on }) => monthName(yearMonthDay(on).month) },
  { name: 'quarter', meaning: 'the quarter, Q4', fill: ({ on }) => `Q${quarterOf(on)}` },
  { name: 'year', meaning: 'the year, 2026', fill: ({ on }) => String(yearMonthDay(on).year) },
  { name: 'client', meaning: 'who it is for', fill: ({ client }) => client ?? '' },
  { name: 'asset', meaning: 'the vessel, crane or pontoon', fill: ({ asset }) => asset ?? '' },
  { name: 'person', meaning: 'who does it', fill: ({ person }) => person ?? '' },
];

export interface TitleProblem {
  /** Index of the first character at fault. */
  readonly at: number;
  readonly message: string;
}

const PIECE = /\{([^{}]*)\}?|\}/g;

/** What is wrong with a pattern, in words with a suggestion; none when it can be filled in. */
export function titleProblems(pattern: string): TitleProblem[] {
  const problems: TitleProblem[] = [];
  for (const match of pattern.matchAll(PIECE)) {
    const [text, name] = match;
    const at = match.index;
    if (name === undefined) problems.push({ at, message: 'This } closes nothing: a token is written {date}.' });
    else if (!text.endsWith('}')) problems.push({ at, message: `“${text.slice(0, 20)}” is not closed: write {date}.` });
    else if (!tokenNamed(name)) {
      const near = nearestToken(name);
      const hint = near
        ? `Did you mean {${near}}?`
        : `There are ${TITLE_TOKENS.map((token) => `{${token.name}}`).join(', ')}.`;
      problems.push({ at, message: `{${name.slice(0, 20)}} is not a token. ${hint}` });
    }
  }
  return problems;
}

/**
 * The title of a task. A token without a value leaves nothing behind, not even the dot or dash that joined it.
 * A text in braces that is no token stays as it is.
 */
export function fillTitle(pattern: string, context: TitleContext): string {
  const filled = pattern.replace(/\{([^{}]*)\}/g, (text, name: string) => {
    const token = tokenNamed(name);
    return token ? token.fill(context) || GONE : text;
  });
  return filled
    .replace(JOINED_TO_NOTHING, ' ')
    .replaceAll(GONE, '')
    .replace(/\s+/g, ' ')
    .replace(/^[\s·,–-]+|[\s·,–-]+$/g, '')
    .trim();
}

const GONE = '\u0000';
// biome-ignore lint/suspicious/noControlCharactersInRegex: the NUL is our own mark for an empty token
const JOINED_TO_NOTHING = /\s*[·,–-]?\s*\u0000(?=\s*[·,–-]|\s*$)/g;

function tokenNamed(name: string): TitleToken | undefined {
  return TITLE_TOKENS.find((token) => token.name === name.trim().toLowerCase());
}

function nearestToken(name: string): string | null {
  const ranked = TITLE_TOKENS.map((token) => ({
    name: token.name,
    distance: editDistance(name.trim().toLowerCase().slice(0, 24), token.name),
  })).sort((a, b) => a.distance - b.distance);
  const best = ranked[0];
  return best && best.distance <= Math.max(2, Math.floor(name.length / 3)) ? best.name : null;
}
