import type { Named, Overview, Run as RunAnswer, RunDetails } from '../../contract/index.ts';
import { groupBy } from '../../core/index.ts';
import { columnsOf } from '../platform/db/columns.ts';
import { notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { IS_TOUCHED, removeTasks, taskLines } from '../tasks/stored/index.ts';
import { Run } from './entity.ts';
import { sayTakenBack } from './fill.ts';
import { LATEST_FIRST } from './latest-first.ts';

const RUNS_SHOWN = 60;
const TASKS_SHOWN = 120;
/** Schedules of each kind that a run tells of. */
const DETAILS_SHOWN = 100;

/** What a line of the log is told from: the details of a run over ten thousand schedules are long. */
const LINE_FIELDS = [
  ...['id', 'why', 'byId', 'startedAt', 'milliseconds', 'made', 'already'],
  ...['lapsed', 'fromDate', 'toDate', 'total', 'state'],
] as const satisfies readonly (keyof Run)[];
type LineRow = Omit<Run, 'workspaceId' | 'problems' | 'waits' | 'leftOut' | 'scheduleIds' | 'schedules'> & {
  readonly problemCount: number;
  readonly leftOut: RunAnswer['leftOut'];
  readonly scheduleCount: number;
};

export async function describeRun(scope: Scope, run: Run): Promise<RunAnswer> {
  const sums = {
    problemCount: run.problems.length,
    leftOut: leftOutSums(run.leftOut),
    scheduleCount: run.scheduleIds.length,
  };
  return describe(scope, { ...run, ...sums }, await scope.peopleNames());
}

function describe(scope: Scope, run: LineRow, people: ReadonlyMap<string, string>): RunAnswer {
  return {
    id: run.id,
    why: run.why,
    by: run.byId === null ? null : (people.get(run.byId) ?? null),
    startedAt: scope.moment(run.startedAt),
    milliseconds: run.milliseconds,
    made: run.made,
    already: run.already,
    problemCount: run.problemCount,
    leftOut: run.leftOut,
    lapsed: run.lapsed,
    from: run.fromDate,
    to: run.toDate,
    total: run.total,
    scheduleCount: run.scheduleCount,
    state: run.state,
  };
}

/** As the list adds them up. */
function leftOutSums(leftOut: RunDetails['leftOut']): RunAnswer['leftOut'] {
  return [...groupBy(leftOut, ({ because }) => because)]
    .map(([because, all]) => ({ because, dates: all.reduce((sum, { dates }) => sum + dates, 0) }))
    .sort((a, b) => (a.because < b.because ? -1 : 1));
}

/** The last runs, newest first. */
export async function listRuns(scope: Scope): Promise<{ runs: RunAnswer[] }> {
  const rows = await scope.sql<LineRow>(
    `select ${columnsOf(Run, 'run', LINE_FIELDS)}, jsonb_array_length(problems) as "problemCount",
       coalesce((select jsonb_agg(jsonb_build_object('because', because, 'dates', dates) order by because) from (
         select one->>'because' as because, sum((one->>'dates')::int)::int as dates
         from jsonb_array_elements(left_out) one group by 1) sums), '[]') as "leftOut",
       jsonb_array_length(schedule_ids) as "scheduleCount"
     from run where workspace_id = $1 order by ${LATEST_FIRST} limit ${RUNS_SHOWN}`,
  );
  const people = await scope.peopleNames();
  return { runs: rows.map((run) => describe(scope, run, people)) };
}

/** Names of each kind that the last run is told with. */
const NAMES_TOLD = 3;

/** The last run over all schedules, with what came of it in a few words; null before the first. */
export async function lastRun(scope: Scope): Promise<Overview['lastRun']> {
  const [last] = await scope.sql<{ id: string }>(
    `select id from run where workspace_id = $1 and why <> 'fill' and from_date is null order by ${LATEST_FIRST} limit 1`,
  );
  if (!last) return null;
  const run = await scope.one(Run, last.id, 'run');
  const ofNobody = 'from task where workspace_id = $1 and run_id = $2 and assignee_id is null and offered_to is null';
  const first = (ids: readonly string[]) => [...new Set(ids)].slice(0, NAMES_TOLD);
  const [without, titles, told, names] = await scope.atOnce(
    () => scope.sql<{ count: number }>(`select count(*)::int as count ${ofNobody}`, [run.id]),
    () =>
      scope.sql<{ title: string }>(`select distinct title ${ofNobody} order by title limit ${NAMES_TOLD}`, [run.id]),
    () => describeRun(scope, run),
    () =>
      namesOf(scope, {
        problems: [],
        waits: run.waits.slice(0, DETAILS_SHOWN),
        leftOut: run.leftOut.slice(0, DETAILS_SHOWN),
      }),
  );
  const nameOf = new Map(names.map(({ id, name }) => [id, name]));
  const named = (all: readonly { readonly scheduleId: string }[]) =>
    first(all.flatMap(({ scheduleId }) => nameOf.get(scheduleId) ?? []));
  return {
    ...told,
    schedules: run.schedules,
    withNobody: without[0]?.count ?? 0,
    waits: run.waits.slice(0, DETAILS_SHOWN),
    waitCount: run.waits.length,
    leftOutNames: named(run.leftOut),
    waitNames: named(run.waits),
    nobodyNames: titles.map(({ title }) => title),
  };
}

interface OfRun {
  id: string;
  isTouched: boolean;
}

function tasksOfRun(scope: Scope, id: string, lock = ''): Promise<OfRun[]> {
  return scope.sql<OfRun>(
    `select id, (state <> 'open' or ${IS_TOUCHED}) as "isTouched" from task
     where workspace_id = $1 and run_id = $2 order by work_on, set_index, id ${lock}`,
    [id],
  );
}

export async function oneRun(scope: Scope, id: string) {
  const run = await scope.one(Run, id, 'run');
  const details = {
    problems: run.problems.slice(0, DETAILS_SHOWN),
    waits: run.waits.slice(0, DETAILS_SHOWN),
    leftOut: run.leftOut.slice(0, DETAILS_SHOWN),
  };
  const told = details.problems.length + details.waits.length + details.leftOut.length;
  const [[count], tasks, said, schedules] = await Promise.all([
    scope.sql<{ there: number; keeps: number | null }>(
      `select count(*)::int as there, case when $3 then (
         select count(*)::int from task where workspace_id = $1 and run_id = $2 and (state <> 'open' or ${IS_TOUCHED})) end as keeps
       from task where workspace_id = $1 and run_id = $2`,
      [id, canTakeBack(run)],
    ),
    firstTasks(scope, id),
    describeRun(scope, run),
    namesOf(scope, details),
  ]);
  return {
    run: said,
    details,
    more: run.problems.length + run.waits.length + run.leftOut.length - told,
    schedules,
    tasks,
    there: count?.there ?? 0,
    keeps: count?.keeps ?? null,
  };
}

async function firstTasks(scope: Scope, id: string) {
  const first = await scope.sql<{ id: string }>(
    `select id from task where workspace_id = $1 and run_id = $2 order by work_on, set_index, id limit ${TASKS_SHOWN}`,
    [id],
  );
  return taskLines(
    scope,
    first.map((task) => task.id),
  );
}

/** Other runs make what is due anyway. */
const canTakeBack = ({ why, scheduleIds }: Run) => why === 'fill' || scheduleIds.length > 0;

/** What the schedules are called that a run tells of. */
function namesOf(scope: Scope, { problems, waits, leftOut }: RunDetails): Promise<Named[]> {
  return scope.sql<Named>(
    `select s.id, concat_ws(', ', t.name, coalesce(a.name, c.name)) as name from schedule s
     join template t on t.workspace_id = s.workspace_id and t.id = s.template_id
     left join client c on c.workspace_id = s.workspace_id and c.id = s.client_id
     left join asset a on a.workspace_id = s.workspace_id and a.id = s.asset_id
     where s.workspace_id = $1 and s.id = any($2::uuid[])`,
    [[...new Set([...problems, ...waits, ...leftOut].map(({ scheduleId }) => scheduleId))]],
  );
}

/** Takes a fill, or the run of one schedule, back: its tasks that nobody has touched go, the others stay. */
export function undoRun(scope: Scope, id: string): Promise<{ said: string }> {
  return scope.transaction(async (tx) => {
    const run = await tx.locked(Run, id, 'run');
    if (!canTakeBack(run))
      throw notNow('Only a fill or the run of one schedule can be taken back: other runs make what is due anyway.');
    if (run.state === 'undone') throw notNow('This run has been taken back already.');
    const tasks = await tasksOfRun(tx, id, 'for no key update');
    const going = tasks.filter(({ isTouched }) => !isTouched).map((task) => task.id);
    await removeTasks(tx, going);
    await tx.save(Run, id, { state: 'undone', made: tasks.length - going.length });
    await tx.tell('runs', 'tasks', 'schedules');
    return { said: sayTakenBack(going.length, tasks.length - going.length) };
  });
}
