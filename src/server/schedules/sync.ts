import type { Sync } from '../../contract/index.ts';
import {
  dayOfIso,
  type HeldBecause,
  isEnded,
  type Reconciliation,
  reconcile,
  type TaskState,
} from '../../core/index.ts';
import { invalid } from '../http/refusal.ts';
import type { Scope } from '../scope.ts';
import {
  insertMadeTasks,
  type ReachableTask,
  refreshMadeTasks,
  removeTasks,
  tasksOfScheduleFrom,
} from '../tasks/made-task.ts';
import { owedTasks } from './making.ts';
import { type ScheduleRow, scheduleRows } from './schedule-row.ts';

/**
 * Brings the tasks of a schedule in line with it: makes what is owed, moves or takes back what nobody has seen,
 * and leaves alone what shows already or was worked on.
 */
export async function syncTasks(scope: Scope, row: ScheduleRow): Promise<Sync> {
  const owed = owedTasks(scope, row, await scope.calendar(), await scope.peopleNames());
  if (owed.kind === 'problem') throw invalid([{ path: 'recurrence', message: owed.message }]);
  const there = await tasksOfScheduleFrom(scope, row.id, scope.today);
  const found = new Set(there.map(({ id }) => id));
  const byNominal = new Map(owed.tasks.map((task) => [task.nominalDate, task]));
  const plan = reconcile(
    owed.tasks.map((task) => ({ nominal: dayOfIso(task.nominalDate), fields: thereFields({ ...row, ...task }) })),
    there.map((task) => ({
      id: task.id,
      nominal: dayOfIso(task.nominalDate),
      fields: thereFields(task),
      held: heldBecause(task, scope.today),
    })),
  );
  await removeTasks(
    scope,
    ofKind(plan, 'remove').map(({ task }) => task.id),
  );
  await refreshMadeTasks(
    scope,
    there
      .filter(({ id }) => ofKind(plan, 'change').some(({ task }) => task.id === id))
      .flatMap(({ nominalDate }) => byNominal.get(nominalDate) ?? []),
  );
  const made = await insertMadeTasks(scope, owed.tasks);
  await scope.sql(
    'update schedule set problem = null, settled_to = greatest(settled_to, $2::date) where workspace_id = $1 and id = $3',
    [scope.today, row.id],
  );
  return {
    made: made.filter((id) => !found.has(id)).length,
    changed: ofKind(plan, 'change').length,
    removed: ofKind(plan, 'remove').length,
    kept: ofKind(plan, 'keep').filter(({ because }) => because !== 'finished').length,
  };
}

type Fields = ReturnType<typeof thereFields>;

function ofKind<K extends Reconciliation<Fields>['kind']>(plan: readonly Reconciliation<Fields>[], kind: K) {
  return plan.filter((item): item is Extract<Reconciliation<Fields>, { kind: K }> => item.kind === kind);
}

function thereFields(task: Omit<ReachableTask, 'id' | 'nominalDate' | 'state' | 'isTouched'>) {
  return {
    templateId: task.templateId,
    clientId: task.clientId,
    assetId: task.assetId,
    assigneeId: task.assigneeId,
    title: task.title,
    workOn: task.workOn,
    appearsOn: task.appearsOn,
    startsOn: task.startsOn,
    dueOn: task.dueOn,
    startTime: task.startTime,
    dueTime: task.dueTime,
    zone: task.zone,
  };
}

function heldBecause(task: ReachableTask, today: string): HeldBecause | null {
  if (isEnded(task.state as TaskState)) return 'finished';
  if (task.state !== 'open') return 'under way';
  if (task.isTouched) return 'edited by hand';
  return task.appearsOn <= today ? 'showing already' : null;
}

/**
 * For a schedule whose next task waits for the last one: makes it when the last one gets so far. Where that is taken back,
 * those that came of it go too, unless someone has touched them.
 * @param nominalDate of the task whose state has changed
 */
export async function followOn(scope: Scope, scheduleId: string, nominalDate: string | null): Promise<void> {
  const [row] = await scheduleRows(scope, { ids: [scheduleId] });
  // Only rules that wait for the last one are told with it.
  if (row?.last == null) return;
  if (nominalDate !== null && row.last.nominal !== nominalDate) {
    const later = (await tasksOfScheduleFrom(scope, scheduleId, '0001-01-01')).filter(
      (task) => task.nominalDate > nominalDate,
    );
    const untouched = later.filter((task) => task.state === 'open' && !task.isTouched);
    if (untouched.length === later.length)
      await removeTasks(
        scope,
        untouched.map(({ id }) => id),
      );
  }
  const [now] = await scheduleRows(scope, { ids: [scheduleId] });
  if (now) await syncTasks(scope, now);
}
