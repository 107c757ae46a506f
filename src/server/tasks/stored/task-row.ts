import type { TaskLine } from '../../../contract/index.ts';
import {
  civilTimeAt,
  type DatedTask,
  type Doing,
  dayOfIso,
  lookOf,
  type Offer,
  type SignOff,
  stillMissing,
  type TaskLook,
  tagToStart,
  tryMinutesOfTime,
} from '../../../core/index.ts';
import { civilNow } from '../../platform/clock.ts';
import { columnsOf } from '../../platform/db/columns.ts';
import { namedOrNull } from '../../platform/named.ts';
import type { Scope } from '../../platform/scope.ts';
import { type Content, WorkContent } from './content.ts';
import { type Task, TaskRecord } from './entity.ts';

/** What a line of a task is told from, of the task itself and of what it says. */
const LINE_FIELDS = [
  'id',
  'version',
  'templateId',
  'scheduleId',
  'nominalDate',
  'stepKey',
  'setId',
  'setOn',
  'setIndex',
  'title',
  'ticks',
  'answers',
  'note',
  'notePinned',
  'priority',
  'estimateMinutes',
  'clientId',
  'assetId',
  'assigneeId',
  'offeredTo',
  'state',
  'workOn',
  'appearsOn',
  'startsOn',
  'dueOn',
  'startTime',
  'dueTime',
  'zone',
  'startedAt',
  'doneAt',
  'doneBy',
  'doneByContact',
  'madeAt',
  'heldUntil',
  'heldReason',
  'nudgedAt',
] as const satisfies readonly (keyof TaskRecord)[];
const SAID_FIELDS = [
  'checkLines',
  'demands',
  'workType',
  'signOff',
  'finishWithLast',
  'numbered',
] as const satisfies readonly (keyof Content)[];

/** A task with the names around it. */
export type TaskRow = Pick<Task, (typeof LINE_FIELDS)[number] | (typeof SAID_FIELDS)[number]> & {
  category: string | null;
  clientName: string | null;
  assetName: string | null;
  assetTag: string | null;
  assigneeName: string | null;
  /** Names of those whom it is offered to, where they are named; the contact of a client whose it is, and that they are that. */
  offeredNames: string | null;
  /** Name of the person who is to sign it off, where one is named. */
  signerName: string | null;
  setSize: number;
  /** How many files there are for each demand. */
  proofFiles: Record<string, number>;
};

/** The name of what a task points to: asked of each by its key, as each table that is joined makes a plan longer to find. */
export const nameOf = (table: string, id: string, name = 'name') =>
  `(select ${name} from ${table} of where of.workspace_id = t.workspace_id and of.id = ${id})`;

/** In which order the contacts `of` a client are asked: those who have an address, who would rather have mail before others. */
export const MAILED_FIRST = `of.email = '', of.prefers is distinct from 'mail', of.position, of.id`;

/** How many are of the set of a task `t`, found by what `ofSet` finds them by. */
const sizeOfSet = (found: string) => `(select count(*) from task other
  where other.workspace_id = t.workspace_id and other.set_id = t.set_id and ${found})`;
const SET_SIZE = `case when t.schedule_id is null then ${sizeOfSet('other.schedule_id is null')}
  else ${sizeOfSet('other.schedule_id = t.schedule_id and other.nominal_date = t.nominal_date')} end`;

/** What to select for a `TaskRow`, from `task t` joined as in `TASK_JOINS`. */
export const TASK_COLUMNS = `${columnsOf(TaskRecord, 't', LINE_FIELDS)}, ${columnsOf(WorkContent, 'said', SAID_FIELDS)},
  ${nameOf('template', 't.template_id', 'category')} as category, ${nameOf('client', 't.client_id')} as "clientName",
  ${nameOf('asset', 't.asset_id')} as "assetName", ${nameOf('asset', 't.asset_id', 'tag')} as "assetTag",
  ${nameOf('person', 't.assignee_id')} as "assigneeName",
  case t.offered_to->>'of' when 'people' then (select string_agg(of.name, ', ' order by of.name) from person of
     where of.workspace_id = t.workspace_id and t.offered_to->'ids' ? of.id::text)
   when 'client' then (select of.name || case of.email when '' then ' (client, no mail address)' else ' (client)' end from contact of where of.workspace_id = t.workspace_id and of.client_id = t.client_id
     order by ${MAILED_FIRST} limit 1) end as "offeredNames",
  ${nameOf('person', "(said.sign_off->>'personId')::uuid")} as "signerName",
  ${SET_SIZE} as "setSize",
  coalesce((select jsonb_object_agg(f.demand_key, f.n) from (
    select demand_key, count(*) as n from file where file.workspace_id = t.workspace_id and file.task_id = t.id
      and removed_at is null and demand_key is not null group by demand_key) f), '{}') as "proofFiles"`;
export const TASK_JOINS = `task t
  join work_content said on said.workspace_id = t.workspace_id and said.id = t.content_id`;

/**
 * Selects the lines of the tasks whose ids a question gives. Each is fetched by its key, which `offset 0` keeps so: a
 * planner that takes a day's few tasks for a thousand would rather read every task there is.
 */
export const linesOf = (ids: string) =>
  `select line.* from (${ids}) chosen(id) cross join lateral (
     select ${TASK_COLUMNS} from ${TASK_JOINS} where t.workspace_id = $1 and t.id = chosen.id offset 0) line`;

/** What the look of a task is told from. */
export const LOOK_FIELDS = [
  'state',
  'appearsOn',
  'dueOn',
  'dueTime',
  'zone',
  'doneAt',
  'heldUntil',
] as const satisfies readonly (keyof TaskRecord)[];
export type LookRow = Pick<Task, (typeof LOOK_FIELDS)[number]>;

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
    heldUntil: row.heldUntil === null ? null : dayOfIso(row.heldUntil),
  };
}

export function lookOfRow(scope: Scope, row: LookRow): TaskLook {
  // A due time in Sydney has passed when it has passed there.
  const now = row.zone === null ? scope.now : civilNow(scope.clock, row.zone);
  return lookOf(datedTask(scope, row), now);
}

/** As much of a task as tells what it still lacks. */
export function doingOf(
  task: Pick<Task, 'demands' | 'checkLines' | 'ticks' | 'answers' | 'note'>,
  files: Readonly<Record<string, number>>,
): Doing {
  const { demands, checkLines, ticks, answers, note } = task;
  return { demands, checkLines, ticked: new Set(Object.keys(ticks)), answers, files, note };
}

/** Who is to sign, in words: "a manager", "Bram Otter", "a bookkeeper". */
function saySigner(signOff: SignOff | null, signerName: string | null): string | null {
  if (signOff === null) return null;
  if (signOff.by === 'person') return signerName ?? 'somebody who is no longer here';
  return signOff.by === 'manager' ? 'a manager' : `someone of the role ${signOff.role}`;
}

/** Whether it is for its client to do, and nobody here has taken it over. */
export function isForClient({ assigneeId, offeredTo }: Pick<Task, 'assigneeId' | 'offeredTo'>): boolean {
  return assigneeId === null && offeredTo?.of === 'client';
}

/** Whom a task is offered to, in words: "any of dock crew". */
function sayOffered(group: Offer | null, names: string | null): string | null {
  if (group === null) return null;
  switch (group.of) {
    case 'everyone':
      return 'anyone';
    case 'role':
      return group.onShift ? `any of ${group.role} on shift` : `any of ${group.role}`;
    case 'team':
      return `any of team ${group.team}`;
    case 'client':
      return names ?? 'the client, who has no contact';
    case 'people':
      return names === null ? 'any of some who are not here' : `any of ${names}`;
  }
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
    offeredTo: sayOffered(row.offeredTo, row.offeredNames),
    isForClient: isForClient(row),
    state: look.state,
    late: look.late,
    daysLate: look.daysLate,
    heldUp: look.heldUp,
    hold: look.heldUp && row.heldUntil !== null ? { reason: row.heldReason ?? '', until: row.heldUntil } : null,
    on: row.workOn,
    startsOn: row.startsOn,
    dueOn: row.dueOn,
    startTime: row.startTime,
    dueTime: row.dueTime,
    zone: row.zone,
    estimateMinutes: row.estimateMinutes,
    priority: row.priority,
    stepsDone: row.checkLines.filter(({ key }) => Object.hasOwn(row.ticks, key)).length,
    stepsTotal: row.checkLines.length,
    proofMissing: stillMissing(doingOf(row, row.proofFiles))
      .filter(({ demand }) => demand !== null)
      .map(({ words }) => words),
    startsByTag: tagToStart(row, row.state !== 'open', row.assetTag) !== null,
    signsOff: saySigner(row.signOff, row.signerName),
    setSize: row.setSize,
    startedAt: scope.moment(row.startedAt),
    nudgedAt: scope.moment(row.nudgedAt),
    doneAt: scope.moment(row.doneAt),
  };
}

/** The lines of some tasks, in the order of their sets. */
export async function taskLines(scope: Scope, ids: readonly string[]): Promise<TaskLine[]> {
  const rows = await scope.sql<TaskRow>(
    `select ${TASK_COLUMNS} from ${TASK_JOINS} where t.workspace_id = $1 and t.id = any($2::uuid[])
     order by t.work_on, t.set_index, t.id`,
    [ids],
  );
  return rows.map((row) => taskLine(scope, row));
}
