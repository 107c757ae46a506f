import {
  type Days,
  daysToCompare,
  isDated,
  type PlannedOccurrence,
  partDays,
  planDays,
  type SetPart,
  setReach,
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
  const within = { from: today - BEHIND, to: today + AHEAD };
  const changed = changedDays(before, after) ?? within;
  const differs = await eachInTurn(rows, (row) => {
    const schedule = orProblem(() => plannedSchedule(scope, row));
    // One that can't be read is the same by both; its own row says why.
    if (typeof schedule === 'string') return false;
    const parts = partsOf(row);
    const days = daysToCompare(schedule, changed, within, { beside: setReach(parts) });
    if (days === null) return false;
    const by = (calendar: WorkingCalendar) => orProblem(() => planDays(schedule, calendar, days.from, days.to));
    const [then, now] = [by(before), by(after)];
    if (typeof then === 'string' || typeof now === 'string') return then !== now;
    return !sameDays(then, now, parts, before, after);
  });
  return rows.filter((_, i) => differs[i]);
}

/** From the first to the last day off that is one by one calendar only; null where the working week itself is another. */
function changedDays(before: WorkingCalendar, after: WorkingCalendar): Days | null {
  if (before.workingWeekdays.join() !== after.workingWeekdays.join()) return null;
  const [then, now] = [new Set(before.holidays), new Set(after.holidays)];
  const others = [...before.holidays.filter((day) => !now.has(day)), ...after.holidays.filter((day) => !then.has(day))];
  return others.length === 0 ? null : { from: Math.min(...others), to: Math.max(...others) };
}

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
