import type { ProjectedLine } from '../../contract/index.ts';
import { type CivilDay, isDated, isoOfDay, planDays, reachInDays, setReach } from '../../core/index.ts';
import { namedOrNull } from '../named.ts';
import type { Scope } from '../platform/scope.ts';
import { madeTasks, nominalKey } from '../tasks/made-task.ts';
import { planProblem } from './making.ts';
import { partsOf, plannedSchedule, scheduleRows } from './schedule-row.ts';

/** Occurrences due within [from, to] that are not tasks yet, computed on the fly: what lies beyond the horizon. */
export async function projectedWork(
  scope: Scope,
  from: CivilDay,
  to: CivilDay,
  personId: string | undefined,
): Promise<ProjectedLine[]> {
  const window = { from: isoOfDay(from), to: isoOfDay(to) };
  const making = { calendar: await scope.calendar(), people: await scope.peopleNames() };
  const rows = await scheduleRows(scope, personId ? { assigneeId: personId } : {});
  const settled = await settledKeys(scope, from, to);
  const lines: ProjectedLine[] = [];
  for (const row of rows) {
    try {
      const schedule = plannedSchedule(scope, row);
      // Due may lie before or after the set's date, so dates around the window can reach into it.
      const timings = [schedule.timing, ...(schedule.revisions ?? []).map(({ timing }) => timing)];
      const reach = Math.max(...timings.map(({ due }) => reachInDays(due)));
      const ofSet = setReach(partsOf(row));
      const dated = planDays(schedule, making.calendar, from - reach - ofSet, to + ofSet).filter(isDated);
      for (const task of madeTasks(scope, row, dated, making)) {
        if (task.dueOn < window.from || task.dueOn > window.to || task.setOn < row.settledTo) continue;
        if (personId !== undefined && task.assigneeId !== personId) continue;
        if (settled.has(nominalKey(row.id, task.nominalDate, task.stepKey))) continue;
        lines.push({
          scheduleId: row.id,
          title: task.title,
          client: namedOrNull(row.clientId, row.clientName),
          asset: namedOrNull(row.assetId, row.assetName),
          on: task.workOn,
          dueOn: task.dueOn,
          startTime: task.startTime,
          dueTime: task.dueTime,
          estimateMinutes: task.estimateMinutes,
        });
      }
    } catch (error) {
      // A schedule with a problem projects nothing; its own row in the table says why.
      if (planProblem(error) === null) throw error;
    }
  }
  return lines.sort((a, b) => a.dueOn.localeCompare(b.dueOn) || (a.startTime ?? '~').localeCompare(b.startTime ?? '~'));
}

/** No task is due farther than this from the date its rule gives. */
const FARTHEST_DUE_DAYS = 800;

/** What is a task already, or was deleted on purpose. */
async function settledKeys(scope: Scope, from: CivilDay, to: CivilDay): Promise<Set<string>> {
  const rows = await scope.sql<{ scheduleId: string; nominalDate: string; stepKey: string }>(
    `select schedule_id as "scheduleId", nominal_date as "nominalDate", step_key as "stepKey" from task
     where workspace_id = $1 and due_on between $2::date and $3::date and schedule_id is not null
     union all select schedule_id, nominal_date, step_key from deleted_task
     where workspace_id = $1 and nominal_date between $2::date - ${FARTHEST_DUE_DAYS} and $3::date + ${FARTHEST_DUE_DAYS}`,
    [isoOfDay(from), isoOfDay(to)],
  );
  return new Set(rows.map((row) => nominalKey(row.scheduleId, row.nominalDate, row.stepKey)));
}
