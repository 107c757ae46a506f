import { type ReactNode, useState } from 'react';
import { useTrying } from './use-trying.ts';

interface ToldOnceProps {
  /** "The address" */
  readonly what: string;
  readonly value: string;
  /** What else can be done with it. */
  readonly children?: ReactNode;
}

/** Something that is told this once, to be copied: what is kept of it is a digest. */
export function ToldOnce({ what, value, children }: ToldOnceProps) {
  const [isCopied, setCopied] = useState(false);
  const { trying } = useTrying();
  return (
    <div className="mt-2 text-row leading-5">
      <label className="block">
        <span className="text-note text-ink-2">{what}, told this once</span>
        <input
          className="blank block w-full font-mono text-note"
          readOnly
          value={value}
          onFocus={({ target }) => target.select()}
        />
      </label>
      <span className="mt-1.5 flex flex-wrap items-center gap-x-4">
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => void trying(() => navigator.clipboard.writeText(value).then(() => setCopied(true)))}
        >
          Copy it
        </button>
        {children}
        <span role="status" className="text-note text-ink-2">
          {isCopied && 'Copied.'}
        </span>
      </span>
    </div>
  );
}
