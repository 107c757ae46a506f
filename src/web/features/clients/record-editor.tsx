import type { ReactNode } from 'react';
import type { z } from 'zod';
import { useKeys } from '../../app/shell/keys.tsx';
import { RecordFoot, useRecordForm } from '../../kit/record-form.tsx';
import { CloseButton, SECTION } from '../../kit/side-sheet.tsx';

export interface FormParts<T> {
  readonly draft: T;
  /** What is wrong with a field, by its path. */
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

/** What is known of a client or an asset, in a sheet. */
export function RecordEditor<T extends { readonly version: number }>(props: RecordEditorProps<T>) {
  const { title, aside, isNew, onSave, onClose, foot, children, ...options } = props;
  const form = useRecordForm<T>({ ...options, isNew });
  const save = () => void form.save(onSave);
  useKeys([{ key: 'Mod+Enter', says: 'Save', run: save }]);
  return (
    <>
      <header className={`${SECTION} flex items-start gap-2`}>
        <div className="min-w-0 flex-1">
          <h2 className="text-title leading-6.5">{title(form.draft)}</h2>
          <p className="text-row text-ink-2">{aside}</p>
        </div>
        <CloseButton onClose={onClose} />
      </header>
      {form.meanwhile}
      {children({ draft: form.draft, at: form.at, onChange: form.set })}
      {foot}
      <RecordFoot form={form}>
        <button
          type="button"
          className="btn btn-primary"
          disabled={form.busy || (!isNew && !form.isChanged)}
          onClick={save}
        >
          {isNew ? 'Add' : 'Save'}
        </button>
      </RecordFoot>
    </>
  );
}
