import { useEffect, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { plural } from '../../../core/index.ts';
import type { Unsent } from './outbox.ts';
import { outbox, useAllUnsent } from './use-unsent.ts';

/** What is on its way for a moment is nobody's concern. */
const TOLD_AFTER_MS = 2500;

/** Under the bar, wherever one is: what was typed and is not sent yet, where it stands, and what can be done about it. */
export function UnsentLine() {
  const all = useAllUnsent();
  const { pathname } = useLocation();
  const [now, setNow] = useState(() => Date.now());
  const waiting = [...all.values()].filter(({ state }) => state !== 'draft');
  useEffect(() => {
    if (waiting.length === 0) return;
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [waiting.length]);
  // What stands on the open page says so itself.
  const told = waiting.filter(
    ({ state, at, to, said }) => (state === 'refused' || said !== null || now - at > TOLD_AFTER_MS) && to !== pathname,
  );
  const [first] = told;
  if (!first) return null;
  return (
    <div
      role="status"
      className="flex flex-wrap items-center gap-x-3 border-b-2 border-accent bg-chosen px-5 py-1.5 text-row leading-5 max-[720px]:px-4"
    >
      <span className="min-w-0">
        <b className="font-semibold">{first.state === 'refused' ? 'Not taken' : 'Not sent yet'}:</b>{' '}
        <Link className="link-line" to={first.to}>
          {first.about}
        </Link>
        {told.length > 1 && ` and ${plural(told.length - 1, 'other')}`}. {first.said}
      </span>
      {first.state === 'refused' && <Refused unsent={first} />}
    </div>
  );
}

function Refused({ unsent }: { readonly unsent: Unsent }) {
  const text = textOf(unsent.value);
  const [copied, setCopied] = useState(false);
  return (
    <>
      {text !== null && (
        <button
          type="button"
          className="link-line"
          onClick={() => void navigator.clipboard.writeText(text).then(() => setCopied(true))}
        >
          {copied ? 'Copied' : 'Copy it'}
        </button>
      )}
      <button type="button" className="link-line" onClick={() => outbox.discard(unsent.field)}>
        Let it go
      </button>
    </>
  );
}

/** The words in a value, for the clipboard. */
export function textOf(value: unknown): string | null {
  if (typeof value !== 'object' || value === null) return null;
  for (const key of ['note', 'text', 'value'] as const)
    if (key in value) {
      const words = (value as Record<string, unknown>)[key];
      if (typeof words === 'string' && words.trim() !== '') return words;
      if (typeof words === 'number') return String(words);
    }
  return null;
}
