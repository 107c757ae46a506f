import { useState } from 'react';

interface PasswordFieldProps {
  readonly id: string;
  readonly value: string;
  readonly complete: 'current-password' | 'new-password';
  /** The element that says what is wrong; null where nothing is. */
  readonly problemId: string | null;
  readonly onChange: (value: string) => void;
}

/** A password, which is shown on request. */
export function PasswordField({ id, value, complete, problemId, onChange }: PasswordFieldProps) {
  const [shows, setShows] = useState(false);
  return (
    <div className="relative mt-1">
      <input
        id={id}
        className="h-11 w-full rounded-t-[4px] border-0 border-b-2 border-primary bg-field px-3 pr-16 text-touch text-ink"
        type={shows ? 'text' : 'password'}
        autoComplete={complete}
        value={value}
        aria-invalid={problemId !== null}
        aria-describedby={problemId ?? undefined}
        onChange={({ target }) => onChange(target.value)}
      />
      <button
        type="button"
        className="link-line absolute right-3 top-2.5 h-6 px-1 text-note leading-6"
        aria-pressed={shows}
        onClick={() => setShows(!shows)}
      >
        {shows ? 'Hide' : 'Show'}
      </button>
    </div>
  );
}
