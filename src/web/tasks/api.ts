import { useMemo } from 'react';
import { useSWRConfig } from 'swr';
import {
  type CaptureInput,
  type EDIT_REACHES,
  fileEndpoints,
  type INTO_TEMPLATE,
  type StartInput,
  type Task,
  type TaskDeed,
  type TaskEdit,
  type TaskLine,
  taskEndpoints,
  templateEndpoints,
} from '../../contract/index.ts';
import { type AnswerValue, dayOfIso, sayDate } from '../../core/index.ts';
import { useAnswer, useRefresh } from '../answer.ts';
import { type Answer, addressOf, ask } from '../api.ts';
import { sayDone, sayTrouble } from '../shell/toast.tsx';

export function useTask(taskId: string) {
  return useAnswer(taskEndpoints.one, { params: { taskId } });
}

export function useDaySheet(personId: string, date: string | undefined) {
  return useAnswer(taskEndpoints.daySheet, { params: { personId }, query: date ? { date } : {} });
}

type Saved = Answer<typeof taskEndpoints.start>;

/** Lists that show tasks in one way or another. */
const AROUND = ['/people/', '/tideline', '/schedules'] as const;

/** What can be done with a task. Each keeps the task's answer and the lists around it up to date, and tells how it went. */
export function useTaskActions() {
  const { mutate } = useSWRConfig();
  const refresh = useRefresh();
  return useMemo(() => {
    const act = async (asked: Promise<Saved>, said?: (saved: Saved) => string): Promise<Saved | null> => {
      try {
        const saved = await asked;
        await mutate(addressOf(taskEndpoints.one, { params: { taskId: saved.task.id } }), saved.task, {
          revalidate: false,
        });
        if (said) sayDone(said(saved), saved.changeId);
        void refresh(...AROUND);
        return saved;
      } catch (error) {
        sayTrouble(error);
        return null;
      }
    };
    const reload = (taskId: string) => refresh(`/tasks/${taskId}`, ...AROUND);
    return {
      reload,
      start: (taskId: string) =>
        act(ask(taskEndpoints.start, { params: { taskId } }), ({ task }) => `Started “${task.title}”.`),
      claim: (taskId: string) =>
        act(ask(taskEndpoints.claim, { params: { taskId } }), ({ task }) => `“${task.title}” is yours.`),
      /** @param nextOn the day of the next one, this once */
      finish: (taskId: string, nextOn: string | null = null) =>
        act(ask(taskEndpoints.finish, { params: { taskId }, body: { nextOn } }), sayFinished),
      note: (taskId: string, note: string, was: string) =>
        act(ask(taskEndpoints.note, { params: { taskId }, body: { note, was } })),
      pin: (taskId: string, pinned: boolean) =>
        act(ask(taskEndpoints.pin, { params: { taskId }, body: { pinned } }), () =>
          pinned ? 'Pinned: it stands on the later ones too.' : 'No longer pinned.',
        ),
      answer: async (task: Task, demand: string, value: AnswerValue | null, remark = '') => {
        const body = {
          demand,
          value: Array.isArray(value) ? [...value] : (value as string | number | boolean | null),
          remark,
        };
        const saved = await inOrder(`${task.id} ${demand}`, () =>
          act(ask(taskEndpoints.answer, { params: { taskId: task.id }, body })),
        );
        // The last answer may have finished it.
        if (saved && task.doneAt === null && saved.task.doneAt !== null) sayDone(sayFinished(saved), saved.changeId);
        return saved;
      },
      sign: (taskId: string, nextOn: string | null) =>
        act(
          ask(taskEndpoints.sign, { params: { taskId }, body: { nextOn } }),
          ({ task }) => `Signed off “${task.title}”.`,
        ),
      sendBack: (taskId: string, reason: string) =>
        act(
          ask(taskEndpoints.sendBack, { params: { taskId }, body: { reason } }),
          ({ task }) => `Sent “${task.title}” back.`,
        ),
      /** @throws ProblemError when it is refused */
      edit: async (task: Task, edit: TaskEdit & { version: number }, reach: EditReach = 'one') => {
        const saved = await ask(taskEndpoints.edit, { params: { taskId: task.id }, body: { ...edit, reach } });
        await act(Promise.resolve(saved), () => SAID_OF_EDIT[reach]);
        if (reach !== 'one') void refresh('/tasks/');
        return saved;
      },
      /** @throws ProblemError when it is refused */
      impactOfEdit: (task: Task, edit: TaskEdit & { version: number }, reach: EditReach) =>
        ask(taskEndpoints.impactOfEdit, { params: { taskId: task.id }, body: { ...edit, reach } }),
      /** @throws ProblemError when it is refused */
      impactOfSeveral: (tasks: readonly Seen[], deed: TaskDeed) =>
        ask(taskEndpoints.impactOfSeveral, { body: { tasks: seen(tasks), deed } }),
      /** @throws ProblemError when it is refused */
      changeSeveral: async (tasks: readonly Seen[], deed: TaskDeed, said: (changed: number) => string) => {
        const { changed, changeId } = await ask(taskEndpoints.changeSeveral, { body: { tasks: seen(tasks), deed } });
        sayDone(said(changed), changeId);
        // What is deleted can't be asked for again.
        void refresh(...(deed.kind === 'delete' ? [] : ['/tasks/']), ...AROUND);
      },
      intoTemplate: async (taskId: string, fields: (typeof INTO_TEMPLATE)[number][]) => {
        try {
          const { changeId } = await ask(taskEndpoints.intoTemplate, { params: { taskId }, body: { fields } });
          sayDone('It is in the template: tasks that nobody has seen yet follow.', changeId);
          void refresh('/templates', ...AROUND, `/tasks/${taskId}`);
          return true;
        } catch (error) {
          sayTrouble(error);
          return false;
        }
      },
      removeFile: async (taskId: string, fileId: string) => {
        try {
          const { changeId } = await ask(fileEndpoints.remove, { params: { fileId } });
          sayDone('Took the file out.', changeId);
          void reload(taskId);
        } catch (error) {
          sayTrouble(error);
        }
      },
      keepFile: async (taskId: string, fileId: string, kept: boolean) => {
        try {
          await ask(fileEndpoints.keep, { params: { fileId }, body: { kept } });
          void reload(taskId);
        } catch (error) {
          sayTrouble(error);
        }
      },
      /** Ticks at once on the screen; puts it back when the server refuses. */
      async tick(task: Task, key: string, ticked: boolean): Promise<void> {
        const address = addressOf(taskEndpoints.one, { params: { taskId: task.id } });
        const steps = task.steps.map((step) =>
          step.key === key ? { ...step, tickedAt: ticked ? '0000-00-00T00:00' : null } : step,
        );
        await mutate(
          address,
          { ...task, steps, stepsDone: steps.filter(({ tickedAt }) => tickedAt).length },
          { revalidate: false },
        );
        const saved = await inOrder(`${task.id} ${key}`, () =>
          act(ask(taskEndpoints.tick, { params: { taskId: task.id }, body: { key, ticked } })),
        );
        if (!saved) await mutate(address);
        else if (saved.task.doneAt !== null) sayDone(sayFinished(saved), saved.changeId);
      },
    };
  }, [mutate, refresh]);
}

const going = new Map<string, Promise<unknown>>();

/** Answers of one field reach the server one after the other: of two that follow each other quickly the later counts. */
function inOrder<T>(field: string, send: () => Promise<T>): Promise<T> {
  const sent = (going.get(field) ?? Promise.resolve()).then(send);
  going.set(
    field,
    // What goes wrong with one does not stop the next.
    sent.catch(() => undefined),
  );
  return sent;
}

export type EditReach = (typeof EDIT_REACHES)[number];

const SAID_OF_EDIT: Readonly<Record<EditReach, string>> = {
  one: 'Changed this one. Later ones stay as they are.',
  later: 'Changed this one and the later ones.',
  open: 'Changed all open ones.',
};

/** Tasks as somebody saw them. */
/** A task as it was seen: another version of it is not changed unseen. */
type Seen = Pick<TaskLine, 'id' | 'version'>;
const seen = (tasks: readonly Seen[]) => tasks.map(({ id, version }) => ({ id, version }));

function sayFinished({ task }: Saved): string {
  if (task.state === 'toCheck') return `Finished “${task.title}”. ${task.signsOff ?? 'Someone else'} checks it now.`;
  const { next } = task.series;
  return `Finished “${task.title}”.${next ? ` The next one is on ${sayDate(dayOfIso(next.on))}.` : ''}`;
}

/** Work that no schedule makes: from one line, or from a template. */
export function useHandMade() {
  const refresh = useRefresh();
  return {
    /** @throws ProblemError when it is refused */
    capture: async (input: CaptureInput) => {
      const made = await ask(taskEndpoints.capture, { body: input });
      void refresh(...AROUND);
      return made;
    },
    /** @throws ProblemError when it is refused */
    startTemplate: async (templateId: string, input: StartInput) => {
      const made = await ask(templateEndpoints.start, { params: { templateId }, body: input });
      void refresh('/templates', ...AROUND);
      return made;
    },
  };
}
