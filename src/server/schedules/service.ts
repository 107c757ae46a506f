import type { Impact, Reach, Schedule as ScheduleAnswer, ScheduleInput, Sync } from '../../contract/index.ts';
import {
  dayOfIso,
  daysWaited,
  isDated,
  isEnded,
  isOverdue,
  isoOfDay,
  nextDated,
  type Pause,
  type PlannedSchedule,
  planDays,
  recurrenceProblems,
  revisionAfter,
  revisionOn,
  setMinutes,
  type WorkingCalendar,
  writePhrase,
} from '../../core/index.ts';
import { Asset, Client } from '../clients/entity.ts';
import { type FieldChanges, fieldsBefore } from '../db/change.ts';
import { conflict, invalid, notFound } from '../http/refusal.ts';
import { namedOrNull } from '../named.ts';
import { Person } from '../people/entity.ts';
import { fieldChanges, type Scope } from '../scope.ts';
import { pastTasksOf, type SeriesTask } from '../tasks/series.ts';
import { recordOfTasks, restoreTasks, tasksInReach, withoutTasks } from '../tasks/snapshot.ts';
import { Template } from '../templates/entity.ts';
import { Schedule } from './entity.ts';
import { impactOf, plannedYear } from './impact.ts';
import { planProblem } from './making.ts';
import { archivePauses, plannedSchedule, type ScheduleFilter, type ScheduleRow, scheduleRows } from './schedule-row.ts';
import { type Synced, syncTasks, UNSEEN_ONLY } from './sync.ts';

const PAGE = 500;

export interface SavedSchedule {
  readonly schedule: ScheduleAnswer;
  readonly tasks: Sync;
  readonly changeId: string | null;
}

export async function listSchedules(scope: Scope, filter: Pick<ScheduleFilter, 'after' | 'templateIds'>) {
  const rows = await scheduleRows(scope, { ...filter, limit: PAGE + 1 });
  const page = rows.slice(0, PAGE);
  const last = page.at(-1);
  const more = rows.length > PAGE && last ? JSON.stringify([last.templateName.toLowerCase(), last.id]) : null;
  return { schedules: await answers(scope, page), more };
}

export async function oneSchedule(scope: Scope, id: string): Promise<ScheduleAnswer> {
  const [answer] = await answers(scope, await scheduleRows(scope, { ids: [id], withLast: true }));
  if (!answer) throw notFound('schedule');
  return answer;
}

async function answers(scope: Scope, rows: readonly ScheduleRow[]): Promise<ScheduleAnswer[]> {
  const calendar = await scope.calendar();
  const past = await pastTasksOf(
    scope,
    rows.map(({ id }) => id),
  );
  return rows.map((row) => answer(scope, row, past.get(row.id) ?? [], calendar));
}

function answer(
  scope: Scope,
  row: ScheduleRow,
  series: readonly SeriesTask[],
  calendar: WorkingCalendar,
): ScheduleAnswer {
  const schedule = plannedSchedule(scope, row);
  const { recurrence, timing, exceptions = [], revisions = [], last = null } = schedule;
  const takesOver = revisionAfter(schedule, scope.today);
  const ended = new Set(
    series.filter(({ task }) => isEnded(task.state as 'open')).map(({ nominalDate }) => nominalDate),
  );
  const plan = foresee(scope, row, ended, calendar);
  const paused = [...row.pauses, ...archivePauses(scope, row)].some((pause) => isPausing(pause, scope.today));
  return {
    id: row.id,
    version: row.version,
    template: {
      id: row.templateId,
      name: row.templateName,
      category: row.category,
      estimateMinutes: setMinutes({ estimateMinutes: row.estimateMinutes, steps: row.taskSteps }),
      titlePattern: row.titlePattern,
      isArchived: row.archivedAt !== null,
    },
    client: namedOrNull(row.clientId, row.clientName),
    asset: namedOrNull(row.assetId, row.assetName),
    assignee: namedOrNull(row.assigneeId, row.assigneeName),
    recurrence,
    timing,
    overlap: row.overlap,
    waits: waitsOf(scope, row, series, schedule, calendar),
    pauses: row.pauses,
    exceptions: [...exceptions],
    revisions: [...revisions],
    last,
    phrase: writePhrase(revisionOn(schedule, scope.today).recurrence, { start: 'unsaid' }),
    nextPhrase: takesOver && {
      from: takesOver.from,
      phrase: writePhrase(takesOver.recurrence, { start: 'unsaid' }),
    },
    state: plan.problem !== null ? 'problem' : paused ? 'paused' : plan.next === null ? 'ended' : 'running',
    problem: plan.problem,
    next: plan.next,
    timesAYear: plan.timesAYear,
    lastEight: series
      .filter(({ shows }) => shows)
      .slice(-8)
      .map(({ task }) => task),
    lateCount: series.filter(({ task }) => isOverdue(task)).length,
    since: recurrence.start,
  };
}

/** Where the next waits for one that is still open: for which, and for how long. */
function waitsOf(
  scope: Scope,
  { overlap }: ScheduleRow,
  series: readonly SeriesTask[],
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
): ScheduleAnswer['waits'] {
  if (overlap.kind !== 'wait') return null;
  const open = series.find(({ task }) => !isEnded(task.state as 'open'));
  if (!open) return null;
  const nominal = dayOfIso(open.nominalDate);
  const next = nextDated(schedule, calendar, nominal, (occurrence) => occurrence.nominal > nominal);
  const days = next && daysWaited([next], scope.now.day);
  return days === null ? null : { forOn: open.task.on, days, isTooLong: days > overlap.limitDays };
}

function isPausing({ from, to }: Pause, today: string): boolean {
  return from <= today && (to === null || to > today);
}

/** The next date still to be done, and how many a year. */
function foresee(scope: Scope, row: ScheduleRow, ended: ReadonlySet<string>, calendar: WorkingCalendar) {
  try {
    const schedule = {
      ...plannedSchedule(scope, row),
      pauses: [...row.pauses.filter(({ to }) => to !== null), ...archivePauses(scope, row)],
    };
    const today = scope.now.day;
    const year = planDays(schedule, calendar, today, today + 364).filter(isDated);
    const next = nextDated(schedule, calendar, today, ({ nominal }) => !ended.has(isoOfDay(nominal)));
    return { next: next && isoOfDay(next.on), timesAYear: year.length, problem: row.problem };
  } catch (error) {
    const problem = planProblem(error);
    if (problem === null) throw error;
    return { next: null, timesAYear: 0, problem };
  }
}

export function createSchedule(scope: Scope, input: ScheduleInput): Promise<SavedSchedule> {
  return scope.transaction(async (tx) => {
    await checkInput(tx, input);
    const id = tx.newId();
    await tx.insert(Schedule, {
      id,
      version: 1,
      ...stored(input),
      settledTo: tx.today,
      problem: null,
      createdAt: tx.instant,
    });
    const { counts: tasks } = await sync(tx, id);
    await tx.record('schedule', id, 'created', fieldChanges({}, stored(input)));
    await tx.tell('schedules', 'tasks', 'templates');
    return { schedule: await oneSchedule(tx, id), tasks, changeId: null };
  });
}

export function changeSchedule(
  scope: Scope,
  id: string,
  input: ScheduleInput & { version: number; reach: Reach },
): Promise<SavedSchedule> {
  return scope.transaction(async (tx) => {
    const before = await changeable(tx, id, input);
    return write(tx, before, stored(input), 'changed', input.reach);
  });
}

async function changeable(scope: Scope, id: string, input: ScheduleInput & { version: number }): Promise<Schedule> {
  const before = await scope.locked(Schedule, id, 'schedule');
  if (before.version !== input.version) {
    throw conflict(
      'Someone else changed this schedule since you opened it. Yours is still on the screen, not saved; “Put back” shows theirs.',
    );
  }
  await checkInput(scope, input);
  return before;
}

/** What saving a schedule would do: the change is made, looked at, and taken back. */
export function impactOfSchedule(
  scope: Scope,
  id: string,
  input: ScheduleInput & { version: number; reach: Reach },
): Promise<Impact> {
  return scope.rehearse(async (tx) => {
    const before = await changeable(tx, id, input);
    const rows = () => scheduleRows(tx, { ids: [id] });
    const year = await plannedYear(tx, await rows());
    await tx.save(Schedule, id, { ...stored(input), version: before.version + 1 });
    return impactOf(tx, await rows(), year, input.reach);
  });
}

export function pauseSchedule(scope: Scope, id: string): Promise<SavedSchedule> {
  return scope.transaction(async (tx) => {
    const before = await tx.locked(Schedule, id, 'schedule');
    if (before.pauses.some((pause) => isPausing(pause, tx.today))) throw conflict('It is paused already.');
    return write(tx, before, { pauses: [...before.pauses, { from: tx.today, to: null }] }, 'paused');
  });
}

export function resumeSchedule(scope: Scope, id: string): Promise<SavedSchedule> {
  return scope.transaction(async (tx) => {
    const before = await tx.locked(Schedule, id, 'schedule');
    if (!before.pauses.some((pause) => isPausing(pause, tx.today))) throw conflict('It is running already.');
    const pauses = before.pauses
      .map((pause) => (isPausing(pause, tx.today) ? { ...pause, to: tx.today } : pause))
      // A pause that ends on the day it began never was.
      .filter(({ from, to }) => from !== to);
    return write(tx, before, { pauses }, 'resumed');
  });
}

/** Puts fields of a schedule back to what a change found, and its tasks with them. */
export async function undoScheduleChange(scope: Scope, id: string, fields: FieldChanges): Promise<string> {
  const before = await scope.locked(Schedule, id, 'schedule');
  await write(scope, before, fieldsBefore(before, withoutTasks(fields)), 'undone');
  await restoreTasks(scope, fields);
  return 'The schedule is as it was before.';
}

async function write(
  scope: Scope,
  before: Schedule,
  changes: Partial<Schedule>,
  action: string,
  reach: Reach = UNSEEN_ONLY,
): Promise<SavedSchedule> {
  const inReach = await tasksInReach(scope, [before.id], reach);
  await scope.save(Schedule, before.id, { ...changes, version: before.version + 1 });
  const { counts: tasks } = await sync(scope, before.id, reach);
  const changeId = await scope.record('schedule', before.id, action, {
    ...fieldChanges(before, changes),
    ...(await recordOfTasks(scope, inReach)),
  });
  await scope.tell('schedules', 'tasks', 'templates');
  return { schedule: await oneSchedule(scope, before.id), tasks, changeId };
}

async function sync(scope: Scope, id: string, reach?: Reach): Promise<Synced> {
  const [row] = await scheduleRows(scope, { ids: [id] });
  if (!row) throw notFound('schedule');
  return syncTasks(scope, row, reach);
}

function stored(input: ScheduleInput) {
  return {
    templateId: input.templateId,
    clientId: input.clientId,
    assetId: input.assetId,
    assigneeId: input.assigneeId,
    recurrence: { v: 1 as const, ...input.recurrence },
    timing: { v: 1 as const, ...input.timing },
    overlap: input.overlap,
    pauses: input.pauses,
    exceptions: input.exceptions,
    revisions: input.revisions,
  };
}

/** What the schemas can't see: that all it names is of this workspace, and that the rule gives dates. */
async function checkInput(scope: Scope, input: ScheduleInput): Promise<void> {
  await scope.one(Template, input.templateId, 'template');
  if (input.assigneeId) await scope.one(Person, input.assigneeId, 'person');
  if (input.clientId) await scope.one(Client, input.clientId, 'client');
  if (input.assetId) {
    const asset = await scope.one(Asset, input.assetId, 'asset');
    if (asset.clientId !== input.clientId) {
      throw invalid([{ path: 'assetId', message: `${asset.name} does not belong to that client.` }]);
    }
  }
  for (const [i, exception] of input.exceptions.entries()) {
    if (exception.kind === 'change' && exception.change.assigneeId) {
      const { assigneeId } = exception.change;
      if (!(await scope.peopleNames()).has(assigneeId))
        throw invalid([{ path: `exceptions.${i}.change.assigneeId`, message: 'There is no such person here.' }]);
    }
  }
  const calendar = await scope.calendar();
  const problems = [
    { at: 'recurrence', recurrence: input.recurrence },
    ...input.revisions.map(({ recurrence }, i) => ({ at: `revisions.${i}.recurrence`, recurrence })),
  ].flatMap(({ at, recurrence }) =>
    recurrenceProblems(recurrence, calendar).map(({ path, message }) => ({ path: `${at}.${path}`, message })),
  );
  if (problems.length > 0) throw invalid(problems);
}
