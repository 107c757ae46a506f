import { type DatedOccurrence, dayOfIso, fillTitle, isoOfDay } from '../../core/index.ts';
import type { ScheduleRow } from '../schedules/schedule-row.ts';
import type { Scope } from '../scope.ts';

/** A task as its schedule gives it; text, steps, times and people are taken from template and schedule by the database. */
export interface MadeTask {
  /** Its id, should it be new. */
  readonly id: string;
  readonly scheduleId: string;
  readonly nominalDate: string;
  readonly title: string;
  readonly workOn: string;
  readonly appearsOn: string;
  readonly startsOn: string;
  readonly dueOn: string;
  readonly startTime: string | null;
  readonly dueTime: string | null;
  readonly zone: string | null;
  readonly assigneeId: string | null;
}

/** @param people names by id, for the title of one that somebody else does this time */
export function madeTask(
  scope: Scope,
  row: ScheduleRow,
  occurrence: DatedOccurrence,
  people: ReadonlyMap<string, string>,
): MadeTask {
  const assigneeId = occurrence.change?.assigneeId === undefined ? row.assigneeId : occurrence.change.assigneeId;
  const assigneeName = assigneeId === null ? null : (people.get(assigneeId) ?? null);
  const { startTime, dueTime, zone } = occurrence.timing;
  return {
    id: scope.newId(),
    scheduleId: row.id,
    nominalDate: isoOfDay(occurrence.nominal),
    title: titleOf({ ...row, assigneeName }, occurrence.on),
    workOn: isoOfDay(occurrence.on),
    appearsOn: isoOfDay(occurrence.appears),
    startsOn: isoOfDay(occurrence.starts),
    dueOn: isoOfDay(occurrence.due),
    startTime,
    dueTime,
    zone,
    assigneeId,
  };
}

/** The title of a schedule's task on a day; the template's name where the pattern leaves nothing. */
export function titleOf(row: ScheduleRow, on: number): string {
  const context = { on, client: row.clientName, asset: row.assetName, person: row.assigneeName };
  return fillTitle(row.titlePattern, context) || row.templateName;
}

/** The task's columns as arrays, for unnest: one statement for any number of rows, and no limit on parameters. */
function columns(tasks: readonly MadeTask[]): unknown[] {
  return [
    tasks.map((task) => task.scheduleId),
    tasks.map((task) => task.nominalDate),
    tasks.map((task) => task.title),
    tasks.map((task) => task.workOn),
    tasks.map((task) => task.appearsOn),
    tasks.map((task) => task.startsOn),
    tasks.map((task) => task.dueOn),
    tasks.map((task) => task.id),
    tasks.map((task) => task.startTime),
    tasks.map((task) => task.dueTime),
    tasks.map((task) => task.zone),
    tasks.map((task) => task.assigneeId),
  ];
}

const MADE = `unnest($2::uuid[], $3::date[], $4::text[], $5::date[], $6::date[], $7::date[], $8::date[], $9::uuid[],
  $10::text[], $11::text[], $12::text[], $13::uuid[])
  as made (schedule_id, nominal_date, title, work_on, appears_on, starts_on, due_on, id, start_time, due_time, zone, assignee_id)`;
const FROM_SCHEDULE = `join schedule s on s.workspace_id = $1 and s.id = made.schedule_id
  join template t on t.workspace_id = $1 and t.id = s.template_id`;

/**
 * Makes tasks that are not there yet; those that are stay as they are. Exactly once is the database's word:
 * the unique key of schedule, nominal date, step and head.
 * @returns the ids of the tasks made
 */
export async function insertMadeTasks(scope: Scope, tasks: readonly MadeTask[]): Promise<string[]> {
  if (tasks.length === 0) return [];
  const rows = await scope.sql<{ id: string }>(
    `insert into task (workspace_id, id, template_id, schedule_id, nominal_date, title, instructions, check_lines, ticks, note,
       estimate_minutes, client_id, asset_id, assignee_id, state, work_on, appears_on, starts_on, due_on, start_time, due_time, zone, made_at)
     select $1, made.id, t.id, s.id, made.nominal_date, made.title, t.instructions, t.check_lines, '{}', '',
       t.estimate_minutes, s.client_id, s.asset_id, made.assignee_id, 'open', made.work_on, made.appears_on, made.starts_on, made.due_on,
       made.start_time, made.due_time, made.zone, $14
     from ${MADE}
     ${FROM_SCHEDULE}
     order by made.schedule_id, made.nominal_date
     on conflict on constraint task_made_once do nothing
     returning id`,
    [...columns(tasks), scope.instant],
  );
  return rows.map(({ id }) => id);
}

/** Brings tasks up to what their schedule and template say now. */
export async function refreshMadeTasks(scope: Scope, tasks: readonly MadeTask[]): Promise<void> {
  if (tasks.length === 0) return;
  await scope.sql(
    `update task set version = task.version + 1, template_id = t.id, title = made.title, instructions = t.instructions,
       check_lines = t.check_lines, estimate_minutes = t.estimate_minutes, client_id = s.client_id, asset_id = s.asset_id,
       assignee_id = made.assignee_id, work_on = made.work_on, appears_on = made.appears_on, starts_on = made.starts_on,
       due_on = made.due_on, start_time = made.start_time, due_time = made.due_time, zone = made.zone
     from ${MADE} ${FROM_SCHEDULE}
     where task.workspace_id = $1 and task.schedule_id = made.schedule_id and task.nominal_date = made.nominal_date`,
    columns(tasks),
  );
}

/** Tasks of a schedule worked from a day on, as far as a change of the schedule may reach them. */
export interface ReachableTask {
  id: string;
  nominalDate: string;
  title: string;
  templateId: string;
  clientId: string | null;
  assetId: string | null;
  assigneeId: string | null;
  workOn: string;
  appearsOn: string;
  startsOn: string;
  dueOn: string;
  startTime: string | null;
  dueTime: string | null;
  zone: string | null;
  state: string;
  isTouched: boolean;
}

export function tasksOfScheduleFrom(scope: Scope, scheduleId: string, from: string): Promise<ReachableTask[]> {
  return scope.sql<ReachableTask>(
    `select id, nominal_date as "nominalDate", title, template_id as "templateId", client_id as "clientId", asset_id as "assetId",
       assignee_id as "assigneeId", work_on as "workOn", appears_on as "appearsOn", starts_on as "startsOn", due_on as "dueOn",
       start_time as "startTime", due_time as "dueTime", zone, state, (note <> '' or ticks <> '{}') as "isTouched"
     from task where workspace_id = $1 and schedule_id = $2 and work_on >= $3 for update`,
    [scheduleId, from],
  );
}

export async function removeTasks(scope: Scope, ids: readonly string[]): Promise<void> {
  if (ids.length > 0) await scope.sql('delete from task where workspace_id = $1 and id = any($2::uuid[])', [ids]);
}

/** Nominal days of a schedule's tasks, for telling which occurrences are tasks already. */
export function nominalKey(scheduleId: string, nominal: number | string): string {
  return `${scheduleId} ${typeof nominal === 'string' ? dayOfIso(nominal) : nominal}`;
}
