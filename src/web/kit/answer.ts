import { useMemo } from 'react';
import useSWR, { SWRConfig, type SWRResponse, useSWRConfig } from 'swr';
import type { Address } from '../../contract/addresses.ts';
import { type Answer, addressOf, type Input, ProblemError, request } from './api.ts';
import { betterOf, isKept, keepAnswer, keptAnswer, tellAsOf } from './kept-answers.ts';

/** The answer of a GET endpoint, kept fresh by the live stream; pass null to ask nothing yet. */
export function useAnswer<A extends Address>(of: A, input: Input<A> | null): SWRResponse<Answer<A>, ProblemError> {
  const { cache } = useSWRConfig();
  const shown = (address: string): unknown => cache.get(address)?.data;
  return useSWR<Answer<A>, ProblemError>(
    input === null ? null : addressOf(of, input),
    (address: string) => (isKept(address) ? askOrKept(address, shown) : request('GET', address)) as Promise<Answer<A>>,
    { keepPreviousData: true },
  );
}

const NO_CONNECTION = 0;

/** From the server; without a connection what is shown already, which may be later than what was kept, or else that. */
async function askOrKept(address: string, shown: (address: string) => unknown): Promise<unknown> {
  try {
    const answer = await request('GET', address);
    tellAsOf(null);
    keepAnswer(address, answer);
    return answer;
  } catch (error) {
    if (!(error instanceof ProblemError) || error.problem.status !== NO_CONNECTION) throw error;
    const kept = await keptAnswer(address);
    const best = betterOf(address, shown(address), kept);
    if (best === undefined) throw error;
    tellAsOf(kept?.at ?? Date.now());
    return best;
  }
}

/** Shows an answer that came with something else, and keeps it as one that was asked for. */
export async function showAnswer(mutate: ScopedMutate, address: string, answer: unknown): Promise<void> {
  await mutate(address, answer, { revalidate: false });
  if (isKept(address)) keepAnswer(address, answer);
}
type ScopedMutate = ReturnType<typeof useSWRConfig>['mutate'];

/** A list that comes page by page, whole: asks for page after page until there is no more. */
export function useWholeList<Page extends { readonly more: string | null }>(
  address: (after: string | null) => string,
): SWRResponse<Page[], ProblemError> {
  return useSWR<Page[], ProblemError>(`${address(null)}#whole`, async () => {
    const pages: Page[] = [];
    for (let after: string | null = null, more = true; more; more = after !== null) {
      const page = (await request('GET', address(after))) as Page;
      pages.push(page);
      after = page.more;
    }
    return pages;
  });
}

/** The keys of lists that come page by page begin so; SWR leaves them out where it looks for keys by itself. */
const PAGES = '$inf$';

type Refresh = (...prefixes: readonly string[]) => Promise<void>;

const refreshOf =
  ({ mutate, cache }: Pick<ReturnType<typeof useSWRConfig>, 'mutate' | 'cache'>): Refresh =>
  async (...prefixes) => {
    const isOf = (key: string, before: string) => prefixes.some((prefix) => key.startsWith(`${before}/api${prefix}`));
    const paged = [...cache.keys()].filter((key) => isOf(key, PAGES));
    await Promise.all([mutate((key) => typeof key === 'string' && isOf(key, '')), ...paged.map((key) => mutate(key))]);
  };

/** Asks again for every answer whose address begins with one of these. */
export function useRefresh(): Refresh {
  const { mutate, cache } = useSWRConfig();
  return useMemo(() => refreshOf({ mutate, cache }), [mutate, cache]);
}

/** The same, where no page is drawn. */
export const refresh: Refresh = refreshOf(SWRConfig.defaultValue);
