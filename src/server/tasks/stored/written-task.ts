import type { Priority } from '../../../contract/index.ts';
import { columnOf } from '../../platform/db/columns.ts';
import type { Scope } from '../../platform/scope.ts';
import { callAskerFor } from './asker.ts';
import { type Content, idWithInstructionsOf, keepContents, mixedContent } from './content.ts';
import { TaskRecord } from './entity.ts';
import type { MadeTask } from './made-task.ts';
import { type Part, partKey, partsBehind } from './template-parts.ts';

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
  head: 'text',
  setOn: 'date',
  setIndex: 'integer',
  title: 'text',
  priority: 'text',
  contentId: 'uuid',
  estimateMinutes: 'integer',
  assigneeId: 'uuid',
  offeredTo: 'jsonb',
  why: 'jsonb',
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
  HANDED_FIELDS.map((field) =>
    tasks.map((task) => {
      const value = task[field];
      return HANDED[field] === 'jsonb' && value !== null ? JSON.stringify(value) : value;
    }),
  );

const FROM_SCHEDULE = `unnest(${HANDED_FIELDS.map((field, i) => `$${i + 2}::${HANDED[field]}[]`).join(', ')})
    as made (${HANDED_FIELDS.map((field) => columnOf(TaskRecord, field)).join(', ')})
  join schedule s on s.workspace_id = $1 and s.id = made.schedule_id
  join template t on t.workspace_id = $1 and t.id = s.template_id`;

/** The number of the first parameter after those. */
const NEXT = HANDED_FIELDS.length + 2;

/** All tasks of one occurrence are one set, or one for each who has their own, whichever run made each of them: its id is told from schedule, date and head. */
const SET_ID = `md5(s.id::text || ' ' || to_char(made.nominal_date, 'YYYY-MM-DD') || case made.head when '' then '' else ' ' || made.head end)::uuid`;

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
  head: ['made.head', 'stays'],
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
  offeredTo: ['made.offered_to', 'follows unless edited'],
  why: ['made.why', 'follows'],
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
  onTime: ['null', 'stays'],
  doneBy: ['null', 'stays'],
  doneByContact: ['null', 'stays'],
  signedAt: ['null', 'stays'],
  signedBy: ['null', 'stays'],
  sentBack: [`'[]'`, 'stays'],
  heldUntil: ['null', 'stays'],
  heldReason: ['null', 'stays'],
  heldAt: ['null', 'stays'],
  heldBy: ['null', 'stays'],
  nudgedAt: ['null', 'stays'],
  nudgedBy: ['null', 'stays'],
  madeAt: [`$${NEXT}::timestamptz`, 'stays'],
  runId: [`$${NEXT + 1}::uuid`, 'stays'],
};
const FIELDS = Object.keys(FILLED) as (keyof TaskRecord)[];

interface InsertedTasks {
  readonly tasks: number;
  readonly schedules: number;
}

/**
 * Makes tasks that are not there yet and were not deleted on purpose; those that are there stay as they are. Exactly once is the database's word:
 * the unique key of schedule, nominal date, step and head.
 * @param runId of the run that makes them
 * @returns how many were made, and for how many schedules
 */
export async function insertMadeTasks(
  scope: Scope,
  tasks: readonly MadeTask[],
  runId: string | null = null,
): Promise<InsertedTasks> {
  if (tasks.length === 0) return { tasks: 0, schedules: 0 };
  const rows = await scope.sql<{ scheduleId: string }>(
    `insert into task (${FIELDS.map((field) => columnOf(TaskRecord, field)).join(', ')})
     select ${FIELDS.map((field) => FILLED[field][0]).join(', ')}
     from ${FROM_SCHEDULE}
     where not exists (select 1 from deleted_task d where d.workspace_id = $1 and d.schedule_id = s.id
       and d.nominal_date = made.nominal_date and d.step_key = made.step_key and d.head = made.head)
     order by made.schedule_id, made.nominal_date, made.head, made.set_index
     on conflict on constraint task_made_once do nothing
     returning schedule_id as "scheduleId"`,
    [...handed(await written(scope, tasks)), scope.instant, runId],
  );
  await callAskerFor(scope, tasks);
  return { tasks: rows.length, schedules: new Set(rows.map(({ scheduleId }) => scheduleId)).size };
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
  and task.step_key = made.step_key and task.head = made.head`;

/** Brings tasks up to what their schedule and template say now, but for what was changed by hand. */
export async function refreshMadeTasks(scope: Scope, tasks: readonly MadeTask[]): Promise<void> {
  if (tasks.length === 0) return;
  const params = handed(await written(scope, tasks));
  // Where the instructions were changed by hand, they stay in a content that says all else as it is now.
  const mixed = mixedContent('now', 'own');
  await scope.sql(
    // The tasks first: how many were edited is a guess, and where the database knows little of its tables it went through
    // all of them for each.
    `with mine as materialized (
       select task.edited, task.content_id as own_id, made.content_id as now_id from ${FROM_SCHEDULE} join task on ${MADE_BEFORE})
     insert into ${mixed.into} select distinct ${mixed.select}
     from mine
     join work_content own on own.workspace_id = $1 and own.id = mine.own_id
     join work_content now on now.workspace_id = $1 and now.id = mine.now_id
     where mine.edited ? 'instructions'
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
  await callAskerFor(scope, tasks);
}

export async function removeTasks(scope: Scope, ids: readonly string[]): Promise<void> {
  if (ids.length > 0) await scope.sql('delete from task where workspace_id = $1 and id = any($2::uuid[])', [ids]);
}
