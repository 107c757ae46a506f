import type { BenchDraft } from './bench-draft.ts';

/** What keeps a draft from being planned, and where. */
export interface BenchProblem {
  readonly path: string;
  readonly message: string;
}

/** A part of the bench's form. */
export interface FormPartProps {
  readonly draft: BenchDraft;
  readonly onChange: (draft: BenchDraft) => void;
}

/** A part that shows one of its rules: 0 is the first, then each revision. */
export interface StretchPartProps extends FormPartProps {
  readonly stretch: number;
  readonly problem: BenchProblem | null;
}

/** What is wrong with a part, under it. */
export function Wrong({ problem, under }: { readonly problem: BenchProblem | null; readonly under: string }) {
  if (!problem?.path.startsWith(under)) return null;
  return (
    <p role="alert" className="field-error">
      {problem.message}
    </p>
  );
}
