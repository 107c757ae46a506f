import { TEXT_FORM, useDraft } from './draft.ts';

interface ReasonFormProps {
  readonly id: string;
  /** What is asked: "Why it is not done this time". */
  readonly label: string;
  readonly words: string;
  /** What it is about: the reason is kept by it while it is written. */
  readonly about: string;
  /** Words that may be taken as they are. */
  readonly offered?: readonly string[];
  /** @param taken called once the reason has got where it should, and need not be kept any more */
  readonly onReason: (reason: string, taken: () => void) => void;
  readonly onClose: () => void;
}

/** A few words that go along with a decision. */
export function ReasonForm({ id, label, words, about, offered = [], onReason, onClose }: ReasonFormProps) {
  // Kept over a closed sheet, until it is used.
  const { draft: reason, change: setReason, forget } = useDraft(`reason.${about}`, '', TEXT_FORM);
  const isSaid = reason.trim() !== '';
  return (
    <form
      className="mb-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (isSaid) onReason(reason.trim(), forget);
      }}
    >
      <label className="text-note leading-4.5" htmlFor={id}>
        {label}
      </label>
      {offered.length > 0 && (
        <span className="flex flex-wrap gap-x-3">
          {offered.map((one) => (
            <button key={one} type="button" className="link-line text-note" onClick={() => setReason(one)}>
              {one}
            </button>
          ))}
        </span>
      )}
      <textarea
        id={id}
        className="mb-2 mt-1 writing"
        maxLength={500}
        // biome-ignore lint/a11y/noAutofocus: it was asked for by the press before
        autoFocus
        value={reason}
        onChange={({ target }) => setReason(target.value)}
      />
      <div className="flex gap-3">
        <button type="submit" className="btn btn-primary" aria-disabled={!isSaid}>
          {words}
        </button>
        <button type="button" className="btn" onClick={onClose}>
          Not now
        </button>
      </div>
    </form>
  );
}
