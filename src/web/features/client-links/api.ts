import { clientLinkAddresses } from '../../../contract/addresses.ts';
import type { AskInput } from '../../../contract/index.ts';
import { sayDone, sayTrouble } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';
import { AROUND } from '../tasks/sending.ts';

/** What a client was asked of a task; null asks nothing. */
export const useAsked = (taskId: string | null) =>
  useAnswer(clientLinkAddresses.asked, taskId === null ? null : { params: { taskId } });

/** What can be done with it; each tells how it went, and whether it was done. */
export function useAskActions(taskId: string) {
  const refresh = useRefresh();
  const act = async (work: () => Promise<void>): Promise<boolean> => {
    try {
      await work();
      void refresh(`/tasks/${taskId}`, ...AROUND);
      return true;
    } catch (error) {
      sayTrouble(error);
      return false;
    }
  };
  return {
    ask: (input: AskInput, name: string) =>
      act(async () => {
        const { changeId } = await ask(clientLinkAddresses.ask, { params: { taskId }, body: input });
        sayDone(`A mail with a link is on its way to ${name}.`, changeId);
      }),
    withdraw: () =>
      act(async () => {
        await ask(clientLinkAddresses.withdraw, { params: { taskId } });
        sayDone('No link opens it any more.', null);
      }),
  };
}
