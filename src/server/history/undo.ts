import { IsNull } from 'typeorm';
import type { Impact } from '../../contract/index.ts';
import { plural } from '../../core/index.ts';
import { undoFileChange } from '../files/service.ts';
import { Change } from '../platform/changes/entity.ts';
import { forbidden, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { undoScheduleChanges } from '../schedules/changing.ts';
import { comparedYears, plannedYear } from '../schedules/impact.ts';
import { scheduleRows } from '../schedules/schedule-row.ts';
import type { Task } from '../tasks/entity.ts';
import { removeHandMade } from '../tasks/hand-made.ts';
import { NEXT_CHOSEN } from '../tasks/next-date.ts';
import { bringBackTasks } from '../tasks/remove.ts';
import { impactOfFates, watchTasks } from '../tasks/task-impact.ts';
import { butFor } from '../tasks/watched.ts';
import { undoTaskChanges } from '../tasks/work.ts';
import { undoTemplateChange } from '../templates/service.ts';

/** What came of an undo: in words, and the tasks that it had to leave as they are. */
interface Undone {
  readonly said: string;
  readonly kept: readonly Task[];
}

/** Replays a change backwards, if nothing has happened to the same fields since. */
export function undoChange(scope: Scope, changeId: string): Promise<{ said: string }> {
  return scope.transaction(async (tx) => {
    const { said } = await carryOutUndo(tx, await undoableChange(tx, changeId));
    return { said };
  });
}

/** What undoing a change would do to tasks, and to the coming year of the schedules it is about. */
export function impactOfUndo(scope: Scope, changeId: string): Promise<Impact> {
  return scope.rehearse(async (tx) => {
    const change = await undoableChange(tx, changeId);
    const { taskIds, scheduleIds } = await touchedBy(tx, change);
    const fates = await watchTasks(tx, { taskIds, scheduleIds });
    const year = async () => plannedYear(tx, await scheduleRows(tx, { ids: scheduleIds }));
    const before = await year();
    const { kept } = await carryOutUndo(tx, change);
    const become = await fates();
    const told = new Set(become.map(({ task }) => task.id));
    const staying = kept.filter(({ id }) => !told.has(id));
    return {
      ...(await impactOfFates(
        tx,
        [...become, ...staying.map((task) => ({ kind: 'kept', task, because: 'changed since' }) as const)],
        'as before',
      )),
      ...comparedYears(before, await year()),
    };
  });
}

async function undoableChange(scope: Scope, changeId: string): Promise<Change> {
  const change = await scope.locked(Change, changeId, 'change');
  if (change.undoneAt !== null) throw notNow('That is undone already.');
  if (change.actorId === scope.person?.id || scope.person?.isManager) return change;
  throw forbidden('Only the person who did it, or a manager, can undo that.');
}

async function carryOutUndo(scope: Scope, change: Change): Promise<Undone> {
  await scope.save(Change, change.id, { undoneAt: scope.instant });
  return undo(scope, change);
}

/** The tasks a change is about, and the schedules whose tasks it may reach. */
async function touchedBy(scope: Scope, change: Change): Promise<{ taskIds: string[]; scheduleIds: string[] }> {
  const changes =
    change.subject === 'several' ? await scope.find(Change, { joinedId: change.id, undoneAt: IsNull() }) : [change];
  const idsOf = (subject: Change['subject']) =>
    changes.filter((one) => one.subject === subject).map(({ subjectId }) => subjectId);
  const taskIds = [
    ...idsOf('task'),
    ...changes.flatMap(({ subject, fields }) => (subject === 'task' ? ((fields['tasks']?.to ?? []) as string[]) : [])),
  ];
  const schedules = await scope.sql<{ id: string }>(
    `select id from schedule where workspace_id = $1 and (id = any($2::uuid[]) or template_id = any($3::uuid[]))
     union select schedule_id from task where workspace_id = $1 and id = any($4::uuid[]) and schedule_id is not null`,
    [[...idsOf('schedule'), ...changes.flatMap(({ fields }) => deletedFrom(fields) ?? [])], idsOf('template'), taskIds],
  );
  return { taskIds, scheduleIds: schedules.map(({ id }) => id) };
}

/** The schedule of a deleted task. */
function deletedFrom(fields: Change['fields']): string | null {
  const row = fields['row']?.from as { schedule_id?: string | null } | undefined;
  return row?.schedule_id ?? null;
}

async function undo(scope: Scope, change: Change): Promise<Undone> {
  const all = async (said: Promise<string>): Promise<Undone> => ({ said: await said, kept: [] });
  switch (change.subject) {
    case 'task':
      if (change.action === 'deleted') return all(bringBackTasks(scope, [change.fields]));
      if ('tasks' in change.fields) return all(removeHandMade(scope, change.fields['tasks']?.to as string[]));
      return all(undoTaskChanges(scope, [taskChange(change)]));
    case 'schedule':
      if (!scope.person?.isManager) throw forbidden('Only a manager can change schedules.');
      return undoSchedules(scope, [change]);
    case 'template':
      if (!scope.person?.isManager) throw forbidden('Only a manager can change templates.');
      return undoTemplateChange(scope, { ...change, fields: withDates(change.fields) });
    case 'file':
      return all(undoFileChange(scope, change.subjectId, withDates(change.fields)));
    case 'several':
      return undoSeveral(scope, change);
  }
}

/** @param rest what else belongs to the undo, done before the schedules make what they owe */
async function undoSchedules(
  scope: Scope,
  changes: readonly Change[],
  rest: () => Promise<void> = async () => undefined,
): Promise<Undone> {
  const { kept, settle } = await undoScheduleChanges(
    scope,
    changes.map(({ subjectId, fields, watchId }) => ({ id: subjectId, fields: withDates(fields), watchId })),
  );
  await rest();
  await settle();
  const said =
    changes.length === 1
      ? 'The schedule is as it was before'
      : `${plural(changes.length, 'schedule')} are as they were before`;
  return { said: `${said}${butFor(kept)}`, kept };
}

/** Changes that were made together are undone together; those that somebody has undone by themselves already stay undone. */
async function undoSeveral(scope: Scope, { id }: Change): Promise<Undone> {
  const left = (await scope.find(Change, { joinedId: id, undoneAt: IsNull() })).sort((a, b) => (a.id < b.id ? -1 : 1));
  await scope.sql('update change set undone_at = $2 where workspace_id = $1 and id = any($3::uuid[])', [
    scope.instant,
    left.map(({ id }) => id),
  ]);
  const schedules = left.filter(({ subject }) => subject === 'schedule');
  const others = left.filter(({ subject }) => subject !== 'schedule');
  const undoOthers = async () => {
    const [deleted, edited] = [others.filter(isDeletion), others.filter(isTaskEdit)];
    if (deleted.length > 0)
      await bringBackTasks(
        scope,
        deleted.map(({ fields }) => fields),
      );
    if (edited.length > 0) await undoTaskChanges(scope, edited.map(taskChange));
    for (const one of others) if (!isDeletion(one) && !isTaskEdit(one)) await undo(scope, one);
  };
  if (schedules.length === 0) {
    await undoOthers();
    return { said: `${plural(others.length, 'task')} ${others.length === 1 ? 'is' : 'are'} as before.`, kept: [] };
  }
  // Whoever finishes a task may choose the day of the next, and take that back.
  const isNextOnly = schedules.every(({ action }) => action === NEXT_CHOSEN);
  if (!scope.person?.isManager && !isNextOnly) throw forbidden('Only a manager can change schedules.');
  // Backwards: what a schedule did to tasks came after what was done to them by themselves.
  const undone = await undoSchedules(scope, schedules, undoOthers);
  return isNextOnly ? { ...undone, said: `The task and the next one are as before${butFor(undone.kept)}` } : undone;
}

const isDeletion = ({ subject, action }: Change) => subject === 'task' && action === 'deleted';
const isTaskEdit = (change: Change) => change.subject === 'task' && !isDeletion(change) && !('tasks' in change.fields);
const taskChange = ({ subjectId, fields }: Change) => ({ id: subjectId, fields: withDates(fields) });

/** Instants came back from JSON as texts; the task holds them as dates. */
function withDates(fields: Change['fields']): Change['fields'] {
  const revive = (field: string, value: unknown) =>
    typeof value === 'string' && field.endsWith('At') ? new Date(value) : value;
  return Object.fromEntries(
    Object.entries(fields).map(([field, { from, to }]) => [
      field,
      { from: revive(field, from), to: revive(field, to) },
    ]),
  );
}
