import { createHash } from 'node:crypto';
import {
  type CheckLine,
  type DatedOccurrence,
  type Demand,
  dayOfIso,
  fillTitle,
  hasToken,
  isoOfDay,
  type SetPart,
  type SignOff,
  seriesNumbers,
  setParts,
  type TaskState,
  tasksOfSet,
  type WorkingCalendar,
} from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { partsOf, plannedSchedule, type ScheduleRow } from '../schedules/schedule-row.ts';
import type { Template } from '../templates/entity.ts';

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
  readonly priority: string | null;
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

/** What stands on every task of one part of a template. */
interface PartContent {
  readonly templateId: string;
  readonly stepKey: string;
  readonly setIndex: number;
  readonly brief: string;
  readonly checkLines: readonly CheckLine[];
  readonly demands: readonly Demand[];
  readonly signOff: SignOff | null;
}

async function contentsOf(scope: Scope, tasks: readonly MadeTask[]): Promise<PartContent[]> {
  const ids = [...new Set(tasks.map(({ templateId }) => templateId))];
  const templates = await scope.sql<
    Pick<Template, 'id' | 'titlePattern' | 'estimateMinutes' | 'demands' | 'signOff' | 'steps'>
  >(
    `select id, title_pattern as "titlePattern", estimate_minutes as "estimateMinutes", demands, sign_off as "signOff", steps
     from template where workspace_id = $1 and id = any($2::uuid[])`,
    [ids],
  );
  return templates.flatMap((template) =>
    setParts(template).map((part, setIndex) => ({
      templateId: template.id,
      stepKey: part.key,
      setIndex,
      brief: part.note,
      checkLines: part.checkLines,
      demands: part.demands,
      signOff: part.signOff,
    })),
  );
}

/** Tasks and contents as arrays, for unnest: one statement for any number of rows, and no limit on parameters. */
function columns(
  tasks: readonly MadeTask[],
  contents: readonly PartContent[],
  ids: readonly (string | null)[],
): unknown[] {
  return [
    tasks.map((task) => task.scheduleId),
    tasks.map((task) => task.nominalDate),
    tasks.map((task) => task.title),
    tasks.map((task) => task.workOn),
    tasks.map((task) => task.appearsOn),
    tasks.map((task) => task.startsOn),
    tasks.map((task) => task.dueOn),
    ids,
    tasks.map((task) => task.startTime),
    tasks.map((task) => task.dueTime),
    tasks.map((task) => task.zone),
    tasks.map((task) => task.assigneeId),
    tasks.map((task) => task.stepKey),
    tasks.map((task) => task.setOn),
    tasks.map((task) => task.estimateMinutes),
    tasks.map((task) => task.instructions),
    tasks.map((task) => task.priority),
    ...contentColumns(contents),
  ];
}

function contentColumns(contents: readonly PartContent[]): unknown[] {
  return [
    contents.map((content) => content.templateId),
    contents.map((content) => content.stepKey),
    contents.map((content) => content.setIndex),
    contents.map((content) => content.brief),
    contents.map((content) => JSON.stringify(content.checkLines)),
    contents.map((content) => JSON.stringify(content.demands)),
    contents.map((content) => (content.signOff === null ? null : JSON.stringify(content.signOff))),
  ];
}

/** Contents as rows; `at` is the number of their first parameter. */
const contentFrom = (at: number) =>
  `unnest(${['uuid', 'text', 'int', 'text', 'jsonb', 'jsonb', 'jsonb'].map((type, i) => `$${at + i}::${type}[]`).join(', ')})
    as content (template_id, step_key, set_index, brief, check_lines, demands, sign_off)`;

const MADE = `unnest($2::uuid[], $3::date[], $4::text[], $5::date[], $6::date[], $7::date[], $8::date[], $9::uuid[],
  $10::text[], $11::text[], $12::text[], $13::uuid[], $14::text[], $15::date[], $16::int[], $17::text[], $18::text[])
  as made (schedule_id, nominal_date, title, work_on, appears_on, starts_on, due_on, id, start_time, due_time, zone, assignee_id,
    step_key, set_on, estimate_minutes, instructions, priority)`;
const FROM_SCHEDULE = `join schedule s on s.workspace_id = $1 and s.id = made.schedule_id
  join template t on t.workspace_id = $1 and t.id = s.template_id
  join ${contentFrom(19)}
    on content.template_id = t.id and content.step_key = made.step_key`;

/** All tasks of one occurrence are one set, whichever run made each of them: its id is told from schedule and date. */
const SET_ID = `md5(s.id::text || ' ' || to_char(made.nominal_date, 'YYYY-MM-DD'))::uuid`;

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
    `insert into task (workspace_id, id, template_id, template_version, schedule_id, nominal_date, step_key, set_id, set_on, set_index,
       title, instructions, brief, links, priority, work_type, finish_with_last, numbered, check_lines, demands, sign_off, ticks, note,
       estimate_minutes, client_id, asset_id, assignee_id, state, work_on, appears_on, starts_on, due_on, start_time, due_time, zone, made_at, run_id)
     select $1, made.id, t.id, t.version, s.id, made.nominal_date, made.step_key, ${SET_ID}, made.set_on, content.set_index,
       made.title, coalesce(made.instructions, t.instructions), content.brief, t.links, coalesce(made.priority, t.priority), t.work_type, t.finish_with_last, t.numbered,
       content.check_lines, content.demands, content.sign_off, '{}', '',
       made.estimate_minutes, s.client_id, s.asset_id, made.assignee_id, 'open', made.work_on, made.appears_on, made.starts_on, made.due_on,
       made.start_time, made.due_time, made.zone, $26, $27::uuid
     from ${MADE}
     ${FROM_SCHEDULE}
     where not exists (select 1 from deleted_task d where d.workspace_id = $1 and d.schedule_id = s.id
       and d.nominal_date = made.nominal_date and d.step_key = made.step_key)
     order by made.schedule_id, made.nominal_date, content.set_index
     on conflict on constraint task_made_once do nothing
     returning id`,
    [
      ...columns(
        tasks,
        await contentsOf(scope, tasks),
        tasks.map(() => scope.newId()),
      ),
      scope.instant,
      runId,
    ],
  );
  return rows.map(({ id }) => id);
}

/** A column of a task that is refreshed, unless somebody has changed that field by hand. */
const unlessEdited = (column: string, field: string, value: string) =>
  `${column} = case when task.edited ? '${field}' then task.${column} else ${value} end`;

const REFRESHED = [
  ...[
    ['title', 'title', 'made.title'],
    ['instructions', 'instructions', 'coalesce(made.instructions, t.instructions)'],
    ['priority', 'priority', 'coalesce(made.priority, t.priority)'],
    ['estimate_minutes', 'estimateMinutes', 'made.estimate_minutes'],
    ['assignee_id', 'assigneeId', 'made.assignee_id'],
    ['work_on', 'workOn', 'made.work_on'],
    ['appears_on', 'appearsOn', 'made.appears_on'],
    ['starts_on', 'startsOn', 'made.starts_on'],
    ['due_on', 'dueOn', 'made.due_on'],
    ['start_time', 'startTime', 'made.start_time'],
    ['due_time', 'dueTime', 'made.due_time'],
  ].map(([column = '', field = '', value = '']) => unlessEdited(column, field, value)),
  'template_id = t.id, template_version = t.version, set_on = made.set_on, set_index = content.set_index',
  'brief = content.brief, links = t.links, work_type = t.work_type, finish_with_last = t.finish_with_last, numbered = t.numbered',
  'check_lines = content.check_lines, demands = content.demands, sign_off = content.sign_off',
  'client_id = s.client_id, asset_id = s.asset_id, zone = made.zone',
].join(', ');

/** Brings tasks up to what their schedule and template say now, but for what was changed by hand. */
export async function refreshMadeTasks(scope: Scope, tasks: readonly MadeTask[]): Promise<void> {
  if (tasks.length === 0) return;
  await scope.sql(
    `update task set version = task.version + 1, ${REFRESHED}
     from ${MADE} ${FROM_SCHEDULE}
     where task.workspace_id = $1 and task.schedule_id = made.schedule_id and task.nominal_date = made.nominal_date
       and task.step_key = made.step_key and task.head = ''`,
    columns(
      tasks,
      await contentsOf(scope, tasks),
      tasks.map(() => null),
    ),
  );
}

/** Tasks of a schedule worked from a day on, as far as a change of the schedule may reach them. */
export interface ReachableTask extends TaskContent {
  id: string;
  scheduleId: string;
  nominalDate: string;
  stepKey: string;
  setOn: string;
  title: string;
  templateId: string;
  clientId: string | null;
  assetId: string | null;
  assigneeId: string | null;
  estimateMinutes: number;
  workOn: string;
  appearsOn: string;
  startsOn: string;
  dueOn: string;
  startTime: string | null;
  dueTime: string | null;
  zone: string | null;
  state: TaskState;
  /** Fields that were changed by hand. */
  edited: string[];
  /** Somebody has left a note, a tick, an answer or a file on it. */
  isWrittenOn: boolean;
}

const IS_WRITTEN_ON = `(task.note <> '' or task.ticks <> '{}' or task.answers <> '{}' or exists (
  select 1 from file where file.workspace_id = task.workspace_id and file.task_id = task.id and file.removed_at is null))`;
/** Whether somebody has left something on a `task`, or changed it by hand. */
export const IS_TOUCHED = `(task.edited <> '[]' or ${IS_WRITTEN_ON})`;

/** What a task says: single fields as far as they can be changed by hand, all the rest as one short text to compare. */
export interface TaskContent {
  /** Of the text, its MD5: enough to tell whether it is another one. */
  readonly instructions: string;
  readonly priority: string;
  readonly content: string;
}

const saidColumns = (text: string, part: string) =>
  `md5(${text}.instructions) as instructions, ${text}.priority,
   md5(concat_ws('|', ${text}.links, ${text}.work_type, ${text}.finish_with_last, ${text}.numbered,
     ${part}.brief, ${part}.check_lines, ${part}.demands, ${part}.sign_off)) as content`;

/** What each part of a template has its tasks say now, by template and step. */
export async function contentOfParts(
  scope: Scope,
  tasks: readonly MadeTask[],
): Promise<ReadonlyMap<string, TaskContent>> {
  if (tasks.length === 0) return new Map();
  const rows = await scope.sql<TaskContent & { templateId: string; stepKey: string }>(
    `select t.id as "templateId", content.step_key as "stepKey", ${saidColumns('t', 'content')}
     from ${contentFrom(2)} join template t on t.workspace_id = $1 and t.id = content.template_id`,
    contentColumns(await contentsOf(scope, tasks)),
  );
  return new Map(rows.map(({ templateId, stepKey, ...content }) => [`${templateId} ${stepKey}`, content]));
}

/** What a made task says: what its schedule has of its own, else what its part of the template says. */
export function saidBy(task: MadeTask, contents: ReadonlyMap<string, TaskContent>): TaskContent {
  const content = contents.get(`${task.templateId} ${task.stepKey}`);
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
    `select id, schedule_id as "scheduleId", nominal_date as "nominalDate", step_key as "stepKey", set_on as "setOn", title, template_id as "templateId",
       client_id as "clientId", asset_id as "assetId",
       assignee_id as "assigneeId", work_on as "workOn", appears_on as "appearsOn", starts_on as "startsOn", due_on as "dueOn",
       start_time as "startTime", due_time as "dueTime", zone, state, edited, ${IS_WRITTEN_ON} as "isWrittenOn",
       estimate_minutes as "estimateMinutes", ${saidColumns('task', 'task')}
     from task where workspace_id = $1 and schedule_id = any($2::uuid[]) and set_on >= $3
     order by id for no key update`,
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
