import type { Scope } from '../../platform/scope.ts';

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
