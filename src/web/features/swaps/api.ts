import { swapAddresses } from '../../../contract/addresses.ts';
import type { Swap, SwapDeed } from '../../../contract/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';

/** Swaps that concern whoever is signed in. */
export const useSwaps = () => useAnswer(swapAddresses.list, {});

/** The turn that a task is of, and those it could be swapped with. */
export const useTurns = (taskId: string | null) =>
  useAnswer(swapAddresses.turns, taskId === null ? null : { params: { taskId } });

/** What can be done with swaps; each throws a ProblemError when it is refused. */
export function useSwapActions() {
  const refresh = useRefresh();
  return {
    ask: async (taskId: string, otherName: string, takes: string, note: string): Promise<void> => {
      await ask(swapAddresses.ask, { params: { taskId }, body: { takes, note } });
      await refresh('/swaps', '/tasks/');
      sayDone(`${otherName} is asked. Nothing changes hands before that is agreed.`);
    },
    decide: async ({ id, version }: Swap, deed: SwapDeed): Promise<void> => {
      const { swap, changeId } = await ask(swapAddresses.decide, { params: { swapId: id }, body: { version, deed } });
      await refresh('/swaps', '/tasks/', '/people/', '/schedules', '/workload', '/team', '/colleagues');
      sayDone(sayDecided(swap), changeId);
    },
  };
}

function sayDecided({ state }: Swap): string {
  switch (state) {
    case 'done':
      return 'The two turns are swapped.';
    case 'agreed':
      return 'Agreed: a planner’s nod is all it waits for.';
    case 'refused':
      return 'Refused: the turns stay as they are.';
    case 'asked':
    case 'withdrawn':
      return 'No longer asked for.';
  }
}
