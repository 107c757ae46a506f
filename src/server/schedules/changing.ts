import { In } from 'typeorm';
import type {
  Impact,
  Reach,
  Schedule as ScheduleAnswer,
  ScheduleInput,
  SchedulePatch,
  Sync,
} from '../../contract/index.ts';
import {
  type CivilDay,
  PLAIN_TIMING,
  plural,
  type Revision,
  reckoningFault,
  recurrenceProblems,
  type WorkingCalendar,
} from '../../core/index.ts';
import { Asset, Client } from '../clients/index.ts';
import type { Action } from '../platform/changes/actions.ts';
import { type ChangeEntry, type FieldChanges, fieldsBefore } from '../platform/changes/entity.ts';
import { columnOf } from '../platform/db/columns.ts';
import { changedMeanwhile, invalid, notFound } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { putBackTasks, type Task, type Watch, watched } from '../tasks/stored/index.ts';
import { sanitiseInstructions, Template } from '../templates/stored/index.ts';
import { Schedule } from './entity.ts';
import { impactOf, plannedYear } from './impact.ts';
import { type InputProblem, peopleById, problemsOfPeople } from './people-of-input.ts';
import { scheduleRows } from './schedule-row.ts';
import { oneSchedule } from './service.ts';
import { syncAll, UNSEEN_ONLY } from './sync.ts';

export interface SavedSchedule {
  readonly schedule: ScheduleAnswer;
  readonly tasks: Sync;
  readonly changeId: string | null;
}

export interface SavedSchedules {
  readonly tasks: Sync;
  readonly changeId: string;
}

/** One schedule as it stands in the database, and what is to be different. */
export interface ScheduleWrite {
  readonly before: Schedule;
  readonly set: Partial<Schedule>;
}

type WholeInput = ScheduleInput & { readonly version: number; readonly reach: Reach };
type SeveralInput = { readonly changes: readonly SchedulePatch[]; readonly reach: Reach };

export function changeSchedule(scope: Scope, id: string, input: WholeInput): Promise<SavedSchedule> {
  return scope.transaction(async (tx) => {
    const write = await wholeChange(tx, id, input);
    const saved = await writeSchedules(tx, [write], 'changed', input.reach);
    return { schedule: await oneSchedule(tx, id), ...saved };
  });
}

/** What saving a schedule would do: the change is made, looked at, and taken back. */
export function impactOfSchedule(scope: Scope, id: string, input: WholeInput): Promise<Impact> {
  return scope.rehearse(async (tx) => rehearsedWrites(tx, [await wholeChange(tx, id, input)], input.reach));
}

/** Changes fields of many schedules in one go, which one undo takes back. */
export function changeSchedules(scope: Scope, { changes, reach }: SeveralInput): Promise<SavedSchedules> {
  return scope.transaction(async (tx) => writeSchedules(tx, await partChanges(tx, changes), actionOf(changes), reach));
}

export function impactOfSchedules(scope: Scope, { changes, reach }: SeveralInput): Promise<Impact> {
  return scope.rehearse(async (tx) => rehearsedWrites(tx, await partChanges(tx, changes), reach));
}

async function rehearsedWrites(scope: Scope, writes: readonly ScheduleWrite[], reach: Reach): Promise<Impact> {
  const ids = writes.map(({ before }) => before.id);
  const year = await plannedYear(scope, await scheduleRows(scope, { ids }));
  await saveRows(scope, writes);
  return impactOf(scope, await scheduleRows(scope, { ids }), year, reach);
}

async function wholeChange(scope: Scope, id: string, input: WholeInput): Promise<ScheduleWrite> {
  const before = await scope.locked(Schedule, id, 'schedule');
  if (before.version !== input.version) {
    throw changedMeanwhile(
      'Someone else changed this schedule since you opened it. Yours is still on the screen, not saved; “Put back” shows theirs.',
    );
  }
  await checkInput(scope, input, before);
  return { before, set: stored(input) };
}

async function partChanges(scope: Scope, changes: readonly SchedulePatch[]): Promise<ScheduleWrite[]> {
  const found = await lockedSchedules(
    scope,
    changes.map(({ id }) => id),
  );
  const meanwhile = changes.flatMap(({ id, version }, i) =>
    found.get(id)?.version === version
      ? []
      : [{ path: `changes.${i}`, message: 'It was changed by someone else since you saw it.' }],
  );
  if (meanwhile.length > 0) {
    throw changedMeanwhile(
      `${plural(meanwhile.length, 'schedule was', 'schedules were')} changed by someone else meanwhile. Nothing is saved; what they are now is shown, and yours is kept beside it.`,
      meanwhile,
    );
  }
  const people = await peopleById(scope);
  const calendar = await scope.calendar();
  const problems = changes.flatMap(({ id, set }, i) =>
    [...rulesOf(set, calendar, scope.now.day), ...problemsOfPeople(scope, set, people, found.get(id) ?? null)].map(
      ({ path, message }) => ({
        path: `changes.${i}.set.${path}`,
        message,
      }),
    ),
  );
  if (problems.length > 0) throw invalid(problems);
  return changes.flatMap(({ id, set: { isDeleted, ...set } }) => {
    const before = found.get(id);
    if (!before) return [];
    const deletedAt = isDeleted ? (before.deletedAt ?? scope.instant) : null;
    return [{ before, set: { ...versioned(set), ...(isDeleted === undefined ? {} : { deletedAt }) } }];
  });
}

/** Held against others in the order of their ids, so that two changes never wait for each other for good. */
export async function lockedSchedules(scope: Scope, ids: readonly string[]): Promise<Map<string, Schedule>> {
  const locked = await scope.sql<{ id: string }>(
    'select id from schedule where workspace_id = $1 and id = any($2::uuid[]) order by id for no key update',
    [ids],
  );
  if (locked.length < new Set(ids).size) throw notFound('schedule');
  return new Map((await scope.find(Schedule, { id: In([...ids]) })).map((schedule) => [schedule.id, schedule]));
}

/** What is said of it in the history. */
function actionOf(changes: readonly SchedulePatch[]): Action<'schedule'> {
  const all = (isDeleted: boolean) => changes.every(({ set }) => set.isDeleted === isDeleted);
  return all(true) ? 'deleted' : all(false) ? 'brought back' : 'changed';
}

export interface ScheduleChange {
  readonly id: string;
  readonly fields: FieldChanges;
  readonly watchId: string | null;
}

/** Schedules put back to what changes found, and the tasks that stay as they are. */
export interface PutBack {
  readonly kept: readonly Task[];
  /** Brings their tasks in line with what is owed today, once all else of the undo is done; nothing that was put back changes by it. */
  readonly settle: () => Promise<void>;
}

/** Puts fields of schedules back to what changes found, and exactly the tasks that those changes touched. */
export async function undoScheduleChanges(scope: Scope, changes: readonly ScheduleChange[]): Promise<PutBack> {
  const found = await lockedSchedules(
    scope,
    changes.map(({ id }) => id),
  );
  const writes = changes.flatMap(({ id, fields }) => {
    const before = found.get(id);
    return before ? [{ before, set: fieldsBefore(before, fields) }] : [];
  });
  await saveRows(scope, writes);
  const kept = await putBackTasks(
    scope,
    changes.flatMap(({ id, watchId }): Watch[] => (watchId === null ? [] : [{ watchId, scheduleId: id }])),
  );
  await scope.recordTogether(entriesOf(writes, 'undone', null));
  return {
    kept,
    settle: async () => {
      await syncSchedules(
        scope,
        changes.map(({ id }) => id),
        UNSEEN_ONLY,
      );
      await scope.tell('schedules', 'tasks', 'templates');
    },
  };
}

/** A change of one schedule within another change, which records it. @param also what else belongs to it */
export async function ownWrite(
  scope: Scope,
  before: Schedule,
  set: Partial<Schedule>,
  reach: Reach,
  {
    action = 'changed',
    also = async () => undefined,
  }: { readonly action?: Action<'schedule'>; readonly also?: () => Promise<void> } = {},
): Promise<ChangeEntry & { readonly watchId: string }> {
  await saveRows(scope, [{ before, set }]);
  const { watchId } = await watched(scope, async () => {
    await syncSchedules(scope, [before.id], reach);
    await also();
  });
  return { subject: 'schedule', subjectId: before.id, action, fields: fieldChanges(before, set), watchId };
}

/** Something else in many schedules within another change, which records it. */
export async function rewriteSchedules(
  scope: Scope,
  ids: readonly string[],
  action: Action<'schedule'>,
  setOf: (schedule: Schedule) => Partial<Schedule>,
  reach: Reach = UNSEEN_ONLY,
): Promise<ChangeEntry[]> {
  if (ids.length === 0) return [];
  const writes = [...(await lockedSchedules(scope, ids)).values()].map((before) => ({ before, set: setOf(before) }));
  await saveRows(scope, writes);
  const { watchId } = await watched(scope, () => syncSchedules(scope, ids, reach));
  return entriesOf(writes, action, watchId);
}

/** What that would do, told within a rehearsal. */
export async function impactOfRewriting(
  scope: Scope,
  ids: readonly string[],
  setOf: (schedule: Schedule) => Partial<Schedule>,
): Promise<Impact> {
  const writes = [...(await lockedSchedules(scope, ids)).values()].map((before) => ({ before, set: setOf(before) }));
  return rehearsedWrites(scope, writes, UNSEEN_ONLY);
}

/** Brings tasks that nobody has seen in line with what schedules name, which others have changed. */
export async function followSchedules(scope: Scope, ids: readonly string[]): Promise<void> {
  if (ids.length > 0) await syncSchedules(scope, ids, UNSEEN_ONLY);
}

async function writeSchedules(
  scope: Scope,
  writes: readonly ScheduleWrite[],
  action: Action<'schedule'>,
  reach: Reach,
): Promise<SavedSchedules> {
  const ids = writes.map(({ before }) => before.id);
  await saveRows(scope, writes);
  const { value: tasks, watchId } = await watched(scope, () => syncSchedules(scope, ids, reach));
  const changeId = await scope.recordTogether(entriesOf(writes, action, watchId));
  await scope.tell('schedules', 'tasks', 'templates');
  return { tasks, changeId };
}

export function entriesOf(
  writes: readonly ScheduleWrite[],
  action: Action<'schedule'>,
  watchId: string | null,
): ChangeEntry[] {
  return writes.map(({ before, set }) => ({
    subject: 'schedule',
    subjectId: before.id,
    action,
    fields: fieldChanges(before, set),
    watchId,
  }));
}

/** Whether a change may write a field of a schedule; the others follow, or stay as they are. */
const IS_WRITTEN: Readonly<Record<Exclude<keyof Schedule, 'workspaceId' | 'id'>, boolean>> = {
  version: false,
  templateId: true,
  clientId: true,
  assetId: true,
  onPlanId: true,
  planItem: true,
  assignment: true,
  recurrence: true,
  timing: true,
  overlap: true,
  pauses: true,
  exceptions: true,
  revisions: true,
  settledTo: false,
  problem: false,
  createdAt: false,
  deletedAt: true,
};
const WRITTEN = (Object.keys(IS_WRITTEN) as (keyof typeof IS_WRITTEN)[])
  .filter((field) => IS_WRITTEN[field])
  .map((field) => ({ field, column: columnOf(Schedule, field) }));

/** In one statement, however many there are. */
export async function saveRows(scope: Scope, writes: readonly ScheduleWrite[]): Promise<void> {
  const rows = writes.map(({ before, set }) => {
    const after = { ...before, ...set };
    return { id: before.id, ...Object.fromEntries(WRITTEN.map(({ field, column }) => [column, after[field]])) };
  });
  await scope.sql(
    `update schedule set version = schedule.version + 1, ${WRITTEN.map(({ column }) => `${column} = now.${column}`).join(', ')}
     from jsonb_populate_recordset(null::schedule, $2::jsonb) as now where schedule.workspace_id = $1 and schedule.id = now.id`,
    [JSON.stringify(rows)],
  );
}

export async function syncSchedules(scope: Scope, ids: readonly string[], reach: Reach): Promise<Sync> {
  const rows = await scheduleRows(scope, { ids });
  const synced = await syncAll(scope, rows, reach, (message, { id, templateName }) => {
    // One that had a problem already may have it on; a change must not bring one.
    const had = rows.find((row) => row.id === id)?.problem;
    if (had === null || had === undefined)
      throw invalid([{ path: 'recurrence', message: ids.length === 1 ? message : `${templateName}: ${message}` }]);
  });
  const sum = (figure: keyof Sync) => synced.reduce((total, { counts }) => total + counts[figure], 0);
  return { made: sum('made'), changed: sum('changed'), removed: sum('removed'), kept: sum('kept') };
}

type PartInput = Partial<ScheduleInput>;

/** The forms that are stored say which version of themselves they are. */
export function versioned(set: PartInput): Partial<Schedule> {
  const { recurrence, timing, revisions, ...others } = set;
  return {
    ...others,
    ...(revisions === undefined ? {} : { revisions: cleaned(revisions) }),
    ...(recurrence === undefined ? {} : { recurrence: { v: 1 as const, ...recurrence } }),
    ...(timing === undefined ? {} : { timing: { v: 1 as const, ...timing } }),
  };
}

export function stored(input: ScheduleInput) {
  return {
    templateId: input.templateId,
    clientId: input.clientId,
    assetId: input.assetId,
    assignment: input.assignment,
    recurrence: { v: 1 as const, ...input.recurrence },
    timing: { v: 1 as const, ...input.timing },
    overlap: input.overlap,
    pauses: input.pauses,
    exceptions: input.exceptions,
    revisions: cleaned(input.revisions),
  };
}

/** Instructions that a revision has of its own are cleaned as any others. */
function cleaned(revisions: readonly Revision[]): Revision[] {
  return revisions.map(({ own, ...revision }) => ({
    ...revision,
    ...(own === undefined
      ? {}
      : {
          own: Object.fromEntries(
            Object.entries(own).map(([step, { instructions, ...fields }]) => [
              step,
              instructions === undefined ? fields : { ...fields, instructions: sanitiseInstructions(instructions) },
            ]),
          ),
        }),
  }));
}

/** What the schemas can't see: that all it names is of this workspace, and that the rule gives dates. */
export async function checkInput(scope: Scope, input: ScheduleInput, before: Schedule | null): Promise<void> {
  await scope.one(Template, input.templateId, 'template');
  if (input.clientId) mustBeInUse(await scope.one(Client, input.clientId, 'client'), 'clientId');
  if (input.assetId) {
    const asset = await scope.one(Asset, input.assetId, 'asset');
    mustBeInUse(asset, 'assetId');
    if (asset.clientId !== input.clientId) {
      throw invalid([{ path: 'assetId', message: `${asset.name} does not belong to that client.` }]);
    }
  }
  const problems = [
    ...problemsOfPeople(scope, input, await peopleById(scope), before),
    ...rulesOf(input, await scope.calendar(), scope.now.day),
  ];
  if (problems.length > 0) throw invalid(problems);
}

export function mustBeInUse({ name, archivedAt }: Client | Asset, path: string): void {
  if (archivedAt !== null) throw invalid([{ path, message: `${name} is archived: bring it back first.` }]);
}

export function rulesOf(
  { recurrence, revisions = [] }: PartInput,
  calendar: WorkingCalendar,
  today: CivilDay,
): InputProblem[] {
  return [
    ...(recurrence ? [{ at: 'recurrence', recurrence }] : []),
    ...revisions.map((revision, i) => ({ at: `revisions.${i}.recurrence`, recurrence: revision.recurrence })),
  ].flatMap(({ at, recurrence: rule }) => {
    const fault = reckoningFault({ recurrence: rule, timing: PLAIN_TIMING }, calendar, today);
    if (fault !== null) return [{ path: `${at}.rules`, message: fault }];
    return recurrenceProblems(rule, calendar).map(({ path, message }) => ({ path: `${at}.${path}`, message }));
  });
}
