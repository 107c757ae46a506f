import {
  type CivilDay,
  isDated,
  type Planned,
  partDays,
  planDays,
  type SetPart,
  setReach,
  type WorkingCalendar,
} from '../../core/index.ts';
import { planProblem } from '../schedules/index.ts';

/** A task that a plan gives on a day. */
export interface PlannedTask {
  readonly on: CivilDay;
  readonly minutes: number;
}

/** The tasks of a schedule within a span, both ends included, sets and all; none where its rule can't be planned. */
export function tasksWithin(
  planned: Planned & { readonly pauses?: readonly { readonly from: string; readonly to: string | null }[] },
  parts: readonly SetPart[],
  calendar: WorkingCalendar,
  { from, to }: { readonly from: CivilDay; readonly to: CivilDay },
): PlannedTask[] {
  const reach = setReach(parts);
  try {
    return planDays(planned, calendar, from - reach, to + reach)
      .filter(isDated)
      .flatMap((occurrence) =>
        parts.map((part) => ({
          on: partDays(occurrence, part, calendar).on,
          minutes: occurrence.own?.[part.key]?.estimateMinutes ?? part.estimateMinutes,
        })),
      )
      .filter(({ on }) => on >= from && on <= to);
  } catch (error) {
    // A schedule with a problem gives nothing; its own row in the table says why.
    if (planProblem(error) === null) throw error;
    return [];
  }
}

/** The same, worked out once for all that are planned alike. */
export function keepingTasks(calendar: WorkingCalendar, span: { readonly from: CivilDay; readonly to: CivilDay }) {
  const known = new Map<string, readonly PlannedTask[]>();
  return (
    planned: Parameters<typeof tasksWithin>[0],
    template: { readonly id: string; readonly parts: readonly SetPart[] },
  ) => {
    const key = `${template.id} ${JSON.stringify(planned)}`;
    const before = known.get(key);
    if (before) return before;
    const tasks = tasksWithin(planned, template.parts, calendar, span);
    known.set(key, tasks);
    return tasks;
  };
}
