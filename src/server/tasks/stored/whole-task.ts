import { type FindOptionsWhere, In } from 'typeorm';
import { isSame } from '../../platform/changes/entity.ts';
import { notFound } from '../../platform/refusal.ts';
import type { Scope } from '../../platform/scope.ts';
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
