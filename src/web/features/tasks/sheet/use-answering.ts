import type { Task } from '../../../../contract/index.ts';
import { type AnswerValue, answerProblem, type Demand } from '../../../../core/index.ts';
import { outbox, useUnsent } from '../../unsent/use-unsent.ts';
import { ANSWER, type AnswerDraft, answerField, placeOf } from '../sending.ts';
import { unreadTagOf } from '../task-words.ts';

/** An answer while it is written: as typed and not sent yet, else as the server has it. */
export function useAnswering(task: Task, demand: Demand, name: string) {
  const field = answerField(task.id, demand.key);
  const unsent = useUnsent(field);
  const draft = (unsent?.value as AnswerDraft | undefined) ?? null;
  const given = task.answers[demand.key];
  return {
    unsent,
    draft,
    given,
    value: draft ? draft.value : (given?.value ?? null),
    /**
     * Keeps what is written and sends it.
     * @param after milliseconds without more after which it is sent; null for what is no answer yet
     */
    put(text: string, value: AnswerValue | null, remark: string, after: number | null): void {
      const isAsGiven =
        JSON.stringify([value, remark]) === JSON.stringify([given?.value ?? null, given?.remark ?? '']) &&
        unsent?.state !== 'waiting';
      if (after !== null && isAsGiven) {
        outbox.discard(field);
        return;
      }
      const about = `${demand.label || name} on ${task.title}`;
      // A wrong tag is known here too: it starts nothing.
      const isTag = unreadTagOf(task)?.key === demand.key;
      const starts = isTag && value !== null && answerProblem(demand, value, task.assetTag) === null;
      const written = { taskId: task.id, demand: demand.key, text, value, remark, ...(starts ? { starts } : {}) };
      outbox.put(ANSWER, { field, value: written, about, to: placeOf(task) }, after);
    },
    /** Sends now what is written. */
    send: () => void outbox.flush(field),
  };
}
