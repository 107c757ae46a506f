import { type CivilDay, weekdayOf } from '../civil-date/civil-day.ts';
import type { IsoTime } from '../civil-date/iso-date.ts';
import { PhraseCursor } from '../recurrence/phrase/cursor.ts';
import { readNear, readDate as readPhraseDate } from '../recurrence/phrase/dates.ts';
import { readTimes } from '../recurrence/phrase/times.ts';
import { phraseTokens } from '../recurrence/phrase/tokens.ts';
import { readDate, WEEKDAY_NAMES } from '../wording/date-words.ts';
import { readDuration } from '../wording/duration.ts';

/** What was read from some words, and how many there were. */
export interface Read<T> {
  readonly value: T;
  readonly words: number;
}

/** So many of the words as a cursor has read whole; null where it stopped within one. */
function wholeWords(words: readonly string[], cursor: PhraseCursor, lead = 0): number | null {
  let end = lead;
  for (const [i, word] of words.entries()) {
    end += word.length;
    if (end === cursor.readTo) return i + 1;
    end++;
  }
  return null;
}

/**
 * A day in plain words, by the grammar of phrases: "today", "fri", "next tue", "3 dec", "dec 3", "in 3 days", "next week". A weekday
 * is the next such day after today, with "next" the one of next week.
 */
export function readDay(words: readonly string[], today: CivilDay): Read<CivilDay> | null {
  const [first = ''] = words;
  if (first === 'tonight') return { value: today, words: 1 };
  const cursor = new PhraseCursor(words.join(' '));
  const isWeekday = cursor.ahead(() => cursor.weekday() !== null);
  const day = cursor.try(() => readPhraseDate(cursor, today)) ?? cursor.try(() => readNear(cursor, today));
  const count = day === null || cursor.refused ? null : wholeWords(words, cursor);
  // Said of itself, today's weekday is that of next week.
  if (day !== null && count !== null) return { value: isWeekday && day === today ? day + 7 : day, words: count };
  // As they are typed into a field of dates: "3/12".
  for (let most = Math.min(4, words.length); most > 0; most--) {
    const typed = readDate(words.slice(0, most).join(' '), today);
    if (typed !== null) return { value: typed, words: most };
  }
  const weekday = weekdayCalled(first);
  return weekday === null ? null : { value: today + ((weekday - weekdayOf(today) + 7) % 7 || 7), words: 1 };
}

/** Three letters or more of a weekday's name, as it is being typed. */
function weekdayCalled(word: string): number | null {
  if (word.length < 3) return null;
  const found = WEEKDAY_NAMES.findIndex((name) => name !== '' && name.toLowerCase().startsWith(word));
  return found === -1 ? null : found;
}

export interface TimeSpan {
  readonly from: IsoTime;
  readonly to: IsoTime | null;
}

const ANNOUNCED = 'at ';

/**
 * A time of day by the grammar of phrases, "14:00", "9am", "noon", or from one to another, "10:00-11:30". A bare figure is a time
 * only after "at".
 */
export function readTime(words: readonly string[], isAnnounced: boolean): Read<TimeSpan> | null {
  const text = words.join(' ');
  if (!isAnnounced && phraseTokens(text)[0]?.kind !== 'time') return null;
  const lead = isAnnounced ? ANNOUNCED : '';
  const cursor = new PhraseCursor(lead + text);
  const times = readTimes(cursor);
  const count = cursor.refused || !times?.startTime ? null : wholeWords(words, cursor, lead.length);
  return count === null || !times?.startTime
    ? null
    : { value: { from: times.startTime, to: times.dueTime }, words: count };
}

/** How long it takes: "45 min", "1 h 30", "1.5 hours", "half an hour". A bare figure is none. */
export function readEstimate(words: readonly string[]): Read<number> | null {
  if (words.slice(0, 3).join(' ') === 'half an hour') return { value: 30, words: 3 };
  if (words.slice(0, 2).join(' ') === 'an hour') return { value: 60, words: 2 };
  for (let count = Math.min(4, words.length); count > 0; count--) {
    const text = words.slice(0, count).join(' ');
    const minutes = /[a-z]/.test(text) ? readDuration(text) : null;
    if (minutes !== null && minutes > 0) return { value: minutes, words: count };
  }
  return null;
}
