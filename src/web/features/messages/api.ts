import { messageAddresses } from '../../../contract/addresses-later.ts';
import type { HeardOf } from '../../../contract/index.ts';
import type { HearWish, QuietWish, SummaryWish } from '../../../core/index.ts';
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
    async hear({ side, kind }: Pick<HeardOf, 'side' | 'kind'>, wish: HearWish) {
      await ask(messageAddresses.hear, { body: { side, kind, wish } });
      await again('/messages');
    },
    async beQuiet(quiet: QuietWish) {
      await ask(messageAddresses.quiet, { body: quiet });
      await again('/messages');
      sayDone('Kept: it holds for what comes from now on.');
    },
    async sendNow() {
      const { email } = await ask(messageAddresses.now, {});
      sayDone(`It is on its way to ${email}.`);
    },
  };
}
