import type { Scope } from '../scope.ts';
import type { Task } from './entity.ts';

/** Managers may work on anything; others on what is theirs. What is nobody's can be claimed. */
export function mayWork({ person }: Scope, task: Pick<Task, 'assigneeId'>): boolean {
  return person !== null && (person.isManager || task.assigneeId === person.id);
}

/** Whoever is named, or any manager; never the one who did it. */
export function maySign({ person }: Scope, task: Pick<Task, 'state' | 'signOff' | 'doneBy'>): boolean {
  const { state, signOff, doneBy } = task;
  if (person === null || state !== 'toCheck' || doneBy === person.id) return false;
  if (person.isManager || signOff === null) return person.isManager;
  if (signOff.by === 'person') return signOff.personId === person.id;
  return signOff.by === 'role' && signOff.role === person.role;
}
