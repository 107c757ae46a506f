import {
  type BesideColumn,
  type ListedTask,
  NONE_OF_THEM,
  TASKS_A_PAGE,
  TASKS_CHOSEN_AT_ONCE,
  type TaskFilter,
  type TaskGrouping,
  type TaskLine,
  type TaskOrder,
  type TaskSums,
} from '../../contract/index.ts';
import { standingAt } from '../directory/index.ts';
import { invalid } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { linesOf, type TaskRow, taskLine } from '../tasks/stored/index.ts';
import { besideOf } from './beside.ts';
import { isKeyOf, isLate, questionOf, type TaskQuestion, withinGroup } from './fitting.ts';
import { inOrder, type Place } from './orders.ts';

interface Asked extends TaskFilter {
  readonly order: TaskOrder;
  /** What columns are to be told besides. */
  readonly beside?: readonly BesideColumn[] | undefined;
  readonly after?: string | undefined;
  readonly by?: TaskGrouping | undefined;
  readonly key?: string | undefined;
}

/** A page of the tasks that fit, from where the one before ended: however far down, none before it is looked at again. */
export async function listTasks(
  scope: Scope,
  { order, beside = [], after, by, key, ...filter }: Asked,
  most = TASKS_A_PAGE,
): Promise<{ lines: ListedTask[]; more: string | null }> {
  const asked = await questionOf(scope, filter);
  if (by !== undefined && key !== undefined) {
    if (!isKeyOf(by, key)) throw invalid([{ path: 'key', message: 'There is no such group.' }]);
    withinGroup(asked, by, key);
  }
  const found = await scope.sql<{ id: string; place: Place }>(
    inOrder(asked, order, { columns: { id: 't.id' }, isPlaced: true, most: most + 1, after }),
    asked.params,
  );
  const page = found.slice(0, most);
  return {
    lines: await listedOf(
      scope,
      page.map(({ id }) => id),
      beside,
    ),
    more: found.length > most ? JSON.stringify(page.at(-1)?.place) : null,
  };
}

/** Tasks as lines with what is asked for besides, in the order of their ids. */
export async function listedOf(
  scope: Scope,
  ids: readonly string[],
  beside: readonly BesideColumn[],
): Promise<ListedTask[]> {
  const lines = await linesOfIds(scope, ids);
  const besides = await besideOf(scope, ids, beside);
  return lines.map((line) => ({ ...line, ...besides.get(line.id) }));
}

/** Some tasks as lines, in the order of their ids. */
export async function linesOfIds(scope: Scope, ids: readonly string[]): Promise<TaskLine[]> {
  if (ids.length === 0) return [];
  const rows = await scope.sql<TaskRow>(linesOf('select unnest($2::uuid[])'), [ids]);
  const byId = new Map(rows.map((row) => [row.id, row]));
  return ids.flatMap((id) => {
    const row = byId.get(id);
    return row ? [taskLine(scope, row)] : [];
  });
}

/** The first tasks of a list, how many there are, and how long all of them take. */
interface FirstOfList extends Omit<TaskSums, 'late'> {
  readonly lines: TaskLine[];
}

/** Of each of some lists the first by when they are due, with how many there are: a question for each, and one for all lines. */
export async function firstDue<Name extends string>(
  scope: Scope,
  lists: Readonly<Record<Name, TaskFilter>>,
  most: number,
): Promise<Readonly<Record<Name, FirstOfList>>> {
  const columns = {
    id: 't.id',
    count: 'count(*) over ()::int',
    minutes: 'coalesce(sum(t.estimate_minutes) over (), 0)::int',
  };
  const names = Object.keys(lists) as Name[];
  const found = await scope.atOnce(
    ...names.map((name) => async () => {
      const asked = await questionOf(scope, lists[name]);
      return scope.sql<Omit<TaskSums, 'late'> & { readonly id: string }>(
        inOrder(asked, 'due', { columns, most }),
        asked.params,
      );
    }),
  );
  const lines = await linesOfIds(scope, [...new Set(found.flatMap((rows) => rows.map(({ id }) => id)))]);
  const lineOf = new Map(lines.map((line) => [line.id, line]));
  return Object.fromEntries(
    names.map((name, at): [Name, FirstOfList] => {
      const rows = found[at] ?? [];
      const [{ count, minutes } = { count: 0, minutes: 0 }] = rows;
      return [name, { count, minutes, lines: rows.flatMap(({ id }) => lineOf.get(id) ?? []) }];
    }),
  ) as Record<Name, FirstOfList>;
}

/** How many fit, and how long all of them take. */
export async function countOfTasks(scope: Scope, filter: TaskFilter): Promise<Omit<TaskSums, 'late'>> {
  const asked = await questionOf(scope, filter);
  return countOf(scope, asked);
}

async function countOf(scope: Scope, asked: TaskQuestion): Promise<Omit<TaskSums, 'late'>> {
  const [sums] = await scope.sql<Omit<TaskSums, 'late'>>(
    `select count(*)::int as count, coalesce(sum(t.estimate_minutes), 0)::int as minutes from task t where ${asked.where}`,
    asked.params,
  );
  if (!sums) throw new Error('A sum has no row.');
  return sums;
}

/** What the tasks that fit come to. */
export async function sumsOfTasks(scope: Scope, filter: TaskFilter) {
  const asked = await questionOf(scope, filter);
  const overdue = asked.copy();
  overdue.and(isLate(scope, overdue));
  // Late ones apart: what all of them come to is told from an index then, however many there are.
  const [sums, [late], names] = await scope.atOnce(
    () => countOf(scope, asked),
    () =>
      scope.sql<Pick<TaskSums, 'late'>>(
        `select count(*)::int as late from task t where ${overdue.where}`,
        overdue.params,
      ),
    () => namesOfFilter(scope, filter),
  );
  if (!late) throw new Error('A sum has no row.');
  return { ...sums, ...late, names };
}

/** The names of what is asked for by its id; null for what is not asked for, or is not there. */
export async function namesOfFilter(scope: Scope, { client, asset, site, template, schedule }: TaskFilter) {
  const named = async (table: 'client' | 'asset' | 'template', id: string | undefined) => {
    if (id === undefined || id === NONE_OF_THEM) return null;
    const [row] = await scope.sql<{ id: string; name: string }>(
      `select id, name from ${table} where workspace_id = $1 and id = $2`,
      [id],
    );
    return row ?? null;
  };
  const ofSchedule = async () => {
    if (schedule === undefined) return null;
    const [row] = await scope.sql<{ id: string; name: string }>(
      `select s.id, concat_ws(', ', w.name, coalesce(a.name, c.name)) as name from schedule s
       join template w on w.workspace_id = s.workspace_id and w.id = s.template_id
       left join asset a on a.workspace_id = s.workspace_id and a.id = s.asset_id
       left join client c on c.workspace_id = s.workspace_id and c.id = s.client_id
       where s.workspace_id = $1 and s.id = $2`,
      [schedule],
    );
    return row ?? null;
  };
  return {
    client: await named('client', client),
    asset: await named('asset', asset),
    site: site === undefined ? null : (await standingAt(scope, site)).site,
    template: await named('template', template),
    schedule: await ofSchedule(),
  };
}

/** The first of those that fit, as much of them as is needed to do something with them. */
export async function chosenTasks(scope: Scope, { order, ...filter }: TaskFilter & { readonly order: TaskOrder }) {
  const asked = await questionOf(scope, filter);
  const found = await scope.sql<{ id: string; version: number; minutes: number }>(
    inOrder(asked, order, {
      columns: { id: 't.id', version: 't.version', minutes: 't.estimate_minutes' },
      most: TASKS_CHOSEN_AT_ONCE,
    }),
    asked.params,
  );
  return { tasks: found };
}
