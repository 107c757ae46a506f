import type { Scope } from '../platform/scope.ts';

/** Who gave each of some tasks, where it was made by hand: they hear what becomes of it beside those who answer for all work. */
export async function giversOf(scope: Scope, taskIds: readonly string[]): Promise<ReadonlyMap<string, string[]>> {
  if (taskIds.length === 0) return new Map();
  const rows = await scope.sql<{ taskId: string; personId: string }>(
    `select subject_id as "taskId", actor_id as "personId" from change
     where workspace_id = $1 and subject_id = any($2::uuid[]) and subject = 'task' and action = 'made by hand' and actor_id is not null`,
    [taskIds],
  );
  return new Map(rows.map(({ taskId, personId }) => [taskId, [personId]]));
}
