import { ZodError } from 'zod';
import {
  admitted,
  dayOfIso,
  daysWaited,
  InvalidRuleError,
  isoOfDay,
  leftOutWithinHorizon,
  NoWorkingDayError,
  type OmittedOccurrence,
  occurrencesWithinHorizon,
  RRuleError,
  TooMuchReckoningError,
  type WorkingCalendar,
} from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import type { MadeTask } from '../tasks/stored/index.ts';
import { madeTasks } from './made-tasks.ts';
import { partsOf, plannedSchedule, type ScheduleRow } from './schedule-row.ts';
import type { Making } from './who-does.ts';

export interface OwedTasks {
  readonly kind: 'tasks';
  readonly tasks: MadeTask[];
  /** For how many days the next has been waiting for one that is still open; null where none is. */
  readonly waited: number | null;
  /** The day of the first that waits: nothing from it on is settled. */
  readonly waitsFrom: string | null;
}

/** The last day that a task may appear on and be made. */
export function horizonOf({ now, workspace }: Scope): number {
  return now.day + workspace.horizonDays;
}

/** From which day on, and up to which day of appearing; left out, as the daily run does it. */
export interface MakingSpan {
  readonly from?: number;
  readonly upTo?: number;
}

/** Dates that a schedule has in a span and that make no task, with the reason. */
export function leftOutOf(
  scope: Scope,
  row: ScheduleRow,
  calendar: WorkingCalendar,
  { from = scope.now.day, upTo = horizonOf(scope) }: MakingSpan = {},
): { readonly on: string; readonly because: OmittedOccurrence['because'] }[] {
  return leftOutWithinHorizon(plannedSchedule(scope, row), calendar, { from, upTo }).map(({ on, because }) => ({
    on: isoOfDay(on),
    because,
  }));
}

/** The tasks that a schedule owes by now, or by a later day of appearing, or why its plan can't be computed: one bad schedule does not stop the others. */
export function owedTasks(
  scope: Scope,
  row: ScheduleRow,
  making: Making,
  { from = scope.now.day, upTo = horizonOf(scope) }: MakingSpan = {},
): OwedTasks | { kind: 'problem'; message: string } {
  try {
    const occurrences = occurrencesWithinHorizon(plannedSchedule(scope, row), making.calendar, {
      parts: partsOf(row),
      from: Math.min(dayOfIso(row.settledTo), from),
      upTo,
    });
    const made = (row.made ?? []).map(({ nominal, isOver }) => ({ nominal: dayOfIso(nominal), isOver }));
    const { now, waiting } = admitted(occurrences, row.overlap, made);
    return {
      kind: 'tasks',
      tasks: madeTasks(scope, row, now, making),
      waited: daysWaited(waiting, scope.now.day),
      waitsFrom: waiting.length === 0 ? null : isoOfDay(Math.min(...waiting.map(({ on }) => on))),
    };
  } catch (error) {
    const message = planProblem(error);
    if (message === null) throw error;
    return { kind: 'problem', message };
  }
}

/** In words, why a stored schedule gives no plan; null for an error that is a fault of ours. */
export function planProblem(error: unknown): string | null {
  if (
    error instanceof NoWorkingDayError ||
    error instanceof InvalidRuleError ||
    error instanceof RRuleError ||
    error instanceof TooMuchReckoningError
  )
    return error.message;
  if (error instanceof ZodError)
    return `Its rule as stored can't be read: ${error.issues[0]?.message ?? 'unknown form'}`;
  return null;
}
