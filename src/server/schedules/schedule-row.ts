import { ZodError } from 'zod';
import { recurrenceSchema, revisionSchema, timingSchema } from '../../contract/index.ts';
import {
  civilTimeAt,
  type LastOne,
  type Pause,
  type PlannedSchedule,
  type SetPart,
  setParts,
  type TaskState,
  type TaskStep,
} from '../../core/index.ts';
import { columnsOf, type Named, namedColumns } from '../platform/db/columns.ts';
import type { Scope } from '../platform/scope.ts';
import { ENDED } from '../tasks/stored/index.ts';
import { Template } from '../templates/stored/index.ts';
import { Schedule } from './entity.ts';

const OWN = [
  'id',
  'version',
  'templateId',
  'clientId',
  'assetId',
  'onPlanId',
  'planItem',
  'assignment',
  'recurrence',
  'timing',
  'overlap',
  'pauses',
  'exceptions',
  'revisions',
  'settledTo',
  'problem',
  'createdAt',
  'deletedAt',
] as const satisfies readonly Exclude<keyof Schedule, 'workspaceId'>[];

const OF_TEMPLATE = {
  templateName: 'name',
  titlePattern: 'titlePattern',
  category: 'category',
  estimateMinutes: 'estimateMinutes',
  tickets: 'tickets',
  templateVersion: 'version',
  workType: 'workType',
  archivedAt: 'archivedAt',
} as const satisfies Record<string, keyof Template>;

/** A schedule with the names around it: what its plan, its tasks and its line in a table are told from. */
export interface ScheduleRow
  extends Omit<Pick<Schedule, (typeof OWN)[number]>, 'recurrence' | 'timing' | 'revisions'>,
    Named<Template, typeof OF_TEMPLATE> {
  /** As they are stored: read by the schemas of the contract. */
  recurrence: unknown;
  timing: unknown;
  revisions: unknown;
  /** Main tasks that are open or near, where the next waits for the last one; one that was deleted is over. */
  made: readonly { readonly nominal: string; readonly isOver: boolean }[] | null;
  /** Dates whose main task was deleted on purpose, from two months before what is settled. */
  deleted: string[];
  /** The last task, where the rule waits for it or it was asked for. */
  last: StoredLast | null;
  /** Steps of the template that are tasks of their own, without the check lines on them. */
  taskSteps: readonly TaskStep[];
  clientName: string | null;
  assetName: string | null;
  /** Whoever looks after the client. */
  usualPersonId: string | null;
}

export interface ScheduleFilter {
  readonly ids?: readonly string[];
  readonly templateIds?: readonly string[];
  /** The last task of each, whatever the rule; else only of rules that wait for it. */
  readonly withLast?: boolean;
}

/** Schedules in the order of their templates' names; deleted ones only where they are asked for by name. */
export function scheduleRows(scope: Scope, filter: ScheduleFilter = {}): Promise<ScheduleRow[]> {
  return select(scope, filter, 'order by lower(t.name), s.id', '');
}

/** Schedules held against others until the transaction ends; locked in the order of their ids, so that two runs never block each other for good. */
export function lockedScheduleRows(scope: Scope, ids: readonly string[]): Promise<ScheduleRow[]> {
  return select(scope, { ids }, 'order by s.id', 'for no key update of s');
}

function select(scope: Scope, filter: ScheduleFilter, order: string, lock: string): Promise<ScheduleRow[]> {
  return scope.sql<ScheduleRow>(
    `select ${columnsOf(Schedule, 's', OWN)}, ${namedColumns(Template, 't', OF_TEMPLATE)},
       jsonb_path_query_array(t.steps, '$[*] ? (@.kind == "task")') as "taskSteps", c.name as "clientName", a.name as "assetName", c.usual_person_id as "usualPersonId", last.task as last,
       case when s.overlap->>'kind' = 'wait' then (
         select jsonb_agg(jsonb_build_object('nominal', k.nominal_date, 'isOver', k.is_over)) from (
           -- Where each of several has one, the date is over when all of them are.
           select nominal_date, bool_and(state in ${ENDED}) as is_over from task
           where workspace_id = s.workspace_id and schedule_id = s.id and step_key = '' group by nominal_date
           union all
           select nominal_date, true from deleted_task
           where workspace_id = s.workspace_id and schedule_id = s.id and step_key = '' and head = ''
         ) k where not k.is_over or k.nominal_date >= s.settled_to - 62) end as made,
       (select coalesce(jsonb_agg(d.nominal_date order by d.nominal_date), '[]') from deleted_task d
        where d.workspace_id = s.workspace_id and d.schedule_id = s.id and d.step_key = '' and d.head = ''
          and d.nominal_date >= s.settled_to - 62) as deleted
     from schedule s
     join template t on t.workspace_id = s.workspace_id and t.id = s.template_id
     left join client c on c.workspace_id = s.workspace_id and c.id = s.client_id
     left join asset a on a.workspace_id = s.workspace_id and a.id = s.asset_id
     left join lateral (
       select jsonb_build_object('nominal', k.nominal_date, 'state', k.state, 'startedAt', k.started_at, 'doneAt', k.done_at,
         'dueOn', k.due_on, 'count', count(*) over ()) as task
       from (
         select nominal_date, state, started_at, done_at, due_on from task
         where workspace_id = s.workspace_id and schedule_id = s.id and step_key = '' and head = ''
         union all
         -- One that was deleted on purpose is over, as one that was skipped is: the series goes on from it.
         select nominal_date, 'skipped', null, null, nominal_date from deleted_task
         where workspace_id = s.workspace_id and schedule_id = s.id and step_key = '' and head = ''
       ) k
       -- Here and not in the join: where it is not wanted, no task is looked at.
       where $4 or s.recurrence @? '$.rules[*] ? (@.kind == "follows")'
         or s.revisions @? '$[*].recurrence.rules[*] ? (@.kind == "follows")'
       order by k.nominal_date desc limit 1
     ) last on true
     where s.workspace_id = $1
       and (case when $2::uuid[] is null then s.deleted_at is null else s.id = any($2) end)
       and ($3::uuid[] is null or s.template_id = any($3))
     ${order} ${lock}`,
    [filter.ids ?? null, filter.templateIds ?? null, filter.withLast ?? false],
  );
}

/**
 * The rule as stored, read by the schemas of the contract.
 * @throws ZodError when what is stored is not a rule this version can read
 */
export function plannedSchedule(
  scope: Scope,
  row: Pick<
    ScheduleRow,
    'recurrence' | 'timing' | 'pauses' | 'exceptions' | 'revisions' | 'last' | 'deleted' | 'archivedAt' | 'deletedAt'
  >,
): PlannedSchedule {
  return {
    recurrence: recurrenceSchema.parse(row.recurrence),
    timing: timingSchema.parse(row.timing),
    pauses: [...row.pauses, ...shutFrom(scope, row)],
    exceptions: row.exceptions,
    revisions: revisionSchema.array().parse(row.revisions),
    last: row.last && lastOne(scope, row.last),
    deleted: row.deleted,
  };
}

/** The same, or null where what is stored can't be read: its row says so, and all others are shown. */
export function readableSchedule(scope: Scope, row: ScheduleRow): PlannedSchedule | null {
  try {
    return plannedSchedule(scope, row);
  } catch (error) {
    if (error instanceof ZodError) return null;
    throw error;
  }
}

/** Once it is deleted, or while its template is archived, a schedule makes nothing. */
export function shutFrom(
  scope: Scope,
  { archivedAt, deletedAt }: Pick<ScheduleRow, 'archivedAt' | 'deletedAt'>,
): Pause[] {
  return [archivedAt, deletedAt].flatMap((at) =>
    at === null ? [] : [{ from: scope.moment(at).slice(0, 10), to: null }],
  );
}

/** The tasks that one occurrence of a schedule makes; their check lines are those of the template, not told here. */
export function partsOf(row: ScheduleRow): SetPart[] {
  const { titlePattern, estimateMinutes, tickets, taskSteps } = row;
  return setParts({ titlePattern, estimateMinutes, tickets, demands: [], signOff: null, steps: taskSteps });
}

/** The last task of a series, as the database tells it. */
interface StoredLast {
  nominal: string;
  state: TaskState;
  startedAt: string | null;
  doneAt: string | null;
  dueOn: string;
  count: number;
}

/** How far the last one has got, and when; one that was skipped or has lapsed is over on its due date. */
function lastOne(scope: Scope, { nominal, count, state, startedAt, doneAt, dueOn }: StoredLast): LastOne {
  const dayOf = (at: string) => civilTimeAt(new Date(at).getTime(), scope.workspace.zone).date;
  const over = state === 'skipped' || state === 'lapsed' ? dueOn : null;
  const finished = doneAt === null ? over : dayOf(doneAt);
  return {
    nominal,
    count,
    reached: {
      // Finished work that waits to be checked is not done yet.
      done: state === 'toCheck' ? null : finished,
      underWay: startedAt === null ? finished : dayOf(startedAt),
      toCheck: finished,
    },
  };
}
