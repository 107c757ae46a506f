import type { Scope } from '../scope.ts';
import type { Subject } from './actions.ts';
import type { Change, FieldChanges } from './entity.ts';

/** What came of an undo: in words, and the tasks that it had to leave as they are. */
export interface Undone<Task> {
  readonly said: string;
  readonly kept: readonly Task[];
}

/** What changes may reach. */
export interface Reached {
  readonly taskIds?: readonly string[];
  readonly scheduleIds?: readonly string[];
  readonly templateIds?: readonly string[];
}

/** What the history has to know of things of one kind; each feature says it of its own. */
export interface SubjectOfChanges<Task> {
  /** What its fields are those of. */
  readonly entity: new () => object;
  /** Fields that follow from others: they are put back with them, and not told beside them. */
  readonly silent: readonly string[];
  /** Whether somebody may take back what they did themselves; managers may take back anything. */
  readonly mayUndoOwn: (change: Pick<Change, 'action'>) => boolean;
  readonly reached: (changes: readonly Change[]) => Reached;
  /** Others may change the same fields later; of what is gone nothing can be changed. */
  readonly fieldsTaken: (change: Pick<Change, 'action' | 'fields'>) => readonly string[];
  /**
   * Puts back what these changes found, which were made together.
   * @param rest what else belongs to the undo, done before anything is made that is owed then
   * @throws Refusal where it was changed again since, or is not theirs to undo
   */
  readonly undo: (scope: Scope, changes: readonly Change[], rest: () => Promise<void>) => Promise<Undone<Task>>;
}

export type SubjectsOfChanges<Task> = Readonly<Record<Exclude<Subject, 'several'>, SubjectOfChanges<Task>>>;

export const fieldsOf = ({ fields }: { readonly fields: FieldChanges }): string[] => Object.keys(fields);
