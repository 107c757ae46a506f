import type { CivilDay } from '../civil-date/civil-day.ts';
import { type DatedTask, isEnded } from './task-state.ts';

export interface LoadedTask extends DatedTask {
  readonly estimateMinutes: number;
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
  tasks: Iterable<LoadedTask>,
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
  for (const task of tasks) {
    const load = days[task.dueOn - from];
    if (!load || (isEnded(task.state) && task.state !== 'done')) continue;
    load.tasks++;
    // Finished work that waits to be checked is nobody's to do any more.
    if (task.state === 'done' || task.state === 'toCheck') load.done += task.estimateMinutes;
    else load.open += task.estimateMinutes;
  }
  for (const { dueOn, estimateMinutes } of projected) {
    const load = days[dueOn - from];
    if (load) load.projected += estimateMinutes;
  }
  return days;
}
