import { type ReactNode, useState } from 'react';
import type { z } from 'zod';
import { sayTrouble } from '../app/shell/toast.tsx';
import { ProblemError } from './api.ts';
import { useDraft } from './draft.ts';
import { MeanwhileLine } from './meanwhile-line.tsx';
import { goToUnread } from './unread.ts';

interface RecordFormOptions<T> {
  /** Under which the draft is kept. */
  readonly place: string;
  readonly initial: T;
  /** What a draft looks like, and what a whole one must be. */
  readonly form: z.ZodType;
  readonly check: z.ZodType;
  /** Of something new nothing is wrong before it was tried to be saved. */
  readonly isNew: boolean;
}

/** What is written down and saved as a whole: the draft is kept until then, and what is wrong with it told field by field. */
export function useRecordForm<T extends { readonly version: number }>(options: RecordFormOptions<T>) {
  const { place, initial, form, check, isNew } = options;
  const { draft, base, isChanged, change, rebase, forget } = useDraft<T>(place, initial, form);
  const [refusal, setRefusal] = useState<ProblemError | null>(null);
  const [isTried, setTried] = useState(false);
  const [busy, setBusy] = useState(false);
  const read = check.safeParse(draft);
  const problems = new Map<string, string>();
  const note = (path: string, message: string) => {
    if (!problems.has(path)) problems.set(path, message);
  };
  if (isTried || !isNew) for (const { path, message } of read.error?.issues ?? []) note(path.join('.'), message);
  for (const { path, message } of refusal?.problem.errors ?? []) note(path, message);
  const meanwhile: ReactNode = !isNew && isChanged && (
    <MeanwhileLine base={base} mine={draft} now={initial} onMerge={rebase} />
  );
  return {
    draft,
    isChanged,
    busy,
    meanwhile,
    /** What is wrong with a field, by its path. */
    at: (path: string) => problems.get(path),
    /** The same, of a field or anything within it. */
    within: (path: string) => [...problems].find(([one]) => one === path || one.startsWith(`${path}.`))?.[1],
    /** What is wrong with all of it, or that it is not saved. */
    said: refusal && !refusal.problem.errors ? refusal.message : isChanged && !isNew ? 'Not saved.' : '',
    set(next: Partial<T>) {
      setRefusal(null);
      change({ ...draft, ...next });
    },
    putBack() {
      forget();
      setRefusal(null);
      setTried(false);
    },
    /** @param work throws a ProblemError when it is refused, and gives false where it is not saved yet */
    async save(work: (draft: T) => Promise<unknown>): Promise<void> {
      setTried(true);
      if (busy || (!isNew && !isChanged) || goToUnread() || !read.success) return;
      setBusy(true);
      setRefusal(null);
      try {
        if ((await work(draft)) !== false) forget();
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
        setRefusal(error);
        sayTrouble(error);
      } finally {
        setBusy(false);
      }
    },
  };
}

interface RecordFootProps {
  readonly form: Pick<ReturnType<typeof useRecordForm>, 'isChanged' | 'said' | 'putBack'>;
  /** What saves it. */
  readonly children: ReactNode;
}

/** Below a record in a sheet, always in view: what saves it, and what puts it back. */
export function RecordFoot({ form: { isChanged, said, putBack }, children }: RecordFootProps) {
  return (
    <footer className="sticky bottom-0 mt-auto flex flex-wrap items-center gap-2 border-t border-line-2 bg-base-100 px-5 py-3">
      {children}
      {isChanged && (
        <button type="button" className="btn" onClick={putBack}>
          Put back
        </button>
      )}
      <span role="status" className="text-note leading-4 text-ink-2">
        {said}
      </span>
    </footer>
  );
}
