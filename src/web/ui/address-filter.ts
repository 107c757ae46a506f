import { useCallback, useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';

/**
 * What is shown of a list, kept in the address so that it can be linked and reloaded. An empty value leaves the address.
 * Changes that follow each other faster than the page is drawn add up: the router would begin each from what is drawn.
 */
export function useAddressFilter() {
  const [search, setSearch] = useSearchParams();
  const latest = useRef(search);
  useEffect(() => {
    latest.current = search;
  }, [search]);
  const replace = useCallback(
    (next: URLSearchParams) => {
      latest.current = next;
      setSearch(next, { replace: true });
    },
    [setSearch],
  );
  const set = useCallback(
    (values: Readonly<Record<string, string>>) => {
      const next = new URLSearchParams(latest.current);
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
