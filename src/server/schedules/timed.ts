import type { TimedAnswer } from '../../contract/index.ts';
import type { Scope } from '../platform/scope.ts';
import { UNFINISHED } from '../tasks/stored/index.ts';

/** Pieces of work told at once. */
const MOST_TOLD = 2_000;

/**
 * Work at a time of its day that some people have on some days and have not finished, by the workspace's clock, by its day.
 * The earliest due day is for the index alone: work is not due a year before its day.
 */
export async function timedWork(
  scope: Scope,
  {
    people,
    from,
    to,
    without,
  }: { readonly people: string; readonly from: string; readonly to: string; readonly without?: string | undefined },
): Promise<TimedAnswer> {
  const work = await scope.sql<TimedAnswer['work'][number]>(
    `select assignee_id as "personId", work_on as "on", start_time as "startTime",
       case when due_on = work_on then due_time end as "dueTime", estimate_minutes as minutes, title from task
     where workspace_id = $1 and assignee_id = any($2::uuid[]) and due_on >= $3::date - 366 and work_on between $3::date and $4::date
       and start_time is not null and starts_on = work_on and zone is null and state in ${UNFINISHED}
       and schedule_id is distinct from $5::uuid
     order by work_on, start_time, id limit ${MOST_TOLD + 1}`,
    [people.split(','), from, to, without ?? null],
  );
  return { work: work.slice(0, MOST_TOLD), hasMore: work.length > MOST_TOLD };
}
