import { quickAddJob } from 'graphile-worker';
import type pg from 'pg';
import { type FillDay, type FillInput, type FillRow, MAX_FILL_DAYS } from '../../contract/index.ts';
import {
  type Assignment,
  type CivilDay,
  dayOfIso,
  isDated,
  isoOfDay,
  MAIN_PART,
  type OmittedOccurrence,
  type PlannedOccurrence,
  partDays,
  planDays,
  plural,
  revisionOn,
  type SetPart,
  type WorkingCalendar,
} from '../../core/index.ts';
import { invalid } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import {
  lockedScheduleRows,
  type Making,
  madeTasks,
  makingFor,
  partsOf,
  plannedSchedule,
  planProblem,
  type ScheduleRow,
  scheduleRows,
  whoWords,
} from '../schedules/index.ts';
import { insertMadeTasks, type MadeTask } from '../tasks/stored/index.ts';
import { Run } from './entity.ts';

/** Schedules filled in one transaction: small enough that progress is seen, and that others wait only briefly. */
const BATCH = 20;

/** Every date of the period that a schedule has for certain, whether it becomes a task or not. */
function planOf(
  scope: Scope,
  row: ScheduleRow,
  calendar: WorkingCalendar,
  { from, to }: FillInput,
): PlannedOccurrence[] {
  const plan = planDays(plannedSchedule(scope, row), calendar, dayOfIso(from), dayOfIso(to));
  // One that waits for the last one has no date for certain.
  if (row.overlap.kind === 'wait') return [];
  return plan.filter((occurrence) => !isDated(occurrence) || !occurrence.isForeseen);
}

function tasksFor(scope: Scope, row: ScheduleRow, making: Making, input: FillInput): MadeTask[] {
  return madeTasks(scope, row, planOf(scope, row, making.calendar, input).filter(isDated), making);
}

function checkSpan(scope: Scope, { from, to }: FillInput): void {
  const days = dayOfIso(to) - dayOfIso(from) + 1;
  if (days < 1) throw invalid([{ path: 'to', message: 'The last day lies before the first.' }]);
  if (days > MAX_FILL_DAYS)
    throw invalid([{ path: 'to', message: `A period of ${MAX_FILL_DAYS} days at most: fill the rest after it.` }]);
  if (from < scope.today)
    throw invalid([{ path: 'from', message: 'A fill makes what is to come: begin today at the earliest.' }]);
}

type Counts = Pick<FillRow, 'new' | 'there' | 'paused' | 'dayOff' | 'skipped' | 'deleted'>;
const NO_COUNTS: Counts = { new: 0, there: 0, paused: 0, dayOff: 0, skipped: 0, deleted: 0 };

const FATE_OF_OMITTED = {
  paused: 'paused',
  'day off': 'dayOff',
  closed: 'dayOff',
  skipped: 'skipped',
  'same day as another': 'skipped',
  deleted: 'deleted',
} as const satisfies Record<OmittedOccurrence['because'], keyof Counts>;

/** What a fill would make, schedule by schedule and day by day, and what stands in the way of the rest. Makes nothing. */
export async function rehearseFill(scope: Scope, input: FillInput): Promise<{ rows: FillRow[]; days: FillDay[] }> {
  checkSpan(scope, input);
  const rows = await scheduleRows(scope, input.scheduleIds.length > 0 ? { ids: input.scheduleIds } : {});
  const there = await keysOf(scope, 'task', input);
  const deleted = await keysOf(scope, 'deleted_task', input);
  const isEach = rows.some(({ assignment }) => assignment.kind === 'eachOf');
  const making = isEach ? await makingFor(scope, rows) : null;
  const calendar = await scope.calendar();
  const sayWho = await whoWords(scope);
  const answer: FillRow[] = [];
  const days = new Map<CivilDay, Record<keyof Counts, number>>();
  for (const row of rows) {
    const counts = { ...NO_COUNTS };
    const count = (fate: keyof Counts, on: CivilDay) => {
      counts[fate]++;
      const day = days.get(on) ?? { ...NO_COUNTS };
      day[fate]++;
      days.set(on, day);
    };
    const base = {
      scheduleId: row.id,
      templateId: row.templateId,
      template: row.templateName,
      about: row.assetName ?? row.clientName ?? sayWho(row.assignment),
    };
    try {
      const plan = planOf(scope, row, calendar, input);
      const parts = partsOf(row);
      const eachOf = row.assignment.kind === 'eachOf' ? making?.whose(row) : undefined;
      const [thereOfRow, deletedOfRow] = [there.get(row.id), deleted.get(row.id)];
      // Thousands of schedules over a year: only the days are worked out, not the tasks.
      for (const one of plan) {
        if (!isDated(one)) {
          count(FATE_OF_OMITTED[one.because], one.on);
          continue;
        }
        for (const part of parts) {
          const on = part.key === MAIN_PART ? one.on : partDays(one, part, calendar).on;
          for (const place of placesOf(part, eachOf?.(one))) {
            const fate = thereOfRow?.has(one.nominal, place)
              ? 'there'
              : deletedOfRow?.has(one.nominal, place)
                ? 'deleted'
                : 'new';
            count(fate, on);
          }
        }
      }
      answer.push({ ...base, ...counts, remark: plan.length === 0 ? noDates(scope, row, input) : '' });
    } catch (error) {
      const problem = planProblem(error);
      if (problem === null) throw error;
      answer.push({ ...base, ...NO_COUNTS, remark: problem });
    }
  }
  const inOrder = [...days].sort(([a], [b]) => a - b);
  return { rows: answer, days: inOrder.map(([on, counts]) => ({ on: isoOfDay(on), ...counts })) };
}

function noDates(scope: Scope, row: ScheduleRow, { from }: FillInput): string {
  const { last, archivedAt, overlap } = row;
  if (archivedAt !== null) return 'its template is archived';
  const { end } = revisionOn(plannedSchedule(scope, row), from).recurrence;
  if (end.kind === 'on' && end.date < from) return 'has ended';
  return last === null && overlap.kind !== 'wait' ? 'no date in this period' : 'waits for the last one to be done';
}

/** Under what a part of a set is told apart from others of its day: by its step alone, or one for each of several. */
function placesOf({ key, assignee }: SetPart, assignment: Assignment | undefined): readonly string[] {
  if (assignment?.kind !== 'eachOf' || assignee.by !== 'set') return [key];
  return assignment.personIds.map((id) => `${key} ${id}`);
}

/** Nominal days and steps of one schedule. */
class SetKeys {
  private readonly byStep = new Map<string, Set<CivilDay>>();
  add(nominal: CivilDay, step: string): void {
    const days = this.byStep.get(step) ?? new Set();
    this.byStep.set(step, days.add(nominal));
  }
  has(nominal: CivilDay, step: string): boolean {
    return this.byStep.get(step)?.has(nominal) ?? false;
  }
}

/** Tasks that are there, or were deleted, near the period, by schedule. */
async function keysOf(
  scope: Scope,
  table: 'task' | 'deleted_task',
  { from, to }: FillInput,
): Promise<ReadonlyMap<string, SetKeys>> {
  const rows = await scope.sql<{ scheduleId: string; nominal: string; step: string }>(
    `select schedule_id as "scheduleId", nominal_date as nominal, step_key || case head when '' then '' else ' ' || head end as step from ${table}
     where workspace_id = $1 and schedule_id is not null and nominal_date between $2::date - 400 and $3::date + 400`,
    [from, to],
  );
  const keys = new Map<string, SetKeys>();
  for (const { scheduleId, nominal, step } of rows) {
    const ofSchedule = keys.get(scheduleId) ?? new SetKeys();
    ofSchedule.add(dayOfIso(nominal), step);
    keys.set(scheduleId, ofSchedule);
  }
  return keys;
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
      ...{ made: 0, schedules: 0 },
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
    const found = await scope.transaction(async (tx) => {
      // Whoever takes it back meanwhile waits for this batch, and the next one sees it.
      const run = await tx.locked(Run, runId, 'run');
      if (run.state !== 'running') return null;
      const tasks: MadeTask[] = [];
      const unplanned: Run['problems'] = [];
      const rows = await lockedScheduleRows(tx, scheduleIds.slice(at, at + BATCH));
      const making = await makingFor(tx, rows, { settles: true });
      for (const row of rows) {
        try {
          tasks.push(...tasksFor(tx, row, making, input));
        } catch (error) {
          const message = planProblem(error);
          if (message === null) throw error;
          unplanned.push({ scheduleId: row.id, message });
        }
      }
      await insertMadeTasks(tx, tasks, runId);
      await tx.save(Run, runId, { ...(await madeBy(tx, runId)), milliseconds: Math.round(performance.now() - begun) });
      await tx.tell('runs');
      return unplanned;
    });
    if (found === null) return;
    problems.push(...found);
  }
  await scope.transaction(async (tx) => {
    await tx.save(Run, runId, {
      ...(await madeBy(tx, runId)),
      problems,
      state: 'done',
      milliseconds: Math.round(performance.now() - begun),
    });
    await tx.tell('runs', 'tasks', 'schedules');
  });
}

async function madeBy(scope: Scope, runId: string): Promise<Pick<Run, 'made' | 'schedules'>> {
  const [row] = await scope.sql<Pick<Run, 'made' | 'schedules'>>(
    `select count(*)::int as made, count(distinct schedule_id)::int as schedules
     from task where workspace_id = $1 and run_id = $2`,
    [runId],
  );
  return row ?? { made: 0, schedules: 0 };
}

/** In words, what taking a fill back did. */
export function sayTakenBack(removed: number, kept: number): string {
  const gone = removed === 0 ? 'Nothing was taken back.' : `${plural(removed, 'task')} taken back.`;
  return kept === 0
    ? gone
    : `${gone} ${plural(kept, 'task')} ${kept === 1 ? 'stays' : 'stay'}: somebody has worked on ${kept === 1 ? 'it' : 'them'}.`;
}
