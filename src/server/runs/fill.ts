import { quickAddJob } from 'graphile-worker';
import type pg from 'pg';
import { type FillInput, type FillRow, MAX_FILL_DAYS } from '../../contract/index.ts';
import {
  type DatedOccurrence,
  dayOfIso,
  isDated,
  type OmittedOccurrence,
  type PlannedOccurrence,
  planDays,
  plural,
} from '../../core/index.ts';
import { invalid } from '../http/refusal.ts';
import { planProblem } from '../schedules/making.ts';
import { lockedScheduleRows, plannedSchedule, type ScheduleRow, scheduleRows } from '../schedules/schedule-row.ts';
import type { Scope } from '../scope.ts';
import { insertMadeTasks, type MadeTask, madeTasks } from '../tasks/made-task.ts';
import { Run } from '../workspace/entity.ts';

/** Schedules filled in one transaction: small enough that progress is seen, and that others wait only briefly. */
const BATCH = 20;

/** Every date of the period that a schedule has for certain, whether it becomes a task or not. */
async function planOf(scope: Scope, row: ScheduleRow, { from, to }: FillInput): Promise<PlannedOccurrence[]> {
  const plan = planDays(plannedSchedule(scope, row), await scope.calendar(), dayOfIso(from), dayOfIso(to));
  // One that waits for the last one has no date for certain.
  if (row.overlap.kind === 'wait') return [];
  return plan.filter((occurrence) => !isDated(occurrence) || !occurrence.isForeseen);
}

async function tasksFor(scope: Scope, row: ScheduleRow, input: FillInput): Promise<MadeTask[]> {
  const dated: DatedOccurrence[] = (await planOf(scope, row, input)).filter(isDated);
  return madeTasks(scope, row, dated, { calendar: await scope.calendar(), people: await scope.peopleNames() });
}

function checkSpan(scope: Scope, { from, to }: FillInput): void {
  const days = dayOfIso(to) - dayOfIso(from) + 1;
  if (days < 1) throw invalid([{ path: 'to', message: 'The last day lies before the first.' }]);
  if (days > MAX_FILL_DAYS)
    throw invalid([{ path: 'to', message: `A period of ${MAX_FILL_DAYS} days at most: fill the rest after it.` }]);
  if (from < scope.today)
    throw invalid([{ path: 'from', message: 'A fill makes what is to come: begin today at the earliest.' }]);
}

/** What a fill would make, schedule by schedule, and what stands in the way of the rest. Makes nothing. */
export async function rehearseFill(scope: Scope, input: FillInput): Promise<{ rows: FillRow[] }> {
  checkSpan(scope, input);
  const rows = await scheduleRows(scope, input.scheduleIds.length > 0 ? { ids: input.scheduleIds } : {});
  const there = await keysOf(scope, 'task', input);
  const deleted = await keysOf(scope, 'deleted_task', input);
  const answer: FillRow[] = [];
  for (const row of rows) {
    const base = {
      scheduleId: row.id,
      template: row.templateName,
      about: row.assetName ?? row.clientName ?? row.assigneeName,
      ...{ new: 0, there: 0, paused: 0, dayOff: 0, skipped: 0, deleted: 0, remark: '' },
    };
    try {
      const plan = await planOf(scope, row, input);
      const tasks = await tasksFor(scope, row, input);
      const keys = tasks.map((task) => `${task.scheduleId} ${task.nominalDate} ${task.stepKey}`);
      const omitted = (...because: OmittedOccurrence['because'][]) =>
        plan.filter((one) => !isDated(one) && because.includes(one.because)).length;
      const counts = {
        new: keys.filter((key) => !there.has(key) && !deleted.has(key)).length,
        there: keys.filter((key) => there.has(key)).length,
        paused: omitted('paused'),
        dayOff: omitted('day off', 'closed'),
        skipped: omitted('skipped', 'same day as another'),
        deleted: keys.filter((key) => deleted.has(key) && !there.has(key)).length,
      };
      answer.push({ ...base, ...counts, remark: plan.length === 0 ? noDates(row) : '' });
    } catch (error) {
      const problem = planProblem(error);
      if (problem === null) throw error;
      answer.push({ ...base, remark: problem });
    }
  }
  return { rows: answer };
}

function noDates({ last, archivedAt, overlap }: ScheduleRow): string {
  if (archivedAt !== null) return 'its template is archived';
  return last === null && overlap.kind !== 'wait' ? 'no date in this period' : 'waits for the last one to be done';
}

/** Tasks that are there, or were deleted, near the period. */
async function keysOf(scope: Scope, table: 'task' | 'deleted_task', { from, to }: FillInput): Promise<Set<string>> {
  const rows = await scope.sql<{ key: string }>(
    `select schedule_id || ' ' || to_char(nominal_date, 'YYYY-MM-DD') || ' ' || step_key as key from ${table}
     where workspace_id = $1 and schedule_id is not null and nominal_date between $2::date - 400 and $3::date + 400`,
    [from, to],
  );
  return new Set(rows.map(({ key }) => key));
}

/** Puts a fill into the log and hands it to the queue, which goes on with it whatever becomes of this process. */
export async function startFill(scope: Scope, pool: pg.Pool, input: FillInput): Promise<Run> {
  const { rows } = await rehearseFill(scope, input);
  const total = rows.reduce((sum, row) => sum + row.new, 0);
  if (total === 0) throw invalid([{ path: 'from', message: 'There is nothing to make in this period.' }]);
  const run = await scope.transaction((tx) =>
    tx.insert(Run, {
      id: tx.newId(),
      why: 'fill',
      startedAt: tx.instant,
      milliseconds: 0,
      made: 0,
      already: rows.reduce((sum, row) => sum + row.there, 0),
      problems: [],
      waits: [],
      leftOut: [],
      lapsed: 0,
      byId: tx.person?.id ?? null,
      fromDate: input.from,
      toDate: input.to,
      scheduleIds: rows.filter((row) => row.new > 0).map(({ scheduleId }) => scheduleId),
      state: 'running',
      total,
    }),
  );
  await quickAddJob(
    { pgPool: pool },
    'fill',
    { workspaceId: scope.workspace.id, runId: run.id },
    { jobKey: `fill:${run.id}` },
  );
  await scope.tell('runs');
  return run;
}

/** Makes what a fill is to make, batch by batch. Begun again after a fall it goes over all of it and doubles nothing. */
export async function carryOutFill(scope: Scope, runId: string): Promise<void> {
  const begun = performance.now();
  const { scheduleIds, fromDate, toDate, state } = await scope.one(Run, runId, 'run');
  if (state !== 'running' || fromDate === null || toDate === null) return;
  const input = { from: fromDate, to: toDate, scheduleIds };
  const problems: Run['problems'] = [];
  for (let at = 0; at < scheduleIds.length; at += BATCH) {
    const stopped = await scope.transaction(async (tx) => {
      // Whoever takes it back meanwhile waits for this batch, and the next one sees it.
      const run = await tx.locked(Run, runId, 'run');
      if (run.state !== 'running') return true;
      const tasks: MadeTask[] = [];
      for (const row of await lockedScheduleRows(tx, scheduleIds.slice(at, at + BATCH))) {
        try {
          tasks.push(...(await tasksFor(tx, row, input)));
        } catch (error) {
          const message = planProblem(error);
          if (message === null) throw error;
          problems.push({ scheduleId: row.id, message });
        }
      }
      await insertMadeTasks(tx, tasks, runId);
      await tx.save(Run, runId, { made: await madeBy(tx, runId), milliseconds: Math.round(performance.now() - begun) });
      await tx.tell('runs');
      return false;
    });
    if (stopped) return;
  }
  await scope.transaction(async (tx) => {
    await tx.save(Run, runId, {
      made: await madeBy(tx, runId),
      problems,
      state: 'done',
      milliseconds: Math.round(performance.now() - begun),
    });
    await tx.tell('runs', 'tasks', 'schedules');
  });
}

async function madeBy(scope: Scope, runId: string): Promise<number> {
  const [row] = await scope.sql<{ count: number }>(
    'select count(*) as count from task where workspace_id = $1 and run_id = $2',
    [runId],
  );
  return row?.count ?? 0;
}

/** In words, what taking a fill back did. */
export function sayTakenBack(removed: number, kept: number): string {
  const gone = removed === 0 ? 'Nothing was taken back.' : `${plural(removed, 'task')} taken back.`;
  return kept === 0
    ? gone
    : `${gone} ${plural(kept, 'task')} ${kept === 1 ? 'stays' : 'stay'}: somebody has worked on ${kept === 1 ? 'it' : 'them'}.`;
}
