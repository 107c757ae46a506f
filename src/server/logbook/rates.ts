import {
  LOG_ROWS_A_PAGE,
  type LogFigures,
  type LogFilter,
  type LogGrouping,
  type LogRow,
} from '../../contract/index.ts';
import { DAYS_A_WEEK, dayOfIso, isoOfDay, mondayOf } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { GROUP_KEYS, GROUP_NAMES, type TaskQuestion } from '../task-list/index.ts';
import { TO_DO } from '../tasks/stored/index.ts';
import { askedOf, endedFrom, entriesOf } from './asked.ts';

const NOTHING: LogFigures = { onTime: 0, late: 0, skipped: 0, lapsed: 0, open: 0 };

/**
 * The figures of the tasks that fit, by a key: each is counted in one of them, but for what is held up or not due yet. Told
 * from an index alone where no more is asked.
 */
function figuresPer(scope: Scope, asked: TaskQuestion, key: string, isKept = false): string {
  const today = asked.with(scope.today);
  const isOpen = `(t.state in ${TO_DO} and t.due_on < ${today}::date and (t.held_until is null or t.held_until <= ${today}::date))`;
  const of = (which: string) => `(coalesce(sum(n) filter (where ${which}), 0))::int`;
  return `select key, ${of('is_on_time')} as "onTime", ${of('not is_on_time')} as late,
      ${of("state = 'skipped'")} as skipped, ${of("state = 'lapsed'")} as lapsed, ${of('is_open')} as open
    from (${isKept ? keptCounts(asked, key, isOpen) : taskCounts(asked, key, isOpen)}) counted group by key`;
}

const taskCounts = ({ where }: TaskQuestion, key: string, isOpen: string) =>
  `select ${key} as key, t.state, t.on_time as is_on_time, ${isOpen} as is_open, count(*) as n
   from task t where ${where} group by 1, 2, 3, 4`;

/** The same, of days alone: what ended as it is kept by the day, and of the tasks themselves only those that are open. */
const keptCounts = ({ where }: TaskQuestion, key: string, isOpen: string) =>
  `select ${key} as key, t.state, t.on_time as is_on_time, false as is_open, sum(t.n) as n
   from ended_count t where ${where} group by 1, 2, 3
   union all
   select ${key}, t.state, null, true, count(*) from task t where ${where} and ${isOpen} group by 1, 2`;

/** How much of what was due was on time, by the week; all together, and in as many days before. */
export async function ratesOf(scope: Scope, filter: LogFilter) {
  const first = dayOfIso(filter.from);
  const days = dayOfIso(filter.to) - first + 1;
  const monday = mondayOf(first);
  const { isKept } = endedFrom(filter);
  const [rows, before, entries] = await scope.atOnce(
    async () => {
      const asked = await askedOf(scope, filter);
      const at = `(t.due_on - ${asked.with(isoOfDay(monday))}::date) / ${DAYS_A_WEEK}`;
      return scope.sql<LogFigures & { key: number }>(figuresPer(scope, asked, at, isKept), asked.params);
    },
    async () => {
      const asked = await askedOf(scope, { ...filter, from: isoOfDay(first - days), to: isoOfDay(first - 1) });
      return scope.sql<LogFigures & { key: number }>(figuresPer(scope, asked, '0', isKept), asked.params);
    },
    async () => {
      const asked = await entriesOf(scope, filter);
      const { table, count } = endedFrom(filter, filter.kind);
      return scope.sql<{ count: number }>(
        `select ${count()} as count from ${table} where ${asked.where}`,
        asked.params,
      );
    },
  );
  const byWeek = new Map(rows.map(({ key, ...week }) => [key, week]));
  const weeks = Array.from({ length: Math.floor((first + days - 1 - monday) / DAYS_A_WEEK) + 1 }, (_, at) => ({
    monday: isoOfDay(monday + at * DAYS_A_WEEK),
    ...(byWeek.get(at) ?? NOTHING),
  }));
  return {
    weeks,
    all: rows.reduce((sum, week) => together(sum, week), NOTHING),
    before: before.reduce((sum, all) => together(sum, all), NOTHING),
    entries: entries[0]?.count ?? 0,
  };
}

const together = (a: LogFigures, b: LogFigures): LogFigures => ({
  onTime: a.onTime + b.onTime,
  late: a.late + b.late,
  skipped: a.skipped + b.skipped,
  lapsed: a.lapsed + b.lapsed,
  open: a.open + b.open,
});

const KEYS: Readonly<Record<LogGrouping, string>> = { ...GROUP_KEYS, schedule: 't.schedule_id' };
const NAMES: Readonly<Record<LogGrouping, (typeof GROUP_NAMES)['client']>> = {
  ...GROUP_NAMES,
  schedule: {
    from: `left join schedule of on of.workspace_id = $1 and of.id = g.key
      left join template w on w.workspace_id = of.workspace_id and w.id = of.template_id
      left join asset a on a.workspace_id = of.workspace_id and a.id = of.asset_id
      left join client c on c.workspace_id = of.workspace_id and c.id = of.client_id`,
    name: 'w.name',
    detail: "coalesce(a.name, c.name, '')",
  },
};

/** The figures by what tasks have in common: what was missed most often first, as often as it was missed. */
export async function figuresBy(
  scope: Scope,
  { by, start, ...filter }: LogFilter & { readonly by: LogGrouping; readonly start: number },
): Promise<{ start: number; count: number; rows: LogRow[] }> {
  const asked = await askedOf(scope, filter);
  const { from, name, detail } = NAMES[by];
  const told = figuresPer(scope, asked, KEYS[by]);
  const rows = await scope.sql<LogRow & { all: number }>(
    `select coalesce(g.key::text, '') as key, ${name} as name, ${detail} as detail, g."onTime", g.late, g.skipped, g.lapsed, g.open,
       g.all::int
     from (select *, count(*) over () as all from (${told}) sums where "onTime" + late + skipped + lapsed + open > 0
     order by late + lapsed + open desc, "onTime", key offset ${start} limit ${LOG_ROWS_A_PAGE}) g ${from}
     order by g.late + g.lapsed + g.open desc, g."onTime", g.key`,
    asked.params,
  );
  return { start, count: rows[0]?.all ?? 0, rows: rows.map(({ all: _, ...row }) => row) };
}
