import { leaveChanges, peopleChanges } from '../availability/index.ts';
import { bringInChanges } from '../bring-in/index.ts';
import { callChanges, quotaChanges } from '../calls/index.ts';
import { assetChanges, clientChanges } from '../directory/index.ts';
import { fileChanges } from '../files/index.ts';
import { letterChanges, noticeChanges } from '../notices/index.ts';
import { onPlanChanges, planChanges } from '../plans/index.ts';
import type { Subject } from '../platform/changes/actions.ts';
import type { Change, FieldChanges } from '../platform/changes/entity.ts';
import type { SubjectsOfChanges } from '../platform/changes/subject.ts';
import { typeOf } from '../platform/db/columns.ts';
import { scheduleChanges } from '../schedules/index.ts';
import { settingsChanges } from '../settings/index.ts';
import { taskChanges } from '../tasks/index.ts';
import type { Task } from '../tasks/stored/index.ts';
import { templateChanges } from '../templates/index.ts';

/**
 * Everything that the history tells of. In the order in which changes that were made together are put back: what a schedule
 * did to tasks came after what was done to them by themselves, and is put back around them.
 */
export const SUBJECTS: SubjectsOfChanges<Task> = {
  workspace: settingsChanges,
  person: peopleChanges,
  leave: leaveChanges,
  bringIn: bringInChanges,
  client: clientChanges,
  asset: assetChanges,
  plan: planChanges,
  onPlan: onPlanChanges,
  schedule: scheduleChanges,
  template: templateChanges,
  task: taskChanges,
  file: fileChanges,
  letter: letterChanges,
  notice: noticeChanges,
  quota: quotaChanges,
  call: callChanges,
};
export type OneSubject = keyof typeof SUBJECTS;
export const IN_ORDER = Object.keys(SUBJECTS) as OneSubject[];

export const isOne = (subject: Subject): subject is OneSubject => subject !== 'several';

/** The type of the column that a field of a subject is kept in; undefined for what is kept in a change alone. */
export function fieldType(subject: Subject, field: string): string | undefined {
  return isOne(subject) ? typeOf(SUBJECTS[subject].entity, field) : undefined;
}

/** A change as it was made: instants, which come back from JSON as texts, are dates again. */
export function revived<C extends Pick<Change, 'subject' | 'fields'>>(change: C): C {
  const revive = (field: string, value: unknown) =>
    typeof value === 'string' && fieldType(change.subject, field) === 'timestamptz' ? new Date(value) : value;
  const fields: FieldChanges = Object.fromEntries(
    Object.entries(change.fields).map(([field, { from, to }]) => [
      field,
      { from: revive(field, from), to: revive(field, to) },
    ]),
  );
  return { ...change, fields };
}
