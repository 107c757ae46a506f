import type { Logger } from 'pino';
import { asksForLoad, type OmittedOccurrence } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import {
  leftOutOf,
  lockedScheduleRows,
  type MakingSpan,
  makingFor,
  owedTasks,
  type ScheduleRow,
} from '../schedules/index.ts';
import { insertMadeTasks, type MadeTask } from '../tasks/stored/index.ts';
import { Run } from './entity.ts';
import { LATEST_FIRST } from './latest-first.ts';

/** Schedules made in one transaction: small enough to lock briefly, large enough to be quick. */
const BATCH = 500;
/** One is planned while the database writes the other. */
const BATCHES_AT_ONCE = 2;

/**
 * Makes every task that is due to exist: all occurrences whose appearance lies within the horizon. Safe to run
 * at any time, any number of times and in several processes at once.
 */
export async function runMaking(scope: Scope, why: Run['why'], log: Logger): Promise<Run> {
  const startedAt = scope.instant;
  const startedMs = performance.now();
  const runId = scope.newId();
  const all = await scope.sql<Pick<ScheduleRow, 'id' | 'assignment'> & { readonly hasStepByLoad: boolean }>(
    `select s.id, s.assignment, t.steps @> '[{"assignee": {"by": "leastToDo"}}]' as "hasStepByLoad" from schedule s
     join template t on t.workspace_id = s.workspace_id and t.id = s.template_id
     where s.workspace_id = $1 and s.deleted_at is null order by s.id`,
  );
  // Whoever has the least to do is told once all else is given away, and one after the other.
  const [byLoad, others] = [true, false].map((is) =>
    all.filter(({ assignment, hasStepByLoad }) => (hasStepByLoad || asksForLoad(assignment)) === is),
  );
  const batches = inBatches(others ?? []);
  const results: BatchResult[] = [];
  let next = 0;
  const makeInTurn = async () => {
    try {
      for (let at = next++; at < batches.length; at = next++)
        results[at] = await scope.transaction((tx) => makeBatch(tx, batches[at] ?? [], runId, log));
    } catch (error) {
      // What has failed once is not gone on with by the other.
      next = batches.length;
      throw error;
    }
  };
  const ended = await Promise.allSettled(Array.from({ length: BATCHES_AT_ONCE }, makeInTurn));
  for (const end of ended) if (end.status === 'rejected') throw end.reason;
  for (const batch of inBatches(byLoad ?? []))
    results.push(await scope.transaction((tx) => makeBatch(tx, batch, runId, log)));
  const sum = (count: (result: BatchResult) => number) => results.reduce((all, one) => all + count(one), 0);
  return scope.transaction(async (tx) => {
    await tx.sql('update workspace set made_on = $2::date where id = $1', [scope.today]);
    const milliseconds = Math.round(performance.now() - startedMs);
    return logged(tx, {
      ...{ id: runId, why, startedAt, milliseconds },
      made: sum(({ made }) => made),
      // Each is in one batch.
      schedules: sum(({ schedules }) => schedules),
      already: sum(({ already }) => already),
      problems: results.flatMap(({ problems }) => problems),
      waits: results.flatMap(({ waits }) => waits),
      leftOut: results.flatMap(({ leftOut }) => leftOut).slice(0, LEFT_OUT_TOLD),
      lapsed: sum(({ lapsed }) => lapsed),
    });
  });
}

function inBatches(rows: readonly { readonly id: string }[]): string[][] {
  const batches: string[][] = [];
  for (let at = 0; at < rows.length; at += BATCH) batches.push(rows.slice(at, at + BATCH).map(({ id }) => id));
  return batches;
}

/** Lines of what was left out that a run keeps. */
const LEFT_OUT_TOLD = 1000;

/** Makes what the run of another day makes of one schedule. */
export function makeOne(scope: Scope, scheduleId: string, asOf: string, span: MakingSpan): Promise<Run> {
  return scope.transaction(async (tx) => {
    const startedAt = tx.instant;
    const startedMs = performance.now();
    const id = tx.newId();
    const result = await makeBatch(tx, [scheduleId], id, null, span);
    const milliseconds = Math.round(performance.now() - startedMs);
    const one = { scheduleIds: [scheduleId], fromDate: asOf };
    return logged(tx, { id, why: 'byHand', startedAt, milliseconds, ...result, ...one });
  });
}

type RunResult = Pick<Run, 'id' | 'why' | 'startedAt' | 'milliseconds'> & BatchResult & Partial<Run>;

async function logged(scope: Scope, result: RunResult): Promise<Run> {
  const run = await scope.insert(Run, {
    byId: scope.person?.id ?? null,
    fromDate: null,
    toDate: null,
    scheduleIds: [],
    state: 'done',
    total: result.made,
    ...result,
  });
  await scope.tell('runs', ...(result.made > 0 || result.lapsed > 0 ? (['tasks', 'schedules'] as const) : []));
  return run;
}

interface BatchResult {
  readonly made: number;
  readonly schedules: number;
  readonly already: number;
  readonly problems: Run['problems'];
  readonly waits: Run['waits'];
  readonly leftOut: Run['leftOut'];
  readonly lapsed: number;
}

/** Where a schedule says so, what is still open lapses, with its set, on the day of the next. */
async function lapseOld(scope: Scope, ids: readonly string[]): Promise<number> {
  if (ids.length === 0) return 0;
  const lapsed = await scope.sql<{ id: string }>(
    `update task set state = 'lapsed', version = version + 1
     where workspace_id = $1 and schedule_id = any($2::uuid[]) and state = 'open'
       and exists (select 1 from task later where later.workspace_id = $1 and later.schedule_id = task.schedule_id and later.step_key = ''
         and later.nominal_date > task.nominal_date and later.work_on <= $3::date)
     returning id`,
    [ids, scope.today],
  );
  for (const { id } of lapsed) await scope.record('task', id, 'lapsed', { state: { from: 'open', to: 'lapsed' } });
  return lapsed.length;
}

async function makeBatch(
  scope: Scope,
  ids: readonly string[],
  runId: string,
  log: Logger | null,
  span: MakingSpan = {},
): Promise<BatchResult> {
  const rows = await lockedScheduleRows(scope, ids);
  const making = await makingFor(scope, rows, { settles: true });
  const tasks: MadeTask[] = [];
  const problems: Run['problems'] = [];
  const waits: Run['waits'] = [];
  const leftOut: Run['leftOut'] = [];
  const waitsFrom = new Map<string, string>();
  for (const row of rows) {
    const owed = owedTasks(scope, row, making, span);
    if (owed.kind === 'tasks') {
      tasks.push(...owed.tasks);
      for (const [because, dates] of countOf(leftOutOf(scope, row, making.calendar, span)))
        leftOut.push({ scheduleId: row.id, because, dates });
      if (owed.waitsFrom !== null) waitsFrom.set(row.id, owed.waitsFrom);
      if (owed.waited !== null && row.overlap.kind === 'wait' && owed.waited > row.overlap.limitDays)
        waits.push({ scheduleId: row.id, days: owed.waited });
    } else {
      problems.push({ scheduleId: row.id, message: owed.message });
      log?.error({ scheduleId: row.id, problem: owed.message }, 'a schedule could not be planned');
    }
  }
  const made = await insertMadeTasks(scope, tasks, runId);
  const lapsed = await lapseOld(
    scope,
    rows.filter(({ overlap }) => overlap.kind === 'lapse').map(({ id }) => id),
  );
  await settle(scope, rows, problems, waitsFrom);
  const { tasks: count, schedules } = made;
  return { made: count, schedules, already: tasks.length - count, problems, waits, leftOut, lapsed };
}

function countOf(leftOut: ReturnType<typeof leftOutOf>): Map<OmittedOccurrence['because'], number> {
  const counts = new Map<OmittedOccurrence['because'], number>();
  for (const { because } of leftOut) counts.set(because, (counts.get(because) ?? 0) + 1);
  return counts;
}

async function settle(
  scope: Scope,
  rows: readonly ScheduleRow[],
  problems: Run['problems'],
  waitsFrom: ReadonlyMap<string, string>,
): Promise<void> {
  const failed = new Map(problems.map(({ scheduleId, message }) => [scheduleId, message]));
  await scope.sql(
    `update schedule set problem = fate.problem,
       settled_to = case when fate.problem is null then greatest(settled_to, least($2::date, fate.waits_from)) else settled_to end
     from unnest($3::uuid[], $4::text[], $5::date[]) as fate (id, problem, waits_from)
     where schedule.workspace_id = $1 and schedule.id = fate.id`,
    [
      scope.today,
      rows.map(({ id }) => id),
      rows.map(({ id }) => failed.get(id) ?? null),
      rows.map(({ id }) => waitsFrom.get(id) ?? null),
    ],
  );
}

/** The last run of the workspace, if there was one. */
export async function lastRun(scope: Scope): Promise<Run | null> {
  const [found] = await scope.sql<{ id: string }>(
    `select id from run where workspace_id = $1 order by ${LATEST_FIRST} limit 1`,
  );
  return found ? scope.one(Run, found.id, 'run') : null;
}
