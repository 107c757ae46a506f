import { In } from 'typeorm';
import type { Named, Run as RunAnswer } from '../../contract/index.ts';
import { notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { IS_TOUCHED } from '../tasks/reachable-task.ts';
import { taskLines } from '../tasks/task-row.ts';
import { removeTasks } from '../tasks/written-task.ts';
import { Run } from './entity.ts';
import { sayTakenBack } from './fill.ts';

const RUNS_SHOWN = 60;
const TASKS_SHOWN = 120;

export async function describeRun(scope: Scope, run: Run): Promise<RunAnswer> {
  return describe(scope, run, await scope.peopleNames());
}

function describe(scope: Scope, run: Run, people: ReadonlyMap<string, string>): RunAnswer {
  return {
    id: run.id,
    why: run.why,
    by: run.byId === null ? null : (people.get(run.byId) ?? null),
    startedAt: scope.moment(run.startedAt),
    milliseconds: run.milliseconds,
    made: run.made,
    already: run.already,
    problems: run.problems,
    waits: run.waits,
    leftOut: run.leftOut,
    lapsed: run.lapsed,
    from: run.fromDate,
    to: run.toDate,
    total: run.total,
    scheduleCount: run.scheduleIds.length,
    state: run.state,
  };
}

/** The last runs, newest first. */
export async function listRuns(scope: Scope): Promise<{ runs: RunAnswer[] }> {
  const ids = await scope.sql<{ id: string }>(
    `select id from run where workspace_id = $1 order by started_at desc, id desc limit ${RUNS_SHOWN}`,
  );
  const found = await scope.find(Run, { id: In(ids.map(({ id }) => id)) });
  const byId = new Map(found.map((run) => [run.id, run]));
  const people = await scope.peopleNames();
  return { runs: ids.flatMap(({ id }) => byId.get(id) ?? []).map((run) => describe(scope, run, people)) };
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
  const [count] = await scope.sql<{ there: number; keeps: number | null }>(
    `select count(*)::int as there, case when $3 then (
       select count(*)::int from task where workspace_id = $1 and run_id = $2 and (state <> 'open' or ${IS_TOUCHED})) end as keeps
     from task where workspace_id = $1 and run_id = $2`,
    [id, canTakeBack(run)],
  );
  const first = await scope.sql<{ id: string }>(
    `select id from task where workspace_id = $1 and run_id = $2 order by work_on, set_index, id limit ${TASKS_SHOWN}`,
    [id],
  );
  return {
    run: await describeRun(scope, run),
    schedules: await namesOf(scope, run),
    tasks: await taskLines(
      scope,
      first.map((task) => task.id),
    ),
    there: count?.there ?? 0,
    keeps: count?.keeps ?? null,
  };
}

/** Other runs make what is due anyway. */
const canTakeBack = ({ why, scheduleIds }: Run) => why === 'fill' || scheduleIds.length > 0;

/** What the schedules are called that a run tells of. */
function namesOf(scope: Scope, { problems, waits, leftOut }: Run): Promise<Named[]> {
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
