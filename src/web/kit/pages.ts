import useSWRInfinite, { type SWRInfiniteConfiguration } from 'swr/infinite';
import { type ProblemError, request } from './api.ts';

/**
 * A list that comes page by page, as far as it is looked at.
 * @param address of the page after one; null where there is none
 */
export function usePages<Page>(
  address: (before: Page | null) => string | null,
  config: SWRInfiniteConfiguration<Page, ProblemError> = {},
) {
  const { data, error, mutate, size, setSize } = useSWRInfinite<Page, ProblemError>(
    (_, before: Page | null) => address(before),
    (asked: string) => request('GET', asked) as Promise<Page>,
    { keepPreviousData: true, ...config },
  );
  return {
    pages: data ?? [],
    first: data?.[0],
    last: data?.at(-1),
    error,
    more: () => void setSize(size + 1),
    again: () => void mutate(),
  };
}
