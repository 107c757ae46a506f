import { columnsOf } from '../../platform/db/columns.ts';
import type { Scope } from '../../platform/scope.ts';
import { type ContentMarks, marksOf } from './content.ts';
import { TaskRecord } from './entity.ts';

const REACHABLE_FIELDS = [
  'id',
  'scheduleId',
  'nominalDate',
  'stepKey',
  'head',
  'setOn',
  'title',
  'priority',
  'templateId',
  'clientId',
  'assetId',
  'assigneeId',
  'offeredTo',
  'why',
  'estimateMinutes',
  'workOn',
  'appearsOn',
  'startsOn',
  'dueOn',
  'startTime',
  'dueTime',
  'zone',
  'state',
  'edited',
] as const satisfies readonly (keyof TaskRecord)[];

/** Tasks of a schedule worked from a day on, as far as a change of the schedule may reach them. */
export type ReachableTask = Omit<
  Pick<TaskRecord, (typeof REACHABLE_FIELDS)[number]>,
  'scheduleId' | 'nominalDate' | 'templateId'
> &
  ContentMarks & {
    readonly scheduleId: string;
    readonly nominalDate: string;
    readonly templateId: string;
    /** Somebody has left a note, a tick, an answer, a file or a comment on it, a notice was written for it, or something holds it up. */
    readonly isWrittenOn: boolean;
  };

const IS_WRITTEN_ON = `(task.note <> '' or task.ticks <> '{}' or task.answers <> '{}' or task.held_until is not null
  or exists (select 1 from file where file.workspace_id = task.workspace_id and file.task_id = task.id and file.removed_at is null)
  or exists (select 1 from task_comment said where said.workspace_id = task.workspace_id and said.task_id = task.id)
  or exists (select 1 from notice n where n.workspace_id = task.workspace_id and n.task_id = task.id))`;
/** Whether somebody has left something on a `task`, or changed it by hand. */
export const IS_TOUCHED = `(task.edited <> '[]' or ${IS_WRITTEN_ON})`;

/** @param from the first day of the sets whose tasks are wanted */
export function tasksOfSchedulesFrom(
  scope: Scope,
  scheduleIds: readonly string[],
  from: string,
): Promise<ReachableTask[]> {
  return scope.sql<ReachableTask>(
    `select ${columnsOf(TaskRecord, 'task', REACHABLE_FIELDS)}, ${IS_WRITTEN_ON} as "isWrittenOn", ${marksOf('said')}
     from task join work_content said on said.workspace_id = $1 and said.id = task.content_id
     where task.workspace_id = $1 and schedule_id = any($2::uuid[]) and set_on >= $3
     order by task.id for no key update of task`,
    [scheduleIds, from],
  );
}
