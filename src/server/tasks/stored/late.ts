import { isOverdue, isoOfDay } from '../../../core/index.ts';
import { columnsOf } from '../../platform/db/columns.ts';
import type { Scope } from '../../platform/scope.ts';
import { TaskRecord } from './entity.ts';
import { TO_DO } from './states.ts';
import { LOOK_FIELDS, type LookRow, lookOfRow } from './task-row.ts';

/** What was due long ago and is held up by no clock, the day $n being that before yesterday. */
const isLongLate = (n: number) =>
  `state in ${TO_DO} and due_on < $${n}::date and (held_until is null or held_until <= $${n}::date)`;

/**
 * How many tasks are late, of everyone or of one person. Beside the days around today it goes without saying which; there
 * it depends on the hour, by whichever clock.
 */
export async function lateCount(scope: Scope, personId: string | undefined): Promise<number> {
  const whose = '($2::uuid is null or assignee_id = $2)';
  const [[before], around] = await Promise.all([
    scope.sql<{ count: number }>(
      `select count(*)::int as count from task where workspace_id = $1 and ${whose} and ${isLongLate(3)}`,
      [personId ?? null, isoOfDay(scope.now.day - 1)],
    ),
    lateAround<{ count: number }>(scope, 'count(*)::int as count', whose, [personId ?? null]),
  ]);
  return around.reduce((sum, { count }) => sum + count, before?.count ?? 0);
}

/** The schedules whose main tasks are late. */
export async function lateSchedules(scope: Scope): Promise<ReadonlySet<string>> {
  const ofThem = `schedule_id is not null and step_key = ''`;
  // Thousands of ids as one text: as rows or as an array, reading them took longer than finding them.
  const ids = `string_agg(schedule_id::text, ' ') as ids`;
  const [before, around] = await Promise.all([
    scope.sql<{ ids: string | null }>(
      `select ${ids} from task where workspace_id = $1 and ${ofThem} and ${isLongLate(2)}`,
      [isoOfDay(scope.now.day - 1)],
    ),
    lateAround<{ ids: string }>(scope, ids, ofThem, []),
  ]);
  return new Set([...before, ...around].flatMap((some) => some.ids?.split(' ') ?? []));
}

/** Late tasks due yesterday, today or tomorrow, or held up until then: whatever is due alike is late alike, and is told together. */
async function lateAround<Told>(scope: Scope, told: string, which: string, params: readonly unknown[]) {
  const { day: today } = scope.now;
  const [from, to, on] = [1, 2, 3].map((n) => `$${params.length + n + 1}::date`);
  const rows = await scope.sql<LookRow & Told>(
    `select ${columnsOf(TaskRecord, 'task', LOOK_FIELDS)}, ${told} from task
     where workspace_id = $1 and ${which} and state in ${TO_DO} and (
       (due_on between ${from} and ${to} and (due_time is not null or due_on < ${on}))
       or (due_on < ${from} and held_until > ${from} and held_until <= ${to}))
     group by ${LOOK_FIELDS.map((_, i) => i + 1).join(', ')}`,
    [...params, isoOfDay(today - 1), isoOfDay(today + 1), scope.today],
  );
  return rows.filter((row) => isOverdue(lookOfRow(scope, row)));
}
