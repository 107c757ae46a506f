import { useCallback, useEffect, useState } from 'react';
import type * as z from 'zod/mini';
import { useWorkspace } from '../app/shell/workspace.tsx';
import { forgetAllAsides, putAside } from './aside.ts';

/** Where this tab keeps what a person is writing, each under a name of its own: nobody else finds it there. */
const KEPT = 'jolly-rota.draft.';
/** Goes up when what is kept takes another form than the schemas can tell. */
const FORM = 1;
const placeOf = (personId: string, key: string) => `${KEPT}${FORM}.${personId}.${key}`;

/** Lets go of all that is being written in this tab. */
export function forgetAllDrafts(): void {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(KEPT)) sessionStorage.removeItem(key);
  forgetAllAsides();
}

/** What a draft looks like: any schema of Zod, or what tells as much. */
export interface DraftForm {
  safeParse(value: unknown): {
    readonly success: boolean;
    readonly error?: { readonly issues: readonly z.core.$ZodIssue[] } | undefined;
  };
}

/** A draft that is a text, told without a schema: it is there before any is loaded. */
export const TEXT_FORM: DraftForm = { safeParse: (value) => ({ success: typeof value === 'string' }) };

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
 * @param form what a draft looks like; what a person has written wrong in it is no matter. One that looks otherwise was
 * kept by another version, or cut short: it is put aside as text.
 */
export function useDraft<T>(key: string, initial: T, form: DraftForm): Draft<T> {
  const { me } = useWorkspace();
  const place = placeOf(me.id, key);
  const [found] = useState(() => keptAt<T>(place, form));
  const [kept, setKept] = useState(found.kept);
  useEffect(() => {
    if (found.unread === null) return;
    sessionStorage.removeItem(place);
    putAside(me.id, key, found.unread);
  }, [found, place, key, me.id]);
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

/** Faults of form, as against words, figures and dates that whoever writes them is still to put right. */
const OF_FORM: ReadonlySet<string> = new Set(['invalid_type', 'invalid_value', 'invalid_key']);

function isOfForm(issue: z.core.$ZodIssue): boolean {
  // Of several forms, none of which it has.
  if (issue.code === 'invalid_union' && issue.errors.length > 0) return issue.errors.every((one) => one.some(isOfForm));
  return issue.code === 'invalid_union' || OF_FORM.has(issue.code);
}

function keptAt<T>(place: string, form: DraftForm): { readonly kept: Kept<T> | null; readonly unread: string | null } {
  const stored = sessionStorage.getItem(place);
  if (stored === null) return { kept: null, unread: null };
  const kept = parsed(stored);
  const hasForm =
    typeof kept === 'object' &&
    kept !== null &&
    ['draft', 'base'].every((part) => {
      const { success, error } = form.safeParse((kept as Readonly<Record<string, unknown>>)[part]);
      return success || (error !== undefined && !error.issues.some(isOfForm));
    });
  return hasForm ? { kept: kept as Kept<T>, unread: null } : { kept: null, unread: stored };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    if (error instanceof SyntaxError) return null;
    throw error;
  }
}
