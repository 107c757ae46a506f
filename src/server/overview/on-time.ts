import { ON_TIME_WEEKS, type OnTimeTrend } from '../../contract/index.ts';
import { addedUp, DAYS_A_WEEK, groupBy, isoOfDay, mondayOf, type OnTime } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { countsAsDue, WAS_ON_TIME } from '../tasks/stored/index.ts';

/** Templates that are named for being late most often. */
const MOST_NAMED = 2;

interface OfTemplate extends OnTime {
  readonly at: number;
  readonly templateId: string | null;
}

/**
 * How much of the work of past weeks was finished by when it was due, by the clock of its own zone. What was skipped with a
 * reason is left out, and what is held up; what lapsed, or is still to be done, was not on time.
 */
export async function onTimeTrend(scope: Scope): Promise<OnTimeTrend> {
  const monday = mondayOf(scope.now.day);
  const first = monday - 2 * ON_TIME_WEEKS * DAYS_A_WEEK;
  const rows = await scope.sql<OfTemplate>(
    `select (t.due_on - $2::date) / ${DAYS_A_WEEK} as at, t.template_id as "templateId", count(*)::int as due,
       (count(*) filter (where ${WAS_ON_TIME}))::int as "onTime"
     from task t where t.workspace_id = $1 and t.due_on >= $2::date and t.due_on < $3::date and ${countsAsDue('$4')}
     group by 1, 2`,
    [isoOfDay(first), isoOfDay(monday), scope.today],
  );
  const byWeek = groupBy(rows, ({ at }) => at);
  const all = Array.from({ length: 2 * ON_TIME_WEEKS }, (_, at) => ({
    monday: isoOfDay(first + at * DAYS_A_WEEK),
    ...addedUp(byWeek.get(at) ?? []),
  }));
  const weeks = all.slice(ON_TIME_WEEKS);
  return {
    weeks,
    now: addedUp(weeks),
    before: addedUp(all.slice(0, ON_TIME_WEEKS)),
    mostLate: await mostLate(
      scope,
      rows.filter(({ at }) => at >= ON_TIME_WEEKS),
    ),
  };
}

async function mostLate(scope: Scope, rows: readonly OfTemplate[]): Promise<OnTimeTrend['mostLate']> {
  const late = [...groupBy(rows, ({ templateId }) => templateId)]
    .flatMap(([id, of]) => {
      const { due, onTime } = addedUp(of);
      return id === null || due === onTime ? [] : [{ id, late: due - onTime }];
    })
    .sort((a, b) => b.late - a.late || (a.id < b.id ? -1 : 1))
    .slice(0, MOST_NAMED);
  const names = await scope.sql<{ id: string; name: string }>(
    'select id, name from template where workspace_id = $1 and id = any($2::uuid[])',
    [late.map(({ id }) => id)],
  );
  const nameOf = new Map(names.map(({ id, name }) => [id, name]));
  return late.map(({ id, late: times }) => ({ id, name: nameOf.get(id) ?? '', late: times }));
}
