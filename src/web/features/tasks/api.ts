import { useMemo } from 'react';
import { useSWRConfig } from 'swr';
import { fileAddresses, taskAddresses, templateAddresses } from '../../../contract/addresses.ts';
import type {
  EDIT_REACHES,
  HoldInput,
  INTO_TEMPLATE,
  StartInput,
  Task,
  TaskDeed,
  TaskEdit,
  TaskLine,
  TogetherOf,
} from '../../../contract/index.ts';
import { sayDone, sayTrouble } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { type Answer, ask } from '../../kit/api.ts';
import { sayNudged } from './nudged-words.ts';
import { AROUND, showTask } from './sending.ts';

export function useTask(taskId: string) {
  return useAnswer(taskAddresses.one, { params: { taskId } });
}

export function useDaySheet(personId: string, date: string | undefined) {
  return useAnswer(taskAddresses.daySheet, { params: { personId }, query: date ? { date } : {} });
}

/** The day of several people, or of one thing. */
export function useTogether(of: TogetherOf, date: string | undefined) {
  return useAnswer(taskAddresses.together, { query: { ...of, ...(date ? { date } : {}) } });
}

type Saved = Answer<typeof taskAddresses.start>;

/** What can be done with a task. Each keeps the task's answer and the lists around it up to date, and tells how it went. */
export function useTaskActions() {
  const { mutate } = useSWRConfig();
  const refresh = useRefresh();
  return useMemo(() => {
    const act = async (asked: Promise<Saved>, said?: (saved: Saved) => string): Promise<Saved | null> => {
      try {
        const saved = await asked;
        await showTask(mutate, saved.task);
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
      claim: (taskId: string) =>
        act(ask(taskAddresses.claim, { params: { taskId } }), ({ task }) => `“${task.title}” is yours.`),
      giveBack: (taskId: string) =>
        act(
          ask(taskAddresses.giveBack, { params: { taskId } }),
          ({ task }) => `“${task.title}” is anyone’s to take again.`,
        ),
      pin: (taskId: string, pinned: boolean) =>
        act(ask(taskAddresses.pin, { params: { taskId }, body: { pinned } }), () =>
          pinned ? 'Pinned: it stands on the later ones too.' : 'No longer pinned.',
        ),
      sign: (taskId: string, nextOn: string | null) =>
        act(
          ask(taskAddresses.sign, { params: { taskId }, body: { nextOn } }),
          ({ task }) => `Signed off “${task.title}”.`,
        ),
      sendBack: (taskId: string, reason: string) =>
        act(
          ask(taskAddresses.sendBack, { params: { taskId }, body: { reason } }),
          ({ task }) => `Sent “${task.title}” back.`,
        ),
      /** @throws ProblemError when it is refused */
      edit: async (task: Task, edit: TaskEdit & { version: number }, reach: EditReach = 'one') => {
        const saved = await ask(taskAddresses.edit, { params: { taskId: task.id }, body: { ...edit, reach } });
        await act(Promise.resolve(saved), () => SAID_OF_EDIT[reach]);
        if (reach !== 'one') void refresh('/tasks/');
        return saved;
      },
      /** @throws ProblemError when it is refused */
      impactOfEdit: (task: Task, edit: TaskEdit & { version: number }, reach: EditReach) =>
        ask(taskAddresses.impactOfEdit, { params: { taskId: task.id }, body: { ...edit, reach } }),
      /** @throws ProblemError when it is refused */
      impactOfSeveral: (tasks: readonly Seen[], deed: TaskDeed, follow?: string) =>
        ask(taskAddresses.impactOfSeveral, { body: { tasks: seen(tasks), deed, follow } }),
      /** @throws ProblemError when it is refused */
      changeSeveral: async (
        tasks: readonly Seen[],
        deed: TaskDeed,
        said: (changed: number) => string,
        follow?: string,
      ) => {
        const body = { tasks: seen(tasks), deed, follow };
        const { changed, changeId } = await ask(taskAddresses.changeSeveral, { body });
        sayDone(said(changed), changeId);
        // What is deleted can't be asked for again.
        void refresh(...(deed.kind === 'delete' ? [] : ['/tasks/']), ...AROUND);
      },
      /** Reminds those who have some tasks. @param name of whoever has it, of one task @returns whether it was done */
      nudge: async (taskIds: readonly string[], { text = '', name }: { text?: string; name?: string } = {}) => {
        try {
          const told = await ask(taskAddresses.nudge, { body: { tasks: [...taskIds], text } });
          sayDone(sayNudged(told, name));
          void refresh('/tasks/', ...AROUND);
          return true;
        } catch (error) {
          sayTrouble(error);
          return false;
        }
      },
      holdUp: (taskId: string, hold: HoldInput) =>
        act(ask(taskAddresses.holdUp, { params: { taskId }, body: hold }), ({ task }) => `“${task.title}” is held up.`),
      goOn: (taskId: string) =>
        act(ask(taskAddresses.goOn, { params: { taskId } }), ({ task }) => `“${task.title}” can go on.`),
      intoTemplate: async (taskId: string, fields: (typeof INTO_TEMPLATE)[number][]) => {
        try {
          const { changeId } = await ask(taskAddresses.intoTemplate, { params: { taskId }, body: { fields } });
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
          const { changeId } = await ask(fileAddresses.remove, { params: { fileId } });
          sayDone('Took the file out.', changeId);
          void reload(taskId);
        } catch (error) {
          sayTrouble(error);
        }
      },
      keepFile: async (taskId: string, fileId: string, kept: boolean) => {
        try {
          await ask(fileAddresses.keep, { params: { fileId }, body: { kept } });
          void reload(taskId);
        } catch (error) {
          sayTrouble(error);
        }
      },
    };
  }, [mutate, refresh]);
}

export type EditReach = (typeof EDIT_REACHES)[number];

const SAID_OF_EDIT: Readonly<Record<EditReach, string>> = {
  one: 'Changed this one. Later ones stay as they are.',
  later: 'Changed this one and the later ones.',
  open: 'Changed all open ones.',
};

/** A task as whoever changes it has seen it: another version of it is not changed unseen. */
export type Seen = Pick<TaskLine, 'id' | 'version'>;
const seen = (tasks: readonly Seen[]) => tasks.map(({ id, version }) => ({ id, version }));

/** Work that no schedule makes, from a template; for what is captured see `deeds.ts`. */
export function useHandMade() {
  const refresh = useRefresh();
  return {
    /** @throws ProblemError when it is refused */
    startTemplate: async (templateId: string, input: StartInput) => {
      const made = await ask(templateAddresses.start, { params: { templateId }, body: input });
      void refresh('/templates', ...AROUND);
      return made;
    },
  };
}
