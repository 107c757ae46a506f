import { In } from 'typeorm';
import { plural } from '../../../core/index.ts';
import type { Scope } from '../../platform/scope.ts';
import type { Task } from './entity.ts';
import { restoreStored, type StoredTask, taskColumns } from './stored.ts';
import { findTasks } from './whole-task.ts';

/**
 * Has the database note what the work does to tasks, so that an undo can put back exactly that.
 * @returns what the work gives, and the id under which its tasks are noted
 */
export async function watched<T>(scope: Scope, work: () => Promise<T>): Promise<{ value: T; watchId: string }> {
  const watchId = scope.newId();
  const set = (id: string) => scope.sql(`select set_config('jolly.watch', $2, true) where $1::uuid is not null`, [id]);
  await set(watchId);
  const value = await work();
  await set('');
  return { value, watchId };
}

/** Tasks noted under one id: all of them, or those of one schedule. */
export interface Watch {
  readonly watchId: string;
  readonly scheduleId: string | null;
}

/** The tasks noted under some watches. */
const NOTED = `watched_task w join unnest($2::uuid[], $3::uuid[]) as part (watch_id, schedule_id)
  on w.watch_id = part.watch_id and (part.schedule_id is null or w.schedule_id = part.schedule_id)`;

/**
 * Puts tasks back to exactly what changes found: those they made go, those they changed are as before, those they took
 * away are there again. What somebody has changed since stays as it is.
 * @returns those that stay
 */
export async function putBackTasks(scope: Scope, watches: readonly Watch[]): Promise<Task[]> {
  if (watches.length === 0) return [];
  const params = [watches.map(({ watchId }) => watchId), watches.map(({ scheduleId }) => scheduleId)];
  const rows = await scope.sql<{ id: string; before: StoredTask | null; isGone: boolean; isSame: boolean | null }>(
    `select w.task_id as id, w.before, w.after is null as "isGone",
       task_look(t) = w.after and (w.before is not null or not exists (
         select 1 from file f where f.workspace_id = $1 and f.task_id = t.id) and not exists (
         select 1 from task_comment c where c.workspace_id = $1 and c.task_id = t.id) and not exists (
         select 1 from notice n where n.workspace_id = $1 and n.task_id = t.id)) as "isSame"
     from ${NOTED} left join task t on t.workspace_id = $1 and t.id = w.task_id
     where w.workspace_id = $1 order by w.task_id`,
    params,
  );
  const made = rows.filter(({ before, isGone, isSame }) => before === null && !isGone && isSame);
  await scope.sql(`delete from task where workspace_id = $1 and id = any($2::uuid[])`, [made.map(({ id }) => id)]);
  const changed = rows.flatMap(({ before, isGone, isSame }) => (before !== null && !isGone && isSame ? [before] : []));
  await overwriteStored(scope, changed);
  const taken = rows.flatMap(({ before, isGone }) => (before !== null && isGone ? [before] : []));
  const back = await restoreStored(scope, taken);
  const staying = [
    ...rows.filter(({ isGone, isSame }) => !isGone && isSame === false).map(({ id }) => id),
    ...(await standingFor(
      scope,
      taken.filter(({ id }) => !back.has(id)),
    )),
  ];
  return staying.length === 0 ? [] : findTasks(scope, { id: In(staying) });
}

/** Writes whole rows over those that are there. */
async function overwriteStored(scope: Scope, rows: readonly StoredTask[]): Promise<void> {
  if (rows.length === 0) return;
  const known = new Set(Object.keys(rows[0] ?? {}));
  const columns = (await taskColumns(scope)).filter(
    ({ name }) => known.has(name) && !['workspace_id', 'id', 'version'].includes(name),
  );
  await scope.sql(
    `update task set version = task.version + 1, ${columns.map(({ quoted }) => `${quoted} = was.${quoted}`).join(', ')}
     from jsonb_populate_recordset(null::task, $2::jsonb) as was
     where task.workspace_id = $1 and was.workspace_id = $1 and task.id = was.id`,
    [JSON.stringify(rows)],
  );
}

/** Tasks that have taken the place of some that can't come back. */
async function standingFor(scope: Scope, rows: readonly StoredTask[]): Promise<string[]> {
  if (rows.length === 0) return [];
  const there = await scope.sql<{ id: string }>(
    `select t.id from task t join jsonb_to_recordset($2::jsonb) as was (schedule_id uuid, nominal_date date, step_key text)
       on t.schedule_id = was.schedule_id and t.nominal_date = was.nominal_date and t.step_key = was.step_key
     where t.workspace_id = $1`,
    [JSON.stringify(rows)],
  );
  return there.map(({ id }) => id);
}

/** The end of a sentence on an undo: what it could not put back. */
export function butFor(kept: readonly Task[]): string {
  if (kept.length === 0) return '.';
  return `, but for ${plural(kept.length, 'task')} that somebody has changed since: ${kept.length === 1 ? 'it stays as it is' : 'they stay as they are'}.`;
}
