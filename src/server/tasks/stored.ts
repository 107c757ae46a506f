import { type FindOptionsWhere, In } from 'typeorm';
import { isSame } from '../platform/changes/entity.ts';
import { notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { CONTENT_FIELDS, type Content, contentOf, contentsById, keepContents } from './content.ts';
import { type Task, TaskRecord } from './entity.ts';

/** @param where of several, any one of them */
export async function findTasks(
  scope: Scope,
  first: FindOptionsWhere<TaskRecord>,
  ...others: FindOptionsWhere<TaskRecord>[]
): Promise<Task[]> {
  return withContents(scope, await scope.find(TaskRecord, first, ...others));
}

export async function oneStored(scope: Scope, id: string): Promise<Task> {
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

export async function insertTask(scope: Scope, task: NewTask): Promise<void> {
  const [contentId = ''] = await keepContents(scope, [contentOf(task)]);
  await scope.insert(TaskRecord, { ...recordOf(task), contentId });
}

/** Writes changes of a task, which is another version from then on. */
export async function saveTask(scope: Scope, task: Task, changes: Partial<Task>): Promise<void> {
  const saysElse = CONTENT_FIELDS.some((field) => field in changes && !isSame(changes[field], task[field]));
  const [contentId = task.contentId] = saysElse ? await keepContents(scope, [contentOf({ ...task, ...changes })]) : [];
  await scope.save(TaskRecord, task.id, { ...recordOf(changes), contentId, version: task.version + 1 });
}

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
  const tasks = await findTasks(scope, { id: In([...ids]) });
  return tasks.sort((a, b) => a.workOn.localeCompare(b.workOn) || (a.id < b.id ? -1 : 1));
}

/** A whole row of a task, as an undo needs it: by the names of the table's columns at that time. */
export interface StoredTask {
  readonly id: string;
  readonly title: string;
  readonly schedule_id: string | null;
  readonly nominal_date: string | null;
  readonly step_key: string;
}

/** Whole rows by their ids. */
export async function storedTasks(scope: Scope, ids: readonly string[]): Promise<Map<string, StoredTask>> {
  const rows = await scope.sql<{ row: StoredTask }>(
    'select to_jsonb(task) as row from task where workspace_id = $1 and id = any($2::uuid[])',
    [ids],
  );
  return new Map(rows.map(({ row }) => [row.id, row]));
}

/** The columns that the table has now. */
export function taskColumns(scope: Scope): Promise<{ name: string; quoted: string }[]> {
  return scope.sql(
    `select column_name as name, quote_ident(column_name) as quoted from information_schema.columns
     where $1::uuid is not null and table_schema = current_schema() and table_name = 'task'`,
  );
}

/**
 * Writes rows back that are not there any more; gives the ids of those that were not. A column that the table has got
 * since has its default.
 */
export async function restoreStored(scope: Scope, rows: readonly StoredTask[]): Promise<Set<string>> {
  if (rows.length === 0) return new Set();
  const known = new Set(Object.keys(rows[0] ?? {}));
  const list = (await taskColumns(scope))
    .filter(({ name }) => known.has(name))
    .map(({ quoted }) => quoted)
    .join(', ');
  const back = await scope.sql<{ id: string }>(
    `insert into task (${list}) select ${list} from jsonb_populate_recordset(null::task, $2::jsonb) as was
     where was.workspace_id = $1 on conflict do nothing returning id`,
    [JSON.stringify(rows)],
  );
  return new Set(back.map(({ id }) => id));
}
