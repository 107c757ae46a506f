/** Tasks of a workspace's due days are put together so many days at a time: none of it takes long. */
const DAYS_AT_ONCE = 92;

/**
 * Puts together what adds up to the same of the counts that are kept of ended tasks: each change leaves what it adds and takes
 * away. What comes in meanwhile stays beside it.
 * @returns how many rows there are fewer
 */
export async function compactEndedCounts(source: {
  query<T>(sql: string, params?: unknown[]): Promise<T>;
}): Promise<number> {
  const [span] = await source.query<{ from: string | null; days: number }[]>(
    `select min(due_on)::text as from, coalesce(max(due_on) - min(due_on), 0) + 1 as days from ended_count`,
  );
  let fewer = 0;
  for (let at = 0; span?.from && at < span.days; at += DAYS_AT_ONCE) {
    const [moved] = await source.query<{ n: number }[]>(
      // Days on which nothing has changed since stay as they are.
      `with changed as (select distinct workspace_id, due_on from ended_count
           where due_on >= $1::date + $2::int and due_on < $1::date + $2::int + ${DAYS_AT_ONCE}::int
           group by workspace_id, due_on, state, on_time having count(*) > 1),
         gone as (delete from ended_count c using changed where c.workspace_id = changed.workspace_id and c.due_on = changed.due_on
           returning c.*),
         put as (insert into ended_count (workspace_id, due_on, state, on_time, n)
           select workspace_id, due_on, state, on_time, sum(n) from gone group by 1, 2, 3, 4 having sum(n) <> 0 returning 1)
       select ((select count(*) from gone) - (select count(*) from put))::int as n`,
      [span.from, at],
    );
    fewer += moved?.n ?? 0;
  }
  return fewer;
}
