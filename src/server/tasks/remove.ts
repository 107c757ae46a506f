import { plural } from '../../core/index.ts';
import type { FieldChanges } from '../platform/changes/entity.ts';
import { changedMeanwhile, forbidden } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { followOn, scheduleRows, syncAll } from '../schedules/index.ts';
import { removeTasks, restoreStored, type StoredTask, type Task } from './stored/index.ts';

/** Deletes tasks, and remembers of those that schedules made that they are not to be made again. */
export async function takeOut(scope: Scope, tasks: readonly Task[]): Promise<void> {
  const made = tasks.filter(({ scheduleId }) => scheduleId !== null);
  await scope.sql(
    `insert into deleted_task (workspace_id, schedule_id, nominal_date, step_key, head, deleted_at, deleted_by)
     select $1, gone.*, $6, $7 from unnest($2::uuid[], $3::date[], $4::text[], $5::text[]) as gone on conflict do nothing`,
    [
      made.map(({ scheduleId }) => scheduleId),
      made.map(({ nominalDate }) => nominalDate),
      made.map(({ stepKey }) => stepKey),
      made.map(({ head }) => head),
      scope.instant,
      scope.person?.id ?? null,
    ],
  );
  await removeTasks(
    scope,
    tasks.map(({ id }) => id),
  );
}

/** Brings deleted tasks back as they were. */
export async function bringBackTasks(scope: Scope, changes: readonly FieldChanges[]): Promise<string> {
  if (!scope.mayAll('delete')) throw forbidden('Only a planner or a manager can bring it back.');
  const rows = changes.map((fields) => fields['row']?.from as StoredTask);
  await scope.sql(
    `delete from deleted_task d using jsonb_to_recordset($2::jsonb) as was (schedule_id uuid, nominal_date date, step_key text, head text)
     where d.workspace_id = $1 and d.schedule_id = was.schedule_id and d.nominal_date = was.nominal_date and d.step_key = was.step_key and d.head = was.head`,
    [JSON.stringify(rows)],
  );
  const back = await restoreStored(scope, rows);
  const missing = rows.find(({ id }) => !back.has(id));
  if (missing) throw changedMeanwhile(`“${missing.title}” is there already.`);
  await followOn(
    scope,
    rows.map((row) => ({ scheduleId: row.schedule_id, stepKey: row.step_key, nominalDate: row.nominal_date })),
  );
  // What its template or schedule says by now, it says too, as far as nobody has seen it.
  const scheduleIds = [...new Set(rows.flatMap(({ schedule_id }) => schedule_id ?? []))];
  await syncAll(scope, await scheduleRows(scope, { ids: scheduleIds }));
  await scope.tell('tasks', 'schedules');
  const [only] = rows;
  return only && rows.length === 1 ? `“${only.title}” is back.` : `${plural(rows.length, 'task')} are back.`;
}
