import { type ReactNode, useState } from 'react';
import type { z } from 'zod';
import { useKeys } from '../../app/shell/keys.tsx';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { ProblemError } from '../../kit/api.ts';
import { useDraft } from '../../kit/draft.ts';
import { MeanwhileLine } from '../../kit/meanwhile-line.tsx';
import { CloseButton, SECTION } from '../../kit/side-sheet.tsx';
import { goToUnread } from '../../kit/unread.ts';

export interface FormParts<T> {
  readonly draft: T;
  /** What is wrong with a field, by its path; of one that has several, the first. */
  readonly at: (path: string) => string | undefined;
  readonly onChange: (change: Partial<T>) => void;
}

interface RecordEditorProps<T extends { readonly version: number }> {
  /** Under which the draft is kept. */
  readonly place: string;
  readonly title: (draft: T) => string;
  readonly aside: string;
  readonly initial: T;
  /** What a draft looks like, and what a whole one must be. */
  readonly form: z.ZodType;
  readonly check: z.ZodType;
  readonly isNew: boolean;
  /** @throws ProblemError when it is refused */
  readonly onSave: (draft: T) => Promise<void>;
  readonly onClose: () => void;
  /** Below the form. */
  readonly foot?: ReactNode;
  readonly children: (parts: FormParts<T>) => ReactNode;
}

/** What is known of something, to be written down and saved; what is typed is kept until then. */
export function RecordEditor<T extends { readonly version: number }>(props: RecordEditorProps<T>) {
  const { place, title, aside, initial, form, check, isNew, onSave, onClose, foot, children } = props;
  const { draft, base, isChanged, change, rebase, forget } = useDraft<T>(place, initial, form);
  const [refusal, setRefusal] = useState<ProblemError | null>(null);
  const [tried, setTried] = useState(false);
  const [busy, setBusy] = useState(false);
  const problems = new Map<string, string>();
  const note = (path: string, message: string) => {
    if (!problems.has(path)) problems.set(path, message);
  };
  const read = check.safeParse(draft);
  if (tried || !isNew) for (const { path, message } of read.error?.issues ?? []) note(path.join('.'), message);
  for (const { path, message } of refusal?.problem.errors ?? []) note(path, message);
  const save = async () => {
    setTried(true);
    if (busy || goToUnread() || !read.success) return;
    setBusy(true);
    setRefusal(null);
    try {
      await onSave(draft);
      forget();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setRefusal(error);
      sayTrouble(error);
    } finally {
      setBusy(false);
    }
  };
  useKeys([{ key: 'Mod+Enter', says: 'Save', run: () => void save() }]);
  return (
    <>
      <header className={`${SECTION} flex items-start gap-2`}>
        <div className="min-w-0 flex-1">
          <h2 className="text-title leading-6.5">{title(draft)}</h2>
          <p className="text-row text-ink-2">{aside}</p>
        </div>
        <CloseButton onClose={onClose} />
      </header>
      {!isNew && isChanged && <MeanwhileLine base={base} mine={draft} now={initial} onMerge={rebase} />}
      {children({
        draft,
        at: (path) => problems.get(path),
        onChange: (next) => {
          setRefusal(null);
          change({ ...draft, ...next });
        },
      })}
      {foot}
      <footer className="sticky bottom-0 mt-auto flex flex-wrap items-center gap-2 border-t border-line-2 bg-base-100 px-5 py-3">
        <button
          type="button"
          className="btn btn-primary"
          disabled={busy || (!isNew && !isChanged)}
          onClick={() => void save()}
        >
          {isNew ? 'Add' : 'Save'}
        </button>
        {isChanged && (
          <button
            type="button"
            className="btn"
            onClick={() => {
              forget();
              setRefusal(null);
              setTried(false);
            }}
          >
            Put back
          </button>
        )}
        <span role="status" className="text-note leading-4 text-ink-2">
          {refusal && !refusal.problem.errors ? refusal.message : isChanged && !isNew ? 'not saved' : ''}
        </span>
      </footer>
    </>
  );
}
