import { WALL_NOBODY, WALL_ROWS_AT_ONCE, type WallFilter, type WallRows } from '../../contract/index.ts';
import { isoOfDay, plainWords, type WallDays } from '../../core/index.ts';
import { assetIdsAt } from '../directory/index.ts';
import { likeLetters } from '../platform/db/like.ts';
import type { Scope } from '../platform/scope.ts';
import { questionOf, TaskQuestion } from '../task-list/index.ts';

/** A row, and what of a task or a schedule says that it stands there. */
export interface RowOf {
  readonly key: string;
  readonly name: string;
  readonly detail: string;
  readonly group: string;
  /** Ids in the column of its source; of nobody's row none. */
  readonly members: readonly string[];
}

/** Where rows come from: a table, and the column of tasks and of schedules that names one of their members. */
interface Source {
  readonly rows: (asked: TaskQuestion, today: string) => string;
  readonly ofTask: string;
  /** Null where only the plan says whose its dates are. */
  readonly ofSchedule: string | null;
}

const ONE = 'array[of.id] as members';
/**
 * Of each: its key, its name, what stands beside it, the rows it stands with, its members, and whether it is there though
 * there is no work. The workspace's own assets come before those of clients.
 */
const SOURCES: Readonly<Record<WallRows, Source>> = {
  asset: {
    ofTask: 't.asset_id',
    ofSchedule: 's.asset_id',
    rows: () => `select of.id::text as key, of.name, coalesce(of.tag, '') as detail,
        coalesce(c.name, site.name, '') as "group", ${ONE}, false as "isHere", of.client_id is null as "isOwn"
      from asset of left join asset site on site.workspace_id = of.workspace_id and site.id = of.site_id
      left join client c on c.workspace_id = of.workspace_id and c.id = of.client_id where of.workspace_id = $1`,
  },
  site: {
    ofTask: 't.asset_id',
    ofSchedule: 's.asset_id',
    rows: () => `select of.id::text as key, of.name, coalesce(of.tag, '') as detail, '' as "group", there.members, false as "isHere"
      from asset of cross join lateral (
        with recursive at as (
          select of.id union select a.id from asset a join at on a.workspace_id = $1 and a.site_id = at.id)
        select array_agg(id) as members from at) there
      where of.workspace_id = $1 and of.is_site and of.client_id is null`,
  },
  client: {
    ofTask: 't.client_id',
    ofSchedule: 's.client_id',
    rows: () =>
      `select of.id::text as key, of.name, '' as detail, '' as "group", ${ONE}, false as "isHere" from client of where of.workspace_id = $1`,
  },
  person: {
    ofTask: 't.assignee_id',
    ofSchedule: null,
    rows: (asked, today) => `select of.id::text as key, of.name, '' as detail, coalesce(of.team, '') as "group", ${ONE},
        (of.works_until is null or of.works_until >= ${asked.with(today)}::date) as "isHere"
      from person of where of.workspace_id = $1`,
  },
  role: {
    ofTask: 't.assignee_id',
    ofSchedule: null,
    rows: () => `select role as key, role as name, '' as detail, '' as "group", array_agg(of.id) as members, true as "isHere"
      from person of cross join jsonb_array_elements_text(of.roles) as role where of.workspace_id = $1 group by role`,
  },
  template: {
    ofTask: 't.template_id',
    ofSchedule: 's.template_id',
    rows: () => `select of.id::text as key, of.name, '' as detail, coalesce(of.category, '') as "group", ${ONE}, false as "isHere"
      from template of where of.workspace_id = $1`,
  },
  schedule: {
    ofTask: 't.schedule_id',
    ofSchedule: 's.id',
    rows: () => `select of.id::text as key, ot.name, coalesce(a.name, c.name, '') as detail, coalesce(ot.category, '') as "group", ${ONE}, of.deleted_at is null as "isHere"
      from schedule of join template ot on ot.workspace_id = of.workspace_id and ot.id = of.template_id
      left join asset a on a.workspace_id = of.workspace_id and a.id = of.asset_id
      left join client c on c.workspace_id = of.workspace_id and c.id = of.client_id where of.workspace_id = $1`,
  },
};

/** The column of tasks that names a member of such a row. */
export const taskColumnOf = (rows: WallRows): string => SOURCES[rows].ofTask;

/** The tasks that rows may show: of some days, and what they have in common. */
export async function tasksOf(
  scope: Scope,
  { category, template, client, site, person, role, team }: WallFilter,
  days: { readonly first: number; readonly last: number },
): Promise<TaskQuestion> {
  return questionOf(scope, {
    ...{ category, template, client, site, person, role, team },
    ...{ from: isoOfDay(days.first), to: isoOfDay(days.last) },
  });
}

/** The schedules `s` of templates `st` that they may foresee dates of, as SQL; whose the dates are is told from their plans. */
async function schedulesOf(scope: Scope, asked: TaskQuestion, { category, template, client, site }: WallFilter) {
  const conditions = ['s.workspace_id = $1', 's.deleted_at is null'];
  if (category !== undefined) conditions.push(`st.category = ${asked.with(category)}`);
  if (template !== undefined) conditions.push(`s.template_id = ${asked.with(template)}::uuid`);
  if (client !== undefined) conditions.push(`s.client_id = ${asked.with(client)}::uuid`);
  if (site !== undefined) conditions.push(`s.asset_id = any(${asked.with(await assetIdsAt(scope, site))}::uuid[])`);
  return {
    from: 'schedule s join template st on st.workspace_id = s.workspace_id and st.id = s.template_id',
    where: conditions.join(' and '),
  };
}

/** Nobody's work, in a row of its own before those of people. */
const NOBODY: RowOf = { key: WALL_NOBODY, name: 'nobody yet', detail: '', group: '', members: [] };

interface AskedRows extends WallFilter {
  readonly rows: WallRows;
  readonly find?: string | undefined;
  readonly empty?: 'yes' | undefined;
}

/** Rows from a place on, by what they stand with and by name, and how many there are: of people nobody's comes first. */
export async function rowsFrom(
  scope: Scope,
  asked: AskedRows,
  days: WallDays,
  start: number,
): Promise<{ rows: RowOf[]; count: number }> {
  const { rows: kind, find, empty } = asked;
  const { rows: from, ofTask, ofSchedule } = SOURCES[kind];
  const question = empty === undefined ? await tasksOf(scope, asked, days) : new TaskQuestion();
  const ofTasks = question.where;
  const conditions: string[] = [];
  for (const word of plainWords(find ?? '').filter(Boolean))
    conditions.push(
      `plain_words(concat_ws(' ', of.name, of.detail, of.group)) like ${question.with(`%${likeLetters(word)}%`)}`,
    );
  if (empty === undefined) {
    const schedules = await schedulesOf(scope, question, asked);
    conditions.push(
      `(${[
        'of."isHere"',
        // Asked first: a schedule is found sooner than that there is no task.
        ...(ofSchedule === null
          ? []
          : [
              // Each has itself as its one member, but for sites.
              kind === 'site'
                ? `exists (select from ${schedules.from} where ${schedules.where} and ${ofSchedule} = any(of.members))`
                : `of.members[1] in (select ${ofSchedule} from ${schedules.from} where ${schedules.where})`,
            ]),
        `exists (select from task t where ${ofTasks} and ${ofTask} = any(of.members))`,
      ].join(' or ')})`,
    );
  }
  const hasNobody = kind === 'person' && (find ?? '').trim() === '';
  const before = hasNobody ? 1 : 0;
  const found = await scope.sql<RowOf & { count: number }>(
    `select of.key, of.name, of.detail, of."group", of.members, count(*) over ()::int as count
     from (${from(question, scope.today)}) of ${conditions.length === 0 ? '' : `where ${conditions.join(' and ')}`}
     order by ${kind === 'asset' ? 'of."isOwn" desc, ' : ''}of."group" = '', lower(of."group"), lower(of.name), lower(of.detail), of.key
     offset ${Math.max(0, start - before)} limit ${WALL_ROWS_AT_ONCE - (start === 0 ? before : 0)}`,
    question.params,
  );
  const rows = found.map(({ count: _, ...row }) => row);
  return {
    rows: hasNobody && start === 0 ? [NOBODY, ...rows] : rows,
    count: (found[0]?.count ?? 0) + before,
  };
}

/** Rows by their keys; those that are gone are left out. */
export async function rowsOfKeys(scope: Scope, kind: WallRows, keys: readonly string[]): Promise<RowOf[]> {
  const asked = new TaskQuestion();
  const from = SOURCES[kind].rows(asked, scope.today);
  const rows = await scope.sql<RowOf>(
    `select of.key, of.name, of.detail, of."group", of.members from (${from}) of where of.key = any(${asked.with(keys)}::text[])`,
    asked.params,
  );
  return kind === 'person' && keys.includes(WALL_NOBODY) ? [NOBODY, ...rows] : rows;
}

/** A schedule that may have dates in some rows: by the member that it names, null where its plan says whose they are. */
export interface ScheduleOfRows {
  readonly id: string;
  readonly member: string | null;
}

/** The schedules that may have dates in some rows. */
export async function schedulesOfRows(
  scope: Scope,
  filter: WallFilter,
  kind: WallRows,
  rows: readonly RowOf[],
): Promise<ScheduleOfRows[]> {
  const { ofSchedule } = SOURCES[kind];
  const asked = new TaskQuestion();
  const { from, where } = await schedulesOf(scope, asked, filter);
  if (ofSchedule === null) {
    return scope.sql<ScheduleOfRows>(`select s.id, null as member from ${from} where ${where}`, asked.params);
  }
  const members = asked.with([...new Set(rows.flatMap((row) => row.members))]);
  return scope.sql<ScheduleOfRows>(
    `select s.id, ${ofSchedule} as member from ${from} where ${where} and ${ofSchedule} = any(${members}::uuid[])`,
    asked.params,
  );
}
