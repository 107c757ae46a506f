import { z } from 'zod';
import {
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
import { isKeyOf, isLate, questionOf, type TaskQuestion, withinGroup } from './fitting.ts';

/** By what tasks stand in order, their ids last; a column that goes down is told apart. */
interface Ordering {
  readonly keys: readonly (readonly [expression: string, type: string])[];
  readonly isDown: boolean;
}

const TIME = "coalesce(t.due_time, '~')";
const ORDERINGS: Readonly<Record<TaskOrder, Ordering>> = {
  due: {
    keys: [
      ['t.due_on', 'date'],
      [TIME, 'text'],
      ['t.id', 'uuid'],
    ],
    isDown: false,
  },
  latest: {
    keys: [
      ['t.due_on', 'date'],
      [TIME, 'text'],
      ['t.id', 'uuid'],
    ],
    isDown: true,
  },
  title: {
    keys: [
      ['lower(t.title)', 'text'],
      ['t.id', 'uuid'],
    ],
    isDown: false,
  },
  longest: {
    keys: [
      ['t.estimate_minutes', 'int'],
      ['t.id', 'uuid'],
    ],
    isDown: true,
  },
};

export function orderedBy(order: TaskOrder): string {
  const { keys, isDown } = ORDERINGS[order];
  return `order by ${keys.map(([expression]) => `${expression}${isDown ? ' desc' : ''}`).join(', ')}`;
}

interface Asked extends TaskFilter {
  readonly order: TaskOrder;
  readonly after?: string | undefined;
  readonly by?: TaskGrouping | undefined;
  readonly key?: string | undefined;
}

/** A page of the tasks that fit, from where the one before ended: however far down, none before it is looked at again. */
export async function listTasks(
  scope: Scope,
  { order, after, by, key, ...filter }: Asked,
  most = TASKS_A_PAGE,
): Promise<{ lines: TaskLine[]; more: string | null }> {
  const asked = await questionOf(scope, filter);
  if (by !== undefined && key !== undefined) {
    if (!isKeyOf(by, key)) throw invalid([{ path: 'key', message: 'There is no such group.' }]);
    withinGroup(asked, by, key);
  }
  if (after !== undefined) goOnAfter(asked, order, after);
  const { keys } = ORDERINGS[order];
  const found = await scope.sql<{ id: string; place: (string | number)[] }>(
    `select t.id, jsonb_build_array(${keys.map(([expression]) => expression).join(', ')}) as place
     from task t where ${asked.where} ${orderedBy(order)} limit ${most + 1}`,
    asked.params,
  );
  const page = found.slice(0, most);
  return {
    lines: await linesOfIds(
      scope,
      page.map(({ id }) => id),
    ),
    more: found.length > most ? JSON.stringify(page.at(-1)?.place) : null,
  };
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

/** No text of the database holds the sign of no sign. */
const placeSchema = z
  .array(
    z.union([
      z
        .string()
        .max(300)
        .refine((text) => !text.includes('\0')),
      z.number(),
    ]),
  )
  .max(3);

/** @throws Refusal where it is not what a page said */
function goOnAfter(asked: TaskQuestion, order: TaskOrder, after: string): void {
  const { keys, isDown } = ORDERINGS[order];
  const place = placeSchema.safeParse(readJson(after)).data;
  if (place === undefined || place.length !== keys.length || !keys.every(([, type], i) => isOfType(type, place[i])))
    throw invalid([{ path: 'after', message: 'The list can’t go on from there: load it again.' }]);
  const values = keys.map(([, type], i) => `${asked.with(place[i])}::${type}`);
  asked.and(`(${keys.map(([expression]) => expression).join(', ')}) ${isDown ? '<' : '>'} (${values.join(', ')})`);
}

function readJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    if (error instanceof SyntaxError) return undefined;
    throw error;
  }
}

function isOfType(type: string, value: string | number | undefined): boolean {
  switch (type) {
    case 'date':
      return typeof value === 'string' && isKeyOf('day', value);
    case 'uuid':
      return typeof value === 'string' && value !== '' && isKeyOf('client', value);
    case 'int':
      return typeof value === 'number' && Number.isInteger(value) && Math.abs(value) < 2 ** 31;
    default:
      return typeof value === 'string';
  }
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
    `select t.id, t.version, t.estimate_minutes as minutes from task t where ${asked.where} ${orderedBy(order)}
     limit ${TASKS_CHOSEN_AT_ONCE}`,
    asked.params,
  );
  return { tasks: found };
}
