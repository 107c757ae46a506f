import { type EvenMove, type EvenPerson, type EvenTask, evenOut } from '../../../core/index.ts';

export interface EvenQuestion {
  readonly people: readonly EvenPerson[];
  readonly tasks: readonly EvenTask[];
}
export type EvenAnswer = { readonly moves: readonly EvenMove[] } | { readonly problem: string };

/** Works it out away from the page: two hundred people take longer than a frame. */
self.onmessage = ({ data }: MessageEvent<EvenQuestion>) => {
  let answer: EvenAnswer;
  try {
    answer = { moves: evenOut(data.people, data.tasks) };
  } catch (error) {
    answer = { problem: error instanceof Error ? error.message : String(error) };
  }
  self.postMessage(answer);
};
