import { type FindOptionsWhere, In, IsNull } from 'typeorm';
import { isSame } from '../../platform/changes/entity.ts';
import { columnOf } from '../../platform/db/columns.ts';
import { insertRows } from '../../platform/db/insert-rows.ts';
import { notFound } from '../../platform/refusal.ts';
import type { Scope } from '../../platform/scope.ts';
import { callAskerFor } from './asker.ts';
import { CONTENT_FIELDS, type Content, contentOf, contentsById, keepContents } from './content.ts';
import { type Task, TaskRecord } from './entity.ts';

/** Tasks that are read or written with one statement. */
const AT_ONCE = 500;

/** @param where of several, any one of them */
export async function findTasks(
  scope: Scope,
  first: FindOptionsWhere<TaskRecord>,
  ...others: FindOptionsWhere<TaskRecord>[]
): Promise<Task[]> {
  return withContents(scope, await scope.find(TaskRecord, first, ...others));
}

/** The set of a task: what a schedule made is found by its date, the index of sets holds only what was made by hand. */
export const ofSet = ({ setId, scheduleId, nominalDate }: Pick<Task, 'setId' | 'scheduleId' | 'nominalDate'>) =>
  scheduleId === null || nominalDate === null ? { setId, scheduleId: IsNull() } : { setId, scheduleId, nominalDate };

/** Those that are there, in any order. */
export async function tasksByIds(scope: Scope, ids: readonly string[]): Promise<Task[]> {
  const found: Task[][] = [];
  for (let at = 0; at < ids.length; at += AT_ONCE) {
    found.push(await findTasks(scope, { id: In(ids.slice(at, at + AT_ONCE)) }));
    await scope.did(Math.min(AT_ONCE, ids.length - at));
  }
  return found.flat();
}

export async function oneWhole(scope: Scope, id: string): Promise<Task> {
  return withContent(scope, await scope.one(TaskRecord, id, 'task'));
}

/** Held against others until the transaction ends. */
export async function lockedTask(scope: Scope, id: string): Promise<Task> {
  return withContent(scope, await scope.locked(TaskRecord, id, 'task'));
}

async function withContent(scope: Scope, record: TaskRecord): Promise<Task> {
  const [task] = await withContents(scope, [record]);
  if (!task) throw new Error('A task that was found has its content.');
  return task;
}

async function withContents(scope: Scope, records: readonly TaskRecord[]): Promise<Task[]> {
  const contents = await contentsById(
    scope,
    records.map(({ contentId }) => contentId),
  );
  return records.map((record) => {
    const content = contents.get(record.contentId);
    if (!content) throw new Error(`There is no content ${record.contentId} for task ${record.id}.`);
    return { ...record, ...content };
  });
}

/** A new task, as it is inserted. */
export type NewTask = Omit<Task, 'workspaceId' | 'contentId'>;

/** In few statements, however many there are. */
export async function insertTasks(scope: Scope, tasks: readonly NewTask[]): Promise<void> {
  const contentIds: string[] = [];
  for (let at = 0; at < tasks.length; at += AT_ONCE)
    contentIds.push(...(await keepContents(scope, tasks.slice(at, at + AT_ONCE).map(contentOf))));
  const records = tasks.map((task, i) => ({ ...recordOf(task), contentId: contentIds[i] ?? '' }));
  await insertRows(scope, 'task', TaskRecord, records);
  await callAskerFor(scope, tasks);
}

/** A task as it was found, and what becomes of it. */
export interface ChangedTask {
  readonly task: Task;
  readonly changes: Partial<Task>;
}

/** Writes changes of tasks, each of which is another version from then on. */
export async function saveTasks(scope: Scope, changed: readonly ChangedTask[]): Promise<void> {
  const saying = changed.filter(({ task, changes }) =>
    CONTENT_FIELDS.some((field) => field in changes && !isSame(changes[field], task[field])),
  );
  const contentIds = await keepContents(
    scope,
    saying.map(({ task, changes }) => contentOf({ ...task, ...changes })),
  );
  const contentOfTask = new Map(saying.map(({ task }, i) => [task.id, contentIds[i]]));
  // Those of which the same columns change go together.
  const alike = new Map<string, { readonly columns: readonly string[]; readonly rows: object[] }>();
  for (const { task, changes } of changed) {
    const record: Partial<TaskRecord> = {
      ...recordOf(changes),
      contentId: contentOfTask.get(task.id) ?? task.contentId,
    };
    const values = Object.entries({ ...record, version: task.version + 1 }).flatMap(([field, value]) =>
      value === undefined ? [] : [[columnOf(TaskRecord, field as keyof TaskRecord), value] as const],
    );
    const columns = values.map(([column]) => column).sort();
    const group = alike.get(columns.join()) ?? { columns, rows: [] };
    alike.set(columns.join(), group);
    group.rows.push({ ...Object.fromEntries(values), id: task.id });
  }
  for (const { columns, rows } of alike.values())
    for (let at = 0; at < rows.length; at += AT_ONCE) {
      await scope.sql(
        `update task set ${columns.map((column) => `${column} = now.${column}`).join(', ')}
         from jsonb_populate_recordset(null::task, $2::jsonb) as now where task.workspace_id = $1 and task.id = now.id`,
        [JSON.stringify(rows.slice(at, at + AT_ONCE))],
      );
      await scope.did(Math.min(AT_ONCE, rows.length - at));
    }
}

export const saveTask = (scope: Scope, task: Task, changes: Partial<Task>): Promise<void> =>
  saveTasks(scope, [{ task, changes }]);

/** All of it but what it says. */
function recordOf<T extends Partial<Task>>(task: T): Omit<T, keyof Content> {
  const said: ReadonlySet<string> = new Set(CONTENT_FIELDS);
  return Object.fromEntries(Object.entries(task).filter(([field]) => !said.has(field))) as Omit<T, keyof Content>;
}

/** Held against others, their schedules first, each in the order of their ids, as runs and saves do: so two seldom wait for each other. */
export async function lockedTasks(scope: Scope, ids: readonly string[]): Promise<Task[]> {
  await scope.sql(
    `select id from schedule where workspace_id = $1
       and id in (select schedule_id from task where workspace_id = $1 and id = any($2::uuid[])) order by id for no key update`,
    [ids],
  );
  const locked = await scope.sql<{ id: string }>(
    'select id from task where workspace_id = $1 and id = any($2::uuid[]) order by id for no key update',
    [ids],
  );
  if (locked.length < ids.length) throw notFound('task');
  const tasks = await tasksByIds(scope, ids);
  return tasks.sort((a, b) => a.workOn.localeCompare(b.workOn) || (a.id < b.id ? -1 : 1));
}
