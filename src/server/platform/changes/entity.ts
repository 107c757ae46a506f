import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';
import { Names, OfWorkspace } from '../db/keys.ts';
import { changedMeanwhile } from '../refusal.ts';
import { ACTIONS, type Action, type Subject } from './actions.ts';

export type FieldChanges = Record<string, { readonly from: unknown; readonly to: unknown }>;

/** Who changed what, when, from what to what: written with every change, and replayed backwards to undo it. */
@Entity({ name: 'change' })
@OfWorkspace('change')
@Names('change', 'Person', ['actorId'])
@Check(
  'change_subject_check',
  `subject in (${Object.keys(ACTIONS)
    .map((subject) => `'${subject}'`)
    .join(', ')})`,
)
// What a row may hold is bounded by what a request may bring; all that is longer than a page lies beside the table (TOAST).
@Check('change_fields_check', 'pg_column_size(fields) <= 8388608')
@Index('change_by_subject', ['workspaceId', 'subjectId', 'at'])
@Index('change_joined', ['workspaceId', 'joinedId'], { where: 'joined_id is not null' })
@Index('change_removed_template', ['workspaceId', 'at'], {
  where: `subject = 'template' and action = 'removed' and undone_at is null`,
})
@Index('change_deleted_task', ['workspaceId', 'at', 'id'], {
  where: `subject = 'task' and action = 'deleted' and undone_at is null`,
})
@Index('change_given_task', { synchronize: false })
@Index('change_notice_gone', ['workspaceId', 'at', 'id'], {
  where: `subject = 'notice' and action in ('sent', 'mailed') and undone_at is null`,
})
// Of what is in the row of a deleted task.
@Index('change_deleted_of_schedule', { synchronize: false })
@Index('change_deleted_on_day', { synchronize: false })
export class Change {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'timestamptz' })
  at!: Date;
  @Column({ type: 'uuid', nullable: true })
  actorId!: string | null;
  /** A client's contact who did it by a link: by name, as contacts come and go. */
  @Column({ type: 'text', nullable: true })
  byContact!: string | null;
  @Column({ type: 'text' })
  /** "several" holds changes of many things together, and undoes them all. */
  subject!: Subject;
  @Column({ type: 'uuid' })
  subjectId!: string;
  @Column({ type: 'text' })
  action!: Action;
  @Column({ type: 'jsonb' })
  fields!: FieldChanges;
  /** The change that holds it together with others that were made in one go. */
  @Column({ type: 'uuid', nullable: true })
  joinedId!: string | null;
  /** Under which the tasks are noted that it made, changed and took back; see `tasks/watched.ts`. */
  @Column({ type: 'uuid', nullable: true })
  watchId!: string | null;
  @Column({ type: 'timestamptz', nullable: true })
  undoneAt!: Date | null;
}

/** What is to be recorded of a change, besides who made it and when. */
export type ChangeEntry<S extends Subject = Subject> = S extends Subject
  ? { readonly subject: S; readonly action: Action<S> } & Pick<Change, 'subjectId' | 'fields'> &
      Partial<Pick<Change, 'watchId'>>
  : never;

/** Whether two values are the same once stored: the database keeps the members of an object in an order of its own. */
export function isSame(a: unknown, b: unknown): boolean {
  return canonical(a) === canonical(b);
}

function canonical(value: unknown): string {
  return JSON.stringify(value, (_, member: unknown) =>
    member !== null && typeof member === 'object' && !Array.isArray(member)
      ? Object.fromEntries(Object.entries(member).sort(([one], [other]) => (one < other ? -1 : 1)))
      : member,
  );
}

/**
 * The fields as they were before a change, to undo it.
 * @throws Refusal when any of them was changed again since
 */
export function fieldsBefore<T extends object>(now: T, fields: FieldChanges): Partial<T> {
  const before: Record<string, unknown> = {};
  for (const [field, { from, to }] of Object.entries(fields)) {
    if (!isSame(now[field as keyof T], to)) {
      throw changedMeanwhile('It was changed again since, so this can no longer be undone in one go.');
    }
    before[field] = from;
  }
  return before as Partial<T>;
}
