import {
  makeCalendar,
  type PlannedSchedule,
  type RehearsedLine,
  rehearsedLines,
  type SetPart,
  within,
} from '../../../../core/index.ts';
import { assignerOf, NOT_KNOWN_YET, partsFor, type WhoQuestion } from '../who.ts';

/** A question to the worker: the plan of a schedule over a span. */
export interface RehearsalQuestion {
  readonly asked: number;
  readonly schedule: PlannedSchedule;
  /** The tasks of its sets, and what tells who has them; null until that is known. */
  readonly set: { readonly parts: readonly SetPart[]; readonly who: WhoQuestion | null };
  readonly calendar: Parameters<typeof makeCalendar>[0];
  readonly from: number;
  readonly to: number;
}

export type RehearsalAnswer =
  | { readonly asked: number; readonly plan: readonly RehearsedLine[] }
  | { readonly asked: number; readonly problem: string };

/** Seconds, at the most: nobody else waits for this worker. */
const REHEARSAL_STEPS = 20_000_000;

/** Plans away from the page, so that a span of many years never holds up a keystroke. */
self.onmessage = ({ data }: MessageEvent<RehearsalQuestion>) => {
  const { asked, schedule, set, calendar, from, to } = data;
  try {
    const answer: RehearsalAnswer = {
      asked,
      plan: within(REHEARSAL_STEPS, () => {
        const working = makeCalendar(calendar);
        const whose = set.who ? assignerOf(set.who, schedule, working) : NOT_KNOWN_YET;
        return rehearsedLines(
          schedule,
          { parts: set.parts, whose, ofParts: partsFor(set.who, working) },
          working,
          from,
          to,
        );
      }),
    };
    self.postMessage(answer);
  } catch (error) {
    const answer: RehearsalAnswer = { asked, problem: error instanceof Error ? error.message : String(error) };
    self.postMessage(answer);
  }
};
