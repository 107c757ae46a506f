import { isEnded } from '../../core/index.ts';
import { forbidden } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import type { Task } from './stored/index.ts';

/**
 * Who may do what with a task: whoever has it, or managers alone. A manager may do all of it. One table for every route,
 * for one task and for many.
 */
export const WHO_MAY = {
  /** Start, tick, answer, note, add files, finish. */
  work: 'holder',
  skip: 'holder',
  /** Its words, times of day and estimate. */
  edit: 'holder',
  /** To another day, or due on another. */
  move: 'manager',
  /** To somebody else, or back to nobody. */
  give: 'manager',
  prioritise: 'manager',
  delete: 'manager',
  /** Others of its series with it. */
  editSeries: 'manager',
} as const;

export type TaskRight = keyof typeof WHO_MAY;

const SAID: Readonly<Record<TaskRight, string>> = {
  work: 'This task is someone else’s.',
  skip: 'Only the person who has it, or a manager, can skip it.',
  edit: 'This task is someone else’s.',
  move: 'Only a manager can move a task to another day. Ask one of yours, or skip it with the reason.',
  give: 'Only a manager can give a task to somebody else.',
  prioritise: 'Only a manager can change the priority of a task.',
  delete: 'Only a manager can delete a task.',
  editSeries: 'Only a manager can change the later ones too.',
};

export function may({ person }: Scope, right: TaskRight, task: Pick<Task, 'assigneeId'>): boolean {
  if (person === null) return false;
  return person.isManager || (WHO_MAY[right] === 'holder' && task.assigneeId === person.id);
}

/** @throws Refusal that says who may */
export function mustMay(scope: Scope, right: TaskRight, task: Pick<Task, 'assigneeId'>): void {
  if (may(scope, right, task)) return;
  const isNobodys = task.assigneeId === null && WHO_MAY[right] === 'holder';
  throw forbidden(isNobodys ? 'Nobody has this task yet: claim it first.' : SAID[right]);
}

/** Managers may work on anything; others on what is theirs. What is nobody's can be claimed. */
export function mayWork(scope: Scope, task: Pick<Task, 'assigneeId'>): boolean {
  return may(scope, 'work', task);
}

/** Whether this person may take it: it is nobody's, and not over. */
export function mayClaim({ person }: Scope, task: Pick<Task, 'assigneeId' | 'state'>): boolean {
  return person !== null && task.assigneeId === null && !isEnded(task.state) && task.state !== 'toCheck';
}

/** Whether whoever ends the task now chooses the date of the next: where somebody signs it off, that is theirs. */
export function mayChooseNext(scope: Scope, task: Pick<Task, 'state' | 'signOff' | 'doneBy' | 'assigneeId'>): boolean {
  if (task.state === 'toCheck') return maySign(scope, task);
  return !isEnded(task.state) && task.signOff === null && mayWork(scope, task);
}

/** Whoever is named, or any manager; never the one who did it. */
export function maySign({ person }: Scope, task: Pick<Task, 'state' | 'signOff' | 'doneBy'>): boolean {
  const { state, signOff, doneBy } = task;
  if (person === null || state !== 'toCheck' || doneBy === person.id) return false;
  if (person.isManager || signOff === null) return person.isManager;
  if (signOff.by === 'person') return signOff.personId === person.id;
  return signOff.by === 'role' && signOff.role === person.role;
}
