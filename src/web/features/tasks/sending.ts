import { mutate } from 'swr';
import { taskAddresses } from '../../../contract/addresses.ts';
import type { Task } from '../../../contract/index.ts';
import type { AnswerValue } from '../../../core/index.ts';
import { sayDone, sayTrouble } from '../../app/shell/toast.tsx';
import { refresh, showAnswer } from '../../kit/answer.ts';
import { type Answer, addressOf, ask } from '../../kit/api.ts';
import type { Kind } from '../unsent/outbox.ts';
import { outbox } from '../unsent/use-unsent.ts';
import { sayFinished } from './said.ts';

/** How what is typed and ticked on a task is sent: kept in the browser until the server has it. */

type Saved = Answer<typeof taskAddresses.note>;

/** Lists that show tasks in one way or another. */
export const AROUND = [
  '/people/',
  '/day-sheets',
  '/overview',
  '/task-list',
  '/tideline',
  '/wallchart',
  '/schedules',
] as const;

/** What a tick, a note or an answer changes beside the task; where it finishes it, the live stream tells the rest. */
const isDaySheet = (key: unknown) => typeof key === 'string' && /^\/api\/(people\/|day-sheets)/.test(key);

async function took(saved: Saved): Promise<void> {
  await showTask(mutate, saved.task);
  void mutate(isDaySheet);
  // The last tick or answer may have finished it.
  if (saved.changeId !== null && saved.task.doneAt !== null) sayDone(sayFinished(saved), saved.changeId);
}

/** Shows a task as the server has answered it. */
export const showTask = (show: Parameters<typeof showAnswer>[0], task: Task): Promise<void> =>
  showAnswer(show, addressOf(taskAddresses.one, { params: { taskId: task.id } }), task);

/** After a deed that the server has taken: the task as it is now, and what stands around it. */
export async function tookDeed({ task }: Pick<Saved, 'task'>): Promise<void> {
  await showTask(mutate, task);
  refreshAround();
}

/** Asks again for the lists that show tasks. */
export function refreshAround(): void {
  void refresh(...AROUND);
}

/** What the server has now, shown in place of what it refused, or of what it had already. */
export function lookAgain(taskId: string): void {
  void mutate(addressOf(taskAddresses.one, { params: { taskId } }));
}

export interface NoteValue {
  readonly taskId: string;
  readonly note: string;
  /** The note that it was written on top of. */
  readonly was: string;
}

export const NOTE: Kind<NoteValue> = outbox.register({
  name: 'note',
  sender: {
    send: async ({ taskId, note, was }: NoteValue, done) =>
      took(await ask(taskAddresses.note, { params: { taskId }, body: { note, was } }, done)),
    onTopOf: (value: NoteValue, sent: NoteValue) => ({ ...value, was: sent.note }),
    onArrived: ({ taskId }: NoteValue) => lookAgain(taskId),
    onRefused: ({ taskId }: NoteValue) => {
      lookAgain(taskId);
      return false;
    },
  },
});

export interface AnswerDraft {
  readonly taskId: string;
  readonly demand: string;
  /** As it was typed, which may not be an answer yet. */
  readonly text: string;
  readonly value: AnswerValue | null;
  readonly remark: string;
  /** It is the tag that starts the task, as far as is known here. */
  readonly starts?: boolean;
}

export const ANSWER: Kind<AnswerDraft> = outbox.register({
  name: 'answer',
  sender: {
    send: async ({ taskId, demand, value, remark, starts }: AnswerDraft, done) => {
      const plain = Array.isArray(value) ? [...value] : (value as string | number | boolean | null);
      const body = { demand, value: plain, remark };
      const saved = await ask(taskAddresses.answer, { params: { taskId }, body }, done);
      await took(saved);
      if (starts && saved.task.state === 'underWay' && !done.hasWaited)
        sayDone(`Started “${saved.task.title}”.`, saved.changeId);
    },
    onArrived: ({ taskId }: AnswerDraft) => lookAgain(taskId),
    onRefused: ({ taskId }: AnswerDraft) => {
      lookAgain(taskId);
      return false;
    },
  },
});

export interface TickValue {
  readonly taskId: string;
  readonly key: string;
  readonly ticked: boolean;
}

export const TICK: Kind<TickValue> = outbox.register({
  name: 'tick',
  sender: {
    send: async ({ taskId, key, ticked }: TickValue, done) =>
      took(await ask(taskAddresses.tick, { params: { taskId }, body: { key, ticked } }, done)),
    // A tick is as quickly made again as it is read: it goes back, and why is said.
    onArrived: ({ taskId }: TickValue) => lookAgain(taskId),
    onRefused: ({ taskId }: TickValue, problem) => {
      lookAgain(taskId);
      sayTrouble(problem);
      return true;
    },
  },
});

export const noteField = (taskId: string) => `note ${taskId}`;
export const answerField = (taskId: string, demand: string) => `answer ${taskId} ${demand}`;
export const tickField = (taskId: string, key: string) => `tick ${taskId} ${key}`;

/** Where a task stands on the page that is open, for going back to it. */
export function placeOf({ id }: Pick<Task, 'id'>): string {
  const { pathname } = window.location;
  if (pathname.endsWith(`/task/${id}`)) return pathname;
  return /^\/(day-sheet\/[^/]+|overview|schedules)$/.test(pathname) ? `${pathname}/task/${id}` : `/tasks/task/${id}`;
}
