import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import { assigneeOn, type DatedOccurrence } from '../planning/plan.ts';
import { MAIN_PART, type PartDays, partAssignee, partDays, type SetPart } from './template-set.ts';

/** One task of the set of an occurrence, as its schedule gives it. */
export interface SetTask extends PartDays {
  readonly part: SetPart;
  readonly assigneeId: string | null;
  readonly titlePattern: string;
  readonly estimateMinutes: number;
}

/**
 * The tasks of the set of an occurrence, the main one first: each on its own day, and with what the schedule says of it
 * differently from its template.
 * @param ofSchedule who the schedule gives it to
 */
export function tasksOfSet(
  occurrence: DatedOccurrence,
  parts: readonly SetPart[],
  calendar: WorkingCalendar,
  ofSchedule: string | null,
): SetTask[] {
  const setAssignee = assigneeOn(occurrence, ofSchedule);
  return parts.map((part) => {
    const own = occurrence.own?.[part.key] ?? {};
    const days = partDays(occurrence, part, calendar);
    const isMain = part.key === MAIN_PART;
    return {
      ...days,
      part,
      assigneeId: isMain || own.assigneeId === undefined ? partAssignee(part, setAssignee) : own.assigneeId,
      titlePattern: own.titlePattern ?? part.titlePattern,
      estimateMinutes: own.estimateMinutes ?? part.estimateMinutes,
      startTime: own.startTime === undefined ? days.startTime : own.startTime,
      dueTime: own.dueTime === undefined ? days.dueTime : own.dueTime,
    };
  });
}
