import { Leave, personChanges } from '../people/index.ts';
import { type Change, fieldsBefore } from '../platform/changes/entity.ts';
import { fieldsOf, type SubjectOfChanges, type Telling } from '../platform/changes/subject.ts';
import { forbidden, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { butFor, putBackTasks, type Task, type Watch } from '../tasks/stored/index.ts';
import { everybody, followPeople } from './following.ts';
import { tellLeave } from './leave.ts';

export const leaveChanges: SubjectOfChanges<Task> = {
  entity: Leave,
  telling: {
    personId: 'silent',
    fromOn: 'silent',
    toOn: 'silent',
    half: 'silent',
    state: 'silent',
    note: 'told',
    askedAt: 'silent',
    decidedBy: 'silent',
    decidedAt: 'silent',
    version: 'silent',
  } satisfies Telling<Leave>,
  // Whoever has asked for leave may take it back as long as nobody has decided, which is another way.
  mayUndoOwn: () => false,
  reached: (changes) => ({ watchIds: changes.flatMap(({ watchId }) => watchId ?? []) }),
  fieldsTaken: (change) => (isGone(change) ? [] : fieldsOf(change)),
  async undo(scope, changes, rest) {
    if (!scope.mayAll('leave')) throw forbidden('Only a manager can take that back.');
    for (const change of changes) await putBack(scope, change);
    await rest();
    const kept = await putBackTasks(
      scope,
      changes.flatMap(({ watchId }): Watch[] => (watchId === null ? [] : [{ watchId, scheduleId: null }])),
    );
    await tellLeave(scope);
    return { said: `The leave is as it was before${butFor(kept)}`, kept };
  },
};

const isGone = ({ action }: Pick<Change, 'action'>): boolean => action === 'taken back';

async function putBack(scope: Scope, { subjectId: id, action, fields }: Change): Promise<void> {
  if (action === 'entered' || action === 'asked') {
    await scope.locked(Leave, id, 'leave');
    await scope.sql('delete from leave where workspace_id = $1 and id = $2', [id]);
  } else if (action === 'taken back') {
    const { workspaceId: _, askedAt, decidedAt, ...row } = (fields['row']?.from ?? {}) as Leave;
    const day = await scope.sql('select 1 from leave where workspace_id = $1 and id = $2', [id]);
    if (day.length > 0) throw notNow('It is there again already.');
    const at = (moment: Date | null) => (moment === null ? null : new Date(moment));
    await scope.insert(Leave, { ...row, askedAt: new Date(askedAt), decidedAt: at(decidedAt) });
  } else {
    const leave = await scope.locked(Leave, id, 'leave');
    await scope.save(Leave, id, { ...fieldsBefore(leave, fields), version: leave.version + 1 });
  }
}

/** Fields of a person by which work goes to others. */
export const TELLS_WHO = ['weeks', 'weeksFrom', 'worksFrom', 'worksUntil', 'roles', 'team', 'deputyId', 'tickets'];

/** People as they were, and work that nobody has seen with whoever has it then. */
export const peopleChanges: SubjectOfChanges<Task> = {
  ...personChanges,
  async undo(scope, changes, rest) {
    const ids = changes
      .filter(({ fields }) => Object.keys(fields).some((field) => TELLS_WHO.includes(field)))
      .map(({ subjectId }) => subjectId);
    const before = await everybody(scope);
    const undone = await personChanges.undo(scope, changes, rest);
    if (ids.length > 0) await followPeople(scope, ids, before, null);
    return undone;
  },
};
