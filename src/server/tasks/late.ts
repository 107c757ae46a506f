import { isOverdue, isoOfDay } from '../../core/index.ts';
import { columnsOf } from '../platform/db/columns.ts';
import type { Scope } from '../platform/scope.ts';
import { TaskRecord } from './entity.ts';
import { TO_DO } from './states.ts';
import { LOOK_FIELDS, type LookRow, lookOfRow } from './task-row.ts';

/**
 * How many tasks are late, of everyone or of one person. Beside the days around today it goes without saying which; there
 * it depends on the hour, by whichever clock.
 */
export async function lateCount(scope: Scope, personId: string | undefined): Promise<number> {
  const { day: today } = scope.now;
  const open = `from task where workspace_id = $1 and ($2::uuid is null or assignee_id = $2) and state in ${TO_DO}`;
  const [before] = await scope.sql<{ count: number }>(`select count(*)::int as count ${open} and due_on < $3::date`, [
    personId ?? null,
    isoOfDay(today - 1),
  ]);
  const around = await scope.sql<LookRow>(
    `select ${columnsOf(TaskRecord, 'task', LOOK_FIELDS)} ${open} and due_on between $3::date and $4::date and (due_time is not null or due_on < $5::date)`,
    [personId ?? null, isoOfDay(today - 1), isoOfDay(today + 1), scope.today],
  );
  return (before?.count ?? 0) + around.filter((row) => isOverdue(lookOfRow(scope, row))).length;
}
