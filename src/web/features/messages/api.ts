import { messageAddresses } from '../../../contract/addresses-later.ts';
import type { SummaryWish } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';

export const useMyMessages = () => useAnswer(messageAddresses.mine, {});

/** What can be done with one's own messages; each throws a ProblemError when it is refused. */
export function useMessageActions() {
  const again = useRefresh();
  return {
    async wish(wish: SummaryWish, said: string) {
      await ask(messageAddresses.change, { body: wish });
      await again('/messages');
      sayDone(said);
    },
    async sendNow() {
      const { email } = await ask(messageAddresses.now, {});
      sayDone(`It is on its way to ${email}.`);
    },
  };
}
