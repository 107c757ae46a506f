import { IsNull } from 'typeorm';
import type { Impact } from '../../contract/index.ts';
import { undoneBy } from '../platform/changes/actions.ts';
import { Change } from '../platform/changes/entity.ts';
import type { Undone } from '../platform/changes/subject.ts';
import { forbidden, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { comparedYears, plannedYear, scheduleRows } from '../schedules/index.ts';
import { impactOfFates, watchTasks } from '../tasks/index.ts';
import type { Task } from '../tasks/stored/index.ts';
import { IN_ORDER, revived, SUBJECTS } from './subjects.ts';

/** Replays a change backwards, if nothing has happened to the same fields since. */
export async function undoChange(scope: Scope, changeId: string, follow?: string): Promise<{ said: string }> {
  const followed = scope.followed(follow, STEPS_EACH * (await tasksOf(scope, changeId, follow)));
  return followed.transaction(async (tx) => {
    const { said } = await carryOutUndo(tx, await undoableChange(tx, changeId));
    return { said };
  });
}

/** What undoing a change would do to tasks, and to the coming year of the schedules it is about. */
export async function impactOfUndo(scope: Scope, changeId: string, follow?: string): Promise<Impact> {
  const followed = scope.followed(follow, STEPS_OF_IMPACT * (await tasksOf(scope, changeId, follow)));
  return followed.rehearse(async (tx) => {
    const change = await undoableChange(tx, changeId);
    const { taskIds, scheduleIds } = await reachedBy(tx, change);
    const fates = await watchTasks(tx, { taskIds, scheduleIds });
    // By the calendar that holds then: the undo may put back another.
    const year = async () =>
      plannedYear(tx.after(await tx.lockedWorkspace()), await scheduleRows(tx, { ids: scheduleIds }));
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

/** A task is read and written, each a step; for an Impact it is looked at before and after as well. */
const STEPS_EACH = 2;
const STEPS_OF_IMPACT = 4;

/** How many tasks an undo puts back, for whoever follows it; not counted for nobody. */
async function tasksOf(scope: Scope, changeId: string, follow: string | undefined): Promise<number> {
  if (follow === undefined) return 0;
  const [counted] = await scope.sql<{ n: number }>(
    `select count(*)::int as n from change where workspace_id = $1 and (id = $2 or joined_id = $2) and subject = 'task'`,
    [changeId],
  );
  return counted?.n ?? 0;
}

async function undoableChange(scope: Scope, changeId: string): Promise<Change> {
  const change = await scope.locked(Change, changeId, 'change');
  if (change.undoneAt !== null) throw notNow('That is undone already.');
  if (undoneBy(change) !== change.id) throw notNow('That is undone with all that was done in one go with it.');
  if (change.actorId === scope.person?.id || scope.mayAll('undo')) return change;
  throw forbidden('Only the person who did it, a planner or a manager, can undo that.');
}

async function carryOutUndo(scope: Scope, change: Change): Promise<Undone<Task>> {
  await scope.save(Change, change.id, { undoneAt: scope.instant });
  if (change.subject !== 'several') return undoAll(scope, [change]);
  // Changes that were made together are undone together; those that somebody has undone by themselves already stay undone.
  const left = await leftOf(scope, change);
  await scope.sql('update change set undone_at = $2 where workspace_id = $1 and id = any($3::uuid[])', [
    scope.instant,
    left.map(({ id }) => id),
  ]);
  return undoAll(scope, left);
}

const leftOf = async (scope: Scope, { id }: Change) =>
  (await scope.find(Change, { joinedId: id, undoneAt: IsNull() })).sort((a, b) => (a.id < b.id ? -1 : 1));

/** Each kind within the one before it; all that was put back is said, the innermost first. */
async function undoAll(scope: Scope, changes: readonly Change[]): Promise<Undone<Task>> {
  const kept: Task[] = [];
  const from = async (place: number): Promise<string> => {
    const subject = IN_ORDER[place];
    if (subject === undefined) return '';
    const own = changes.filter((change) => change.subject === subject).map(revived);
    if (own.length === 0) return from(place + 1);
    let within = '';
    const undone = await SUBJECTS[subject].undo(scope, own, async () => {
      within = await from(place + 1);
    });
    kept.push(...undone.kept);
    return [within, undone.said].filter(Boolean).join(' ');
  };
  return { said: await from(0), kept };
}

/** The tasks a change is about, and the schedules whose tasks it may reach. */
async function reachedBy(scope: Scope, change: Change): Promise<{ taskIds: string[]; scheduleIds: string[] }> {
  const changes = change.subject === 'several' ? await leftOf(scope, change) : [change];
  const reached = IN_ORDER.map((subject) =>
    SUBJECTS[subject].reached(changes.filter((one) => one.subject === subject)),
  );
  const taskIds = reached.flatMap((one) => one.taskIds ?? []);
  const schedules = await scope.sql<{ id: string }>(
    `select id from schedule where workspace_id = $1 and (id = any($2::uuid[]) or template_id = any($3::uuid[]))
     union select schedule_id from task where workspace_id = $1 and id = any($4::uuid[]) and schedule_id is not null
     union select schedule_id from watched_task where workspace_id = $1 and watch_id = any($5::uuid[]) and schedule_id is not null`,
    [
      reached.flatMap((one) => one.scheduleIds ?? []),
      reached.flatMap((one) => one.templateIds ?? []),
      taskIds,
      reached.flatMap((one) => one.watchIds ?? []),
    ],
  );
  return { taskIds, scheduleIds: schedules.map(({ id }) => id) };
}
