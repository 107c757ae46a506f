import type { FieldChanges } from '../db/change.ts';
import { conflict, forbidden } from '../http/refusal.ts';
import { followOn } from '../schedules/sync.ts';
import type { Scope } from '../scope.ts';
import type { Task } from './entity.ts';
import { removeTasks } from './made-task.ts';

/** Whole rows, as an undo needs them, by their ids. */
export async function storedTasks(scope: Scope, ids: readonly string[]): Promise<Map<string, object>> {
  const rows = await scope.sql<{ id: string; row: object }>(
    'select id, to_jsonb(task) as row from task where workspace_id = $1 and id = any($2::uuid[])',
    [ids],
  );
  return new Map(rows.map(({ id, row }) => [id, row]));
}

/** Deletes tasks, and remembers of those that schedules made that they are not to be made again. */
export async function takeOut(scope: Scope, tasks: readonly Task[]): Promise<void> {
  const made = tasks.filter(({ scheduleId }) => scheduleId !== null);
  await scope.sql(
    `insert into deleted_task (workspace_id, schedule_id, nominal_date, step_key, deleted_at, deleted_by)
     select $1, gone.*, $5, $6 from unnest($2::uuid[], $3::date[], $4::text[]) as gone on conflict do nothing`,
    [
      made.map(({ scheduleId }) => scheduleId),
      made.map(({ nominalDate }) => nominalDate),
      made.map(({ stepKey }) => stepKey),
      scope.instant,
      scope.person?.id ?? null,
    ],
  );
  await removeTasks(
    scope,
    tasks.map(({ id }) => id),
  );
}

/** Brings a deleted task back as it was. */
export async function bringBackTask(scope: Scope, fields: FieldChanges): Promise<string> {
  if (!scope.person?.isManager) throw forbidden('Only a manager can bring it back.');
  const row = fields['row']?.from as {
    title: string;
    schedule_id: string | null;
    nominal_date: string;
    step_key: string;
  };
  if (row.schedule_id !== null)
    await scope.sql(
      'delete from deleted_task where workspace_id = $1 and schedule_id = $2 and nominal_date = $3 and step_key = $4',
      [row.schedule_id, row.nominal_date, row.step_key],
    );
  const back = await scope.sql<{ id: string }>(
    `insert into task select * from jsonb_populate_record(null::task, $2::jsonb) as was where was.workspace_id = $1
     on conflict do nothing returning id`,
    [JSON.stringify(row)],
  );
  if (back.length === 0) throw conflict(`“${row.title}” is there already.`);
  await followOn(scope, [{ scheduleId: row.schedule_id, stepKey: row.step_key, nominalDate: row.nominal_date }]);
  await scope.tell('tasks', 'schedules');
  return `“${row.title}” is back.`;
}
