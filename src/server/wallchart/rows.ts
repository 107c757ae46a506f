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
  /** The table, called `of`, and what is joined to it; the workspace is $1. */
  readonly from: string;
  /** What names a row. */
  readonly key: string;
  readonly name: string;
  /** What stands beside its name, and the rows it stands with; as text, never null. */
  readonly detail: string;
  readonly group: string;
  readonly members: string;
  /** Whether it is there though there is no work. */
  readonly isHere: (today: () => string) => string;
  /**
   * By what they are put in order, before their keys: by the rows they stand with, those that read alike apart, and by name.
   * Thousands are for the first few, so these are columns as they are, or told once of few: to write 10,000 names in small
   * letters takes as long as all else.
   */
  readonly order: string;
  readonly ofTask: string;
  /** Whether the index of that column goes on by due day. */
  readonly byDay: boolean;
  /** Null where only the plan says whose its dates are. */
  readonly ofSchedule: string | null;
}

const ITSELF = { key: 'of.id', members: 'array[of.id]' } as const;
/** The workspace's own assets come before those of clients. */
const SOURCES: Readonly<Record<WallRows, Source>> = {
  asset: {
    ...ITSELF,
    from: `asset of left join asset site on site.workspace_id = of.workspace_id and site.id = of.site_id
      left join client c on c.workspace_id = of.workspace_id and c.id = of.client_id`,
    name: 'of.name',
    detail: `coalesce(of.tag, '')`,
    group: `coalesce(c.name, site.name, '')`,
    isHere: () => 'false',
    order: `of.client_id is not null, coalesce(c.words, site.words) nulls last, coalesce(of.client_id, of.site_id),
      of.words, of.tag nulls first`,
    ofTask: 't.asset_id',
    byDay: true,
    ofSchedule: 's.asset_id',
  },
  site: {
    ...ITSELF,
    from: `(select * from asset where workspace_id = $1 and is_site and client_id is null) of cross join lateral (
        with recursive at as (
          select of.id union select a.id from asset a join at on a.workspace_id = $1 and a.site_id = at.id)
        select array_agg(id) as members from at) there`,
    members: 'there.members',
    name: 'of.name',
    detail: `coalesce(of.tag, '')`,
    group: `''`,
    isHere: () => 'false',
    order: 'of.words, of.tag nulls first',
    ofTask: 't.asset_id',
    byDay: true,
    ofSchedule: 's.asset_id',
  },
  client: {
    ...ITSELF,
    from: 'client of',
    name: 'of.name',
    detail: `''`,
    group: `''`,
    isHere: () => 'false',
    order: 'of.words',
    ofTask: 't.client_id',
    byDay: true,
    ofSchedule: 's.client_id',
  },
  person: {
    ...ITSELF,
    from: 'person of',
    name: 'of.name',
    detail: `''`,
    group: `coalesce(of.team, '')`,
    isHere: (today) => `(of.works_until is null or of.works_until >= ${today()}::date)`,
    order: `coalesce(of.team, '') = '', lower(of.team), of.team, lower(of.name)`,
    ofTask: 't.assignee_id',
    byDay: true,
    ofSchedule: null,
  },
  role: {
    from: `(select one.workspace_id, role, array_agg(one.id) as members
      from person one cross join jsonb_array_elements_text(one.roles) as role where one.workspace_id = $1 group by 1, 2) of`,
    key: 'of.role',
    members: 'of.members',
    name: 'of.role',
    detail: `''`,
    group: `''`,
    isHere: () => 'true',
    order: 'lower(of.role)',
    ofTask: 't.assignee_id',
    byDay: true,
    ofSchedule: null,
  },
  template: {
    ...ITSELF,
    from: 'template of',
    name: 'of.name',
    detail: `''`,
    group: `coalesce(of.category, '')`,
    isHere: () => 'false',
    order: `coalesce(of.category, '') = '', lower(of.category), of.category, lower(of.name)`,
    ofTask: 't.template_id',
    byDay: false,
    ofSchedule: 's.template_id',
  },
  schedule: {
    ...ITSELF,
    from: `schedule of join (
        select id, name, coalesce(category, '') as category,
          dense_rank() over (order by coalesce(category, '') = '', lower(category), category, lower(name)) as place
        from template where workspace_id = $1) ot on ot.id = of.template_id
      left join asset a on a.workspace_id = of.workspace_id and a.id = of.asset_id
      left join client c on c.workspace_id = of.workspace_id and c.id = of.client_id`,
    name: 'ot.name',
    detail: `coalesce(a.name, c.name, '')`,
    group: 'ot.category',
    isHere: () => 'of.deleted_at is null',
    order: 'ot.place, coalesce(a.words, c.words) nulls first',
    ofTask: 't.schedule_id',
    byDay: false,
    ofSchedule: 's.id',
  },
};

const shown = ({ key, name, detail, group, members }: Source): string =>
  `${key}::text as key, ${name} as name, ${detail} as detail, ${group} as "group", ${members} as members`;

/** The column of tasks that names a member of such a row. */
export const taskColumnOf = (rows: WallRows): string => SOURCES[rows].ofTask;

/** Whether they show whose the work is: all of it, then. */
export const isOfPeople = (rows: WallRows): boolean => SOURCES[rows].ofSchedule === null;

/**
 * Whether an index tells the tasks of a row by their due days. Else those of all rows are looked through by day, and each is
 * kept or not before it is put to its row: the database would rather put all of them to their rows and throw most away.
 */
export const isFoundByDay = (rows: WallRows): boolean => SOURCES[rows].byDay;

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

/** The schedules `s` that they may foresee dates of, as SQL; whose the dates are is told from their plans. */
async function schedulesOf(scope: Scope, asked: TaskQuestion, { category, template, client, site }: WallFilter) {
  const conditions = ['s.workspace_id = $1', 's.deleted_at is null'];
  if (category !== undefined)
    conditions.push(
      `s.template_id in (select id from template where workspace_id = $1 and category = ${asked.with(category)})`,
    );
  if (template !== undefined) conditions.push(`s.template_id = ${asked.with(template)}::uuid`);
  if (client !== undefined) conditions.push(`s.client_id = ${asked.with(client)}::uuid`);
  if (site !== undefined) conditions.push(`s.asset_id = any(${asked.with(await assetIdsAt(scope, site))}::uuid[])`);
  return conditions.join(' and ');
}

/** Nobody's work, in a row of its own before those of people. */
const NOBODY: RowOf = { key: WALL_NOBODY, name: 'nobody yet', detail: '', group: '', members: [] };

interface AskedRows extends WallFilter {
  readonly rows: WallRows;
  readonly find?: string | undefined;
  readonly empty?: 'yes' | undefined;
}

/** Which rows are asked for. */
interface RowsThere {
  readonly source: Source;
  readonly where: string;
  readonly params: readonly unknown[];
  /** Whether nobody's stands before them. */
  readonly hasNobody: boolean;
}

/** The rows for which there is work in those days, or that are there without; all of them where those without work are asked for. */
export async function rowsThere(scope: Scope, asked: AskedRows, days: WallDays): Promise<RowsThere> {
  const { rows: kind, find, empty } = asked;
  const source = SOURCES[kind];
  const { ofTask, ofSchedule, members, isHere } = source;
  const question = empty === undefined ? await tasksOf(scope, asked, days) : new TaskQuestion();
  const ofTasks = question.where;
  const conditions = ['of.workspace_id = $1'];
  for (const word of plainWords(find ?? '').filter(Boolean))
    conditions.push(
      `plain_words(concat_ws(' ', ${source.name}, ${source.detail}, ${source.group})) like ${question.with(`%${likeLetters(word)}%`)}`,
    );
  if (empty === undefined) {
    const reasons = [isHere(() => question.with(scope.today))];
    // Asked first: a schedule is found sooner than that there is no task.
    if (ofSchedule !== null) {
      const schedules = await schedulesOf(scope, question, asked);
      // Each has itself as its one member, but for sites.
      reasons.push(
        kind === 'site'
          ? `exists (select from schedule s where ${schedules} and ${ofSchedule} = any(${members}))`
          : `of.id in (select ${ofSchedule} from schedule s where ${schedules})`,
      );
    }
    reasons.push(`exists (select from task t where ${ofTasks} and ${ofTask} = any(${members}))`);
    conditions.push(`(${reasons.join(' or ')})`);
  }
  return {
    source,
    where: conditions.join(' and '),
    params: question.params,
    hasNobody: kind === 'person' && (find ?? '').trim() === '',
  };
}

/** Rows from a place on, by what they stand with and by name: of people nobody's comes first. How many there are in all is told along. */
export async function rowsFrom(
  scope: Scope,
  { source, where, params, hasNobody }: RowsThere,
  start: number,
): Promise<{ rows: RowOf[]; count: number }> {
  const { from, key, order } = source;
  const before = hasNobody ? 1 : 0;
  const found = await scope.sql<RowOf & { count: number }>(
    `select ${shown(source)}, found.count from ${from}
       join (select ${key} as key, (count(*) over ())::int as count from ${from} where ${where} order by ${order}, ${key}
         offset ${Math.max(0, start - before)} limit ${WALL_ROWS_AT_ONCE - (start === 0 ? before : 0)}) found on found.key = ${key}
     where of.workspace_id = $1 order by ${order}, ${key}`,
    params,
  );
  // Where none stands from there on, how many stand before it.
  const [counted] =
    found.length === 0 && start > before
      ? await scope.sql<{ count: number }>(`select count(*)::int as count from ${from} where ${where}`, params)
      : found;
  const rows = found.map(({ count: _, ...row }): RowOf => row);
  return { rows: hasNobody && start === 0 ? [NOBODY, ...rows] : rows, count: (counted?.count ?? 0) + before };
}

/** Rows by their keys; those that are gone are left out. */
export async function rowsOfKeys(scope: Scope, kind: WallRows, keys: readonly string[]): Promise<RowOf[]> {
  const source = SOURCES[kind];
  const rows = await scope.sql<RowOf>(
    `select ${shown(source)} from ${source.from} where of.workspace_id = $1 and ${source.key}::text = any($2::text[])`,
    [keys],
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
  const where = await schedulesOf(scope, asked, filter);
  if (ofSchedule === null) {
    return scope.sql<ScheduleOfRows>(`select s.id, null as member from schedule s where ${where}`, asked.params);
  }
  const members = asked.with([...new Set(rows.flatMap((row) => row.members))]);
  return scope.sql<ScheduleOfRows>(
    `select s.id, ${ofSchedule} as member from schedule s where ${where} and ${ofSchedule} = any(${members}::uuid[])`,
    asked.params,
  );
}
