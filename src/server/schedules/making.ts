import type { Logger } from 'pino';
import { ZodError } from 'zod';
import {
  dayOfIso,
  InvalidRuleError,
  NoWorkingDayError,
  occurrencesWithinHorizon,
  RRuleError,
  type WorkingCalendar,
} from '../../core/index.ts';
import type { Scope } from '../scope.ts';
import { insertMadeTasks, type MadeTask, madeTask } from '../tasks/made-task.ts';
import { Run } from '../workspace/entity.ts';
import { lockedScheduleRows, plannedSchedule, type ScheduleRow } from './schedule-row.ts';

/** Schedules made in one transaction: small enough to lock briefly, large enough to be quick. */
const BATCH = 500;

/**
 * Makes every task that is due to exist: all occurrences whose appearance lies within the horizon. Safe to run
 * at any time, any number of times and in several processes at once.
 */
export async function runMaking(scope: Scope, why: Run['why'], log: Logger): Promise<Run> {
  const startedAt = scope.instant;
  const startedMs = performance.now();
  const ids = await scope.sql<{ id: string }>('select id from schedule where workspace_id = $1 order by id');
  let made = 0;
  let already = 0;
  const problems: Run['problems'] = [];
  for (let at = 0; at < ids.length; at += BATCH) {
    const batch = ids.slice(at, at + BATCH).map(({ id }) => id);
    const result = await scope.transaction((tx) => makeBatch(tx, batch, log));
    made += result.made;
    already += result.already;
    problems.push(...result.problems);
  }
  return scope.transaction(async (tx) => {
    await tx.sql('update workspace set made_on = greatest(made_on, $2::date) where id = $1', [scope.today]);
    const run = await tx.insert(Run, {
      id: tx.newId(),
      why,
      startedAt,
      milliseconds: Math.round(performance.now() - startedMs),
      made,
      already,
      problems,
    });
    await tx.tell('runs', ...(made > 0 ? (['tasks', 'schedules'] as const) : []));
    return run;
  });
}

interface BatchResult {
  readonly made: number;
  readonly already: number;
  readonly problems: Run['problems'];
}

async function makeBatch(scope: Scope, ids: readonly string[], log: Logger): Promise<BatchResult> {
  const calendar = await scope.calendar();
  const people = await scope.peopleNames();
  const rows = await lockedScheduleRows(scope, ids);
  const tasks: MadeTask[] = [];
  const problems: Run['problems'] = [];
  for (const row of rows) {
    const owed = owedTasks(scope, row, calendar, people);
    if (owed.kind === 'tasks') tasks.push(...owed.tasks);
    else {
      problems.push({ scheduleId: row.id, message: owed.message });
      log.error({ scheduleId: row.id, problem: owed.message }, 'a schedule could not be planned');
    }
  }
  const made = await insertMadeTasks(scope, tasks);
  await settle(scope, rows, problems);
  return { made: made.length, already: tasks.length - made.length, problems };
}

/** The tasks that a schedule owes by now, or why its plan can't be computed: one bad schedule does not stop the others. */
export function owedTasks(
  scope: Scope,
  row: ScheduleRow,
  calendar: WorkingCalendar,
  people: ReadonlyMap<string, string>,
): { kind: 'tasks'; tasks: MadeTask[] } | { kind: 'problem'; message: string } {
  try {
    const occurrences = occurrencesWithinHorizon(plannedSchedule(scope, row), calendar, {
      from: Math.min(dayOfIso(row.settledTo), scope.now.day),
      upTo: scope.now.day + scope.workspace.horizonDays,
    });
    return { kind: 'tasks', tasks: occurrences.map((occurrence) => madeTask(scope, row, occurrence, people)) };
  } catch (error) {
    const message = planProblem(error);
    if (message === null) throw error;
    return { kind: 'problem', message };
  }
}

/** In words, why a stored schedule gives no plan; null for an error that is a fault of ours. */
export function planProblem(error: unknown): string | null {
  if (error instanceof NoWorkingDayError || error instanceof InvalidRuleError || error instanceof RRuleError)
    return error.message;
  if (error instanceof ZodError)
    return `Its rule as stored can't be read: ${error.issues[0]?.message ?? 'unknown form'}`;
  return null;
}

async function settle(scope: Scope, rows: readonly ScheduleRow[], problems: Run['problems']): Promise<void> {
  const failed = new Map(problems.map(({ scheduleId, message }) => [scheduleId, message]));
  await scope.sql(
    `update schedule set problem = fate.problem,
       settled_to = case when fate.problem is null then greatest(settled_to, $2::date) else settled_to end
     from unnest($3::uuid[], $4::text[]) as fate (id, problem)
     where schedule.workspace_id = $1 and schedule.id = fate.id`,
    [scope.today, rows.map(({ id }) => id), rows.map(({ id }) => failed.get(id) ?? null)],
  );
}

/** The last run of the workspace, if there was one. */
export async function lastRun(scope: Scope): Promise<Run | null> {
  const [found] = await scope.sql<{ id: string }>(
    'select id from run where workspace_id = $1 order by id desc limit 1',
  );
  return found ? scope.one(Run, found.id, 'run') : null;
}
