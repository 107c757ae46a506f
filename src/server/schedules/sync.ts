import type { Reach, Sync } from '../../contract/index.ts';
import {
  type DeletedTask,
  dayOfIso,
  groupBy,
  groupKey,
  type HeldBecause,
  isEnded,
  isoOfDay,
  type Reconciliation,
  reconcile,
} from '../../core/index.ts';
import { isSame } from '../platform/changes/entity.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import { invalid } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import {
  contentOfParts,
  insertMadeTasks,
  type MadeTask,
  type ReachableTask,
  refreshMadeTasks,
  removeTasks,
  saidBy,
  type Task,
  type TaskContent,
  tasksOfSchedulesFrom,
} from '../tasks/stored/index.ts';
import { horizonOf, owedTasks } from './owed.ts';
import { type ScheduleRow, scheduleRows } from './schedule-row.ts';
import { type Making, makingFor } from './who-does.ts';

/** A change reaches what nobody has seen, unless it is told to go on. */
export const UNSEEN_ONLY: Reach = { open: false, also: [] };

export type TaskReconciliation = Reconciliation<Fields>;

export interface Synced {
  /** The day of the first that waits for one that is still open. */
  readonly waitsFrom: string | null;
  readonly row: ScheduleRow;
  readonly counts: Sync;
  readonly plan: readonly TaskReconciliation[];
  /** Tasks by their ids, as they were. */
  readonly there: ReadonlyMap<string, ReachableTask>;
  /** Tasks as they are wanted, by nominal day and step. */
  readonly owed: ReadonlyMap<string, MadeTask>;
}

/**
 * Brings the tasks of a schedule in line with it: makes what is owed, moves or takes back what nobody has seen,
 * and leaves alone what shows already, was changed by hand or worked on, as far as the reach does not say otherwise.
 * @throws Refusal when it can't be planned
 */
export async function syncTasks(scope: Scope, row: ScheduleRow, reach: Reach = UNSEEN_ONLY): Promise<Synced> {
  const [synced] = await syncAll(scope, [row], reach, (message) => {
    throw invalid([{ path: 'recurrence', message }]);
  });
  if (!synced) throw new Error('A schedule that can be planned is synced.');
  return synced;
}

/**
 * The same for many schedules in as many statements as for one. Those that can't be planned keep their tasks.
 * @param onProblem is told why one can't be planned
 */
export async function syncAll(
  scope: Scope,
  rows: readonly ScheduleRow[],
  reach: Reach = UNSEEN_ONLY,
  onProblem?: (message: string, row: ScheduleRow) => void,
): Promise<Synced[]> {
  const synced = await planAll(scope, rows, reach, onProblem);
  await carryOut(scope, synced, new Set(reach.also));
  return synced;
}

/** What bringing the tasks of schedules in line with them would do; nothing is done yet. */
export async function planAll(
  scope: Scope,
  rows: readonly ScheduleRow[],
  reach: Reach,
  onProblem: (message: string, row: ScheduleRow) => void = () => undefined,
): Promise<Synced[]> {
  const ids = rows.map(({ id }) => id);
  const allThere = groupBy(await tasksOfSchedulesFrom(scope, ids, scope.today), (task) => task.scheduleId);
  const deleted = groupBy(await deletedTasks(scope, ids), (task) => task.scheduleId);
  const making = await makingFor(scope, rows, { settles: true });
  const asked = await eachInTurn(rows, (row) => {
    const there = allThere.get(row.id) ?? [];
    return { row, there, owed: owedFor(scope, row, there, making) };
  });
  const planned = asked.flatMap(({ row, there, owed }) => {
    if (owed.kind === 'tasks') return [{ row, there, owed: owed.tasks, waitsFrom: owed.waitsFrom }];
    onProblem(owed.message, row);
    return [];
  });
  const contents = await contentOfParts(
    scope,
    planned.flatMap(({ owed }) => owed),
  );
  return eachInTurn(planned, ({ row, there, owed, waitsFrom }) => ({
    ...reconcileSchedule(scope, row, { there, owed, contents, reach, deleted: deleted.get(row.id) ?? [] }),
    waitsFrom,
  }));
}

/** A fill may have made tasks far ahead: they follow the plan too, but no more are made beyond the horizon. */
function owedFor(scope: Scope, row: ScheduleRow, there: readonly ReachableTask[], making: Making) {
  const horizon = horizonOf(scope);
  const farthest = Math.max(horizon, ...there.map(({ appearsOn }) => dayOfIso(appearsOn)));
  const planned = owedTasks(scope, row, making, { upTo: farthest });
  if (planned.kind === 'problem' || farthest === horizon) return planned;
  const found = new Set(there.map(keyOf));
  const nearSets = new Set(
    planned.tasks.filter(({ appearsOn }) => dayOfIso(appearsOn) <= horizon).map(({ nominalDate }) => nominalDate),
  );
  const tasks = planned.tasks.filter((task) => nearSets.has(task.nominalDate) || found.has(keyOf(task)));
  return { ...planned, tasks };
}

interface Reconcilable {
  readonly there: readonly ReachableTask[];
  readonly owed: readonly MadeTask[];
  readonly contents: ReadonlyMap<string, TaskContent>;
  readonly deleted: readonly DeletedTask[];
  readonly reach: Reach;
}

function reconcileSchedule(
  scope: Scope,
  row: ScheduleRow,
  { there, owed, contents, deleted, reach }: Reconcilable,
): Omit<Synced, 'waitsFrom'> {
  const also = new Set(reach.also);
  const takers = new Map(there.map((task) => [keyOf(task), task]));
  const plan = reconcile<Fields>(
    owed.map((task) => ({
      nominal: dayOfIso(task.nominalDate),
      step: placeOf(task),
      fields: fieldsOf(asTaken(task, takers), row, saidBy(task, contents)),
    })),
    there.map((task) => ({
      id: task.id,
      nominal: dayOfIso(task.nominalDate),
      step: placeOf(task),
      fields: fieldsOf(task, task, task),
      held: heldBecause(task, scope.today, reach.open || also.has(task.id), also.has(task.id)),
      edited: new Set(also.has(task.id) ? [] : (task.edited as (keyof Fields)[])),
    })),
    deleted,
  );
  return {
    row,
    plan,
    there: new Map(there.map((task) => [task.id, task])),
    owed: new Map(owed.map((task) => [keyOf(task), asTaken(task, takers)])),
    counts: {
      made: ofKind(plan, 'create').length,
      changed: ofKind(plan, 'change').length,
      removed: ofKind(plan, 'remove').length,
      kept: ofKind(plan, 'keep').filter(({ because }) => because !== 'finished').length,
    },
  };
}

async function carryOut(scope: Scope, synced: readonly Synced[], byName: ReadonlySet<string>): Promise<void> {
  const changes = synced.flatMap(({ plan, owed }) =>
    ofKind(plan, 'change').map(({ task, wanted }) => ({
      id: task.id,
      made: owed.get(keyWanted(wanted)),
    })),
  );
  const idsOf = (kind: 'remove' | 'same') =>
    synced.flatMap(({ plan }) => ofKind(plan, kind).map(({ task }) => task.id));
  await removeTasks(scope, idsOf('remove'));
  await forgetEdits(
    scope,
    changes.map(({ id }) => id).filter((id) => byName.has(id)),
  );
  await refreshMadeTasks(
    scope,
    changes.flatMap(({ made }) => made ?? []),
  );
  await insertMadeTasks(
    scope,
    synced.flatMap(({ owed }) => [...owed.values()]),
  );
  await scope.sql(
    `update task set template_version = t.version from template t
     where task.workspace_id = $1 and t.workspace_id = $1 and t.id = task.template_id and task.id = any($2::uuid[])
       and task.template_version is distinct from t.version`,
    [idsOf('same')],
  );
  await refreshReasons(scope, synced);
  await scope.sql(
    `update schedule set problem = null, settled_to = greatest(settled_to, least($2::date, fate.waits_from))
     from unnest($3::uuid[], $4::date[]) as fate (id, waits_from)
     where schedule.workspace_id = $1 and schedule.id = fate.id`,
    [scope.today, synced.map(({ row }) => row.id), synced.map(({ waitsFrom }) => waitsFrom)],
  );
}

/** Whoever has a task may have it for another reason now: "turn 3 of 5" where it was 3 of 4. */
async function refreshReasons(scope: Scope, synced: readonly Synced[]): Promise<void> {
  const others = synced.flatMap(({ plan, there, owed }) =>
    ofKind(plan, 'same').flatMap(({ task }) => {
      const [now, before] = [owed.get(keyWanted(task)), there.get(task.id)];
      return now && before && !isSame(now.why, before.why) ? { id: task.id, why: now.why } : [];
    }),
  );
  if (others.length === 0) return;
  await scope.sql(
    `update task set why = now.why from unnest($2::uuid[], $3::jsonb[]) as now (id, why)
     where task.workspace_id = $1 and task.id = now.id`,
    [others.map(({ id }) => id), others.map(({ why }) => (why === null ? null : JSON.stringify(why)))],
  );
}

/** What any one of some may take is whoever's has taken it, as long as it is offered to the same. */
function asTaken(task: MadeTask, there: ReadonlyMap<string, ReachableTask>): MadeTask {
  const before = there.get(keyOf(task));
  if (task.offeredTo === null || !before?.offeredTo || before.assigneeId === null) return task;
  const isSame = groupKey(task.offeredTo) === groupKey(before.offeredTo);
  return isSame ? { ...task, assigneeId: before.assigneeId } : task;
}

type Placed = Pick<MadeTask, 'stepKey' | 'head'>;

/** Which task of its occurrence one is: by its step, and by whose it is of those who have one each. */
const placeOf = ({ stepKey, head }: Placed): string => (head === '' ? stepKey : `${stepKey} ${head}`);

const keyOf = (task: Placed & Pick<MadeTask, 'nominalDate'>): string => `${task.nominalDate} ${placeOf(task)}`;

/** The key under which a task that a plan wants, or has, stands in `owed`. */
export const keyWanted = ({ nominal, step }: DeletedTask): string => `${isoOfDay(nominal)} ${step}`;

export type Fields = ReturnType<typeof fieldsOf>;

function ofKind<K extends TaskReconciliation['kind']>(plan: readonly TaskReconciliation[], kind: K) {
  return plan.filter((item): item is Extract<TaskReconciliation, { kind: K }> => item.kind === kind);
}

/** What a plan sets of a task, from where each stands: one that is wanted has its subject from the schedule and its words from the template. */
function fieldsOf(
  task: Omit<
    MadeTask,
    'scheduleId' | 'templateVersion' | 'nominalDate' | 'stepKey' | 'head' | 'instructions' | 'priority'
  >,
  { clientId, assetId }: Pick<ScheduleRow, 'clientId' | 'assetId'>,
  { content, instructions, priority }: TaskContent,
) {
  return {
    instructions,
    priority,
    content,
    clientId,
    assetId,
    templateId: task.templateId,
    estimateMinutes: task.estimateMinutes,
    setOn: task.setOn,
    assigneeId: task.assigneeId,
    offeredTo: task.offeredTo && groupKey(task.offeredTo),
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

/** @param mayShow also tasks that show already may be changed; @param byName even where somebody has written on it */
function heldBecause(task: ReachableTask, today: string, mayShow: boolean, byName: boolean): HeldBecause | null {
  if (isEnded(task.state)) return 'finished';
  if (task.state !== 'open') return 'under way';
  if (task.isWrittenOn && !byName) return 'written on';
  return task.appearsOn <= today && !mayShow ? 'showing already' : null;
}

async function deletedTasks(
  scope: Scope,
  scheduleIds: readonly string[],
): Promise<(DeletedTask & { readonly scheduleId: string })[]> {
  const rows = await scope.sql<Placed & { scheduleId: string; nominalDate: string }>(
    `select schedule_id as "scheduleId", nominal_date as "nominalDate", step_key as "stepKey", head from deleted_task
     where workspace_id = $1 and schedule_id = any($2::uuid[])`,
    [scheduleIds],
  );
  return rows.map(({ scheduleId, nominalDate, ...place }) => ({
    scheduleId,
    nominal: dayOfIso(nominalDate),
    step: placeOf(place),
  }));
}

/** Tasks that are changed by name take all of it over, what was changed by hand as well. */
async function forgetEdits(scope: Scope, ids: readonly string[]): Promise<void> {
  if (ids.length > 0)
    await scope.sql(`update task set edited = '[]' where workspace_id = $1 and id = any($2::uuid[])`, [ids]);
}

/**
 * For schedules whose next task waits for the last one, by their rule or by choice: makes it when the last one gets so far. Where that is taken back,
 * those that came of it go too, unless someone has touched them.
 * @param tasks that have changed their state, were deleted or came back
 */
export async function followOn(
  scope: Scope,
  tasks: readonly Pick<Task, 'scheduleId' | 'stepKey' | 'nominalDate'>[],
): Promise<void> {
  const latest = new Map<string, string>();
  for (const { scheduleId, stepKey, nominalDate } of tasks) {
    if (scheduleId === null || nominalDate === null || stepKey !== '') continue;
    if (nominalDate > (latest.get(scheduleId) ?? '')) latest.set(scheduleId, nominalDate);
  }
  if (latest.size === 0) return;
  for (const row of await scheduleRows(scope, { ids: [...latest.keys()] })) {
    if (row.last !== null) await followFrom(scope, row.id, row.last.nominal, latest.get(row.id) ?? '');
    // Where the next waits for the last one to be over, it may be made now.
    else if (row.overlap.kind === 'wait') await syncTasks(scope, row);
  }
}

async function followFrom(scope: Scope, scheduleId: string, last: string, nominalDate: string): Promise<void> {
  if (last !== nominalDate) {
    const later = (await tasksOfSchedulesFrom(scope, [scheduleId], '0001-01-01')).filter(
      (task) => task.nominalDate > nominalDate,
    );
    const untouched = later.filter((task) => task.state === 'open' && !task.isWrittenOn && task.edited.length === 0);
    if (untouched.length === later.length)
      await removeTasks(
        scope,
        untouched.map(({ id }) => id),
      );
  }
  const [now] = await scheduleRows(scope, { ids: [scheduleId] });
  if (now) await syncTasks(scope, now);
}
