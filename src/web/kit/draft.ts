import { useCallback, useState } from 'react';
import { useWorkspace } from '../app/shell/workspace.tsx';

/** Where this tab keeps what a person is writing, each under a name of its own: nobody else finds it there. */
const KEPT = 'jolly-rota.draft.';
const placeOf = (personId: string, key: string) => `${KEPT}${personId}.${key}`;

/** Lets go of all that is being written in this tab. */
export function forgetAllDrafts(): void {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(KEPT)) sessionStorage.removeItem(key);
}

/** What is being written, and what it was begun from. */
interface Kept<T> {
  readonly draft: T;
  readonly base: T;
}

interface Draft<T> {
  readonly draft: T;
  /** As it was when the writing began: what has changed since in the place of it is somebody else's. */
  readonly base: T;
  readonly isChanged: boolean;
  readonly change: (next: T) => void;
  /** Goes on writing from another state of what is saved. */
  readonly rebase: (next: T) => void;
  readonly forget: () => void;
}

/**
 * Something being written that is not saved yet. It outlives a reload and a detour to another page, in this tab only,
 * and is forgotten once saved or put back.
 * @param initial what is saved, as it is now
 */
export function useDraft<T>(key: string, initial: T): Draft<T> {
  const { me } = useWorkspace();
  const place = placeOf(me.id, key);
  const [kept, setKept] = useState<Kept<T> | null>(() => {
    const stored = sessionStorage.getItem(place);
    return stored === null ? null : (JSON.parse(stored) as Kept<T>);
  });
  const keep = useCallback(
    (next: Kept<T>) => {
      sessionStorage.setItem(place, JSON.stringify(next));
      setKept(next);
    },
    [place],
  );
  const base = kept?.base ?? initial;
  const change = useCallback((draft: T) => keep({ draft, base }), [keep, base]);
  const rebase = useCallback((draft: T) => keep({ draft, base: initial }), [keep, initial]);
  const forget = useCallback(() => {
    sessionStorage.removeItem(place);
    setKept(null);
  }, [place]);
  const draft = kept?.draft ?? initial;
  return { draft, base, isChanged: JSON.stringify(draft) !== JSON.stringify(initial), change, rebase, forget };
}
