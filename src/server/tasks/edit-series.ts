import { In } from 'typeorm';
import type { Impact, TaskEdit } from '../../contract/index.ts';
import {
  dayOfIso,
  type EditableTask,
  editedFields,
  editOfOther,
  ownFrom,
  revisionOfEdit,
  type SeriesEdit,
  type TitleContext,
} from '../../core/index.ts';
import { Asset, Client } from '../clients/index.ts';
import { invalid, notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { impactOf, ownWrite, plannedYear, Schedule, scheduleRows, UNSEEN_ONLY } from '../schedules/index.ts';
import { editableTask, editChanges } from './edit.ts';
import { oneTask } from './one-task.ts';
import { mustMay } from './permission.ts';
import { carryOutFates } from './several.ts';
import { lockedTasks, type Task, UNFINISHED } from './stored/index.ts';
import { impactOfFates, type TaskFate } from './task-impact.ts';
import type { SavedTask } from './work.ts';

/** How far an edit of one task goes beyond it. */
type WideReach = 'later' | 'open';
type WideEdit = TaskEdit & { readonly version: number };

/** Changes a task, and with it the later ones of its series or all open ones: saved together, undone together. */
export function editSeries(scope: Scope, id: string, edit: WideEdit, reach: WideReach): Promise<SavedTask> {
  return scope.transaction(async (tx) => {
    const { fates, schedule } = await decide(tx, id, edit, reach);
    const entries = await carryOutFates(tx, fates, 'edited');
    if (schedule) entries.push(await ownWrite(tx, schedule.before, schedule.set, UNSEEN_ONLY));
    const changeId = entries.length === 0 ? null : await tx.recordTogether(entries);
    await tx.tell('tasks', 'schedules');
    return { task: await oneTask(tx, id), changeId };
  });
}

/** What such an edit would do; for the later ones with the dates of the coming year that it goes on to. */
export function impactOfSeriesEdit(scope: Scope, id: string, edit: WideEdit, reach: WideReach): Promise<Impact> {
  return scope.rehearse(async (tx) => {
    const { fates, schedule } = await decide(tx, id, edit, reach);
    const impact = await impactOfFates(tx, fates);
    if (!schedule) return impact;
    await carryOutFates(tx, fates, 'edited');
    const rows = () => scheduleRows(tx, { ids: [schedule.before.id] });
    const year = await plannedYear(tx, await rows());
    await tx.save(Schedule, schedule.before.id, { ...schedule.set, version: schedule.before.version + 1 });
    // Of the schedule's own impact only the dates are told: its tasks stand in the list already.
    const { datesBefore, datesAfter } = await impactOf(tx, await rows(), year, UNSEEN_ONLY);
    return { ...impact, datesBefore, datesAfter };
  });
}

interface Decided {
  readonly fates: readonly TaskFate[];
  /** What its schedule says from this one on; null where only open ones are meant. */
  readonly schedule: { readonly before: Schedule; readonly set: Partial<Schedule> } | null;
}

async function decide(scope: Scope, id: string, edit: WideEdit, reach: WideReach): Promise<Decided> {
  const task = await editableTask(scope, id, edit);
  mustMay(scope, 'editSeries', task);
  if (task.scheduleId === null || task.nominalDate === null) throw notFound('schedule of this task');
  const own = editChanges(task, edit);
  if (task.head !== '' && own.assigneeId !== undefined && own.assigneeId !== task.assigneeId)
    throw invalid([
      {
        path: 'assigneeId',
        message:
          'Each of several has one of their own: give this one alone to somebody, or say on the schedule who has one.',
      },
    ]);
  const contexts = await titleContexts(scope);
  const series: SeriesEdit = {
    before: editable(task),
    after: editable({ ...task, ...own }),
    titleContext: await contexts(task),
  };
  const revision = reach === 'later' ? revisionOfEdit(series, task.stepKey) : null;
  const others = await othersOf(scope, task, reach);
  const fates: TaskFate[] = [{ kind: 'changed', task, changes: withEdited(own, revision?.said) }];
  for (const other of others) {
    if (other.state !== 'open') {
      fates.push({ kind: 'kept', task: other, because: other.state === 'underWay' ? 'under way' : 'finished' });
      continue;
    }
    const changes = editChanges(other, {
      ...editable(other),
      ...editOfOther(series, editable(other), await contexts(other)),
    });
    fates.push({ kind: 'changed', task: other, changes: withEdited(changes, revision?.said) });
  }
  if (revision === null || editedFields(series).length === 0 || revision.said.size === 0)
    return { fates, schedule: null };
  const before = await scope.locked(Schedule, task.scheduleId, 'schedule');
  const { revisions } = ownFrom(
    { ...before, recurrence: before.recurrence, timing: before.timing },
    dayOfIso(task.nominalDate),
    task.stepKey,
    revision,
  );
  return { fates, schedule: { before, set: { revisions: [...revisions] } } };
}

const editable = (task: Task): EditableTask => task;

/** What the schedule says from now on follows it; the rest is remembered as changed by hand. */
function withEdited(
  changes: ReturnType<typeof editChanges>,
  said: ReadonlySet<keyof EditableTask> = new Set(),
): Partial<Task> {
  return { ...changes, edited: changes.edited.filter((field) => !said.has(field as keyof EditableTask)) };
}

/** The other tasks of the same step of the series that are not over. */
async function othersOf(scope: Scope, task: Task, reach: WideReach): Promise<Task[]> {
  const rows = await scope.sql<{ id: string }>(
    `select id from task where workspace_id = $1 and schedule_id = $2 and step_key = $3 and id <> $4
       and state in ${UNFINISHED} and ($5::date is null or nominal_date > $5::date)`,
    [task.scheduleId, task.stepKey, task.id, reach === 'later' ? task.nominalDate : null],
  );
  return lockedTasks(
    scope,
    rows.map(({ id }) => id),
  );
}

async function titleContexts(scope: Scope): Promise<(task: Task) => Promise<TitleContext>> {
  const people = await scope.peopleNames();
  const names = new Map<string, string>();
  const nameOf = async (entity: typeof Client | typeof Asset, id: string | null) => {
    if (id === null) return null;
    const known = names.get(id) ?? (await scope.find(entity, { id: In([id]) }))[0]?.name ?? null;
    if (known !== null) names.set(id, known);
    return known;
  };
  return async (task) => ({
    on: dayOfIso(task.setOn),
    client: await nameOf(Client, task.clientId),
    asset: await nameOf(Asset, task.assetId),
    person: task.assigneeId === null ? null : (people.get(task.assigneeId) ?? null),
    type: task.workType,
  });
}
