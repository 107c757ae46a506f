import { Phone } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import * as z from 'zod/mini';
import type { CallDay, ListedCall } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay, type Outcome, plural, sayWhyListed } from '../../../core/index.ts';
import { useKeys } from '../../app/shell/keys.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, DateBlank, TimeBlank } from '../../kit/blanks.tsx';
import { useDraft } from '../../kit/draft.ts';
import { Pennant } from '../../kit/pennant.tsx';
import { Trouble } from '../../kit/states.tsx';
import { goToUnread } from '../../kit/unread.ts';
import { useTrying } from '../../kit/use-trying.ts';
import { sayDay } from '../../kit/ways.ts';
import { UnsentMark } from '../unsent/unsent-mark.tsx';
import { useUnsent } from '../unsent/use-unsent.ts';
import { type BeforeKind, useBeforeCall, useCallActions } from './api.ts';
import { rungField, sayRung } from './ringing.ts';

interface CallPanelProps {
  readonly of: CallDay;
  readonly call: ListedCall;
  readonly mayRing: boolean;
  /** Who is rung after it; undefined where it is the last. */
  readonly next: ListedCall | undefined;
  readonly onDone: () => void;
}

/** What is being said of a call: it outlives a look at another one. */
interface CallDraft {
  readonly note: string;
  /** A call back that is being promised; null where none is. */
  readonly promise: { readonly on: number; readonly at: string | null; readonly by: string } | null;
}
const callDraftSchema = z.object({
  note: z.string(),
  promise: z.nullable(z.object({ on: z.number(), at: z.nullable(z.string()), by: z.string() })),
});

const SECTION = 'flex-none border-t border-line-2 px-5 py-3 max-[720px]:px-4';
const TITLE = 'text-row font-semibold text-primary';

/** Beside a call: what is known, what to ask, a note, and how it went in one press. */
export function CallPanel({ of, call, mayRing, next, onDone }: CallPanelProps) {
  const { me, staffWith, today, workingCalendar } = useWorkspace();
  const { later, off, swap } = useCallActions();
  const { draft, change, forget } = useDraft<CallDraft>(
    `call.${call.id}`,
    { note: call.note, promise: null },
    callDraftSchema,
  );
  const { promise } = draft;
  const setPromise = (next: CallDraft['promise']) => change({ ...draft, promise: next });
  const noteField = useRef<HTMLTextAreaElement>(null);
  const { busy, trying } = useTrying();
  const quota = of.quotas.find(({ id }) => id === call.quotaId);
  const unsent = useUnsent(rungField(call.id));
  const say = async (outcome: Outcome) => {
    if (busy || goToUnread()) return;
    const callBack = promise && { on: isoOfDay(promise.on), at: promise.at, personId: promise.by };
    const isPromise = outcome.follows.kind === 'callBack';
    await trying(async () => {
      const body = { outcome: outcome.key, note: draft.note, callBack: isPromise ? callBack : null };
      const became = await sayRung(call, {
        body: { ...body, version: call.version },
        outcome,
        said: `${call.contact.name}: ${outcome.name}${isPromise && promise ? ` ${sayDay(promise.on, today)}` : ''}.`,
      });
      if (became === 'refused') return;
      forget();
      onDone();
    });
  };
  const press = (outcome: Outcome) => {
    if (outcome.follows.kind !== 'callBack') return void say(outcome);
    const before = call.callBack;
    setPromise({
      on: before ? dayOfIso(before.on) : workingCalendar.dayNumbered(workingCalendar.numberOf(today) + 1),
      at: before?.at ?? null,
      by: before?.personId ?? of.person.id,
    });
  };
  useKeys(
    mayRing
      ? [
          ...of.outcomes.slice(0, 9).map((outcome, i) => ({
            key: String(i + 1),
            says: `The call: ${outcome.name}`,
            run: () => press(outcome),
          })),
          { key: 'w', says: 'Write a note', run: () => noteField.current?.focus() },
        ]
      : [],
  );
  const altering = (how: (of: ListedCall) => Promise<void>) =>
    void trying(async () => {
      await how(call);
      onDone();
    });
  const calls = of.outcomes.find(({ follows }) => follows.kind === 'callBack');
  return (
    <aside
      aria-label={`The call to ${call.contact.name}`}
      className="flex min-h-0 flex-col overflow-y-auto border-l border-line-2 max-[1000px]:order-first max-[1000px]:flex-none max-[1000px]:overflow-visible max-[1000px]:border-b max-[1000px]:border-l-0"
    >
      <header className="px-5 py-3 max-[720px]:px-4">
        <p className="flex items-center gap-2 text-row text-ink-2">
          <Pennant state={call.state === 'rung' ? 'done' : 'open'} label="" size={20} />
          {call.state === 'rung' ? call.outcome?.name : sayWhyListed(call.why, dayOfIso(of.on))}
        </p>
        <div className="mt-1 flex flex-wrap items-baseline gap-x-4">
          <h2 className="min-w-0 flex-1 font-head text-title leading-7 font-[650]">{call.contact.name}</h2>
          <a className="btn btn-primary" href={`tel:${call.number.replace(/\s/g, '')}`}>
            <Phone aria-hidden className="size-4" /> <span className="font-mono">{call.number}</span>
          </a>
        </div>
        <p className="text-row text-ink-2">
          <Link className="link-line" to={`/clients/${call.client.id}`}>
            {call.client.name}
          </Link>
          {call.asset && `, ${call.asset}`}
        </p>
      </header>
      {quota && quota.asks.length > 0 && (
        <section className={SECTION}>
          <h3 className={TITLE}>What to ask</h3>
          <ol className="mt-1 list-decimal pl-5 text-row leading-6">
            {quota.asks.map((ask) => (
              <li key={ask}>{ask}</li>
            ))}
          </ol>
        </section>
      )}
      <section className={SECTION}>
        <label className={TITLE} htmlFor="call-note">
          Note
        </label>
        <textarea
          id="call-note"
          ref={noteField}
          className="blank mt-1 block h-auto w-full resize-y py-1.5 leading-5 whitespace-pre-wrap"
          rows={2}
          maxLength={4000}
          readOnly={!mayRing}
          value={draft.note}
          onChange={({ target }) => change({ ...draft, note: target.value })}
        />
      </section>
      {mayRing && (
        <section className={SECTION}>
          <h3 className={TITLE}>How it went</h3>
          <UnsentMark unsent={unsent} />
          <div className="mt-1.5 flex flex-wrap gap-2">
            {of.outcomes.map((outcome, i) => (
              <button
                key={outcome.key}
                type="button"
                className="btn"
                aria-pressed={promise !== null ? outcome === calls : call.outcome?.key === outcome.key}
                disabled={busy}
                onClick={() => press(outcome)}
              >
                {i < 9 && <kbd className="mr-1 font-mono text-ink-2 max-[720px]:hidden">{i + 1}</kbd>} {outcome.name}
                {outcome.follows.kind === 'callBack' && ' on …'}
              </button>
            ))}
          </div>
          {promise && calls && (
            <p className="mt-2 text-row leading-8">
              {calls.name} on{' '}
              <DateBlank label="Call back on" value={promise.on} onChange={(on) => setPromise({ ...promise, on })} /> at{' '}
              <TimeBlank
                label="At"
                value={promise.at}
                placeholder="any time"
                when="left"
                onChange={(at) => setPromise({ ...promise, at })}
              />{' '}
              by{' '}
              <ChoiceBlank
                label="By whom"
                value={promise.by}
                options={staffWith(promise.by).map(({ id, name }) => [id, id === me.id ? 'me' : name] as const)}
                onChange={(by) => setPromise({ ...promise, by })}
              />{' '}
              <button type="button" className="btn btn-primary btn-sm" disabled={busy} onClick={() => void say(calls)}>
                {next ? `Keep, then ${next.contact.name}` : 'Keep it'}
              </button>{' '}
              <button type="button" className="link-line" onClick={() => setPromise(null)}>
                Not now
              </button>
            </p>
          )}
          {call.state === 'open' && (
            <p className="mt-2 flex flex-wrap gap-x-4 text-row">
              {next && (
                <button type="button" className="link-line" disabled={busy} onClick={() => altering(later)}>
                  Later today
                </button>
              )}
              <button type="button" className="link-line" disabled={busy} onClick={() => altering(swap)}>
                Somebody else instead
              </button>
              <button type="button" className="link-line" disabled={busy} onClick={() => altering(off)}>
                Off the list
              </button>
            </p>
          )}
        </section>
      )}
      <Before callId={call.id} />
    </aside>
  );
}

const KIND_NAMES: Readonly<Record<BeforeKind, string>> = {
  call: 'call',
  task: 'task',
  notice: 'notice',
  mail: 'mail',
  link: 'link',
};
/** Lines that are told before more are asked for. */
const FIRST_LINES = 6;
const KINDS = Object.keys(KIND_NAMES) as BeforeKind[];

/** What is known of the client from before: all of it, or of one kind. */
function Before({ callId }: { readonly callId: string }) {
  const { today } = useWorkspace();
  const [kind, setKind] = useState<BeforeKind | null>(null);
  const [isWhole, setIsWhole] = useState(false);
  const { data, error, mutate } = useBeforeCall(callId, kind);
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return null;
  const all = KINDS.reduce((sum, one) => sum + data.counts[one], 0);
  const told = KINDS.filter((one) => data.counts[one] > 0);
  const choice = (words: string, value: BeforeKind | null) => (
    <button
      key={words}
      type="button"
      className={`cursor-pointer border-b-2 ${kind === value ? 'border-accent font-semibold text-ink' : 'border-transparent hover:underline'}`}
      aria-pressed={kind === value}
      onClick={() => setKind(value)}
    >
      {words}
    </button>
  );
  return (
    <section className={SECTION} aria-label="Before now">
      <h3 className={`${TITLE} flex flex-wrap items-baseline gap-x-2.5`}>
        Before now
        <span className="ml-auto flex flex-wrap gap-x-2.5 text-note font-normal text-ink-2">
          {all === 0 && 'nothing yet'}
          {told.length > 1 && choice(`all ${all}`, null)}
          {told.map((one) => choice(plural(data.counts[one], KIND_NAMES[one]), one))}
        </span>
      </h3>
      <ul className="mt-1 text-row">
        {data.lines.slice(0, isWhole ? undefined : FIRST_LINES).map((line, i) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: lines that say the same on one day
            key={i}
            className="grid grid-cols-[88px_52px_minmax(0,1fr)] gap-x-2 border-b border-line py-1"
          >
            <span className="text-ink-2">{sayDay(dayOfIso(line.on), today)}</span>
            <span className="text-ink-2">{KIND_NAMES[line.kind]}</span>
            {line.taskId === null ? (
              <span className="truncate">{line.text}</span>
            ) : (
              <Link className="truncate hover:underline" to={`/tasks/task/${line.taskId}?due=any`}>
                {line.text}
              </Link>
            )}
          </li>
        ))}
        {!isWhole && data.lines.length > FIRST_LINES && (
          <li className="py-1">
            <button type="button" className="link-line" onClick={() => setIsWhole(true)}>
              Show {data.lines.length - FIRST_LINES} more
            </button>
          </li>
        )}
        {isWhole && data.lines.length < (kind === null ? all : data.counts[kind]) && (
          <li className="py-1 text-ink-2">the newest {data.lines.length}</li>
        )}
      </ul>
    </section>
  );
}
