import { BellRing, Bell as BellSign } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { bellAddresses } from '../../../contract/addresses-later.ts';
import type { BellLine } from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useToday } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';
import { moveThroughRows } from '../../kit/arrow-rows.ts';
import { Popover } from '../../kit/popover.tsx';
import { Trouble } from '../../kit/states.tsx';
import { sayMoment } from '../tasks/task-words.ts';

/** What somebody is told of: how much is new stands on the sign, and opening it is having seen it. */
export default function Bell({ className }: { readonly className: string }) {
  const { data, error, mutate } = useAnswer(bellAddresses.lines, {});
  /** What was new when it was opened: it stays told apart until it is closed. */
  const [fresh, setFresh] = useState<ReadonlySet<string> | null>(null);
  const button = useRef<HTMLButtonElement>(null);
  const unread = data?.unread ?? 0;
  const open = () => {
    const lines = data?.lines ?? [];
    setFresh(new Set(lines.filter(({ isRead }) => !isRead).map(({ id }) => id)));
    const [newest] = lines;
    if (unread === 0 || !newest) return;
    ask(bellAddresses.read, { body: { upTo: newest.id } })
      .then(() => mutate())
      .catch(sayTrouble);
  };
  const Sign = unread > 0 ? BellRing : BellSign;
  return (
    <span className="relative max-[720px]:self-center">
      <button
        ref={button}
        type="button"
        className={className}
        aria-label={unread > 0 ? `Bell, ${unread} new` : 'Bell'}
        aria-haspopup="dialog"
        aria-expanded={fresh !== null}
        title={unread > 0 ? `${unread} new` : 'Nothing new'}
        onClick={() => (fresh === null ? open() : setFresh(null))}
      >
        <Sign size={17} aria-hidden />
        {unread > 0 && (
          <span
            aria-hidden
            className="absolute -top-0.5 right-0 min-w-4 max-[720px]:top-1 rounded-full bg-accent px-1 text-center text-[11px] leading-4 font-semibold text-accent-content"
          >
            {unread > 99 ? '99+' : unread}
          </span>
        )}
      </button>
      {fresh !== null && (
        <Popover
          label="Bell"
          anchor={button}
          backTo={button}
          className="w-[420px] max-w-[calc(100vw-16px)] text-base-content"
          onClose={() => setFresh(null)}
        >
          {/* Arrow keys are a shortcut between links that Tab reaches as well. */}
          {/* biome-ignore lint/a11y/noStaticElementInteractions: see above */}
          <div className="max-h-[70dvh] overflow-y-auto" onKeyDown={moveThroughRows}>
            {error && !data && <Trouble error={error} retry={() => void mutate()} />}
            {data?.lines.length === 0 && (
              <p className="px-4 py-3 text-row text-ink-2">
                Nothing yet. It rings when you are named in a comment, or nudged about your work.
              </p>
            )}
            <ul>
              {data?.lines.map((line) => (
                <BellRow key={line.id} line={line} isFresh={fresh.has(line.id)} onGo={() => setFresh(null)} />
              ))}
            </ul>
            <p className="border-t border-line px-4 py-2 text-row">
              <Link data-row className="link-line" to="/messages" onClick={() => setFresh(null)}>
                Choose what reaches you
              </Link>
            </p>
          </div>
        </Popover>
      )}
    </span>
  );
}

function BellRow({
  line,
  isFresh,
  onGo,
}: {
  readonly line: BellLine;
  readonly isFresh: boolean;
  readonly onGo: () => void;
}) {
  const today = useToday();
  return (
    <li
      className={`border-b border-line last:border-b-0 ${isFresh ? 'shadow-[inset_3px_0_0_var(--color-accent)]' : ''}`}
    >
      <Link
        data-row
        to={`/tasks/task/${line.task.id}`}
        className="block px-4 py-2 text-row leading-4.75 hover:bg-base-200"
        onClick={onGo}
      >
        <span className="flex items-baseline justify-between gap-3">
          <span className={isFresh ? 'font-semibold' : ''}>
            {line.kind === 'nudge' ? `${line.by} nudges you` : `${line.by} named you`}
            {isFresh && <span className="sr-only">, new</span>}
          </span>
          <span className="text-note whitespace-nowrap text-ink-2">{sayMoment(line.at, today)}</span>
        </span>
        <span className="block truncate">
          {line.task.title}
          {line.more > 0 ? ` and ${plural(line.more, 'more task', 'more tasks')} of yours` : ''}
        </span>
        {line.text !== '' && <span className="line-clamp-2 text-ink-2">{line.text}</span>}
      </Link>
    </li>
  );
}
