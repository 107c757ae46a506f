import { useSWRConfig } from 'swr';
import { type Task, taskEndpoints } from '../../contract/index.ts';
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

/** What can be done with a task. Each keeps the task's answer and the lists around it up to date, and tells how it went. */
export function useTaskActions() {
  const { mutate } = useSWRConfig();
  const refresh = useRefresh();

  const act = async (asked: Promise<Saved>, said?: (saved: Saved) => string): Promise<Saved | null> => {
    try {
      const saved = await asked;
      await mutate(addressOf(taskEndpoints.one, { params: { taskId: saved.task.id } }), saved.task, {
        revalidate: false,
      });
      if (said) sayDone(said(saved), saved.changeId);
      void refresh('/people/', '/tideline', '/schedules');
      return saved;
    } catch (error) {
      sayTrouble(error);
      return null;
    }
  };
  return {
    start: (taskId: string) =>
      act(ask(taskEndpoints.start, { params: { taskId } }), ({ task }) => `Started “${task.title}”.`),
    claim: (taskId: string) =>
      act(ask(taskEndpoints.claim, { params: { taskId } }), ({ task }) => `“${task.title}” is yours.`),
    finish: (taskId: string) =>
      act(ask(taskEndpoints.finish, { params: { taskId } }), ({ task }) => `Finished “${task.title}”.`),
    note: (taskId: string, note: string, was: string) =>
      act(ask(taskEndpoints.note, { params: { taskId }, body: { note, was } })),
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
      const saved = await act(ask(taskEndpoints.tick, { params: { taskId: task.id }, body: { key, ticked } }));
      if (!saved) await mutate(address);
    },
  };
}
