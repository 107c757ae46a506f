import type { CivilDay } from '../civil-date/civil-day.ts';
import { type CivilNow, type DatedTask, isEnded, isOverdue, lookOf } from './task-state.ts';

export interface BandedTask extends DatedTask {
  readonly startsOn: CivilDay;
}

export type Band = 'late' | 'thisDay' | 'coming';

/**
 * The band of the Day sheet that a task stands in on a day, or null when it has no place there.
 * Seen on today, all that is late stands in its own band; another day shows what is due on it or was finished on it.
 */
export function bandOf(task: BandedTask, day: CivilDay, now: CivilNow): Band | null {
  const ended = isEnded(task.state);
  if (ended)
    return task.doneOn === day ||
      (task.doneOn === null && task.dueOn === day) ||
      (task.dueOn === day && day !== now.day)
      ? 'thisDay'
      : null;
  if (day === now.day) {
    if (isOverdue(lookOf(task, now))) return 'late';
    if (task.state !== 'open' || task.startsOn <= day) return 'thisDay';
    return task.appearsOn <= day || task.startsOn <= day + COMING_DAYS ? 'coming' : null;
  }
  if (task.dueOn === day || (task.startsOn <= day && task.dueOn >= day)) return 'thisDay';
  return day > now.day && task.startsOn > day && task.startsOn <= day + COMING_DAYS ? 'coming' : null;
}

/** How many days ahead the Day sheet looks, past what has appeared already. */
export const COMING_DAYS = 7;

/** Two times of day ("HH:MM") in the order of the clock; what has none comes last. @returns as a comparison of `sort` does */
export function compareTimes(a: string | null, b: string | null): number {
  if (a === b) return 0;
  if (a === null) return 1;
  if (b === null) return -1;
  return a < b ? -1 : 1;
}
