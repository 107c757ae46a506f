import { useState } from 'react';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { letAsideGo, useAsides } from '../../kit/aside.ts';

/** Under the bar: what was being written and this version can't read, as text. */
export function AsideLine() {
  const { me } = useWorkspace();
  const [first] = Object.entries(useAsides(me.id));
  const [copied, setCopied] = useState('');
  if (!first) return null;
  const [place, text] = first;
  return (
    <div
      role="status"
      className="flex flex-wrap items-center gap-x-3 border-b-2 border-accent bg-chosen px-5 py-1.5 text-row leading-5 max-[720px]:px-4"
    >
      <span className="min-w-0 truncate">
        <b className="font-semibold">Put aside:</b> something you were writing can’t be read by this version:{' '}
        <span className="text-ink-2">{text.slice(0, 200)}</span>
      </span>
      <button
        type="button"
        className="link-line"
        onClick={() => void navigator.clipboard.writeText(text).then(() => setCopied(place))}
      >
        {copied === place ? 'Copied' : 'Copy it as text'}
      </button>
      <button type="button" className="link-line" onClick={() => letAsideGo(place)}>
        Let it go
      </button>
    </div>
  );
}
