import type { Impact, TaskDeed, TasksDeed } from '../../contract/index.ts';
import { dayOfIso, isoOfDay, isToDo, offsetDay, plural, stillMissing, type WorkingCalendar } from '../../core/index.ts';
import { proofFilesOfTasks } from '../files/stored/index.ts';
import type { Action } from '../platform/changes/actions.ts';
import type { ChangeEntry, FieldChanges } from '../platform/changes/entity.ts';
import { mustReceive } from '../platform/identity/receiver.ts';
import { changedMeanwhile, invalid, notNow } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { followOn } from '../schedules/index.ts';
import { oneTask } from './one-task.ts';
import { mustMay, type TaskRight } from './permission.ts';
import { takeOut } from './remove.ts';
import {
  doingOf,
  lockedTask,
  lockedTasks,
  refuseFarDays,
  saveTasks,
  seenFrom,
  storedTasks,
  type Task,
} from './stored/index.ts';
import { impactOfFates, type TaskFate, watchTasks } from './task-impact.ts';
import { finished, type SavedTask } from './work.ts';

/**
 * Gives, moves, skips or deletes tasks in one go, which one undo takes back. Of many, what is under way or done stays;
 * one that is named alone is refused when it can't be done with it.
 */
export function changeTasks(scope: Scope, input: TasksDeed): Promise<{ changed: number; changeId: string | null }> {
  // Each is read, and written.
  return scope.followed(input.follow, 2 * input.tasks.length).transaction(async (tx) => {
    const fates = await fatesOf(tx, input);
    const entries = await carryOutFates(tx, fates, ACTIONS[input.deed.kind]);
    await tx.tell('tasks', 'schedules');
    return { changed: entries.length, changeId: entries.length === 0 ? null : await tx.recordTogether(entries) };
  });
}

/** Skips one task as it stands, whatever version of it was seen: for whoever stands before it, with a net or without. */
export function skipTask(scope: Scope, id: string, reason: string): Promise<SavedTask> {
  return scope.transaction(async (tx) => {
    const task = await lockedTask(tx, id);
    const fates = await fatesOfTasks(tx, [task], { kind: 'skip', reason }, { isAlone: true });
    const changeId = await tx.recordTogether(await carryOutFates(tx, fates, ACTIONS.skip));
    await tx.tell('tasks', 'schedules');
    return { task: await oneTask(tx, id), changeId };
  });
}

export function impactOfTasks(scope: Scope, input: TasksDeed): Promise<Impact> {
  // Each is read, looked at as it is, written, and looked at once more.
  return scope.followed(input.follow, 4 * input.tasks.length).rehearse(async (tx) => {
    const fates = await fatesOf(tx, input);
    // Of a schedule whose next waits for the last one, more may come and go than what is named.
    const scheduleIds = [...new Set(fates.flatMap(({ task }) => task.scheduleId ?? []))];
    const became = await watchTasks(tx, { taskIds: fates.map(({ task }) => task.id), scheduleIds });
    await carryOutFates(tx, fates, ACTIONS[input.deed.kind]);
    return impactOfFates(tx, [...(await became()), ...fates.filter(({ kind }) => kind === 'kept')]);
  });
}

/** What is said of it in the history of a task. */
export const ACTIONS = {
  give: 'edited',
  move: 'edited',
  moveTo: 'edited',
  times: 'edited',
  prioritise: 'edited',
  finish: 'finished',
  skip: 'skipped',
  delete: 'deleted',
} as const;

/** What whoever does it has to be allowed. */
const RIGHTS = {
  give: 'give',
  move: 'move',
  moveTo: 'move',
  times: 'move',
  prioritise: 'prioritise',
  finish: 'work',
  skip: 'skip',
  delete: 'delete',
} as const satisfies Record<TaskDeed['kind'], TaskRight>;

async function fatesOf(scope: Scope, { tasks: asked, deed }: TasksDeed): Promise<TaskFate[]> {
  const tasks = await lockedAsSeen(scope, asked, deed);
  const fates = await fatesOfTasks(scope, tasks, deed, { isAlone: tasks.length === 1 });
  if (fates.length === 0) throw invalid([{ path: 'deed', message: SAID_OF_NOTHING[deed.kind] }]);
  return fates;
}

/** Tasks with which something is to be done. @throws Refusal where that is not allowed, or somebody has changed one of them since */
export async function lockedAsSeen(scope: Scope, asked: TasksDeed['tasks'], deed: TaskDeed): Promise<Task[]> {
  const versions = new Map(asked.map(({ id, version }) => [id, version]));
  const tasks = await lockedTasks(scope, [...versions.keys()]);
  for (const task of tasks) mustMay(scope, RIGHTS[deed.kind], task);
  const meanwhile = tasks.filter((task) => task.version !== versions.get(task.id));
  if (meanwhile.length > 0) {
    throw changedMeanwhile(
      `${plural(meanwhile.length, 'task was', 'tasks were')} changed by someone else meanwhile: ${meanwhile
        .slice(0, 3)
        .map(({ title }) => `“${title}”`)
        .join(', ')}. Nothing is changed; choose again from what is shown now.`,
    );
  }
  return tasks;
}

/**
 * What becomes of tasks that are locked; those that stay as they are by themselves are left out.
 * @param isAlone whether one that can't be done with is refused, instead of being left alone among others
 */
export async function fatesOfTasks(
  scope: Scope,
  tasks: readonly Task[],
  deed: TaskDeed,
  { isAlone }: { readonly isAlone: boolean },
): Promise<TaskFate[]> {
  for (const task of tasks) mustMay(scope, RIGHTS[deed.kind], task);
  if (deed.kind === 'give') await mustReceive(scope, deed.personId, { path: 'deed.personId' });
  const calendar = await scope.calendar();
  const writtenOn = deed.kind === 'delete' ? await tasksWrittenOn(scope, tasks) : new Set<string>();
  const lacking = deed.kind === 'finish' ? await lackingSomething(scope, tasks, deed.note) : new Set<string>();
  const fates = tasks.map((task): TaskFate | null => {
    const because = lacking.has(task.id) && isToDo(task.state) ? 'something missing' : keptBecause(task, writtenOn);
    // What is begun is to be finished; else it is left alone where it is one of many.
    if (because === null || (because === 'under way' && (isAlone || deed.kind === 'finish')))
      return deed.kind === 'delete' ? { kind: 'removed', task } : changedBy(scope, deed, task, calendar);
    if (isAlone) throw notNow(SAID_OF_KEPT[because]);
    return { kind: 'kept', task, because };
  });
  for (const fate of fates)
    if (fate?.kind === 'changed' && fate.changes.workOn !== undefined)
      refuseFarDays(scope, { [deed.kind === 'moveTo' ? 'deed.on' : 'deed.by']: fate.changes.workOn });
  return fates.filter((fate) => fate !== null);
}

const SAID_OF_NOTHING = {
  give: 'Nothing would change by that: whom you chose has it already.',
  move: 'Nothing would change by that: it stays on its day.',
  moveTo: 'Nothing would change by that: it is on that day already.',
  times: 'Nothing would change by that: all of them have those times already.',
  prioritise: 'Nothing would change by that: it has that priority already.',
  finish: 'Nothing would change by that.',
  skip: 'Nothing would change by that.',
  delete: 'Nothing would change by that.',
} as const;

function keptBecause({ id, state }: Task, writtenOn: ReadonlySet<string>) {
  if (!isToDo(state)) return 'finished';
  if (writtenOn.has(id)) return 'written on';
  return state === 'underWay' ? 'under way' : null;
}

const SAID_OF_KEPT = {
  finished: 'What was finished or skipped stays on record.',
  'under way': 'It is under way.',
  'something missing': 'Something is still missing: open it to see what.',
  'written on': 'There are files, comments or notices with it: skip it instead.',
} as const;

/** Null where nothing changes by it. */
function changedBy(
  scope: Scope,
  deed: Exclude<TaskDeed, { kind: 'delete' }>,
  task: Task,
  calendar: WorkingCalendar,
): TaskFate | null {
  if (deed.kind === 'skip')
    return { kind: 'changed', task, changes: { state: 'skipped', note: noteWith(task, deed.reason) } };
  if (deed.kind === 'finish')
    return { kind: 'changed', task, changes: { ...finished(scope, task), note: noteWith(task, deed.note) } };
  if (deed.kind === 'give') {
    if (deed.personId === task.assigneeId) return null;
    const edited = [...new Set([...task.edited, 'assigneeId'])];
    return { kind: 'changed', task, changes: { assigneeId: deed.personId, edited } };
  }
  if (deed.kind === 'times') {
    const at = deed.at.find(({ id }) => id === task.id);
    if (at === undefined || (at.startTime === task.startTime && at.dueTime === task.dueTime)) return null;
    const { startTime, dueTime } = at;
    const edited = [...new Set([...task.edited, 'startTime', 'dueTime'])];
    return { kind: 'changed', task, changes: { startTime, dueTime, edited } };
  }
  if (deed.kind === 'prioritise') {
    if (deed.priority === task.priority) return null;
    const edited = [...new Set([...task.edited, 'priority'])];
    return { kind: 'changed', task, changes: { priority: deed.priority, edited } };
  }
  const on = deed.kind === 'moveTo' ? dayOfIso(deed.on) : offsetDay(dayOfIso(task.workOn), deed.by, calendar);
  const shift = on - dayOfIso(task.workOn);
  if (shift === 0) return null;
  const moved = (date: string) => isoOfDay(dayOfIso(date) + shift);
  return {
    kind: 'changed',
    task,
    changes: {
      workOn: isoOfDay(on),
      startsOn: moved(task.startsOn),
      dueOn: moved(task.dueOn),
      appearsOn: seenFrom(task, isoOfDay(on)),
      edited: [...new Set([...task.edited, 'workOn', 'startsOn', 'dueOn', 'appearsOn'])],
    },
  };
}

/** The note of a task with something added. */
const noteWith = ({ note }: Pick<Task, 'note'>, added: string): string =>
  [note, added].filter((text) => text.trim() !== '').join('\n');

/** Those that could not be finished now, with a note added to each. */
async function lackingSomething(scope: Scope, tasks: readonly Task[], note: string): Promise<ReadonlySet<string>> {
  const files = await proofFilesOfTasks(
    scope,
    tasks.map(({ id }) => id),
  );
  return new Set(
    tasks.flatMap((task) =>
      stillMissing(doingOf({ ...task, note: noteWith(task, note) }, files.get(task.id) ?? {})).length > 0
        ? [task.id]
        : [],
    ),
  );
}

async function tasksWrittenOn(scope: Scope, tasks: readonly Task[]): Promise<ReadonlySet<string>> {
  const rows = await scope.sql<{ id: string }>(
    `select task_id as id from file where workspace_id = $1 and task_id = any($2::uuid[]) and removed_at is null
     union select task_id from task_comment where workspace_id = $1 and task_id = any($2::uuid[])
     union select task_id from notice where workspace_id = $1 and task_id = any($2::uuid[])`,
    [tasks.map(({ id }) => id)],
  );
  return new Set(rows.map(({ id }) => id));
}

/** Does what was decided; gives what is to be recorded of it. */
export async function carryOutFates(
  scope: Scope,
  fates: readonly TaskFate[],
  action: Action<'task'>,
): Promise<ChangeEntry[]> {
  const removed = fates.filter((fate) => fate.kind === 'removed').map(({ task }) => task);
  const rows = await storedTasks(
    scope,
    removed.map(({ id }) => id),
  );
  await takeOut(scope, removed);
  const entries: ChangeEntry[] = removed.map(({ id }) =>
    entryOf(id, action, { row: { from: rows.get(id) ?? null, to: null } }),
  );
  const followed = [...removed];
  const changed = fates
    .filter((fate) => fate.kind === 'changed')
    .map(({ task, changes }) => ({ task, changes, fields: fieldChanges(task, changes) }))
    .filter(({ fields }) => Object.keys(fields).length > 0);
  await saveTasks(scope, changed);
  for (const { task, fields } of changed) {
    entries.push(entryOf(task.id, action, fields));
    if ('state' in fields) followed.push(task);
  }
  await followOn(scope, followed);
  return entries;
}

function entryOf(id: string, action: Action<'task'>, fields: FieldChanges): ChangeEntry {
  return { subject: 'task', subjectId: id, action, fields };
}
