import type { FieldChanges } from '../db/change.ts';
import { conflict, forbidden } from '../http/refusal.ts';
import type { Scope } from '../scope.ts';
import { Task } from './entity.ts';
import { removeTasks } from './made-task.ts';
import { change, type SavedTask } from './work.ts';

/** A task that is not to be done this time; the reason stands in its note. */
export function skipTask(scope: Scope, id: string, reason: string): Promise<SavedTask> {
  return change(scope, id, 'skipped', (task) => {
    if (task.state !== 'open' && task.state !== 'underWay')
      throw conflict('Only work that is still to be done can be skipped.');
    return { state: 'skipped', note: [task.note, reason].filter((text) => text.trim() !== '').join('\n') };
  });
}

/** Deletes a task that nobody has finished. One that a schedule made does not come back by itself. */
export function removeTask(scope: Scope, id: string): Promise<{ changeId: string }> {
  return scope.transaction(async (tx) => {
    const task = await tx.locked(Task, id, 'task');
    if (task.state !== 'open' && task.state !== 'underWay')
      throw conflict('What was finished or skipped stays on record: it can’t be deleted.');
    const [files] = await tx.sql<{ count: number }>(
      'select count(*) as count from file where workspace_id = $1 and task_id = $2 and removed_at is null',
      [id],
    );
    if ((files?.count ?? 0) > 0) throw conflict('There are files with it: take them out first, or skip it instead.');
    const [stored] = await tx.sql<{ row: object }>(
      'select to_jsonb(task) as row from task where workspace_id = $1 and id = $2',
      [id],
    );
    if (task.scheduleId !== null)
      await tx.sql(
        `insert into deleted_task (workspace_id, schedule_id, nominal_date, step_key, deleted_at, deleted_by) values ($1, $2, $3, $4, $5, $6)
         on conflict do nothing`,
        [task.scheduleId, task.nominalDate, task.stepKey, tx.instant, tx.person?.id ?? null],
      );
    await removeTasks(tx, [id]);
    const changeId = await tx.record('task', id, 'deleted', { row: { from: stored?.row ?? null, to: null } });
    await tx.tell('tasks', 'schedules');
    return { changeId };
  });
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
  await scope.tell('tasks', 'schedules');
  return `“${row.title}” is back.`;
}
