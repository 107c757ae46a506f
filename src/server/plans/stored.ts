import type { OfPlan, Planned } from '../../core/index.ts';
import type { Schedule } from '../schedules/index.ts';

/** What a plan says of when, in the form in which a schedule stores it. */
export function storedParts({ recurrence, timing, revisions }: Planned): Pick<Schedule, keyof Planned> {
  return {
    recurrence: { ...recurrence, v: 1 as const },
    timing: { ...timing, v: 1 as const },
    revisions: [...revisions],
  };
}

/** The same with who does it. */
export function asStored(planned: OfPlan): Pick<Schedule, keyof OfPlan> {
  return { assignment: planned.assignment, ...storedParts(planned) };
}
