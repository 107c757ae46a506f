import { type CivilDay, isDated, partDays, planDays, type WorkingCalendar } from '../../core/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { partsOf, plannedSchedule, planProblem, type ScheduleRow } from '../schedules/index.ts';

/** Days back from today whose dates may still have tasks ahead. */
const BEHIND = 62;
const AHEAD = 364;

/** Schedules of which any day of the coming year is another by one calendar than by another. */
export async function affectedSchedules(
  scope: Scope,
  rows: readonly ScheduleRow[],
  before: WorkingCalendar,
  after: WorkingCalendar,
): Promise<ScheduleRow[]> {
  const { day: today } = scope.now;
  const differs = await eachInTurn(rows, (row) => {
    const days = daysBy(scope, row);
    return days(before, today) !== days(after, today);
  });
  return rows.filter((_, i) => differs[i]);
}

/** All days of all that a schedule plans, as one text, by a calendar. */
function daysBy(scope: Scope, row: ScheduleRow): (calendar: WorkingCalendar, today: CivilDay) => string {
  const orProblem = <T>(work: () => T): T | string => {
    try {
      return work();
    } catch (error) {
      // One that can't be planned by either calendar is the same by both; its own row says why.
      const problem = planProblem(error);
      if (problem === null) throw error;
      return problem;
    }
  };
  const schedule = orProblem(() => plannedSchedule(scope, row));
  if (typeof schedule === 'string') return () => schedule;
  const parts = partsOf(row);
  return (calendar, today) =>
    orProblem(() =>
      planDays(schedule, calendar, today - BEHIND, today + AHEAD)
        .map((occurrence) => {
          if (!isDated(occurrence)) return `${occurrence.nominal} ${occurrence.because}`;
          const { nominal, on, appears, starts, due } = occurrence;
          const ofParts =
            parts.length > 1 ? parts.map((part) => Object.values(partDays(occurrence, part, calendar))) : '';
          return `${nominal} ${on} ${appears} ${starts} ${due} ${ofParts}`;
        })
        .join(),
    );
}
