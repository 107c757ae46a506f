import type { ShiftChange } from '../../core/index.ts';
import { Leave, personChanges } from '../people/index.ts';
import { type Change, fieldsBefore } from '../platform/changes/entity.ts';
import { fieldsOf, type SubjectOfChanges, type Telling } from '../platform/changes/subject.ts';
import { Person } from '../platform/identity/person.ts';
import { forbidden, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { butFor, putBackTasks, type Task, type Watch } from '../tasks/stored/index.ts';
import { everybody, followPeople } from './following.ts';
import { refuseTwice, tellLeave } from './leave.ts';
import { singleDays } from './members.ts';

export const leaveChanges: SubjectOfChanges<Task> = {
  entity: Leave,
  telling: {
    personId: 'silent',
    fromOn: 'silent',
    toOn: 'silent',
    half: 'silent',
    cover: 'silent',
    exchanges: 'silent',
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
    const before = await everybody(scope);
    const personIds: string[] = [];
    for (const change of changes) personIds.push(await putBack(scope, change));
    await rest();
    const kept = await putBackTasks(
      scope,
      changes.flatMap(({ watchId }): Watch[] => (watchId === null ? [] : [{ watchId, scheduleId: null }])),
    );
    // What was made since, by what holds no more, and nobody has seen.
    await followPeople(scope, personIds, before);
    await tellLeave(scope);
    return { said: `The leave is as it was before${butFor(kept)}`, kept };
  },
};

const isGone = ({ action }: Pick<Change, 'action'>): boolean => action === 'taken back';

/** @returns whose leave it is */
async function putBack(scope: Scope, { subjectId: id, action, fields }: Change): Promise<string> {
  if (action === 'taken back') {
    const { workspaceId: _, askedAt, decidedAt, ...row } = (fields['row']?.from ?? {}) as Leave;
    const there = await scope.sql('select 1 from leave where workspace_id = $1 and id = $2', [id]);
    if (there.length > 0) throw notNow('It is there again already.');
    await mayStandAgain(scope, row);
    const at = (moment: Date | null) => (moment === null ? null : new Date(moment));
    await scope.insert(Leave, { ...row, askedAt: new Date(askedAt), decidedAt: at(decidedAt) });
    return row.personId;
  }
  const leave = await scope.locked(Leave, id, 'leave');
  if (action === 'entered' || action === 'asked')
    await scope.sql('delete from leave where workspace_id = $1 and id = $2', [id]);
  else {
    if (action === 'refused') await mayStandAgain(scope, { ...leave, state: 'asked' });
    await scope.save(Leave, id, { ...fieldsBefore(leave, fields), version: leave.version + 1 });
  }
  return leave.personId;
}

/** Other leave of its days may have been entered since. */
async function mayStandAgain(
  scope: Scope,
  { personId, fromOn, toOn, state }: Pick<Leave, 'personId' | 'fromOn' | 'toOn' | 'state'>,
): Promise<void> {
  if (state !== 'refused') await refuseTwice(scope, await scope.locked(Person, personId, 'person'), { fromOn, toOn });
}

/** Fields of a person by which work goes to others. */
export const TELLS_WHO = [
  'weeks',
  'weeksFrom',
  'shifts',
  'shiftChanges',
  'worksFrom',
  'worksUntil',
  'roles',
  'team',
  'deputyId',
  'tickets',
];

const changesIn = (value: unknown) => (value ?? []) as readonly ShiftChange[];

/** People as they were, and work that nobody has seen with whoever has it then. */
export const peopleChanges: SubjectOfChanges<Task> = {
  ...personChanges,
  async undo(scope, changes, rest) {
    const ids = changes
      .filter(({ fields }) => Object.keys(fields).some((field) => TELLS_WHO.includes(field)))
      .map(({ subjectId }) => subjectId);
    const before = await everybody(scope);
    const undone = await personChanges.undo(scope, changes, rest);
    const spans = changes.flatMap(({ fields }) =>
      singleDays(changesIn(fields['shiftChanges']?.from), changesIn(fields['shiftChanges']?.to), scope.now.day),
    );
    if (ids.length > 0) await followPeople(scope, ids, before, spans);
    return undone;
  },
};
