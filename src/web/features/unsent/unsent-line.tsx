import { useEffect, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { dayOfIso, plural } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAsOf } from '../../kit/kept-answers.ts';
import { movedOn } from '../../kit/moved-on.ts';
import { sayNear, timeOf } from '../../kit/ways.ts';
import type { Unsent } from './outbox.ts';
import { outbox, useAllUnsent } from './use-unsent.ts';

/** What is on its way for a moment is nobody's concern. */
const TOLD_AFTER_MS = 2500;

/** Under the bar, wherever one is: what was typed and is not sent yet, where it stands, and what can be done about it. */
export function UnsentLine() {
  const all = useAllUnsent();
  const asOf = useAsOf();
  const [isOpen, setOpen] = useState(false);
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
  // What was refused is somebody's to decide: it is told first.
  const [first, ...others] = told.sort((a, b) => Number(b.state === 'refused') - Number(a.state === 'refused'));
  if (!first && asOf === null) return null;
  return (
    <div
      role="status"
      className="flex flex-wrap items-center gap-x-3 border-b-2 border-accent bg-chosen px-5 py-1.5 text-row leading-5 max-[720px]:px-4 print:hidden"
    >
      {asOf !== null && <Offline asOf={asOf} isAlone={!first} />}
      {first && (
        <span className="min-w-0">
          <b className="font-semibold">{first.state === 'refused' ? 'Not taken' : 'Not sent yet'}:</b>{' '}
          <Link className="link-line" to={first.to}>
            {first.about}
          </Link>
          {others.length > 0 && (
            <>
              {' and '}
              <button type="button" className="link-line" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
                {plural(others.length, 'other')}
              </button>
            </>
          )}
          . {first.said}
        </span>
      )}
      {first?.state === 'refused' && <Refused unsent={first} />}
      {isOpen && others.length > 0 && (
        <ul className="max-h-40 basis-full overflow-y-auto">
          {others.map(({ field, about, to, state, said }) => (
            <li key={field}>
              <Link className="link-line" to={to}>
                {about}
              </Link>
              {state === 'refused' && `, not taken: ${said}`}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** Without a connection: of when what is shown is. */
function Offline({ asOf, isAlone }: { readonly asOf: number; readonly isAlone: boolean }) {
  const { now, today } = useWorkspace();
  const moment = movedOn(now, asOf - Date.now());
  const day = dayOfIso(moment.slice(0, 10));
  const when = day === today ? timeOf(moment) : `${sayNear(day, today)} ${timeOf(moment)}`;
  return (
    <span>
      <b className="font-semibold">No connection:</b> this is as of {when}.
      {isAlone && ' What you do is kept on this device until it can be sent.'}
    </span>
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
