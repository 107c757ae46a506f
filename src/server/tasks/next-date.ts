import { dayOfIso, isDated, moveDate, nextDated, planDays, type WorkingCalendar } from '../../core/index.ts';
import { invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import {
  NEXT_CHOSEN,
  ownWrite,
  plannedSchedule,
  Schedule,
  type ScheduleRow,
  scheduleRows,
  UNSEEN_ONLY,
} from '../schedules/index.ts';
import { oneTask } from './one-task.ts';
import type { Task } from './stored/index.ts';
import type { SavedTask } from './work.ts';

/** The finishing of a task, and the next of its series on another day, this once: undone together. */
export async function withNextOn(
  scope: Scope,
  task: Task,
  saved: SavedTask,
  nextOn: string | null,
): Promise<SavedTask> {
  if (nextOn === null || saved.changeId === null) return saved;
  const moved = await moveNext(scope, task, nextOn);
  if (moved === null) return saved;
  const changeId = await scope.joinChanges([saved.changeId, moved]);
  return { task: await oneTask(scope, task.id), changeId };
}

/** Whether another occurrence of the schedule is worked on that day. */
function isTaken(scope: Scope, row: ScheduleRow, calendar: WorkingCalendar, nominal: number, day: number): boolean {
  return planDays(plannedSchedule(scope, row), calendar, day, day).some(
    (one) => isDated(one) && one.nominal !== nominal,
  );
}

async function moveNext(scope: Scope, task: Task, to: string): Promise<string | null> {
  if (task.scheduleId === null || task.nominalDate === null || task.stepKey !== '' || task.head !== '')
    throw invalid([{ path: 'nextOn', message: 'Nothing comes after this one by itself.' }]);
  if (to < scope.today) throw invalid([{ path: 'nextOn', message: 'The next one can’t be before today.' }]);
  const [row] = await scheduleRows(scope, { ids: [task.scheduleId] });
  const [made] = await scope.sql<{ id: string; nominal: string; on: string; state: string; edited: string[] }>(
    `select id, nominal_date as nominal, work_on as "on", state, edited from task
     where workspace_id = $1 and schedule_id = $2 and step_key = '' and nominal_date > $3::date order by nominal_date limit 1`,
    [task.scheduleId, task.nominalDate],
  );
  const from = Math.max(dayOfIso(task.nominalDate) + 1, scope.now.day);
  const planned = row && !made ? nextDated(plannedSchedule(scope, row), await scope.calendar(), from) : null;
  const nominal = made ? dayOfIso(made.nominal) : planned?.nominal;
  if (nominal === undefined) throw invalid([{ path: 'nextOn', message: 'This is the last one of its schedule.' }]);
  if (made && (made.state !== 'open' || made.edited.length > 0))
    throw notNow('The next one has been begun or changed by hand already: change it there.');
  if (row && isTaken(scope, row, await scope.calendar(), nominal, dayOfIso(to)))
    throw invalid([
      {
        path: 'nextOn',
        message: 'There is another one on that day already, and one a day is all there can be: choose another day.',
      },
    ]);
  const on = made ? dayOfIso(made.on) : planned?.on;
  if (on === dayOfIso(to)) return null;
  const before = await scope.locked(Schedule, task.scheduleId, 'schedule');
  const { exceptions } = moveDate(before, nominal, dayOfIso(to));
  const reach = made ? { open: false, also: [made.id] } : UNSEEN_ONLY;
  const { fields, watchId } = await ownWrite(scope, before, { exceptions: [...exceptions] }, reach);
  await scope.tell('schedules', 'tasks');
  return scope.record('schedule', before.id, NEXT_CHOSEN, fields, watchId);
}
