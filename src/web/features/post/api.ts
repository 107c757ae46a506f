import useSWRInfinite from 'swr/infinite';
import { postAddresses } from '../../../contract/addresses.ts';
import type { MailState } from '../../../contract/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { type Answer, addressOf, ask, type ProblemError, request } from '../../kit/api.ts';

type Page = Answer<typeof postAddresses.list>;

/** What waits leaves within seconds: it is looked at again so often. */
const LOOKED_AT_MS = 4_000;

/** Mails in one state, page by page. */
export function useMails(state: MailState, q: string) {
  const { data, error, mutate, size, setSize } = useSWRInfinite<Page, ProblemError>(
    (index, before: Page | null) => {
      if (index > 0 && !before?.isMore) return null;
      const after = before?.mails.at(-1)?.id;
      return addressOf(postAddresses.list, { query: { state, q, ...(after ? { after } : {}) } });
    },
    (address: string) => request('GET', address) as Promise<Page>,
    { keepPreviousData: true, refreshInterval: LOOKED_AT_MS },
  );
  const [first] = data ?? [];
  return {
    mails: data?.flatMap((page) => page.mails) ?? [],
    first,
    error,
    isMore: data?.at(-1)?.isMore === true,
    more: () => void setSize(size + 1),
    again: () => void mutate(),
  };
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
