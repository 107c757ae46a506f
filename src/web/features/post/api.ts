import { postAddresses } from '../../../contract/addresses.ts';
import type { MailState } from '../../../contract/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { type Answer, addressOf, ask } from '../../kit/api.ts';
import { usePages } from '../../kit/pages.ts';

type Page = Answer<typeof postAddresses.list>;

/** What waits leaves within seconds: it is looked at again so often. */
const LOOKED_AT_MS = 4_000;

/** Mails in one state, page by page. */
export function useMails(state: MailState, q: string) {
  const { pages, first, last, error, more, again } = usePages<Page>(
    (before) => {
      if (before && !before.isMore) return null;
      const after = before?.mails.at(-1)?.id;
      return addressOf(postAddresses.list, { query: { state, q, ...(after ? { after } : {}) } });
    },
    { refreshInterval: LOOKED_AT_MS },
  );
  return { mails: pages.flatMap((page) => page.mails), first, error, isMore: last?.isMore === true, more, again };
}

export const useMail = (mailId: string) => useAnswer(postAddresses.one, { params: { mailId } });

export function usePostActions() {
  const refresh = useRefresh();
  return {
    /** @throws ProblemError when it is refused */
    again: async (mailId: string, email?: string): Promise<void> => {
      const { toEmail } = await ask(postAddresses.again, { params: { mailId }, body: email ? { email } : {} });
      await refresh('/post');
      sayDone(`It is tried again now, to ${toEmail}.`);
    },
  };
}
