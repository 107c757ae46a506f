import { NUDGE_AGAIN_MINUTES } from '../../contract/index.ts';
import {
  dayOfIso,
  isEnded,
  isToDo,
  lackedTicket,
  type NoTicket,
  type Right,
  sayWhoMayAll,
  ticketsHeld,
} from '../../core/index.ts';
import type { Person } from '../platform/identity/person.ts';
import { forbidden } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { isForClient, type LookRow, lookOfRow, type Task } from './stored/index.ts';

/** What may be done to a task; how far it goes for whom stands in the core's table of rights. */
const TASK_RIGHTS = [
  'work',
  'skip',
  'edit',
  'move',
  'give',
  'prioritise',
  'delete',
  'editSeries',
] as const satisfies readonly Right[];
export type TaskRight = (typeof TASK_RIGHTS)[number];

const PLANNERS = sayWhoMayAll('give');

const SAID: Readonly<Record<TaskRight, string>> = {
  work: 'This task is someone else’s.',
  skip: 'Only the person who has it, a planner or a manager, can skip it.',
  edit: 'This task is someone else’s.',
  move: `Only ${PLANNERS} can move a task to another day. Ask one of yours, or skip it with the reason.`,
  give: `Only ${PLANNERS} can give a task to somebody else.`,
  prioritise: `Only ${PLANNERS} can change the priority of a task.`,
  delete: `Only ${PLANNERS} can delete a task.`,
  editSeries: `Only ${PLANNERS} can change the later ones too.`,
};

type Whose = Pick<Task, 'assigneeId' | 'offeredTo' | 'clientId'>;

/** Whether whoever asks may have the client of a task asked by mail: what is not begun here, or is the client's already. */
export function mayAsk(scope: Scope, task: Whose & Pick<Task, 'state'>): boolean {
  const isOpen = task.state === 'open' || (task.state === 'underWay' && isForClient(task));
  return scope.reach('give') === 'all' && task.clientId !== null && isOpen;
}

export function may(scope: Scope, right: TaskRight, task: Whose): boolean {
  const { contact } = scope;
  if (contact !== null) return right === 'work' && isForClient(task) && task.clientId === contact.clientId;
  const reach = scope.reach(right);
  return reach === 'all' || (reach === 'own' && task.assigneeId === scope.person?.id);
}

/** @throws Refusal that says who may */
export function mustMay(scope: Scope, right: TaskRight, task: Whose): void {
  if (may(scope, right, task)) return;
  if (isForClient(task) && scope.reach(right) === 'own') throw forbidden('This is for the client to do.');
  const isNobodys = task.assigneeId === null && scope.reach(right) === 'own';
  throw forbidden(isNobodys ? 'Nobody has this task yet: claim it first.' : SAID[right]);
}

/** Whoever plans may work on anything; others on what is theirs. What is nobody's can be claimed. */
export function mayWork(scope: Scope, task: Whose): boolean {
  return may(scope, 'work', task);
}

/** Whether this person may take it: it is nobody's, not over, and offered to them where it is offered to some. */
export function mayClaim(scope: Scope, task: Whose & Pick<Task, 'state'>): boolean {
  return (
    scope.reach('claim') !== 'none' &&
    task.assigneeId === null &&
    !isForClient(task) &&
    !isEnded(task.state) &&
    task.state !== 'toCheck' &&
    isOfferedTo(scope, task)
  );
}

/** The first ticket that work asks for which somebody does not hold on its day; null where they hold them all. */
export function lackedBy(
  person: Pick<Person, 'tickets'> | null,
  tickets: readonly string[],
  { workOn }: Pick<Task, 'workOn'>,
): NoTicket | null {
  if (person === null) return null;
  return lackedTicket({ tickets: ticketsHeld(person.tickets) }, tickets, dayOfIso(workOn));
}

/** Whoever plans may take whatever is offered; others what is offered to them, or to nobody by name. */
export function isOfferedTo(scope: Scope, { offeredTo }: Pick<Task, 'offeredTo'>): boolean {
  const { person } = scope;
  if (person === null) return false;
  if (offeredTo === null || scope.reach('give') === 'all') return true;
  switch (offeredTo.of) {
    case 'people':
      return offeredTo.ids.includes(person.id);
    case 'role':
      return person.roles.includes(offeredTo.role);
    case 'everyone':
      return true;
    case 'team':
      return person.team === offeredTo.team;
    case 'client':
      return false;
  }
}

/** What was taken of several can be given back until it is begun. */
export function mayGiveBack(scope: Scope, task: Whose & Pick<Task, 'state'>): boolean {
  return task.offeredTo !== null && task.state === 'open' && task.assigneeId !== null && may(scope, 'work', task);
}

/** Whether whoever ends the task now chooses the date of the next: where somebody signs it off, that is theirs. */
export function mayChooseNext(
  scope: Scope,
  task: Whose & Pick<Task, 'head' | 'state' | 'signOff' | 'doneBy'>,
): boolean {
  // Where each of several has one, none of them moves the next of all.
  if (task.head !== '') return false;
  if (task.state === 'toCheck') return maySign(scope, task);
  return !isEnded(task.state) && task.signOff === null && mayWork(scope, task);
}

/** Whoever is named, or any manager; never the one who did it. */
export function maySign(scope: Scope, task: Pick<Task, 'state' | 'signOff' | 'doneBy'>): boolean {
  const { person } = scope;
  const { state, signOff, doneBy } = task;
  const reach = scope.reach('sign');
  if (person === null || reach === 'none' || state !== 'toCheck' || doneBy === person.id) return false;
  if (reach === 'all' || signOff === null) return reach === 'all';
  if (signOff.by === 'person') return signOff.personId === person.id;
  return signOff.by === 'role' && person.roles.includes(signOff.role);
}

/** Whoever finished it today may still write a note and add pictures: some of it comes to mind a little later. */
export function mayAddTo(scope: Scope, { state, doneBy, doneAt }: Pick<Task, 'state' | 'doneBy' | 'doneAt'>): boolean {
  const isFinished = state === 'done' || state === 'toCheck';
  return (
    isFinished && doneBy !== null && doneBy === scope.person?.id && scope.moment(doneAt)?.slice(0, 10) === scope.today
  );
}

/** Whether whoever has a task was reminded of it too short a time ago to be reminded again. */
export function wasNudgedLately(scope: Scope, { nudgedAt }: Pick<Task, 'nudgedAt'>): boolean {
  return nudgedAt !== null && scope.instant.getTime() - nudgedAt.getTime() < NUDGE_AGAIN_MINUTES * 60_000;
}

/** Whether a task is somebody's to do and can go on. */
export function isToDoNow(scope: Scope, row: LookRow): boolean {
  return isToDo(row.state) && !lookOfRow(scope, row).heldUp;
}

/** Whether whoever has it can be reminded of it now, by somebody else. */
export function mayNudge(scope: Scope, row: LookRow & Pick<Task, 'assigneeId' | 'nudgedAt'>): boolean {
  const { assigneeId } = row;
  if (!scope.mayAll('nudge') || assigneeId === null || assigneeId === scope.person?.id) return false;
  return isToDoNow(scope, row) && !wasNudgedLately(scope, row);
}
