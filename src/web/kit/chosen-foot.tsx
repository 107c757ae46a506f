import { X } from 'lucide-react';
import type { ReactNode } from 'react';

interface ChosenFootProps<Key extends string> {
  readonly label: string;
  /** "3 schedules chosen" */
  readonly words: string;
  /** What can be done with them; those that need a word more open a sentence below. */
  readonly deeds: readonly (readonly [Key, string])[];
  readonly doing: Key | null;
  readonly busy: boolean;
  readonly note: string | null;
  /** What stands before the deeds: how far they go. */
  readonly before?: ReactNode;
  readonly onDeed: (key: Key) => void;
  readonly onClear: () => void;
  readonly children: ReactNode;
}

/** What can be done with the chosen rows of a list, at its foot. */
export function ChosenFoot<Key extends string>(props: ChosenFootProps<Key>) {
  const { label, words, deeds, doing, busy, note, before, onDeed, onClear, children } = props;
  return (
    <section aria-label={label} className="print:hidden flex-none border-t-2 border-accent bg-base-100 px-5 py-2">
      <div className="flex flex-wrap items-center gap-x-2 gap-y-1">
        <b className="mr-2 text-body font-semibold">{words}</b>
        {before}
        {deeds.map(([key, deed]) => (
          <button
            key={key}
            type="button"
            className="btn btn-sm"
            aria-expanded={deed.endsWith('…') ? doing === key : undefined}
            disabled={busy}
            onClick={() => onDeed(key)}
          >
            {deed}
          </button>
        ))}
        <span className="text-note text-ink-2" role="status">
          {note}
        </span>
        <button type="button" className="btn btn-text ml-auto" onClick={onClear}>
          Choose none <X size={14} aria-hidden />
        </button>
      </div>
      {children}
    </section>
  );
}

interface DeedSentenceProps {
  readonly problem: string | null;
  readonly busy: boolean;
  /** On the button, where there is nothing to look at before. */
  readonly words?: string;
  readonly onLook: () => void;
  readonly children: ReactNode;
}

/** One sentence with blanks that says what is to be done. */
export function DeedSentence({
  problem,
  busy,
  words = 'Look at what it changes',
  onLook,
  children,
}: DeedSentenceProps) {
  return (
    <form
      className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-row leading-7"
      onSubmit={(event) => {
        event.preventDefault();
        if (problem === null) onLook();
      }}
    >
      <span>{children}</span>
      {problem && (
        <span role="alert" className="field-error">
          {problem}
        </span>
      )}
      <button type="submit" className="btn btn-primary btn-sm" disabled={busy || problem !== null}>
        {words}
      </button>
    </form>
  );
}
