import type { TaskLine } from '../../contract/index.ts';
import { civilTimeAt, type DatedTask, dayOfIso, lookOf, type TaskLook, tryMinutesOfTime } from '../../core/index.ts';
import { civilNow } from '../clock.ts';
import { namedOrNull } from '../named.ts';
import type { Scope } from '../scope.ts';
import type { Task } from './entity.ts';

/** A task with the names around it. */
export type TaskRow = Omit<Task, 'instructions' | 'workspaceId'> & {
  category: string | null;
  clientName: string | null;
  assetName: string | null;
  assigneeName: string | null;
};

/** What to select for a `TaskRow`, from `task t` joined as in `TASK_JOINS`. */
export const TASK_COLUMNS = `t.id, t.version, t.template_id as "templateId", t.schedule_id as "scheduleId", t.nominal_date as "nominalDate",
  t.step_key as "stepKey", t.head, t.title, t.check_lines as "checkLines", t.ticks, t.note, t.estimate_minutes as "estimateMinutes",
  t.client_id as "clientId", t.asset_id as "assetId", t.assignee_id as "assigneeId", t.state, t.work_on as "workOn",
  t.appears_on as "appearsOn", t.starts_on as "startsOn", t.due_on as "dueOn", t.start_time as "startTime", t.due_time as "dueTime", t.zone,
  t.started_at as "startedAt", t.done_at as "doneAt", t.done_by as "doneBy", t.made_at as "madeAt",
  template.category, client.name as "clientName", asset.name as "assetName", assignee.name as "assigneeName"`;
export const TASK_JOINS = `task t
  join template on template.workspace_id = t.workspace_id and template.id = t.template_id
  left join client on client.workspace_id = t.workspace_id and client.id = t.client_id
  left join asset on asset.workspace_id = t.workspace_id and asset.id = t.asset_id
  left join person assignee on assignee.workspace_id = t.workspace_id and assignee.id = t.assignee_id`;

/** What the look of a task is told from. */
export type LookRow = Pick<Task, 'state' | 'appearsOn' | 'dueOn' | 'dueTime' | 'zone' | 'doneAt'>;

/** The task as the core sees it: civil days, and minutes after midnight. */
export function datedTask(scope: Scope, row: LookRow): DatedTask {
  const done = row.doneAt === null ? null : civilTimeAt(row.doneAt.getTime(), row.zone ?? scope.workspace.zone);
  return {
    state: row.state,
    appearsOn: dayOfIso(row.appearsOn),
    dueOn: dayOfIso(row.dueOn),
    dueMinutes: row.dueTime === null ? null : tryMinutesOfTime(row.dueTime),
    doneOn: done === null ? null : dayOfIso(done.date),
    doneMinutes: done === null ? null : tryMinutesOfTime(done.time),
  };
}

export function lookOfRow(scope: Scope, row: LookRow): TaskLook {
  // A due time in Sydney has passed when it has passed there.
  const now = row.zone === null ? scope.now : civilNow(scope.clock, row.zone);
  return lookOf(datedTask(scope, row), now);
}

export function taskLine(scope: Scope, row: TaskRow): TaskLine {
  const look = lookOfRow(scope, row);
  return {
    id: row.id,
    version: row.version,
    title: row.title,
    category: row.category,
    client: namedOrNull(row.clientId, row.clientName),
    asset: namedOrNull(row.assetId, row.assetName),
    assignee: namedOrNull(row.assigneeId, row.assigneeName),
    state: look.state,
    late: look.late,
    daysLate: look.daysLate,
    on: row.workOn,
    startsOn: row.startsOn,
    dueOn: row.dueOn,
    startTime: row.startTime,
    dueTime: row.dueTime,
    zone: row.zone,
    estimateMinutes: row.estimateMinutes,
    stepsDone: row.checkLines.filter(({ key }) => key in row.ticks).length,
    stepsTotal: row.checkLines.length,
    startedAt: scope.moment(row.startedAt),
    doneAt: scope.moment(row.doneAt),
  };
}
