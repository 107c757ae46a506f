import { makeCalendar, type PlannedOccurrence, type PlannedSchedule, shownDays, within } from '../../core/index.ts';

/** A question to the worker: the plan of a schedule over a span. */
export interface RehearsalQuestion {
  readonly asked: number;
  readonly schedule: PlannedSchedule;
  readonly calendar: Parameters<typeof makeCalendar>[0];
  readonly from: number;
  readonly to: number;
}

export type RehearsalAnswer =
  | { readonly asked: number; readonly plan: readonly PlannedOccurrence[] }
  | { readonly asked: number; readonly problem: string };

/** Seconds, at the most: nobody else waits for this worker. */
const REHEARSAL_STEPS = 20_000_000;

/** Plans away from the page, so that a span of many years never holds up a keystroke. */
self.onmessage = ({ data }: MessageEvent<RehearsalQuestion>) => {
  const { asked, schedule, calendar, from, to } = data;
  try {
    const answer: RehearsalAnswer = {
      asked,
      plan: within(REHEARSAL_STEPS, () => shownDays(schedule, makeCalendar(calendar), from, to)),
    };
    self.postMessage(answer);
  } catch (error) {
    const answer: RehearsalAnswer = { asked, problem: error instanceof Error ? error.message : String(error) };
    self.postMessage(answer);
  }
};
