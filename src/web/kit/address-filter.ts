import { useCallback, useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';

/**
 * What is shown of a list, kept in the address so that it can be linked and reloaded. An empty value leaves the address.
 * Changes that follow each other faster than the page is drawn add up: the router would begin each from what is drawn.
 */
export function useAddressFilter() {
  const [search, setSearch] = useSearchParams();
  const drawn = useRef(search);
  drawn.current = search;
  /** What was asked for last and is not drawn yet. */
  const asked = useRef<URLSearchParams | null>(null);
  useEffect(() => {
    if (asked.current?.toString() === search.toString()) asked.current = null;
  }, [search]);
  const replace = useCallback(
    (next: URLSearchParams) => {
      asked.current = next;
      // At once: whatever is done next is done to what the words say, not to what they said before.
      setSearch(next, { replace: true, flushSync: true });
    },
    [setSearch],
  );
  const set = useCallback(
    (values: Readonly<Record<string, string>>) => {
      const next = new URLSearchParams(asked.current ?? drawn.current);
      for (const [name, value] of Object.entries(values)) {
        if (value === '') next.delete(name);
        else next.set(name, value);
      }
      replace(next);
    },
    [replace],
  );
  const clear = useCallback(() => replace(new URLSearchParams()), [replace]);
  return { search, set, clear };
}
