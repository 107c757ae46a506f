import type { SchedulePatch } from '../../../contract/index.ts';
import type { ProblemError } from '../../kit/api.ts';
import { useLookedAt } from '../impact/looked-at.tsx';
import { useScheduleActions } from './api.ts';

/** Changes of one or many schedules that are to be looked at before they are saved. */
export interface AskedChange {
  readonly changes: readonly SchedulePatch[];
  /** What is being changed: "12 schedules paused from today". */
  readonly what: string;
  /** Said once it is saved: "Paused 12 schedules." */
  readonly said: string;
}

/** The way of all that changes schedules from outside their bench. */
export function useSchedulesLookedAt(after: {
  readonly onSaved: () => void;
  readonly onRefused: (problem: ProblemError) => void;
}) {
  const { impactOfSeveral, saveSeveral } = useScheduleActions();
  return useLookedAt<AskedChange>({
    impactOf: ({ changes }, reach) => impactOfSeveral(changes, reach),
    save: ({ changes, said }, reach) => saveSeveral(changes, said, reach),
    hasReach: true,
    ...after,
  });
}
