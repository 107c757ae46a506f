import type { FieldWithWords } from '../../../contract/index.ts';
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
  /** All schedules whose tasks were noted under these. */
  readonly watchIds?: readonly string[];
}

/**
 * Of each field of a row whether the history says that it changed, which takes a word for it, or is silent, since it follows
 * from others. A column that is forgotten does not compile.
 */
export type Telling<Row> = {
  readonly [Field in Exclude<keyof Row, 'workspaceId' | 'id'>]: Field extends FieldWithWords
    ? 'told' | 'silent'
    : 'silent';
};

/** What the history has to know of things of one kind; each feature says it of its own. */
export interface SubjectOfChanges<Task> {
  /** What its fields are those of. */
  readonly entity: new () => object;
  /** What is kept in a change alone, as the row of what is gone, is not told by its field. */
  readonly telling: Readonly<Record<string, 'told' | 'silent'>>;
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
