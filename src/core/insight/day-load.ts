import type { CivilDay } from '../civil-date/civil-day.ts';
import { isEnded, type TaskState } from './task-state.ts';

/** Tasks of one state that are due on one day, added up. */
export interface LoadedTasks {
  readonly dueOn: CivilDay;
  readonly state: TaskState;
  readonly tasks: number;
  readonly minutes: number;
}

/** Work due on one day, in minutes. */
export interface DayLoad {
  readonly day: CivilDay;
  readonly done: number;
  /** Made, and neither finished nor given up. */
  readonly open: number;
  /** Dates that the rules give, not made yet. */
  readonly projected: number;
  /** Tasks behind `done` and `open`. */
  readonly tasks: number;
}

/**
 * Load per day of [from, to] by due date. Skipped and lapsed work weighs nothing.
 * `projected` are occurrences that are not tasks yet.
 */
export function dayLoads(
  made: Iterable<LoadedTasks>,
  projected: Iterable<{ readonly dueOn: CivilDay; readonly estimateMinutes: number }>,
  from: CivilDay,
  to: CivilDay,
): DayLoad[] {
  const days = Array.from({ length: to - from + 1 }, (_, i) => ({
    day: from + i,
    done: 0,
    open: 0,
    projected: 0,
    tasks: 0,
  }));
  for (const { dueOn, state, tasks, minutes } of made) {
    const load = days[dueOn - from];
    if (!load || (isEnded(state) && state !== 'done')) continue;
    load.tasks += tasks;
    // Finished work that waits to be checked is nobody's to do any more.
    if (state === 'done' || state === 'toCheck') load.done += minutes;
    else load.open += minutes;
  }
  for (const { dueOn, estimateMinutes } of projected) {
    const load = days[dueOn - from];
    if (load) load.projected += estimateMinutes;
  }
  return days;
}
