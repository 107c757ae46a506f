import { workspaceAddresses } from '../../../contract/addresses.ts';
import type { OwnWaysSet } from '../../../contract/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useRefresh } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';

/** Changes some of one's own ways; they hold at once, and on every page. @throws ProblemError when it is refused */
export function useChangeMyWays(): (chosen: Partial<OwnWaysSet>) => Promise<void> {
  const { myWays } = useWorkspace();
  const refresh = useRefresh();
  return async (chosen) => {
    await ask(workspaceAddresses.myWays, { body: { ...myWays, ...chosen } });
    await refresh('/workspace');
  };
}
