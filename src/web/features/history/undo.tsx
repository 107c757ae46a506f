import { historyAddresses } from '../../../contract/addresses.ts';
import { sayTrouble, undoLookedAt } from '../../app/shell/toast.tsx';
import { ask } from '../../kit/api.ts';
import { useSteps } from '../../kit/steps.ts';
import { useLookedAt } from '../impact/looked-at.tsx';

interface Asked {
  /** What is undone, in words. */
  readonly what: string;
  readonly changeId: string;
}

/** Undoing something that was done a while ago: what that does is looked at first, as with any change. */
export function useUndo() {
  const { follow, percent } = useSteps();
  return useLookedAt<Asked>({
    impactOf: ({ changeId }) =>
      follow((key) => ask(historyAddresses.impactOfUndo, { params: { changeId }, body: { follow: key } })),
    save: ({ changeId }) => follow((key) => undoLookedAt(changeId, key)),
    percent,
    hasReach: false,
    canBeUndone: false,
    onRefused: sayTrouble,
  });
}
