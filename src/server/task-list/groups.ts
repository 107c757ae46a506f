import {
  type BesideColumn,
  GROUPS_A_PAGE,
  TASKS_OF_A_GROUP,
  type TaskFilter,
  type TaskGroup,
  type TaskGrouping,
  type TaskOrder,
  type TaskSums,
} from '../../contract/index.ts';
import type { Scope } from '../platform/scope.ts';
import { GROUP_KEYS, isLate, KEY_TYPES, questionOf } from './fitting.ts';
import { listedOf } from './lines.ts';
import { inOrder } from './orders.ts';

/** How a group is called and what stands beside it, from the row that its key names. */
export const GROUP_NAMES: Readonly<
  Record<TaskGrouping, { readonly from: string; readonly name: string; readonly detail: string }>
> = {
  client: { from: byId('client'), name: 'of.name', detail: "''" },
  asset: {
    from: `${byId('asset')} left join client c on c.workspace_id = of.workspace_id and c.id = of.client_id`,
    name: 'of.name',
    detail: "concat_ws(', ', nullif(of.place, ''), c.name)",
  },
  person: { from: byId('person'), name: 'of.name', detail: "''" },
  template: { from: byId('template'), name: 'of.name', detail: "coalesce(of.category, '')" },
  category: { from: '', name: 'g.key', detail: "''" },
  day: { from: '', name: 'g.key::text', detail: "''" },
};

function byId(table: string): string {
  return `left join ${table} of on of.workspace_id = $1 and of.id = g.key`;
}

/** By what groups stand in order, before their keys: a name in small letters, as it is kept where there are thousands. */
const ORDERS: Readonly<Record<TaskGrouping, string>> = {
  client: 'of.words',
  asset: 'of.words',
  person: 'lower(of.name)',
  template: 'lower(of.name)',
  category: 'lower(g.key)',
  day: 'g.key',
};

interface FoundGroup extends TaskSums {
  readonly key: string | null;
  readonly name: string | null;
  readonly detail: string;
  /** The days between which all of it is due. */
  readonly earliest: string;
  readonly latest: string;
  readonly groups: number;
}

/** The tasks that fit by what they have in common: those without it first, then by name or day; of each the first few lines. */
export async function groupsOfTasks(
  scope: Scope,
  {
    by,
    order,
    start,
    beside,
    ...filter
  }: TaskFilter & { by: TaskGrouping; order: TaskOrder; start: number; beside: readonly BesideColumn[] },
): Promise<{ start: number; groups: TaskGroup[]; count: number }> {
  const asked = await questionOf(scope, filter);
  const which = asked.where;
  const key = GROUP_KEYS[by];
  const { from, name, detail } = GROUP_NAMES[by];
  const sums = asked.copy();
  const late = isLate(scope, sums);
  const rows = await scope.sql<FoundGroup>(
    `select g.key, ${name} as name, ${detail} as detail, g.count, g.minutes, g.late, g.earliest, g.latest, count(*) over ()::int as groups
     from (select ${key} as key, count(*)::int as count, sum(t.estimate_minutes)::int as minutes,
             (count(*) filter (where ${late}))::int as late, min(t.due_on) as earliest, max(t.due_on) as latest
           from task t where ${which} group by 1) g ${from}
     order by g.key is not null, ${ORDERS[by]}, g.key offset ${start} limit ${GROUPS_A_PAGE}`,
    sums.params,
  );
  const first = asked.copy();
  const [keys, earliest, latest] = (['key', 'earliest', 'latest'] as const).map((each) =>
    first.with(rows.map((row) => row[each])),
  );
  const some = (ofKey: string) =>
    inOrder(first, order, {
      columns: { id: 't.id' },
      most: TASKS_OF_A_GROUP,
      and: `${ofKey} and t.due_on between g.earliest and g.latest`,
    });
  // Each by its key and its days, as the indexes have it: before the first that fits there may be years of those that are over.
  // Those without by themselves.
  const found = await scope.sql<{ place: number; id: string }>(
    `with g as (select key, earliest, latest, place::int as place
       from unnest(${keys}::${KEY_TYPES[by]}[], ${earliest}::date[], ${latest}::date[]) with ordinality as of (key, earliest, latest, place))
     select g.place, line.id from g cross join lateral (${some(`${key} = g.key`)}) line where g.key is not null
     union all
     select g.place, line.id from g cross join lateral (${some(`${key} is null`)}) line where g.key is null`,
    first.params,
  );
  const lines = await listedOf(
    scope,
    found.map(({ id }) => id),
    beside,
  );
  const byLine = new Map(lines.map((line) => [line.id, line]));
  return {
    start,
    count: rows[0]?.groups ?? 0,
    groups: rows.map(({ groups: _, earliest: __, latest: ___, key: of, ...row }, i) => ({
      ...row,
      key: of ?? '',
      lines: found.flatMap(({ place, id }) => (place === i + 1 ? (byLine.get(id) ?? []) : [])),
    })),
  };
}
