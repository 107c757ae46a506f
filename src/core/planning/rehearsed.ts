import type { Assigner } from '../assignment/assigner.ts';
import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import type { OfParts } from '../doing/part-assigner.ts';
import { type SetTask, tasksOfSet } from '../doing/set-tasks.ts';
import type { SetPart } from '../doing/template-set.ts';
import { type DatedOccurrence, isDated, type OmittedOccurrence } from './plan.ts';
import type { PlannedSchedule } from './schedule-plan.ts';
import { shownDays } from './shown.ts';

/** A task that would be made, or a date that makes none. */
export type RehearsedLine =
  | { readonly kind: 'task'; readonly occurrence: DatedOccurrence; readonly task: SetTask }
  | OmittedOccurrence;

/**
 * What a schedule would make over a span, task by task: the sets whose day lies within [from, to], whole, as a fill of
 * that span makes them.
 * @throws what `planDays` throws
 */
export function rehearsedLines(
  schedule: PlannedSchedule,
  {
    parts,
    whose,
    ofParts,
  }: { readonly parts: readonly SetPart[]; readonly whose: Assigner; readonly ofParts: OfParts },
  calendar: WorkingCalendar,
  from: CivilDay,
  to: CivilDay,
): RehearsedLine[] {
  return shownDays(schedule, calendar, from, to).flatMap((one): RehearsedLine[] =>
    isDated(one)
      ? tasksOfSet(one, parts, calendar, whose(one), ofParts).map((task) => ({ kind: 'task', occurrence: one, task }))
      : [one],
  );
}
