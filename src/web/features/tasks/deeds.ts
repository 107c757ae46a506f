import { taskAddresses } from '../../../contract/addresses.ts';
import type { CaptureInput, Task } from '../../../contract/index.ts';
import { sayDone, sayTrouble } from '../../app/shell/toast.tsx';
import { type Answer, ask, type Done, ProblemError } from '../../kit/api.ts';
import { newKey } from '../../kit/new-key.ts';
import type { Kind, Outcome, Sender } from '../unsent/outbox.ts';
import { outbox } from '../unsent/use-unsent.ts';
import { sayFinished } from './said.ts';
import { lookAgain, placeOf, refreshAround, tookDeed } from './sending.ts';

/**
 * What is done with a task where it is done: begun, finished, skipped; and work that is captured. All of it goes through
 * what is kept on this device, in the order in which it was done, so that it stands without a connection too.
 */

type Saved = Answer<typeof taskAddresses.start>;

interface DeedValue {
  readonly taskId: string;
}

function senderOf<T extends DeedValue>(
  send: (value: T, done: Done) => Promise<Saved>,
  said: (saved: Saved) => string,
): Sender<T> {
  return {
    send: async (value, sending) => {
      const saved = await send(value, sending);
      await tookDeed(saved);
      // What has waited is sent while something else is done: the line that told of it is gone, and that is enough.
      if (!sending.hasWaited) sayDone(said(saved), saved.changeId);
    },
    onArrived: ({ taskId }) => lookAgain(taskId),
    onRefused: ({ taskId }, problem, { hasWaited }) => {
      lookAgain(taskId);
      // Refused at once it is said and over; where it has waited it is kept, since somebody counts on it.
      if (hasWaited) return false;
      sayTrouble(problem);
      return true;
    },
  };
}

export const START: Kind<DeedValue> = outbox.register({
  name: 'start',
  sender: senderOf(
    ({ taskId }: DeedValue, done) => ask(taskAddresses.start, { params: { taskId } }, done),
    ({ task }) => `Started “${task.title}”.`,
  ),
});

export interface FinishValue extends DeedValue {
  /** The day of the next one, this once. */
  readonly nextOn: string | null;
}

export const FINISH: Kind<FinishValue> = outbox.register({
  name: 'finish',
  sender: senderOf(
    ({ taskId, nextOn }: FinishValue, done) =>
      ask(taskAddresses.finish, { params: { taskId }, body: { nextOn } }, done),
    sayFinished,
  ),
});

export interface SkipValue extends DeedValue {
  readonly reason: string;
}

export const SKIP: Kind<SkipValue> = outbox.register({
  name: 'skip',
  sender: senderOf(
    ({ taskId, reason }: SkipValue, done) => ask(taskAddresses.skip, { params: { taskId }, body: { reason } }, done),
    ({ task }) => `Skipped “${task.title}”.`,
  ),
});

/** A task has one of these at a time: what was decided last. */
export const overField = (taskId: string) => `over ${taskId}`;
export const startField = (taskId: string) => `start ${taskId}`;

type Named = Pick<Task, 'id' | 'title'>;

export const startTask = (task: Named): Promise<Outcome> =>
  outbox.deliver(START, {
    field: startField(task.id),
    value: { taskId: task.id },
    about: `the start of ${task.title}`,
    to: placeOf(task),
  });

export const finishTask = (task: Named, nextOn: string | null = null): Promise<Outcome> =>
  outbox.deliver(FINISH, {
    field: overField(task.id),
    value: { taskId: task.id, nextOn },
    about: `the finish of ${task.title}`,
    to: placeOf(task),
  });

export const skipTask = (task: Named, reason: string): Promise<Outcome> =>
  outbox.deliver(SKIP, {
    field: overField(task.id),
    value: { taskId: task.id, reason },
    about: `that ${task.title} is skipped`,
    to: placeOf(task),
  });

export interface CaptureValue {
  readonly input: CaptureInput;
  /** What it says once it is made. */
  readonly said: string;
}

export const CAPTURE: Kind<CaptureValue> = outbox.register({
  name: 'capture',
  sender: {
    send: async ({ input, said }: CaptureValue, done) => {
      const { changeId } = await ask(taskAddresses.capture, { body: input }, done);
      sayDone(said, changeId);
      refreshAround();
    },
    onArrived: refreshAround,
  },
});

/**
 * Captures work, and gives what was made; null where that waits for a connection.
 * @throws ProblemError when it is refused
 */
export async function captureTask(value: CaptureValue): Promise<Answer<typeof taskAddresses.capture> | null> {
  const key = newKey();
  try {
    const made = await ask(taskAddresses.capture, { body: value.input }, { key, agoMs: 0 });
    refreshAround();
    return made;
  } catch (error) {
    if (!(error instanceof ProblemError) || error.problem.status !== 0) throw error;
    // Under the same key: it may have arrived, and only the answer not come back.
    return keepCaptured(value, key);
  }
}

/** Keeps what is captured on this device until there is a connection. */
export async function keepCaptured(value: CaptureValue, key: string = newKey()): Promise<null> {
  const item = { field: `capture ${key}`, value, about: `“${value.input.title}”, captured here`, to: '/day-sheet' };
  await outbox.deliver(CAPTURE, item, key);
  return null;
}
