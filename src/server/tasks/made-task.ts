import { createHash } from 'node:crypto';
import { In } from 'typeorm';
import type { Priority } from '../../contract/index.ts';
import {
  type DatedOccurrence,
  dayOfIso,
  fillTitle,
  hasToken,
  isoOfDay,
  type SetPart,
  seriesNumbers,
  setParts,
  tasksOfSet,
  type WorkingCalendar,
} from '../../core/index.ts';
import { columnOf, columnsOf } from '../platform/db/columns.ts';
import type { Scope } from '../platform/scope.ts';
import { partsOf, plannedSchedule, type ScheduleRow } from '../schedules/schedule-row.ts';
import { Template } from '../templates/entity.ts';
import {
  type Content,
  type ContentMarks,
  contentMarks,
  idWithInstructionsOf,
  keepContents,
  marksOf,
  mixedContent,
} from './content.ts';
import { TaskRecord } from './entity.ts';

/** A task as its schedule gives it; text, steps and proof are taken from its template when it is written. */
export interface MadeTask {
  readonly scheduleId: string;
  readonly templateId: string;
  readonly templateVersion: number;
  readonly nominalDate: string;
  readonly stepKey: string;
  readonly setOn: string;
  readonly title: string;
  readonly workOn: string;
  readonly appearsOn: string;
  readonly startsOn: string;
  readonly dueOn: string;
  readonly startTime: string | null;
  readonly dueTime: string | null;
  readonly zone: string | null;
  readonly assigneeId: string | null;
  readonly estimateMinutes: number;
  /** Where its schedule has its own; null for what the template says. */
  readonly instructions: string | null;
  readonly priority: Priority | null;
}

/** What the tasks of a schedule are worked out with. */
export interface Making {
  readonly calendar: WorkingCalendar;
  /** Names by id, for the titles. */
  readonly people: ReadonlyMap<string, string>;
}

/** The tasks of the sets of some occurrences of one schedule. */
export function madeTasks(
  scope: Scope,
  row: ScheduleRow,
  occurrences: readonly DatedOccurrence[],
  { calendar, people }: Making,
): MadeTask[] {
  const parts = partsOf(row);
  const numbers = numbersFor(scope, row, parts, occurrences, calendar);
  return occurrences.flatMap((occurrence) =>
    tasksOfSet(occurrence, parts, calendar, row.assigneeId).map((task): MadeTask => {
      const { part, assigneeId } = task;
      const own = occurrence.own?.[part.key] ?? {};
      return {
        scheduleId: row.id,
        templateId: row.templateId,
        templateVersion: row.templateVersion,
        nominalDate: isoOfDay(occurrence.nominal),
        stepKey: part.key,
        setOn: isoOfDay(occurrence.on),
        title:
          fillTitle(task.titlePattern, {
            on: occurrence.on,
            client: row.clientName,
            asset: row.assetName,
            person: assigneeId === null ? null : (people.get(assigneeId) ?? null),
            number: numbers.get(occurrence.nominal) ?? null,
            type: row.workType,
          }) || row.templateName,
        workOn: isoOfDay(task.on),
        appearsOn: isoOfDay(task.appears),
        startsOn: isoOfDay(task.starts),
        dueOn: isoOfDay(task.due),
        startTime: task.startTime,
        dueTime: task.dueTime,
        zone: occurrence.timing.zone,
        assigneeId,
        estimateMinutes: task.estimateMinutes,
        instructions: own.instructions ?? null,
        priority: own.priority ?? null,
      };
    }),
  );
}

/** Counted only where a title asks for it: the count goes back to the start of the schedule. */
function numbersFor(
  scope: Scope,
  row: ScheduleRow,
  parts: readonly SetPart[],
  occurrences: readonly DatedOccurrence[],
  calendar: WorkingCalendar,
): ReadonlyMap<number, number> {
  if (occurrences.length === 0 || !parts.some(({ titlePattern }) => hasToken(titlePattern, 'number'))) return new Map();
  return seriesNumbers(plannedSchedule(scope, row), calendar, Math.max(...occurrences.map(({ on }) => on)));
}

/** What the task of one part of a template says, but for what its schedule has of its own. */
interface Part {
  readonly setIndex: number;
  readonly priority: Priority;
  readonly content: Content;
}

/** The parts of the templates of some tasks, by template and step. */
async function partsBehind(scope: Scope, tasks: readonly MadeTask[]): Promise<ReadonlyMap<string, Part>> {
  const ids = [...new Set(tasks.map(({ templateId }) => templateId))];
  const templates = await scope.find(Template, { id: In(ids) });
  return new Map(
    templates.flatMap((template) =>
      setParts(template).map(({ key, note, checkLines, demands, signOff }, setIndex) => {
        const { instructions, links, workType, finishWithLast, numbered, priority } = template;
        const content = {
          ...{ instructions, links, workType, finishWithLast, numbered },
          ...{ brief: note, checkLines, demands, signOff },
        };
        return [partKey(template.id, key), { setIndex, priority, content }] as const;
      }),
    ),
  );
}

const partKey = (templateId: string, stepKey: string) => `${templateId} ${stepKey}`;

/** A made task with all that its row is filled from. */
type WrittenTask = Omit<MadeTask, 'templateId' | 'templateVersion' | 'instructions' | 'priority'> & {
  readonly id: string;
  readonly setIndex: number;
  readonly priority: Priority;
  readonly contentId: string;
};

/** Keeps what tasks say, and gives them with it. Steps that their template no longer has are left out. */
async function written(scope: Scope, tasks: readonly MadeTask[]): Promise<WrittenTask[]> {
  const parts = await partsBehind(scope, tasks);
  const distinct = new Map<string, { readonly content: Content; readonly among: (MadeTask & { part: Part })[] }>();
  for (const task of tasks) {
    const key = partKey(task.templateId, task.stepKey);
    const part = parts.get(key);
    if (!part) continue;
    const { instructions } = task;
    const says = instructions === null ? key : `${key} ${instructions}`;
    let one = distinct.get(says);
    if (!one) {
      one = { content: instructions === null ? part.content : { ...part.content, instructions }, among: [] };
      distinct.set(says, one);
    }
    one.among.push({ ...task, part });
  }
  const says = [...distinct.values()];
  const ids = await keepContents(
    scope,
    says.map(({ content }) => content),
  );
  return says.flatMap(({ among }, i) =>
    among.map(({ part, ...task }) => ({
      ...task,
      id: scope.newId(),
      setIndex: part.setIndex,
      priority: task.priority ?? part.priority,
      contentId: ids[i] ?? '',
    })),
  );
}

/** What is handed to the database of each task, as arrays: one statement for any number of rows, and no limit on parameters. */
const HANDED = {
  id: 'uuid',
  scheduleId: 'uuid',
  nominalDate: 'date',
  stepKey: 'text',
  setOn: 'date',
  setIndex: 'integer',
  title: 'text',
  priority: 'text',
  contentId: 'uuid',
  estimateMinutes: 'integer',
  assigneeId: 'uuid',
  workOn: 'date',
  appearsOn: 'date',
  startsOn: 'date',
  dueOn: 'date',
  startTime: 'text',
  dueTime: 'text',
  zone: 'text',
} as const satisfies Record<keyof WrittenTask, string>;
const HANDED_FIELDS = Object.keys(HANDED) as (keyof WrittenTask)[];

/** The parameters of `FROM_SCHEDULE`, from the second on. */
const handed = (tasks: readonly WrittenTask[]): unknown[] =>
  HANDED_FIELDS.map((field) => tasks.map((task) => task[field]));

const FROM_SCHEDULE = `unnest(${HANDED_FIELDS.map((field, i) => `$${i + 2}::${HANDED[field]}[]`).join(', ')})
    as made (${HANDED_FIELDS.map((field) => columnOf(TaskRecord, field)).join(', ')})
  join schedule s on s.workspace_id = $1 and s.id = made.schedule_id
  join template t on t.workspace_id = $1 and t.id = s.template_id`;

/** The number of the first parameter after those. */
const NEXT = HANDED_FIELDS.length + 2;

/** All tasks of one occurrence are one set, whichever run made each of them: its id is told from schedule and date. */
const SET_ID = `md5(s.id::text || ' ' || to_char(made.nominal_date, 'YYYY-MM-DD'))::uuid`;

/**
 * Each column of a task that a schedule makes: what fills it, and what becomes of it when the schedule or its template
 * changes: it stays, follows, or follows unless somebody has changed it by hand.
 */
const FILLED: Readonly<
  Record<keyof TaskRecord, readonly [from: string, then: 'stays' | 'follows' | 'follows unless edited']>
> = {
  workspaceId: ['$1::uuid', 'stays'],
  id: ['made.id', 'stays'],
  version: ['1', 'stays'],
  templateId: ['t.id', 'follows'],
  templateVersion: ['t.version', 'follows'],
  scheduleId: ['s.id', 'stays'],
  nominalDate: ['made.nominal_date', 'stays'],
  stepKey: ['made.step_key', 'stays'],
  head: [`''`, 'stays'],
  setId: [SET_ID, 'stays'],
  setOn: ['made.set_on', 'follows'],
  setIndex: ['made.set_index', 'follows'],
  title: ['made.title', 'follows unless edited'],
  priority: ['made.priority', 'follows unless edited'],
  // The instructions in it may have been changed by hand, all else follows: see `refreshMadeTasks`.
  contentId: ['made.content_id', 'stays'],
  estimateMinutes: ['made.estimate_minutes', 'follows unless edited'],
  clientId: ['s.client_id', 'follows'],
  assetId: ['s.asset_id', 'follows'],
  assigneeId: ['made.assignee_id', 'follows unless edited'],
  workOn: ['made.work_on', 'follows unless edited'],
  appearsOn: ['made.appears_on', 'follows unless edited'],
  startsOn: ['made.starts_on', 'follows unless edited'],
  dueOn: ['made.due_on', 'follows unless edited'],
  startTime: ['made.start_time', 'follows unless edited'],
  dueTime: ['made.due_time', 'follows unless edited'],
  zone: ['made.zone', 'follows'],
  state: [`'open'`, 'stays'],
  ticks: [`'{}'`, 'stays'],
  answers: [`'{}'`, 'stays'],
  note: [`''`, 'stays'],
  notePinned: ['false', 'stays'],
  edited: [`'[]'`, 'stays'],
  startedAt: ['null', 'stays'],
  doneAt: ['null', 'stays'],
  doneBy: ['null', 'stays'],
  signedAt: ['null', 'stays'],
  signedBy: ['null', 'stays'],
  sentBack: [`'[]'`, 'stays'],
  madeAt: [`$${NEXT}::timestamptz`, 'stays'],
  runId: [`$${NEXT + 1}::uuid`, 'stays'],
};
const FIELDS = Object.keys(FILLED) as (keyof TaskRecord)[];

/**
 * Makes tasks that are not there yet and were not deleted on purpose; those that are there stay as they are. Exactly once is the database's word:
 * the unique key of schedule, nominal date, step and head.
 * @param runId of the run that makes them
 * @returns the ids of the tasks made
 */
export async function insertMadeTasks(
  scope: Scope,
  tasks: readonly MadeTask[],
  runId: string | null = null,
): Promise<string[]> {
  if (tasks.length === 0) return [];
  const rows = await scope.sql<{ id: string }>(
    `insert into task (${FIELDS.map((field) => columnOf(TaskRecord, field)).join(', ')})
     select ${FIELDS.map((field) => FILLED[field][0]).join(', ')}
     from ${FROM_SCHEDULE}
     where not exists (select 1 from deleted_task d where d.workspace_id = $1 and d.schedule_id = s.id
       and d.nominal_date = made.nominal_date and d.step_key = made.step_key)
     order by made.schedule_id, made.nominal_date, made.set_index
     on conflict on constraint task_made_once do nothing
     returning id`,
    [...handed(await written(scope, tasks)), scope.instant, runId],
  );
  return rows.map(({ id }) => id);
}

const REFRESHED = FIELDS.flatMap((field) => {
  const [from, then] = FILLED[field];
  const column = columnOf(TaskRecord, field);
  if (then === 'stays') return [];
  return then === 'follows'
    ? `${column} = ${from}`
    : `${column} = case when task.edited ? '${field}' then task.${column} else ${from} end`;
}).join(', ');

const MADE_BEFORE = `task.workspace_id = $1 and task.schedule_id = made.schedule_id and task.nominal_date = made.nominal_date
  and task.step_key = made.step_key and task.head = ''`;

/** Brings tasks up to what their schedule and template say now, but for what was changed by hand. */
export async function refreshMadeTasks(scope: Scope, tasks: readonly MadeTask[]): Promise<void> {
  if (tasks.length === 0) return;
  const params = handed(await written(scope, tasks));
  // Where the instructions were changed by hand, they stay in a content that says all else as it is now.
  const mixed = mixedContent('now', 'own');
  await scope.sql(
    `insert into ${mixed.into} select distinct ${mixed.select}
     from ${FROM_SCHEDULE}
     join task on ${MADE_BEFORE} and task.edited ? 'instructions'
     join work_content own on own.workspace_id = $1 and own.id = task.content_id
     join work_content now on now.workspace_id = $1 and now.id = made.content_id
     on conflict do nothing`,
    params,
  );
  await scope.sql(
    `update task set version = task.version + 1, ${REFRESHED},
       content_id = case when task.edited ? 'instructions' then ${idWithInstructionsOf('now', 'own')} else made.content_id end
     from ${FROM_SCHEDULE}
     join work_content now on now.workspace_id = $1 and now.id = made.content_id, work_content own
     where ${MADE_BEFORE} and own.workspace_id = $1 and own.id = task.content_id`,
    params,
  );
}

const REACHABLE_FIELDS = [
  'id',
  'scheduleId',
  'nominalDate',
  'stepKey',
  'setOn',
  'title',
  'priority',
  'templateId',
  'clientId',
  'assetId',
  'assigneeId',
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
    /** Somebody has left a note, a tick, an answer or a file on it. */
    readonly isWrittenOn: boolean;
  };

const IS_WRITTEN_ON = `(task.note <> '' or task.ticks <> '{}' or task.answers <> '{}' or exists (
  select 1 from file where file.workspace_id = task.workspace_id and file.task_id = task.id and file.removed_at is null))`;
/** Whether somebody has left something on a `task`, or changed it by hand. */
export const IS_TOUCHED = `(task.edited <> '[]' or ${IS_WRITTEN_ON})`;

/** What a task says, to compare it by: single fields as far as they can be changed by hand, all the rest as one mark. */
export interface TaskContent extends ContentMarks {
  readonly priority: Priority;
}

/** What each part of a template has its tasks say now, by template and step. */
export async function contentOfParts(
  scope: Scope,
  tasks: readonly MadeTask[],
): Promise<ReadonlyMap<string, TaskContent>> {
  if (tasks.length === 0) return new Map();
  const parts = [...(await partsBehind(scope, tasks))];
  const marks = await contentMarks(
    scope,
    parts.map(([, { content }]) => content),
  );
  return new Map(
    parts.flatMap(([key, { priority }], i) => {
      const mark = marks[i];
      return mark ? [[key, { ...mark, priority }]] : [];
    }),
  );
}

/** What a made task says: what its schedule has of its own, else what its part of the template says. */
export function saidBy(task: MadeTask, contents: ReadonlyMap<string, TaskContent>): TaskContent {
  const content = contents.get(partKey(task.templateId, task.stepKey));
  if (!content) throw new Error(`There is no content for step “${task.stepKey}” of template ${task.templateId}.`);
  return {
    content: content.content,
    instructions: task.instructions === null ? content.instructions : md5(task.instructions),
    priority: task.priority ?? content.priority,
  };
}

const md5 = (text: string) => createHash('md5').update(text).digest('hex');

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

export async function removeTasks(scope: Scope, ids: readonly string[]): Promise<void> {
  if (ids.length > 0) await scope.sql('delete from task where workspace_id = $1 and id = any($2::uuid[])', [ids]);
}

/** Nominal days of a schedule's sets, for telling which occurrences are tasks already. */
export function nominalKey(scheduleId: string, nominal: number | string, stepKey: string): string {
  return `${scheduleId} ${typeof nominal === 'string' ? dayOfIso(nominal) : nominal} ${stepKey}`;
}
