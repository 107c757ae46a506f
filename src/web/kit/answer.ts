import { useCallback } from 'react';
import useSWR, { type SWRResponse, useSWRConfig } from 'swr';
import type { Address } from '../../contract/addresses.ts';
import { type Answer, addressOf, type Input, type ProblemError, request } from './api.ts';

/** The answer of a GET endpoint, kept fresh by the live stream; pass null to ask nothing yet. */
export function useAnswer<A extends Address>(of: A, input: Input<A> | null): SWRResponse<Answer<A>, ProblemError> {
  return useSWR<Answer<A>, ProblemError>(
    input === null ? null : addressOf(of, input),
    (address: string) => request('GET', address) as Promise<Answer<A>>,
    { keepPreviousData: true },
  );
}

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

/** Asks again for every answer whose address begins with one of these. */
export function useRefresh(): (...prefixes: readonly string[]) => Promise<void> {
  const { mutate, cache } = useSWRConfig();
  return useCallback(
    async (...prefixes) => {
      const isOf = (key: string, before: string) => prefixes.some((prefix) => key.startsWith(`${before}/api${prefix}`));
      const paged = [...cache.keys()].filter((key) => isOf(key, PAGES));
      await Promise.all([
        mutate((key) => typeof key === 'string' && isOf(key, '')),
        ...paged.map((key) => mutate(key)),
      ]);
    },
    [mutate, cache],
  );
}
