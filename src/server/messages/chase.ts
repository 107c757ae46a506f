import { type Chased, MOST_NUDGED } from '../../contract/index.ts';
import { groupBy } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { Schedule } from '../schedules/index.ts';
import { TO_DO } from '../tasks/stored/index.ts';

interface Row {
  readonly id: string;
  readonly title: string;
  readonly dueOn: string;
  readonly personId: string;
  readonly person: string;
  /** Since when they have it. */
  readonly since: Date;
  readonly told: number;
  readonly toldAt: Date | null;
}

/**
 * Of some tasks who has not done them yet, since when they have each, and how often they were told of it: reminded, told that it
 * is due or late, or nudged. Whoever has most comes first.
 */
export async function chased(scope: Scope, ids: readonly string[]): Promise<Chased> {
  const rows = await scope.sql<Row>(
    `select t.id, t.title, t.due_on as "dueOn", p.id as "personId", p.name as person,
       coalesce((select max(c.at) from change c where c.workspace_id = t.workspace_id and c.subject = 'task' and c.subject_id = t.id
         and c.fields ? 'assigneeId'), t.appears_on::timestamp at time zone $3) as since,
       told.count as told, told.last as "toldAt"
     from task t join person p on p.workspace_id = t.workspace_id and p.id = t.assignee_id
     cross join lateral (
       select count(*)::int as count, max(at) as last from (
         select o.at from told_once o where o.workspace_id = t.workspace_id and o.task_id = t.id and o.kind like '% own%'
         union all
         -- The last nudge stands with the task, the earlier ones in its history.
         (select c.at from change c where c.workspace_id = t.workspace_id and c.subject = 'task' and c.subject_id = t.id and c.action = 'nudged'
          union select t.nudged_at where t.nudged_at is not null)
       ) each) told
     where t.workspace_id = $1 and t.id = any($2::uuid[]) and t.state in ${TO_DO}
       and (t.held_until is null or t.held_until <= $4::date)
     order by t.due_on, t.id`,
    [ids, scope.workspace.zone, scope.today],
  );
  const people = [...groupBy(rows, ({ personId }) => personId)].map(([id, of]) => ({
    ...{ id, name: of[0]?.person ?? '' },
    tasks: of.map(({ id: taskId, title, dueOn, since, told, toldAt }) => ({
      ...{ id: taskId, title, dueOn, told },
      since: scope.moment(since),
      toldAt: scope.moment(toldAt),
    })),
  }));
  return { people: people.sort((a, b) => b.tasks.length - a.tasks.length || a.name.localeCompare(b.name)) };
}

/** The same of what a schedule has made, is due by today and somebody has; of many those that are due for longest. */
export async function chasedOfSchedule(scope: Scope, scheduleId: string): Promise<Chased> {
  await scope.one(Schedule, scheduleId, 'schedule');
  const rows = await scope.sql<{ id: string }>(
    `select id from task where workspace_id = $1 and schedule_id = $2 and state in ${TO_DO} and due_on <= $3 and assignee_id is not null
     order by due_on, id limit ${MOST_NUDGED}`,
    [scheduleId, scope.today],
  );
  return rows.length === 0
    ? { people: [] }
    : chased(
        scope,
        rows.map(({ id }) => id),
      );
}
