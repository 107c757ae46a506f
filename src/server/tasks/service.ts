import type { DaySheet, Task as TaskAnswer, Tideline } from '../../contract/index.ts';
import {
  type Band,
  bandOf,
  COMING_DAYS,
  dayLoads,
  dayOfIso,
  isEnded,
  isoOfDay,
  nextDated,
  plural,
  revisionOn,
  writePhrase,
} from '../../core/index.ts';
import { type FieldChanges, fieldsBefore } from '../db/change.ts';
import { conflict, forbidden, invalid, notFound } from '../http/refusal.ts';
import { Person } from '../people/entity.ts';
import { projectedWork } from '../schedules/projection.ts';
import { plannedSchedule, scheduleRows } from '../schedules/schedule-row.ts';
import { followOn } from '../schedules/sync.ts';
import { fieldChanges, type Scope } from '../scope.ts';
import { Template } from '../templates/entity.ts';
import { Task, type Tick } from './entity.ts';
import { pastTasksOf } from './series.ts';
import { datedTask, type LookRow, lookOfRow, TASK_COLUMNS, TASK_JOINS, type TaskRow, taskLine } from './task-row.ts';

const UNFINISHED = `('open', 'underWay', 'toCheck')`;

/** What one person has to do on a day: late first, then the day by time, then what is coming. */
export async function daySheet(scope: Scope, personId: string, date: string | undefined): Promise<DaySheet> {
  const person = await scope.one(Person, personId, 'person');
  const now = scope.now;
  const day = date === undefined ? now.day : dayOfIso(date);
  const rows = await scope.sql<TaskRow>(
    `select ${TASK_COLUMNS} from ${TASK_JOINS}
     where t.workspace_id = $1 and t.assignee_id = $2 and (
       (t.starts_on <= $3::date + ${COMING_DAYS} and t.due_on >= $3::date)
       or (t.state in ${UNFINISHED} and (t.due_on <= $3::date or t.appears_on <= $3::date))
       or (t.done_at >= $3::date - 1 and t.done_at < $3::date + 2))`,
    [personId, isoOfDay(day)],
  );
  const bands: Record<Band, TaskRow[]> = { late: [], thisDay: [], coming: [] };
  for (const row of rows) {
    const band = bandOf({ ...datedTask(scope, row), startsOn: dayOfIso(row.startsOn) }, day, now);
    if (band) bands[band].push(row);
  }
  const projected = day > now.day ? await projectedWork(scope, day, day, personId) : [];
  return {
    person: { id: person.id, name: person.name, role: person.role, capacityMinutes: person.capacityMinutes },
    date: isoOfDay(day),
    late: bands.late.sort(byDue).map((row) => taskLine(scope, row)),
    thisDay: bands.thisDay.sort(byTimeOfDay).map((row) => taskLine(scope, row)),
    coming: bands.coming.sort(byDue).map((row) => taskLine(scope, row)),
    projected,
  };
}

function byDue(a: TaskRow, b: TaskRow): number {
  return a.dueOn.localeCompare(b.dueOn) || byTimeOfDay(a, b);
}

/** Finished work stands where it was done; the rest by its time, those without one last. */
function byTimeOfDay(a: TaskRow, b: TaskRow): number {
  return timeKey(a).localeCompare(timeKey(b)) || a.title.localeCompare(b.title) || a.id.localeCompare(b.id);
}

function timeKey(row: TaskRow): string {
  return row.startTime ?? row.dueTime ?? '~';
}

const TIDE_PAST_DAYS = 7;
const TIDE_COMING_DAYS = 42;

/** Work due per day over the past week and the coming six, of everyone or of one person. */
export async function tideline(scope: Scope, personId: string | undefined): Promise<Tideline> {
  const person = personId ? await scope.one(Person, personId, 'person') : null;
  const { day: today } = scope.now;
  const [from, to] = [today - TIDE_PAST_DAYS, today + TIDE_COMING_DAYS];
  const rows = await scope.sql<LookRow & Pick<Task, 'estimateMinutes'>>(
    `select state, appears_on as "appearsOn", due_on as "dueOn", due_time as "dueTime", zone, done_at as "doneAt", estimate_minutes as "estimateMinutes"
     from task where workspace_id = $1 and ($2::uuid is null or assignee_id = $2)
       and (due_on between $3::date and $4::date or (state in ${UNFINISHED} and due_on < $3::date))`,
    [personId ?? null, isoOfDay(from), isoOfDay(to)],
  );
  const tasks = rows.map((row) => ({ ...datedTask(scope, row), estimateMinutes: row.estimateMinutes }));
  const projected = await projectedWork(scope, today, to, personId);
  const calendar = await scope.calendar();
  const [capacity] = await scope.sql<{ minutes: number }>(
    'select coalesce(sum(capacity_minutes), 0)::int as minutes from person where workspace_id = $1 and ($2::uuid is null or id = $2)',
    [personId ?? null],
  );
  return {
    from: isoOfDay(from),
    to: isoOfDay(to),
    horizon: isoOfDay(today + scope.workspace.horizonDays),
    late: rows.filter((row) => !isEnded(row.state) && lookOfRow(scope, row).late).length,
    capacityMinutes: capacity?.minutes ?? 0,
    scope: person?.name ?? `all of ${scope.workspace.name}`,
    days: dayLoads(
      tasks,
      projected.map((line) => ({ dueOn: dayOfIso(line.dueOn), estimateMinutes: line.estimateMinutes })),
      from,
      to,
    ).map(({ day, done, open, projected: minutes, tasks: count }) => ({
      date: isoOfDay(day),
      done,
      open,
      projected: minutes,
      tasks: count,
      isOff: !calendar.isWorkingDay(day),
      holiday: calendar.holidayName(day) ?? null,
    })),
  };
}

/** A task with all there is to know when doing it. */
export async function oneTask(scope: Scope, id: string): Promise<TaskAnswer> {
  const [row] = await scope.sql<TaskRow & { instructions: string; doneByName: string | null }>(
    `select ${TASK_COLUMNS}, t.instructions, doer.name as "doneByName" from ${TASK_JOINS}
     left join person doer on doer.workspace_id = t.workspace_id and doer.id = t.done_by
     where t.workspace_id = $1 and t.id = $2`,
    [id],
  );
  if (!row) throw notFound('task');
  const template = await scope.one(Template, row.templateId, 'template');
  const people = new Map((await scope.find(Person)).map((person) => [person.id, person.name]));
  return {
    ...taskLine(scope, row),
    instructions: row.instructions,
    steps: row.checkLines.map(({ key, text }) => {
      const tick = row.ticks[key];
      return {
        key,
        text,
        tickedAt: tick ? scope.moment(new Date(tick.at)) : null,
        tickedBy: tick?.by ? (people.get(tick.by) ?? null) : null,
      };
    }),
    note: row.note,
    doneBy: row.doneByName,
    template: { id: template.id, name: template.name },
    mayWork: mayWork(scope, row),
    finishedBy: row.state === 'done' ? await finishingChange(scope, id) : null,
    ...(await seriesOf(scope, row)),
  };
}

async function finishingChange(scope: Scope, taskId: string): Promise<string | null> {
  const [last] = await scope.sql<{ id: string; action: string }>(
    `select id, action from change where workspace_id = $1 and subject = 'task' and subject_id = $2 and undone_at is null
     order by id desc limit 1`,
    [taskId],
  );
  return last?.action === 'finished' ? last.id : null;
}

const NOTES_SHOWN = 5;

async function seriesOf(scope: Scope, task: TaskRow): Promise<Pick<TaskAnswer, 'schedule' | 'series'>> {
  const alone = { lastEight: [], count: 0, since: null, notes: [], next: null };
  if (task.scheduleId === null || task.nominalDate === null) return { schedule: null, series: alone };
  const [row] = await scheduleRows(scope, { ids: [task.scheduleId] });
  if (!row) return { schedule: null, series: alone };
  const schedule = plannedSchedule(scope, row);
  const nominal = dayOfIso(task.nominalDate);
  const past = (await pastTasksOf(scope, [row.id])).get(row.id) ?? [];
  const [totals] = await scope.sql<{ count: number; since: string | null }>(
    'select count(*) as count, min(work_on) as since from task where workspace_id = $1 and schedule_id = $2 and work_on < $3::date',
    [row.id, task.workOn],
  );
  const notes = await scope.sql<{ taskId: string; on: string; by: string | null; note: string }>(
    `select t.id as "taskId", t.work_on as "on", p.name as "by", t.note from task t
     left join person p on p.workspace_id = t.workspace_id and p.id = coalesce(t.done_by, t.assignee_id)
     where t.workspace_id = $1 and t.schedule_id = $2 and t.nominal_date < $3::date and t.note <> ''
     order by t.nominal_date desc limit ${NOTES_SHOWN}`,
    [row.id, task.nominalDate],
  );
  const next = await nextInSeries(scope, row.id, schedule, nominal);
  const shown = past.filter(({ nominalDate, shows }) => shows && nominalDate <= (task.nominalDate as string));
  return {
    schedule: {
      id: row.id,
      phrase: writePhrase(revisionOn(schedule, task.nominalDate).recurrence, { start: 'unsaid' }),
      nominalOn: task.nominalDate,
    },
    series: {
      lastEight: shown.slice(-8).map((item) => item.task),
      count: totals?.count ?? 0,
      since: totals?.since ?? null,
      notes,
      next: next && { ...next, who: row.assigneeName },
    },
  };
}

async function nextInSeries(
  scope: Scope,
  scheduleId: string,
  schedule: ReturnType<typeof plannedSchedule>,
  nominal: number,
): Promise<{ on: string; taskId: string | null } | null> {
  const [made] = await scope.sql<{ id: string; on: string }>(
    `select id, work_on as "on" from task where workspace_id = $1 and schedule_id = $2 and nominal_date > $3::date
     order by nominal_date limit 1`,
    [scheduleId, isoOfDay(nominal)],
  );
  if (made) return { on: made.on, taskId: made.id };
  const from = Math.max(nominal + 1, scope.now.day);
  const next = nextDated(schedule, await scope.calendar(), from, (occurrence) => occurrence.nominal > nominal);
  return next && { on: isoOfDay(next.on), taskId: null };
}

/** Managers may work on anything; others on what is theirs. What is nobody's can be claimed. */
function mayWork(scope: Scope, task: { assigneeId: string | null }): boolean {
  return scope.person !== null && (scope.person.isManager || task.assigneeId === scope.person.id);
}

export interface SavedTask {
  readonly task: TaskAnswer;
  readonly changeId: string | null;
}

export function startTask(scope: Scope, id: string): Promise<SavedTask> {
  return change(scope, id, 'started', (task) => {
    if (task.state === 'underWay') return {};
    refuseEnded(task, 'started');
    return { state: 'underWay', startedAt: scope.instant };
  });
}

export function claimTask(scope: Scope, id: string): Promise<SavedTask> {
  return scope.transaction(async (tx) => {
    const task = await tx.locked(Task, id, 'task');
    if (task.assigneeId !== null && task.assigneeId !== tx.person?.id) {
      const holder = await tx.one(Person, task.assigneeId, 'person');
      throw conflict(`${holder.name} has it already.`);
    }
    return write(tx, task, 'claimed', { assigneeId: tx.person?.id ?? null });
  });
}

export function tickStep(scope: Scope, id: string, key: string, ticked: boolean): Promise<SavedTask> {
  return change(scope, id, ticked ? 'ticked' : 'unticked', (task) => {
    refuseEnded(task, 'changed');
    if (!task.checkLines.some((line) => line.key === key)) throw notFound('check line');
    const { [key]: was, ...others } = task.ticks;
    const now: Tick = was ?? { at: scope.instant.toISOString(), by: scope.person?.id ?? null };
    const begun = task.state === 'open' && ticked ? ({ state: 'underWay', startedAt: scope.instant } as const) : {};
    return { ticks: ticked ? { ...others, [key]: now } : others, ...begun };
  });
}

export function writeNote(scope: Scope, id: string, note: string, was: string): Promise<SavedTask> {
  return change(scope, id, 'noted', (task) => {
    if (task.note !== was && task.note !== note) {
      throw conflict(
        `Someone else wrote a note meanwhile: “${task.note.slice(0, 200)}”. Yours is still in the field; add to theirs and save again.`,
      );
    }
    return { note };
  });
}

export function finishTask(scope: Scope, id: string): Promise<SavedTask> {
  return change(scope, id, 'finished', (task) => {
    refuseEnded(task, 'finished');
    const missing = task.checkLines.filter(({ key }) => !(key in task.ticks));
    if (missing.length > 0) {
      throw invalid([
        {
          path: 'steps',
          message: `Still missing: ${plural(missing.length, 'step')}, ${missing
            .slice(0, 3)
            .map(({ text }) => `“${text}”`)
            .join(', ')}${missing.length > 3 ? ' …' : ''}.`,
        },
      ]);
    }
    return {
      state: 'done',
      startedAt: task.startedAt ?? scope.instant,
      doneAt: scope.instant,
      doneBy: scope.person?.id ?? null,
    };
  });
}

function refuseEnded(task: Task, verb: string): void {
  if (!isEnded(task.state)) return;
  const words = { done: 'done', skipped: 'skipped', lapsed: 'lapsed' }[task.state as 'done' | 'skipped' | 'lapsed'];
  throw conflict(`This task is ${words}, so it can't be ${verb}. Undo that first.`);
}

/** Puts a task back to what a change found. */
export async function undoTaskChange(scope: Scope, id: string, fields: FieldChanges): Promise<string> {
  const task = await scope.locked(Task, id, 'task');
  if (!mayWork(scope, task)) throw forbidden('Only the person who has this task, or a manager, can undo that.');
  await write(scope, task, 'undone', fieldsBefore(task, fields));
  return `“${task.title}” is as it was before.`;
}

function change(scope: Scope, id: string, action: string, decide: (task: Task) => Partial<Task>): Promise<SavedTask> {
  return scope.transaction(async (tx) => {
    const task = await tx.locked(Task, id, 'task');
    if (!mayWork(tx, task)) {
      throw forbidden(
        task.assigneeId === null ? 'Nobody has this task yet: claim it first.' : 'This task is someone else’s.',
      );
    }
    return write(tx, task, action, decide(task));
  });
}

async function write(scope: Scope, task: Task, action: string, changes: Partial<Task>): Promise<SavedTask> {
  const fields = fieldChanges(task, changes);
  if (Object.keys(fields).length === 0) return { task: await oneTask(scope, task.id), changeId: null };
  await scope.save(Task, task.id, { ...changes, version: task.version + 1 });
  const changeId = await scope.record('task', task.id, action, fields);
  if ('state' in fields && task.scheduleId !== null) await followOn(scope, task.scheduleId, task.nominalDate);
  await scope.tell('tasks', 'schedules');
  return { task: await oneTask(scope, task.id), changeId };
}
