import type { RunOne } from '../../contract/index.ts';
import { dayOfIso } from '../../core/index.ts';
import { invalid, notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { leftOutOf, makingFor, owedTasks, type ScheduleRow, scheduleRows } from '../schedules/index.ts';
import { describeRun } from './log.ts';
import { makeOne } from './making.ts';

const FARTHEST_DAYS = 800;

/** What the run of a day makes of one schedule, as if that day were today. Its dates are those of the schedule. */
export async function rehearseOne(scope: Scope, scheduleId: string, asOf: string): Promise<Omit<RunOne, 'run'>> {
  const span = spanOf(scope, asOf);
  const [row] = await scheduleRows(scope, { ids: [scheduleId] });
  if (!row) throw notFound('schedule');
  const making = await makingFor(scope, [row]);
  const owed = owedTasks(scope, row, making, span);
  if (owed.kind === 'problem') return { tasks: [], leftOut: [], waitsFrom: null, problem: owed.message };
  const there = await keysOf(scope, 'task', row);
  const deleted = await keysOf(scope, 'deleted_task', row);
  return {
    problem: null,
    waitsFrom: owed.waitsFrom,
    leftOut: leftOutOf(scope, row, making.calendar, span),
    tasks: owed.tasks.map((task) => {
      const key = `${task.nominalDate} ${task.stepKey} ${task.head}`;
      return {
        title: task.title,
        on: task.workOn,
        appearsOn: task.appearsOn,
        dueOn: task.dueOn,
        who: task.assigneeId === null ? null : (making.people.get(task.assigneeId) ?? null),
        fate: there.has(key) ? ('there' as const) : deleted.has(key) ? ('deleted' as const) : ('new' as const),
      };
    }),
  };
}

/** The same for real, with its line in the log. */
export async function runOne(scope: Scope, scheduleId: string, asOf: string): Promise<RunOne> {
  const told = await rehearseOne(scope, scheduleId, asOf);
  if (told.problem !== null) throw invalid([{ path: 'scheduleId', message: told.problem }]);
  const run = await makeOne(scope, scheduleId, asOf, spanOf(scope, asOf));
  return { ...told, run: await describeRun(scope, run) };
}

/** What would appear within the horizon of that day, and from it on. */
function spanOf({ now, workspace }: Scope, asOf: string) {
  const day = dayOfIso(asOf);
  if (Math.abs(day - now.day) > FARTHEST_DAYS)
    throw invalid([{ path: 'asOf', message: `A day within ${FARTHEST_DAYS} days of today.` }]);
  return { from: Math.min(day, now.day), upTo: day + workspace.horizonDays };
}

async function keysOf(scope: Scope, table: 'task' | 'deleted_task', { id }: ScheduleRow): Promise<Set<string>> {
  const rows = await scope.sql<{ key: string }>(
    `select to_char(nominal_date, 'YYYY-MM-DD') || ' ' || step_key || ' ' || head as key from ${table} where workspace_id = $1 and schedule_id = $2`,
    [id],
  );
  return new Set(rows.map(({ key }) => key));
}
