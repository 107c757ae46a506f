import { BellRing, Bell as BellSign } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { bellAddresses } from '../../../contract/addresses-later.ts';
import type { BellLine } from '../../../contract/index.ts';
import { dayOfIso, KIND_WORDS, type MessageSide } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';
import { moveThroughRows } from '../../kit/arrow-rows.ts';
import { Popover } from '../../kit/popover.tsx';
import { Trouble } from '../../kit/states.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { sayDay, timeOf } from '../../kit/ways.ts';
import { useTaskActions } from '../tasks/api.ts';
import { byDay, type KindOfDay, verbOf } from './by-day.ts';

const NONE: ReadonlySet<string> = new Set();

/** What somebody is told of: how much is new stands on the sign, and opening it is having seen it. */
export default function Bell({ className }: { readonly className: string }) {
  const { data, error, mutate } = useAnswer(bellAddresses.lines, { query: {} });
  const [isOpen, setOpen] = useState(false);
  /** What was new when it was opened: it stays told apart until it is closed. Null until that is known. */
  const [fresh, setFresh] = useState<ReadonlySet<string> | null>(null);
  const button = useRef<HTMLButtonElement>(null);
  const unread = data?.unread ?? 0;
  const close = () => {
    setOpen(false);
    setFresh(null);
  };
  // It may be opened before it is known what there is: that has been seen once it stands there.
  useEffect(() => {
    if (!isOpen || fresh !== null || data === undefined) return;
    setFresh(new Set(data.lines.filter(({ isRead }) => !isRead).map(({ id }) => id)));
    const [newest] = data.lines;
    if (data.unread === 0 || !newest) return;
    ask(bellAddresses.read, { body: { upTo: newest.id } })
      .then(() => mutate())
      .catch(sayTrouble);
  }, [isOpen, fresh, data, mutate]);
  const Sign = unread > 0 ? BellRing : BellSign;
  return (
    <span className="relative max-[720px]:self-center">
      <button
        ref={button}
        type="button"
        className={className}
        aria-label={unread > 0 ? `Bell, ${unread} new` : 'Bell'}
        aria-haspopup="dialog"
        aria-expanded={isOpen}
        title={unread > 0 ? `${unread} new` : 'Nothing new'}
        onClick={() => (isOpen ? close() : setOpen(true))}
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
      {isOpen && (
        <Popover
          label="What happened"
          anchor={button}
          backTo={button}
          className="w-[460px] max-w-[calc(100vw-16px)] text-base-content"
          onClose={close}
        >
          {error && !data && <Trouble error={error} retry={() => void mutate()} />}
          {data && <Happened newest={data.lines} isMore={data.isMore} fresh={fresh ?? NONE} onGo={close} />}
        </Popover>
      )}
    </span>
  );
}

const SIDES: readonly (readonly [MessageSide | null, string])[] = [
  [null, 'all'],
  ['mine', 'my own work'],
  ['gave', 'work of others'],
];

interface HappenedProps {
  readonly newest: readonly BellLine[];
  readonly isMore: boolean;
  readonly fresh: ReadonlySet<string>;
  readonly onGo: () => void;
}

/** All that there is to hear, by the day and by what it is about. */
function Happened({ newest, isMore: isMoreYet, fresh, onGo }: HappenedProps) {
  const today = useToday();
  const [side, setSide] = useState<MessageSide | null>(null);
  const [older, setOlder] = useState<{ readonly lines: readonly BellLine[]; readonly isMore: boolean } | null>(null);
  const { busy, trying } = useTrying();
  const lines = [...newest, ...(older?.lines ?? [])];
  const shown = byDay(lines.filter((line) => side === null || line.side === side));
  const isMore = older?.isMore ?? isMoreYet;
  const earlier = async () => {
    const last = lines.at(-1);
    const answer = await ask(bellAddresses.lines, { query: last ? { before: last.id } : {} });
    setOlder({ lines: [...(older?.lines ?? []), ...answer.lines], isMore: answer.isMore });
  };
  return (
    <>
      <header className="flex flex-wrap items-baseline gap-x-4 border-b border-line px-4 py-2">
        <h2 className="font-head text-[18px] leading-6 font-[650]">What happened</h2>
        <span className="ml-auto flex gap-x-3 text-note">
          {SIDES.map(([of, words]) => (
            <button
              key={words}
              type="button"
              className={`filter-word ${side === of ? 'font-semibold' : 'text-ink-2'}`}
              aria-pressed={side === of}
              onClick={() => setSide(of)}
            >
              {words}
            </button>
          ))}
        </span>
      </header>
      {/* Arrow keys are a shortcut between links that Tab reaches as well. */}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: see above */}
      <div className="max-h-[70dvh] overflow-y-auto" onKeyDown={moveThroughRows}>
        {shown.length === 0 && (
          <p className="px-4 py-3 text-row text-ink-2">
            {lines.length === 0
              ? 'Nothing yet. It rings when work is yours, changes, is late or asks for you.'
              : 'Nothing of these.'}
          </p>
        )}
        {shown.map(({ on, kinds }) => {
          const unseen = kinds.flatMap((kind) => kind.lines.filter(({ id }) => fresh.has(id))).length;
          const day = sayDay(dayOfIso(on), today);
          return (
            <section key={on} aria-label={day}>
              <h3 className="flex items-baseline gap-2 bg-base-200 px-4 py-0.5 text-note leading-5">
                <span className="font-semibold">{dayOfIso(on) === today ? 'Today' : day}</span>
                {dayOfIso(on) === today && <span className="text-ink-2">{day}</span>}
                {unseen > 0 && <span className="ml-auto text-ink-2">{unseen} not seen</span>}
              </h3>
              {kinds.map((kind) => (
                <OneKind key={kind.kind} of={kind} fresh={fresh} onGo={onGo} />
              ))}
            </section>
          );
        })}
      </div>
      <footer className="flex items-baseline border-t border-line px-4 py-2 text-row">
        <Link data-row className="link-line" to="/messages" onClick={onGo}>
          Choose what reaches you
        </Link>
        {isMore && (
          <button type="button" className="link-line ml-auto" disabled={busy} onClick={() => void trying(earlier)}>
            Earlier
          </button>
        )}
      </footer>
    </>
  );
}

/** So many lines of a kind stand there at once. */
const SHOWN = 4;

function OneKind({
  of: { kind, times, lines },
  fresh,
  onGo,
}: {
  readonly of: KindOfDay;
  readonly fresh: ReadonlySet<string>;
  readonly onGo: () => void;
}) {
  const [isWhole, setWhole] = useState(false);
  const shown = isWhole || lines.length <= SHOWN + 1 ? lines : lines.slice(0, SHOWN);
  return (
    <div className="grid grid-cols-[74px_minmax(0,1fr)] border-b border-line last:border-b-0">
      <h4 className={`py-2 pl-4 text-note leading-4 font-semibold ${kind === 'late' ? 'text-late' : ''}`}>
        <b className="block font-head text-[19px] leading-5">{times.toLocaleString('en-GB')}</b>
        {KIND_WORDS[kind].short}
      </h4>
      <ul className="min-w-0">
        {shown.map((line) => (
          <BellRow key={line.id} line={line} isFresh={fresh.has(line.id)} onGo={onGo} />
        ))}
        {shown.length < lines.length && (
          <li className="px-4 py-1.5">
            <button type="button" className="link-line text-note" onClick={() => setWhole(true)}>
              Show {lines.length - shown.length} more
            </button>
          </li>
        )}
      </ul>
    </div>
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
  const { may } = useWorkspace();
  // What others are late with is done here; the rest of it where it stands.
  const nudges = line.kind === 'late' && line.side === 'gave' && line.taskId !== null && may('nudge');
  return (
    <li className="flex items-start border-b border-line last:border-b-0 hover:bg-base-200">
      <Link
        data-row
        to={line.path}
        className="flex min-w-0 flex-1 items-baseline gap-3 py-1.5 pr-4 pl-1 text-row leading-4.75"
        onClick={onGo}
      >
        <span
          aria-hidden
          className={`size-1.5 flex-none self-start rounded-full mt-1.5 ${isFresh ? 'bg-primary' : ''}`}
        />
        <span className="min-w-0 flex-1">
          <span className={`block truncate ${isFresh ? 'font-semibold' : ''}`}>
            {line.title}
            {isFresh && <span className="sr-only">, new</span>}
          </span>
          <span className="line-clamp-2 text-note text-ink-2">
            {timeOf(line.at)}
            {line.text === '' ? '' : `, ${line.text}`}
          </span>
        </span>
        {!nudges && <span className="flex-none font-semibold text-primary">{verbOf(line)}</span>}
      </Link>
      {nudges && <Nudge line={line} taskId={line.taskId} />}
    </li>
  );
}

/** Reminds whoever has it, without leaving the bell. */
function Nudge({ line, taskId }: { readonly line: BellLine; readonly taskId: string | null }) {
  const { nudge } = useTaskActions();
  const { busy, trying } = useTrying();
  if (taskId === null) return null;
  return (
    <button
      type="button"
      className="deed flex-none py-1.5 pr-4 leading-4.75"
      disabled={busy}
      aria-label={`Nudge about ${line.title}`}
      onClick={() => void trying(async () => void (await nudge([taskId])))}
    >
      Nudge
    </button>
  );
}
