import type { ProjectedLine } from '../../contract/index.ts';
import { type CivilDay, isDated, isoOfDay, planDays, reachInDays } from '../../core/index.ts';
import { namedOrNull } from '../named.ts';
import type { Scope } from '../scope.ts';
import { nominalKey, titleOf } from '../tasks/made-task.ts';
import { planProblem } from './making.ts';
import { plannedSchedule, scheduleRows } from './schedule-row.ts';

/** Occurrences due within [from, to] that are not tasks yet, computed on the fly: what lies beyond the horizon. */
export async function projectedWork(
  scope: Scope,
  from: CivilDay,
  to: CivilDay,
  personId: string | undefined,
): Promise<ProjectedLine[]> {
  const calendar = await scope.calendar();
  const rows = await scheduleRows(scope, personId ? { assigneeId: personId } : {});
  const made = await madeKeys(scope, from, to);
  const lines: ProjectedLine[] = [];
  for (const row of rows) {
    try {
      const schedule = plannedSchedule(scope, row);
      // Due may lie after the day itself, so days before the window can reach into it.
      const timings = [schedule.timing, ...(schedule.revisions ?? []).map(({ timing }) => timing)];
      const reach = Math.max(...timings.map(({ due }) => reachInDays(due)));
      for (const occurrence of planDays(schedule, calendar, from - reach, to).filter(isDated)) {
        if (occurrence.due < from || occurrence.due > to || made.has(nominalKey(row.id, occurrence.nominal))) continue;
        if (isoOfDay(occurrence.on) < row.settledTo) continue;
        lines.push({
          scheduleId: row.id,
          title: titleOf(row, occurrence.on),
          client: namedOrNull(row.clientId, row.clientName),
          asset: namedOrNull(row.assetId, row.assetName),
          on: isoOfDay(occurrence.on),
          dueOn: isoOfDay(occurrence.due),
          startTime: occurrence.timing.startTime,
          dueTime: occurrence.timing.dueTime,
          estimateMinutes: row.estimateMinutes,
        });
      }
    } catch (error) {
      // A schedule with a problem projects nothing; its own row in the table says why.
      if (planProblem(error) === null) throw error;
    }
  }
  return lines.sort((a, b) => a.dueOn.localeCompare(b.dueOn) || (a.startTime ?? '~').localeCompare(b.startTime ?? '~'));
}

async function madeKeys(scope: Scope, from: CivilDay, to: CivilDay): Promise<Set<string>> {
  const rows = await scope.sql<{ scheduleId: string; nominalDate: string }>(
    `select schedule_id as "scheduleId", nominal_date as "nominalDate" from task
     where workspace_id = $1 and due_on between $2::date and $3::date and schedule_id is not null`,
    [isoOfDay(from), isoOfDay(to)],
  );
  return new Set(rows.map((row) => nominalKey(row.scheduleId, row.nominalDate)));
}
