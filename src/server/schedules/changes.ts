import { plural } from '../../core/index.ts';
import type { Action } from '../platform/changes/actions.ts';
import { fieldsOf, type SubjectOfChanges, type Telling } from '../platform/changes/subject.ts';
import { forbidden } from '../platform/refusal.ts';
import { butFor, type Task } from '../tasks/stored/index.ts';
import { undoScheduleChanges } from './changing.ts';
import { Schedule } from './entity.ts';

/** Of a schedule whose next date was chosen by whoever finished the one before. */
export const NEXT_CHOSEN = 'next date chosen' satisfies Action<'schedule'>;

export const scheduleChanges: SubjectOfChanges<Task> = {
  entity: Schedule,
  telling: {
    templateId: 'told',
    clientId: 'told',
    assetId: 'told',
    onPlanId: 'silent',
    planItem: 'silent',
    assignment: 'told',
    recurrence: 'told',
    timing: 'told',
    overlap: 'told',
    pauses: 'told',
    exceptions: 'told',
    revisions: 'told',
    version: 'silent',
    settledTo: 'silent',
    problem: 'silent',
    createdAt: 'silent',
    deletedAt: 'silent',
  } satisfies Telling<Schedule>,
  mayUndoOwn: () => false,
  reached: (changes) => ({ scheduleIds: changes.map(({ subjectId }) => subjectId) }),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    // Whoever finishes a task may choose the day of the next, and take that back.
    const isNextOnly = changes.every(({ action }) => action === NEXT_CHOSEN);
    if (!scope.mayAll('plan') && !isNextOnly) throw forbidden('Only a planner or a manager can change schedules.');
    const { kept, settle } = await undoScheduleChanges(
      scope,
      changes.map(({ subjectId: id, fields, watchId }) => ({ id, fields, watchId })),
    );
    await rest();
    await settle();
    const isNewOnly = changes.every(({ action }) => action === 'created');
    const what = isNewOnly
      ? `${plural(changes.length, 'schedule')} ${changes.length === 1 ? 'is' : 'are'} gone again`
      : changes.length === 1
        ? isNextOnly
          ? 'The next one is as before'
          : 'The schedule is as it was before'
        : `${plural(changes.length, 'schedule')} are as they were before`;
    return { said: `${what}${butFor(kept)}`, kept };
  },
};
