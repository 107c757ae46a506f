import type { Reach } from '../../contract/index.ts';
import type { FieldChanges } from '../db/change.ts';
import type { Scope } from '../scope.ts';

/** Tasks as they were before a change that went further than what nobody has seen; under this name in its record. */
const FIELD = '#tasks';

interface StoredRow {
  readonly id: string;
  readonly version: number;
}

/** Open tasks that a reach lays hold of, as they are. */
export async function tasksInReach(
  scope: Scope,
  scheduleIds: readonly string[],
  { open, also }: Reach,
): Promise<StoredRow[]> {
  if (!open && also.length === 0) return [];
  const rows = await scope.sql<{ row: StoredRow }>(
    `select to_jsonb(task) as row from task where workspace_id = $1 and schedule_id = any($2::uuid[]) and state = 'open'
       and set_on >= $3::date and (($4 and appears_on <= $3::date) or id = any($5::uuid[]))`,
    [scheduleIds, scope.today, open, also],
  );
  return rows.map(({ row }) => row);
}

/** Those that the change has changed, for its record. */
export async function recordOfTasks(scope: Scope, before: readonly StoredRow[]): Promise<FieldChanges> {
  if (before.length === 0) return {};
  const now = await scope.sql<StoredRow>(
    'select id, version from task where workspace_id = $1 and id = any($2::uuid[])',
    [before.map(({ id }) => id)],
  );
  const versions = new Map(now.map(({ id, version }) => [id, version]));
  const changed = before.filter(({ id, version }) => versions.get(id) !== version);
  return changed.length === 0 ? {} : { [FIELD]: { from: changed, to: null } };
}

/** What a change recorded besides the tasks it laid hold of. */
export function withoutTasks(fields: FieldChanges): FieldChanges {
  const { [FIELD]: _, ...others } = fields;
  return others;
}

/** Everything that a change of a template or schedule may have written into a task. */
const RESTORED = [
  ...['template_id', 'template_version', 'set_on', 'set_index', 'title', 'instructions', 'brief', 'links', 'priority'],
  ...[
    'work_type',
    'sign_off',
    'finish_with_last',
    'numbered',
    'check_lines',
    'demands',
    'estimate_minutes',
    'client_id',
  ],
  ...[
    'asset_id',
    'assignee_id',
    'work_on',
    'appears_on',
    'starts_on',
    'due_on',
    'start_time',
    'due_time',
    'zone',
    'edited',
  ],
];

/** Puts tasks back to what a change found, but for those that somebody has worked on since. */
export async function restoreTasks(scope: Scope, fields: FieldChanges): Promise<void> {
  const rows = (fields[FIELD]?.from ?? []) as readonly StoredRow[];
  if (rows.length === 0) return;
  await scope.sql(
    `update task set version = task.version + 1, ${RESTORED.map((column) => `${column} = was.${column}`).join(', ')}
     from jsonb_populate_recordset(null::task, $2::jsonb) as was
     where task.workspace_id = $1 and was.workspace_id = $1 and task.id = was.id and task.state = 'open' and task.version = was.version + 1`,
    [JSON.stringify(rows)],
  );
}
