import {
  type CivilDay,
  isDated,
  type PlannedOccurrence,
  type PlannedSchedule,
  partDays,
  planDays,
  type SetPart,
  type WorkingCalendar,
} from '../../core/index.ts';
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
    const schedule = orProblem(() => plannedSchedule(scope, row));
    // One that can't be read is the same by both; its own row says why.
    if (typeof schedule === 'string') return false;
    const [then, now] = [before, after].map((calendar) => orProblem(() => daysBy(schedule, calendar, today)));
    if (typeof then === 'string' || typeof now === 'string') return then !== now;
    return then === undefined || now === undefined || !sameDays(then, now, partsOf(row), before, after);
  });
  return rows.filter((_, i) => differs[i]);
}

const daysBy = (schedule: PlannedSchedule, calendar: WorkingCalendar, today: CivilDay) =>
  planDays(schedule, calendar, today - BEHIND, today + AHEAD);

/** What comes of it, or why it can't be planned. */
function orProblem<T>(work: () => T): T | string {
  try {
    return work();
  } catch (error) {
    const problem = planProblem(error);
    if (problem === null) throw error;
    return problem;
  }
}

/** Whether two plans of a schedule have all days in common, those of its other tasks too. */
function sameDays(
  then: readonly PlannedOccurrence[],
  now: readonly PlannedOccurrence[],
  parts: readonly SetPart[],
  before: WorkingCalendar,
  after: WorkingCalendar,
): boolean {
  if (then.length !== now.length) return false;
  return then.every((one, i) => {
    const other = now[i];
    if (other === undefined || one.nominal !== other.nominal) return false;
    if (!isDated(one) || !isDated(other)) return !isDated(one) && !isDated(other) && one.because === other.because;
    return (
      one.on === other.on &&
      one.appears === other.appears &&
      one.starts === other.starts &&
      one.due === other.due &&
      (parts.length === 1 ||
        parts.every((part) => {
          const [was, is] = [partDays(one, part, before), partDays(other, part, after)];
          return was.on === is.on && was.appears === is.appears && was.starts === is.starts && was.due === is.due;
        }))
    );
  });
}
