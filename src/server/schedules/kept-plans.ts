import {
  type CivilDay,
  type DatedOccurrence,
  isDated,
  isoOfDay,
  type PlannedSchedule,
  planDays,
  reachInDays,
  setReach,
  type WorkingCalendar,
} from '../../core/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import type { MadeTask } from '../tasks/stored/index.ts';
import { keptOfSchedules, marksByTasksAhead, type Told } from './kept.ts';
import { madeTasks, type NominalTask, nominalKey } from './made-tasks.ts';
import { planProblem } from './owed.ts';
import { partsOf, plannedSchedule, type ScheduleRow, scheduleRows } from './schedule-row.ts';
import { type Making, makingFor, rowAsksForLoad } from './who-does.ts';

/** A task that a schedule foresees, with the names of what it is for. */
export interface ForeseenTask extends MadeTask {
  readonly clientId: string | null;
  readonly clientName: string | null;
  readonly assetId: string | null;
  readonly assetName: string | null;
}

/** What a schedule foresees from today on. */
export interface KeptPlan {
  readonly templateId: string;
  /** Its tasks due within the days that are kept, which are not made yet and were not deleted on purpose, by due date. */
  readonly tasks: readonly ForeseenTask[];
  /** Its first date from today on, within a year. */
  readonly next: string | null;
}

/** Days from today on whose tasks are kept: as far as the tideline goes. */
export const KEPT_DAYS = 42;
const NEXT_WITHIN_DAYS = 365;

/** Schedules whose plans are kept at the most, of all workspaces together. */
const MOST_KEPT = 60_000;

/** The plans of all schedules of the workspace. */
export const keptPlans = keptOfSchedules<KeptPlan>({
  marks: marksByTasksAhead,
  tell: planned,
  most: MOST_KEPT,
});

async function planned(scope: Scope, ids: readonly string[]): Promise<[string, Told<KeptPlan>][]> {
  const { day: today } = scope.now;
  const rows = (await scheduleRows(scope, { ids })).filter(({ deletedAt }) => deletedAt === null);
  const making = await makingFor(scope, rows);
  const foreseen = await eachInTurn(rows, (row) => ({ row, plan: planOf(scope, row, making, today) }));
  const open = new Set(
    await unsettled(
      scope,
      foreseen.flatMap(({ plan }) => plan.tasks),
    ),
  );
  return foreseen.map(({ row, plan }) => [
    row.id,
    // What waits for its last task waits for what becomes of it, which the mark does not tell; nor what everybody has to do.
    {
      told: { ...plan, tasks: plan.tasks.filter((task) => open.has(task)) },
      isFluid: row.last !== null || rowAsksForLoad(row),
    },
  ]);
}

function planOf(scope: Scope, row: ScheduleRow, making: Making, today: CivilDay): KeptPlan {
  const { templateId } = row;
  try {
    const schedule = plannedSchedule(scope, row);
    const tasks = foreseenTasks(scope, row, schedule, making, today, today + KEPT_DAYS);
    return { templateId, tasks, next: firstDate(schedule, making.calendar, today) };
  } catch (error) {
    // A schedule with a problem foresees nothing; its own row in the table says why.
    if (planProblem(error) === null) throw error;
    return { templateId, tasks: [], next: null };
  }
}

/** The first date of a schedule from a day on, within a year. */
export function firstDate(schedule: PlannedSchedule, calendar: WorkingCalendar, today: CivilDay): string | null {
  const first = planDays(schedule, calendar, today, today + NEXT_WITHIN_DAYS).find(isDated);
  return first ? isoOfDay(first.on) : null;
}

/** The first date from today on, within a year, of any schedule of one template: of a few it is sooner worked out than looked up. */
export async function nextDateOf(scope: Scope, templateId: string): Promise<string | null> {
  const calendar = await scope.calendar();
  const dates = (await scheduleRows(scope, { templateIds: [templateId] })).flatMap((row) => {
    try {
      return firstDate(plannedSchedule(scope, row), calendar, scope.now.day) ?? [];
    } catch (error) {
      if (planProblem(error) === null) throw error;
      return [];
    }
  });
  return dates.sort()[0] ?? null;
}

/** The tasks of a schedule due within [from, to] that its plan gives, whether they are made or not. */
export function foreseenTasks(
  scope: Scope,
  row: ScheduleRow,
  schedule: PlannedSchedule,
  making: Making,
  from: CivilDay,
  to: CivilDay,
): ForeseenTask[] {
  const window = { from: isoOfDay(from), to: isoOfDay(to) };
  const { clientId, clientName, assetId, assetName } = row;
  return madeTasks(scope, row, datedAround(row, schedule, making, from, to), making)
    .filter(({ dueOn, setOn }) => dueOn >= window.from && dueOn <= window.to && setOn >= row.settledTo)
    .map((task) => ({ ...task, clientId, clientName, assetId, assetName }));
}

/** The occurrences of a schedule of which a task may be due within [from, to]. */
export function datedAround(
  row: ScheduleRow,
  schedule: PlannedSchedule,
  { calendar }: Making,
  from: CivilDay,
  to: CivilDay,
): DatedOccurrence[] {
  // Due may lie before or after the set's date, so dates around the window can reach into it.
  const timings = [schedule.timing, ...(schedule.revisions ?? []).map(({ timing }) => timing)];
  const reach = Math.max(...timings.map(({ due }) => reachInDays(due)));
  const ofSet = setReach(partsOf(row));
  return planDays(schedule, calendar, from - reach - ofSet, to + ofSet).filter(isDated);
}

/** Those of them that are not made yet, and were not deleted on purpose; one that was made stands for its date wherever it was moved to since. */
export async function unsettled<T extends NominalTask>(scope: Scope, tasks: readonly T[]): Promise<T[]> {
  if (tasks.length === 0) return [];
  let [first, last] = ['9999-12-31', '0001-01-01'];
  for (const { nominalDate } of tasks) {
    if (nominalDate < first) first = nominalDate;
    if (nominalDate > last) last = nominalDate;
  }
  const rows = await scope.sql<NominalTask>(
    `select schedule_id as "scheduleId", nominal_date as "nominalDate", step_key as "stepKey", head from task
     where workspace_id = $1 and schedule_id = any($2::uuid[]) and nominal_date between $3::date and $4::date
     union all select schedule_id, nominal_date, step_key, head from deleted_task
     where workspace_id = $1 and schedule_id = any($2::uuid[]) and nominal_date between $3::date and $4::date`,
    [[...new Set(tasks.map(({ scheduleId }) => scheduleId))], first, last],
  );
  const settled = new Set(rows.map(nominalKey));
  return tasks.filter((task) => !settled.has(nominalKey(task)));
}
