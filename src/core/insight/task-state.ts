import type { CivilDay } from '../civil-date/civil-day.ts';

/** States that are stored. Coming is Open before its day of appearing; late is told from the dates. */
export const TASK_STATES = ['open', 'underWay', 'toCheck', 'done', 'skipped', 'lapsed'] as const;
export type TaskState = (typeof TASK_STATES)[number];

/** What each state is to whoever counts work: somebody's to do, finished though somebody is still to look at it, or over. */
const STANDING = {
  open: 'to do',
  underWay: 'to do',
  toCheck: 'finished',
  done: 'over',
  skipped: 'over',
  lapsed: 'over',
} as const satisfies Record<TaskState, 'to do' | 'finished' | 'over'>;

const statesOf = (...standings: (typeof STANDING)[TaskState][]): readonly TaskState[] =>
  TASK_STATES.filter((state) => standings.includes(STANDING[state]));

export const TO_DO_STATES = statesOf('to do');
/** To do, or waiting to be checked. */
export const UNFINISHED_STATES = statesOf('to do', 'finished');
export const ENDED_STATES = statesOf('over');

/** Civil now, in the workspace's zone. */
export interface CivilNow {
  readonly day: CivilDay;
  /** Minutes after midnight, 0–1439. */
  readonly minutes: number;
}

export interface DatedTask {
  readonly state: TaskState;
  readonly appearsOn: CivilDay;
  readonly dueOn: CivilDay;
  /** Minutes after midnight by which it is due; null for the end of the day. */
  readonly dueMinutes: number | null;
  /** The civil day on which it was finished; null before. */
  readonly doneOn: CivilDay | null;
  /** Minutes after midnight at which it was finished; null before. */
  readonly doneMinutes: number | null;
  /** The day on which it can go on, where something holds it up; null where nothing does. */
  readonly heldUntil: CivilDay | null;
}

/** How a task is shown: its state, and whether it is or was late. */
export interface TaskLook {
  readonly state: TaskState | 'coming';
  readonly late: boolean;
  /** Calendar days late; 0 when late by the hour today, or not late. */
  readonly daysLate: number;
  /** Whether it can't go on for now: from when that was said to the day before it can. */
  readonly heldUp: boolean;
}

/** Whether somebody still has to do it: neither over nor finished. */
export function isToDo(state: TaskState): boolean {
  return STANDING[state] === 'to do';
}

export function isEnded(state: TaskState): boolean {
  return STANDING[state] === 'over';
}

/** The look of a task at a moment. Skipped and lapsed work is never late. */
export function lookOf(task: DatedTask, now: CivilNow): TaskLook {
  if (task.state === 'skipped' || task.state === 'lapsed')
    return { state: task.state, late: false, daysLate: 0, heldUp: false };
  // Work that waits to be checked was finished when it was finished, however long the checking takes.
  const finished = task.state === 'done' || task.state === 'toCheck';
  const at = finished && task.doneOn !== null ? { day: task.doneOn, minutes: task.doneMinutes ?? 0 } : now;
  const late =
    at.day > task.dueOn || (at.day === task.dueOn && task.dueMinutes !== null && at.minutes > task.dueMinutes);
  const state = task.state === 'open' && task.appearsOn > now.day ? 'coming' : task.state;
  const heldUp = !finished && task.heldUntil !== null && now.day < task.heldUntil;
  return { state, late, daysLate: late ? at.day - task.dueOn : 0, heldUp };
}

/** Whether somebody still has to do it, and it should have been done by now: what holds it up is not theirs to answer for. */
export function isOverdue({ state, late, heldUp }: Pick<TaskLook, 'state' | 'late' | 'heldUp'>): boolean {
  return late && !heldUp && (state === 'open' || state === 'underWay' || state === 'coming');
}

/** "3 days late", "late today" */
export function sayLate({ daysLate }: Pick<TaskLook, 'daysLate'>): string {
  if (daysLate === 0) return 'late today';
  return daysLate === 1 ? '1 day late' : `${daysLate} days late`;
}
