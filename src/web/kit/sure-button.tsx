import { useState } from 'react';

interface SureButtonProps {
  readonly words: string;
  /** Asked before it is done: "Drop it for good?" */
  readonly question: string;
  /** What it is about, for whoever hears the page. */
  readonly label: string;
  readonly disabled: boolean;
  readonly onSure: () => void;
}

/** For what no undo brings back: asks once more in the same place. */
export function SureButton({ words, question, label, disabled, onSure }: SureButtonProps) {
  const [isAsked, setAsked] = useState(false);
  if (!isAsked)
    return (
      <button type="button" className="link-line" disabled={disabled} aria-label={label} onClick={() => setAsked(true)}>
        {words}
      </button>
    );
  return (
    <span className="flex flex-wrap gap-x-3">
      <span>{question}</span>
      <button
        type="button"
        className="link-line text-late"
        disabled={disabled}
        // biome-ignore lint/a11y/noAutofocus: the press that asked for it was here
        autoFocus
        aria-label={`Yes: ${label}`}
        onClick={() => {
          setAsked(false);
          onSure();
        }}
      >
        Yes
      </button>
      <button type="button" className="link-line" onClick={() => setAsked(false)}>
        No
      </button>
    </span>
  );
}
