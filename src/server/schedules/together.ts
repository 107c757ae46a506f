import type { Impact, Reach, Sync } from '../../contract/index.ts';
import type { ChangeEntry, FieldChanges } from '../platform/changes/entity.ts';
import { insertRows } from '../platform/db/insert-rows.ts';
import type { Scope } from '../platform/scope.ts';
import { watched } from '../tasks/stored/index.ts';
import { entriesOf, type ScheduleWrite, saveRows, syncSchedules } from './changing.ts';
import { Schedule } from './entity.ts';
import { impactOf, plannedYear } from './impact.ts';
import { scheduleRows } from './schedule-row.ts';

/** A schedule that is to be there, all else about it being new. */
export type NewSchedule = Omit<
  Schedule,
  'workspaceId' | 'id' | 'version' | 'settledTo' | 'problem' | 'createdAt' | 'deletedAt'
>;

/** Schedules that become others, and new ones, as parts of one change. */
export interface Together {
  readonly writes: readonly ScheduleWrite[];
  readonly added: readonly NewSchedule[];
}

/** Rows without their tasks; gives their ids. */
export async function insertSchedules(scope: Scope, added: readonly NewSchedule[]): Promise<string[]> {
  const rows = added.map((set) => ({
    ...{ id: scope.newId(), version: 1, ...set },
    ...{ settledTo: scope.today, problem: null, createdAt: scope.instant, deletedAt: null },
  }));
  await insertRows(scope, 'schedule', Schedule, rows);
  return rows.map(({ id }) => id);
}

interface SavedTogether {
  readonly tasks: Sync;
  readonly entries: ChangeEntry[];
}

/** Carries it out, and says what is to be recorded of it. */
export async function saveTogether(scope: Scope, { writes, added }: Together, reach: Reach): Promise<SavedTogether> {
  if (writes.length > 0) await saveRows(scope, writes);
  const addedIds = await insertSchedules(scope, added);
  const ids = [...writes.map(({ before }) => before.id), ...addedIds];
  const { value: tasks, watchId } = await watched(scope, () => syncSchedules(scope, ids, reach));
  // Undone, each is deleted as of now; brought back, it stands as any other.
  const fields: FieldChanges = { deletedAt: { from: scope.instant.toISOString(), to: null } };
  return {
    tasks,
    entries: [
      ...entriesOf(writes, 'changed', watchId),
      ...addedIds.map((id) => ({ subject: 'schedule', subjectId: id, action: 'created', fields, watchId }) as const),
    ],
  };
}

/** Schedules of a part: so many are written, and their tasks made, before whoever waits is told how far it is. */
const SCHEDULES_OF_A_PART = 400;

/** The same in parts, one after the other within the same transaction. @param of how much all of it counts for whoever follows it */
export async function saveInParts(
  scope: Scope,
  { writes, added }: Together,
  reach: Reach,
  of: number,
): Promise<SavedTogether> {
  const total = writes.length + added.length;
  const tasks = { made: 0, changed: 0, removed: 0, kept: 0 };
  const entries: ChangeEntry[] = [];
  for (let at = 0, told = 0; at < total; at += SCHEDULES_OF_A_PART) {
    const end = Math.min(total, at + SCHEDULES_OF_A_PART);
    const part = {
      writes: writes.slice(at, end),
      added: added.slice(Math.max(0, at - writes.length), Math.max(0, end - writes.length)),
    };
    const saved = await saveTogether(scope, part, reach);
    for (const figure of ['made', 'changed', 'removed', 'kept'] as const) tasks[figure] += saved.tasks[figure];
    entries.push(...saved.entries);
    const done = Math.round((of * end) / total);
    await scope.did(done - told);
    told = done;
  }
  return { tasks, entries };
}

/** What it would do, told within a rehearsal. */
export async function impactOfTogether(scope: Scope, { writes, added }: Together, reach: Reach): Promise<Impact> {
  const year = await plannedYear(scope, await scheduleRows(scope, { ids: writes.map(({ before }) => before.id) }));
  if (writes.length > 0) await saveRows(scope, writes);
  const ids = [...writes.map(({ before }) => before.id), ...(await insertSchedules(scope, added))];
  return impactOf(scope, await scheduleRows(scope, { ids }), year, reach);
}
