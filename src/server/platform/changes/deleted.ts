import type { Deleted } from '../../../contract/index.ts';
import type { Scope } from '../scope.ts';

const MOST_SHOWN = 40;

/** Tasks of a person's day that were deleted, each by itself or with others, and not brought back. */
export function deletedTasksOn(scope: Scope, personId: string, date: string): Promise<Deleted[]> {
  return deletedThings(
    scope,
    'title',
    `subject = 'task' and action = 'deleted' and fields->'row'->'from'->>'work_on' = $3 and fields->'row'->'from'->>'assignee_id' = $4`,
    [date, personId],
  );
}

export function deletedTemplates(scope: Scope): Promise<Deleted[]> {
  return deletedThings(scope, 'name', `subject = 'template' and action = 'removed'`);
}

/** Newest first. @param title the field of what was deleted that names it */
async function deletedThings(
  scope: Scope,
  title: string,
  which: string,
  params: readonly string[] = [],
): Promise<Deleted[]> {
  const people = await scope.peopleNames();
  const rows = await scope.sql<{ changeId: string; title: string; at: Date; actorId: string | null }>(
    `select id as "changeId", fields->'row'->'from'->>$2::text as title, at, actor_id as "actorId" from change
     where workspace_id = $1 and undone_at is null and ${which} order by at desc, id desc limit ${MOST_SHOWN}`,
    [title, ...params],
  );
  return rows.map(({ actorId, at, ...row }) => ({
    ...row,
    at: scope.moment(at),
    by: actorId === null ? null : (people.get(actorId) ?? null),
  }));
}
