import { useState } from 'react';
import { useTrying } from '../../kit/use-trying.ts';

/** An address that is told this once: to be copied, or opened by whatever shows calendars here. */
export function ToldOnce({ address }: { readonly address: string }) {
  const [isCopied, setCopied] = useState(false);
  const { trying } = useTrying();
  return (
    <div className="mt-2 text-row leading-5">
      <label className="block">
        <span className="text-note text-ink-2">The address, told this once</span>
        <input
          className="blank block w-full font-mono text-note"
          readOnly
          value={address}
          onFocus={({ target }) => target.select()}
        />
      </label>
      <span className="mt-1.5 flex flex-wrap items-center gap-x-4">
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => void trying(() => navigator.clipboard.writeText(address).then(() => setCopied(true)))}
        >
          Copy it
        </button>
        <a className="link-line" href={address.replace(/^https?:/, 'webcal:')}>
          Open it in a calendar
        </a>
        <span role="status" className="text-note text-ink-2">
          {isCopied && 'Copied.'}
        </span>
      </span>
      <p className="mt-1.5 text-note leading-4.25 text-ink-2">
        Put it into any program that shows calendars: it asks again each hour. Whoever has it sees what you see of this;
        withdraw it under your account.
      </p>
    </div>
  );
}
