import type { IsoTime } from '../../civil-date/iso-date.ts';
import type { PhraseCursor } from './cursor.ts';
import { readTo } from './dates.ts';

/** Times of day that a phrase says beside its days: from when, and by when; null for what is not said. */
export interface PhraseTimes {
  readonly startTime: IsoTime | null;
  readonly dueTime: IsoTime | null;
}

/** "at 9am", "08:00 to 09:30", "by 5pm", "at 9, by 17:00"; null where no time is said. */
export function readTimes(c: PhraseCursor): PhraseTimes | null {
  return c.try(() => readSpanOfDay(c)) ?? c.try(() => readBy(c)) ?? c.try(() => readAt(c));
}

/** "from 8am to 9:30am", "between 08:00 and 09:30", "9am-5pm" */
function readSpanOfDay(c: PhraseCursor): PhraseTimes | null {
  const from = c.place;
  const isBetween = c.word('between');
  if (!isBetween) c.filler('from', 'at');
  const startTime = readTime(c);
  if (startTime === null || !(isBetween ? c.word('and') : readTo(c))) return null;
  const dueTime = readTime(c);
  if (dueTime === null) return null;
  if (dueTime <= startTime)
    return c.refuse(from, `From ${startTime} to ${dueTime} is over before it begins: a day’s times go forward.`);
  return { startTime, dueTime };
}

function readBy(c: PhraseCursor): PhraseTimes | null {
  if (!c.word('by', 'due by', 'due at', 'before', 'no later than', 'until', 'till')) return null;
  const dueTime = readTime(c);
  return dueTime === null ? null : { startTime: null, dueTime };
}

function readAt(c: PhraseCursor): PhraseTimes | null {
  const from = c.place;
  c.filler('at', 'from', 'starting at');
  const startTime = readTime(c);
  if (startTime === null) return null;
  const dueTime =
    c.try(() => {
      c.mark(',');
      return readBy(c);
    })?.dueTime ?? null;
  if (dueTime !== null && dueTime <= startTime)
    return c.refuse(from, `At ${startTime} and by ${dueTime} is over before it begins: a day’s times go forward.`);
  return { startTime, dueTime };
}

/** Times with those that a phrase says in their place; what it does not say stays. */
export function withTimes<T extends { readonly startTime: IsoTime | null; readonly dueTime: IsoTime | null }>(
  timing: T,
  times: PhraseTimes | null,
): T {
  if (times === null) return timing;
  return { ...timing, startTime: times.startTime ?? timing.startTime, dueTime: times.dueTime ?? timing.dueTime };
}

function readTime(c: PhraseCursor): IsoTime | null {
  const token = c.token('time');
  if (!token) c.expect('[a time like “9am” or “14:30”]');
  return token?.time ?? null;
}
