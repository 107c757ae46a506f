import { useCallback, useState } from 'react';

/**
 * Something being written that is not saved yet. It outlives a reload and a detour to another page, in this tab only,
 * and is forgotten once saved or put back.
 */
export function useDraft<T>(
  key: string,
  initial: T,
): { draft: T; isChanged: boolean; change: (next: T) => void; forget: () => void } {
  const place = `jolly-rota.draft.${key}`;
  const [draft, setDraft] = useState<T | null>(() => {
    const kept = sessionStorage.getItem(place);
    return kept === null ? null : (JSON.parse(kept) as T);
  });
  const change = useCallback(
    (next: T) => {
      sessionStorage.setItem(place, JSON.stringify(next));
      setDraft(next);
    },
    [place],
  );
  const forget = useCallback(() => {
    sessionStorage.removeItem(place);
    setDraft(null);
  }, [place]);
  const current = draft ?? initial;
  return { draft: current, isChanged: JSON.stringify(current) !== JSON.stringify(initial), change, forget };
}
