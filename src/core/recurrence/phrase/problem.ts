import { daysInMonth } from '../../civil-date/civil-day.ts';
import { editDistance } from '../../wording/spelling.ts';
import { parseRRuleParts, RRuleError } from '../rrule/parts.ts';
import type { PhraseCursor } from './cursor.ts';
import { FULL_NAMES, monthNamed, phraseTokens } from './tokens.ts';

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

/** What in the text can't be read, told from how far the cursor came. */
export function problemOf(text: string, cursor: PhraseCursor, canBeRead: (text: string) => boolean): PhraseProblem {
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
  if (cursor.refused) return { ...place, ...cursor.refused, suggestion: null };
  const noRule = noRuleIn(text);
  if (noRule !== null) return { ...place, at: 0, length: text.trimEnd().length, message: noRule, suggestion: null };
  const noDay = missingDate(text);
  if (noDay) return { ...place, ...noDay, suggestion: null };
  const typed = token ? text.slice(token.at, token.end) : '';
  if (token && isTimeOfDay(text.slice(Math.max(0, token.at - 4), token.end + 3)))
    return {
      ...place,
      message: `“${typed}” is no time of day that is clear: say it like “9am”, “9:30pm” or “14:00”.`,
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

const BY_NEED =
  /\b(?:ad[ -]?hoc|(?:up)?on request|after (?:each|every) use|(?:as|when|whenever|if) (?:and when )?(?:needed|required|necessary)|on demand|when(?:ever)? it (?:breaks|fails))\b/i;
const WITHIN_A_DAY =
  /\b(?:hourly|every\s+(?:(?:\d+|two|three|four|six|eight|twelve|half an?|other)\s+)?(?:hours?|minutes?|mins?)|(?:twice|three times|four times|\d+\s*(?:times|x))\s+(?:a|per|each)\s+day|twice daily)\b/i;
const TWO_TIMES = /\bat \d{1,2}(?:[:.]\d{2})?\s*(?:[ap]m)?\s*(?:,|and|&|\+)\s*(?:at )?\d{1,2}(?:[:.]\d{2}|\s*[ap]m)\b/i;
const TAX_YEAR = /\btax year\b/i;
const BY_WEEKDAY_INSTEAD =
  /\b(?:(?:or|then|moved? to|else)\s+(?:on\s+)?(?:the\s+)?(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|satur|sun)(?:day)?\b.*\b(?:if|when)|if\b.*\b(?:then|on)\s+(?:the\s+)?(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|satur|sun)(?:day)?)\b/i;
const WEEK_OF_MONTH =
  /\b(?:(?:first|second|third|fourth|last|1st|2nd|3rd|4th)(?: full)? week|week \d|weeks? (?:one|two|three|four)\b.* month)\b/i;
const ODD_WEEKS = /\b(?:odd|even)[- ](?:numbered )?weeks?\b|\bweek \d+ and \d+\b/i;
const BY_USE =
  /\bevery\s+[\d.,]+\s*(?:km|kilometres?|miles?|(?:running|engine|operating|flying) hours|cycles|litres?)\b/i;

/** What comes by no calendar, and what Jolly Rota does about it instead; null for anything else. */
function noRuleIn(text: string): string | null {
  if (BY_NEED.test(text))
    return 'What is done when it is needed has no dates: leave it without a schedule, and start its template by hand.';
  if (BY_USE.test(text))
    return 'What comes by use has no dates: start its template by hand, or say how often to look, like “monthly on the 1st”.';
  if (WITHIN_A_DAY.test(text) || TWO_TIMES.test(text))
    return 'A schedule makes one task a day at the most: say “every day at 08:00”, and make another schedule for each further time.';
  if (TAX_YEAR.test(text))
    return 'When a tax year ends differs from country to country: say the date, like “yearly on 5 April”.';
  if (ODD_WEEKS.test(text))
    return 'Odd and even weeks change places in some years: say “every 2 weeks on Mon”, beginning in such a week.';
  if (WEEK_OF_MONTH.test(text)) return 'A week may lie in two months: say its day, like “second Monday of each month”.';
  if (BY_WEEKDAY_INSTEAD.test(text))
    return 'Another weekday can’t be taken instead: say “or the working day before” or “or the working day after”.';
  return null;
}

/** A date in the text that no calendar has, "30 Feb 2027". */
function missingDate(text: string): Pick<PhraseProblem, 'at' | 'length' | 'message'> | null {
  const tokens = phraseTokens(text);
  for (const [i, token] of tokens.entries()) {
    const message = (said: string) => `There is no ${said}.`;
    if (token.kind === 'time' && token.time === null)
      return {
        at: token.at,
        length: token.end - token.at,
        message: `There is no time ${token.text}: a day has 24 hours.`,
      };
    if (token.kind === 'date' && token.day === null && token.other === null)
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

/** What is wrong with an RRULE; null when it can be read. */
export function rruleFault(text: string): RRuleError | null {
  try {
    parseRRuleParts(text);
    return null;
  } catch (error) {
    if (error instanceof RRuleError) return error;
    throw error;
  }
}

function isTimeOfDay(around: string): boolean {
  return /\d\s*(?:am|pm)\b|\d:\d\d|\bat\s+\d|\d\s*[-–]\s*\d/i.test(around);
}

/** The first few of what was expected, kinds of words before single ones; the rest would not be read. */
function sayExpected(words: readonly string[]): string {
  const kinds = words.filter((word) => word.startsWith('a '));
  const single = words.filter((word) => !kinds.includes(word)).map((word) => `“${word}”`);
  const some = [...kinds, ...single].slice(0, 4);
  return some.length <= 1 ? (some[0] ?? '') : `${some.slice(0, -1).join(', ')} or ${some.at(-1)}`;
}

/** Words of phrases, besides names, that a mistyped word may have meant. */
const OTHER_WORDS = [
  'the',
  'and',
  'or',
  'of',
  'on',
  'each',
  'from',
  'last',
  'day',
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

/** Words that nobody mistypes another for. */
const MEANT: ReadonlySet<string> = new Set([
  ...FULL_NAMES,
  ...OTHER_WORDS,
  ...[
    'week',
    'month',
    'quarter',
    'year',
    'hour',
    'minute',
    'morning',
    'evening',
    'night',
    'spring',
    'summer',
    'autumn',
  ],
  ...['winter', 'term', 'odd', 'even', 'first', 'second', 'third', 'fourth', 'next', 'this', 'start', 'end', 'season'],
]);

/** Words that are tried in place of one that is not understood. */
const MOST_TRIED = 16;

/** Words that say nothing of when. */
const POLITE = ['please', 'pls', 'thanks', 'kindly', 'usually', 'normally', 'ideally', 'always'];

/**
 * The phrase with a misspelt word put right. Nothing that carries meaning is added or left out, and where two words are as
 * near, neither is offered: a suggestion never means other work.
 */
function suggest(
  text: string,
  at: number,
  length: number,
  expected: readonly string[],
  canBeRead: (text: string) => boolean,
): string | null {
  const [before, typed, rest] = [text.slice(0, at), text.slice(at, at + length).toLowerCase(), text.slice(at + length)];
  // A word of phrases stands where it is meant: another in its place would say something else.
  if (typed === '' || MEANT.has(typed)) return null;
  if (POLITE.includes(typed)) return canBeRead(before + rest) ? tidy(before + rest) : null;
  const literal = expected.filter((word) => !word.startsWith('['));
  const near = [...new Set([...literal, ...FULL_NAMES, ...OTHER_WORDS])]
    .map((word) => ({ word, distance: editDistance(typed, word) }))
    .filter(({ word, distance }) => distance > 0 && distance <= (word.length > 3 ? 2 : 1))
    .sort((a, b) => a.distance - b.distance)
    .slice(0, MOST_TRIED)
    .filter(({ word }) => canBeRead(before + word + rest));
  const [best, next] = near;
  if (!best || next?.distance === best.distance) return null;
  return tidy(before + best.word + rest);
}

function tidy(text: string): string {
  return text.replace(/\s+/g, ' ').replace(/ ,/g, ',').trim();
}
