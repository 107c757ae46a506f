import { type CivilDay, mondayOf, weekdayOf } from '../civil-date/civil-day.ts';
import type { IsoTime } from '../civil-date/iso-date.ts';
import { readDate, WEEKDAY_NAMES } from '../wording/date-words.ts';
import { readDuration } from '../wording/duration.ts';

/** What was read from some words, and how many there were. */
export interface Read<T> {
  readonly value: T;
  readonly words: number;
}

const COUNT_WORDS = ['a', 'two', 'three', 'four', 'five', 'six'];

/**
 * A day in plain words: "today", "fri", "next tue", "3 dec", "dec 3", "in 3 days", "next week". A weekday is the next such day
 * after today, with "next" the one of next week.
 */
export function readDay(words: readonly string[], today: CivilDay): Read<CivilDay> | null {
  const [first = '', second = '', third = ''] = words;
  if (first === 'today' || first === 'tonight') return { value: today, words: 1 };
  if (first === 'tomorrow') return { value: today + 1, words: 1 };
  if (first === 'next' && second === 'week') return { value: mondayOf(today) + 7, words: 2 };
  if (first === 'in') {
    const count = /^\d{1,3}$/.test(second) ? Number(second) : COUNT_WORDS.indexOf(second) + 1;
    const length = { day: 1, days: 1, week: 7, weeks: 7 }[third];
    if (count > 0 && length !== undefined) return { value: today + count * length, words: 3 };
  }
  for (let count = Math.min(4, words.length); count > 0; count--) {
    const day = readDate(words.slice(0, count).join(' '), today);
    if (day !== null) return { value: day, words: count };
  }
  const isNext = first === 'next';
  const weekday = weekdayCalled(isNext ? second : first);
  if (weekday === null) return null;
  const ahead = (weekday - weekdayOf(today) + 7) % 7 || 7;
  return isNext ? { value: mondayOf(today) + 7 + weekday - 1, words: 2 } : { value: today + ahead, words: 1 };
}

/** Three letters or more of a weekday's name. */
function weekdayCalled(word: string): number | null {
  if (word.length < 3) return null;
  const found = WEEKDAY_NAMES.findIndex((name) => name !== '' && name.toLowerCase().startsWith(word));
  return found === -1 ? null : found;
}

export interface TimeSpan {
  readonly from: IsoTime;
  readonly to: IsoTime | null;
}

/** A time of day, "14:00", "9am", "noon", or from one to another, "10:00-11:30". A bare figure is a time only after "at". */
export function readTime(words: readonly string[], isAnnounced: boolean): Read<TimeSpan> | null {
  const [first = ''] = words;
  const [begin = '', end, more] = first.split(/[-–]/);
  if (more !== undefined) return null;
  const from = timeOf(begin, isAnnounced);
  if (from === null) return null;
  if (end === undefined) return { value: { from, to: null }, words: 1 };
  const to = timeOf(end, true);
  return to === null || to <= from ? null : { value: { from, to }, words: 1 };
}

function timeOf(text: string, bare: boolean): IsoTime | null {
  if (text === 'noon') return '12:00';
  if (text === 'midday') return '12:00';
  const match = /^(\d{1,2})(?:[:.](\d{2}))?\s*(am|pm)?$/.exec(text);
  if (!match) return null;
  const [, hours = '', minutes, half] = match;
  // "3.5" or "2" alone may be anything; only with minutes, a half of the day or "at" before it is it a time.
  if (minutes === undefined && half === undefined && !bare) return null;
  if (text.includes('.') && half === undefined && !bare) return null;
  const hour =
    Number(hours) + (half === 'pm' && Number(hours) < 12 ? 12 : 0) - (half === 'am' && hours === '12' ? 12 : 0);
  if (hour > 23 || Number(minutes ?? 0) > 59 || (half !== undefined && (Number(hours) < 1 || Number(hours) > 12)))
    return null;
  return `${String(hour).padStart(2, '0')}:${minutes ?? '00'}`;
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
