import { useState } from 'react';
import { Link } from 'react-router';
import * as z from 'zod/mini';
import { webhookAddresses } from '../../../contract/addresses-later.ts';
import {
  WEBHOOK_EVENTS,
  type Webhook,
  type WebhookDelivery,
  type WebhookEvent,
  type WebhookInput,
} from '../../../contract/index.ts';
import { dayOfIso, plural } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { ask, ProblemError } from '../../kit/api.ts';
import { useDraft } from '../../kit/draft.ts';
import { NotAllowed, Skeleton, Trouble } from '../../kit/states.tsx';
import { SureButton } from '../../kit/sure-button.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { sayDay, timeOf } from '../../kit/ways.ts';

const EVENTS: Readonly<Record<WebhookEvent, string>> = {
  'task.made': 'made',
  'task.started': 'started',
  'task.finished': 'finished',
  'task.late': 'late',
};
const draftSchema = z.object({
  name: z.string(),
  url: z.string(),
  events: z.array(z.enum(WEBHOOK_EVENTS)),
  isOn: z.boolean(),
});
const FRESH: WebhookInput = { name: '', url: '', events: ['task.finished', 'task.late'], isOn: true };

/** Programs that are told of what happens to tasks. */
export function WebhooksPage() {
  const { may } = useWorkspace();
  const { data, error, mutate } = useAnswer(webhookAddresses.list, may('settings') ? {} : null);
  const [changing, setChanging] = useState<string | null>(null);
  if (!may('settings')) return <NotAllowed right="settings" what="see webhooks" to="/" back="Back to the work" />;
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Skeleton rows={8} />;
  const onNews = (news: { webhooks: Webhook[] }) => mutate(news, { revalidate: false });
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>Webhooks · Jolly Rota</title>
      <div className="page-head">
        <h1>Webhooks</h1>
        <Link className="link-line text-note" to="/settings">
          Settings
        </Link>
        <Link className="link-line text-note" to="/interface">
          Interface for programs
        </Link>
        <button
          type="button"
          className="btn btn-primary ml-auto"
          disabled={changing === 'new'}
          onClick={() => setChanging('new')}
        >
          Tell a program
        </button>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto border-t border-line-2 px-5 pb-8 max-[720px]:px-4">
        <p className="mt-3 max-w-[760px] text-note leading-4.5 text-ink-2">
          A program is told by a POST to its address, within seconds, with the task as it was then. What it does not
          take is tried again for three days. It knows us by the signature (Standard Webhooks:{' '}
          <code className="font-mono">webhook-id</code>, <code className="font-mono">webhook-timestamp</code>,{' '}
          <code className="font-mono">webhook-signature</code>).
        </p>
        {changing === 'new' && (
          <WebhookForm
            place="webhook"
            initial={FRESH}
            words="Tell it from now on"
            onSave={async (input) => {
              await onNews(await ask(webhookAddresses.add, { body: input }));
              setChanging(null);
            }}
            onLeave={() => setChanging(null)}
          />
        )}
        {data.webhooks.length === 0 && changing !== 'new' && (
          <p className="mt-5 text-row text-ink-2">No program is told of anything.</p>
        )}
        {data.webhooks.map((webhook) => (
          <One
            key={webhook.id}
            webhook={webhook}
            isChanging={changing === webhook.id}
            onChange={(isChanging) => setChanging(isChanging ? webhook.id : null)}
            onNews={onNews}
          />
        ))}
      </div>
    </div>
  );
}

interface OneProps {
  readonly webhook: Webhook;
  readonly isChanging: boolean;
  readonly onChange: (isChanging: boolean) => void;
  readonly onNews: (news: { webhooks: Webhook[] }) => Promise<unknown>;
}

function One({ webhook, isChanging, onChange, onNews }: OneProps) {
  const { id, version, name, url, events, isOn, secret, waiting, failed } = webhook;
  const { busy, trying } = useTrying();
  const [isShown, setShown] = useState(false);
  const [isLog, setLog] = useState(false);
  const save = async (input: WebhookInput) => {
    await onNews(await ask(webhookAddresses.change, { params: { webhookId: id }, body: { ...input, version } }));
  };
  return (
    <section className="mt-4 max-w-[900px] border-t border-line-2 pt-2.5 text-row leading-5.5" aria-label={name}>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="text-body text-primary">{name}</h2>
        <span className={isOn ? '' : 'text-ink-2'}>
          {isOn
            ? `tasks ${events.map((event) => EVENTS[event]).join(', ')}`
            : 'paused: nothing new is noted for it, what waits is held'}
        </span>
        <span className="ml-auto flex gap-4 text-note">
          <button type="button" className="link-line" onClick={() => onChange(!isChanging)}>
            Change
          </button>
          <button
            type="button"
            className="link-line"
            disabled={busy}
            onClick={() => void trying(() => save({ name, url, events, isOn: !isOn }))}
          >
            {isOn ? 'Pause' : 'Go on'}
          </button>
          <SureButton
            words="Drop"
            question="With all it was told?"
            label={`Drop ${name}`}
            disabled={busy}
            onSure={() =>
              void trying(async () => {
                await onNews(await ask(webhookAddresses.drop, { params: { webhookId: id } }));
                sayDone('It is told nothing any more.');
              })
            }
          />
        </span>
      </div>
      <p className="font-mono text-note break-all text-ink-2">{url}</p>
      <p className="flex flex-wrap gap-x-4 text-note">
        {isShown ? (
          <code className="font-mono break-all">{secret}</code>
        ) : (
          <button type="button" className="link-line" onClick={() => setShown(true)}>
            Show its secret
          </button>
        )}
        <button type="button" className="link-line" aria-expanded={isLog} onClick={() => setLog(!isLog)}>
          What it was told
        </button>
        {waiting > 0 && <span className="text-ink-2">{plural(waiting, 'thing')} on the way</span>}
        {failed > 0 && <span className="text-late">{plural(failed, 'thing')} given up within a week</span>}
      </p>
      {isChanging && (
        <WebhookForm
          place={`webhook.${id}`}
          initial={{ name, url, events, isOn }}
          words="Save"
          onSave={async (input) => {
            await save(input);
            onChange(false);
          }}
          onLeave={() => onChange(false)}
        />
      )}
      {isLog && <Log webhookId={id} />}
    </section>
  );
}

interface WebhookFormProps {
  /** By which what is being written is found again. */
  readonly place: string;
  readonly initial: WebhookInput;
  readonly words: string;
  /** @throws ProblemError when it is refused */
  readonly onSave: (input: WebhookInput) => Promise<void>;
  readonly onLeave: () => void;
}

function WebhookForm({ place, initial, words, onSave, onLeave }: WebhookFormProps) {
  // What is being written stays, wherever one goes meanwhile.
  const { draft, change: setDraft, forget } = useDraft(place, initial, draftSchema);
  const [problem, setProblem] = useState<string | null>(null);
  const { busy, trying } = useTrying();
  const submit = () =>
    trying(async () => {
      try {
        await onSave({ ...draft, name: draft.name.trim(), url: draft.url.trim() });
        forget();
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
        setProblem(error.at('name') ?? error.at('url') ?? error.at('events') ?? error.message);
      }
    });
  return (
    <form
      className="mt-3 max-w-[900px] text-row leading-7.5"
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <input
        className="blank w-[180px]"
        aria-label="What the webhook is for"
        placeholder="what it is for"
        maxLength={60}
        // biome-ignore lint/a11y/noAutofocus: it has just been asked for
        autoFocus
        value={draft.name}
        onChange={({ target }) => setDraft({ ...draft, name: target.value })}
      />{' '}
      at{' '}
      <input
        className="blank w-[340px] max-w-full font-mono"
        aria-label="Its address"
        placeholder="https://…"
        maxLength={1000}
        value={draft.url}
        onChange={({ target }) => setDraft({ ...draft, url: target.value })}
      />{' '}
      is told when a task is
      {WEBHOOK_EVENTS.map((event) => (
        <label key={event} className="ml-4 inline-flex items-center gap-1.5">
          <input
            type="checkbox"
            className="check"
            checked={draft.events.includes(event)}
            onChange={({ target }) =>
              setDraft({
                ...draft,
                events: WEBHOOK_EVENTS.filter((one) => (one === event ? target.checked : draft.events.includes(one))),
              })
            }
          />
          {EVENTS[event]}
        </label>
      ))}
      <span role="alert" className="field-error block">
        {problem}
      </span>
      <span className="mt-1 flex gap-3">
        <button type="submit" className="btn btn-primary btn-sm" disabled={busy}>
          {words}
        </button>
        <button
          type="button"
          className="btn btn-text"
          onClick={() => {
            forget();
            onLeave();
          }}
        >
          Not now
        </button>
      </span>
    </form>
  );
}

const STATES: Readonly<Record<WebhookDelivery['state'], string>> = {
  waiting: 'waits',
  sent: 'told',
  failed: 'given up',
};

function Log({ webhookId }: { readonly webhookId: string }) {
  const [before, setBefore] = useState<string | null>(null);
  const query = before === null ? {} : { before };
  const { data, mutate } = useAnswer(webhookAddresses.log, { params: { webhookId }, query });
  const today = useToday();
  const { busy, trying } = useTrying();
  if (!data) return <Skeleton rows={3} height={24} />;
  if (data.deliveries.length === 0) return <p className="mt-2 text-row text-ink-2">Nothing yet.</p>;
  return (
    <>
      <ul className="mt-2" aria-label="What it was told">
        {data.deliveries.map(({ id, event, task, at, state, tries, said }) => (
          <li
            key={id}
            className="grid grid-cols-[130px_minmax(0,1fr)_auto] items-baseline gap-x-4 border-t border-line py-1 leading-5 max-[720px]:grid-cols-1"
          >
            <span className="text-note text-ink-2">
              {sayDay(dayOfIso(at.slice(0, 10)), today)}, {timeOf(at)}
            </span>
            <span className="min-w-0">
              {task} <span className="text-ink-2">{EVENTS[event]}</span>
              <span className={`ml-3 text-note ${state === 'failed' ? 'text-late' : 'text-ink-2'}`}>
                {[STATES[state], tries > 1 ? `tried ${tries} times` : '', said ?? ''].filter(Boolean).join(', ')}
              </span>
            </span>
            <button
              type="button"
              className="link-line justify-self-start text-note"
              disabled={busy || state === 'waiting'}
              aria-label={`Tell it once more: ${task} ${EVENTS[event]}`}
              onClick={() =>
                void trying(async () => {
                  await ask(webhookAddresses.again, { params: { deliveryId: id } });
                  await mutate();
                })
              }
            >
              Once more
            </button>
          </li>
        ))}
      </ul>
      <span className="flex gap-4 text-note">
        {before !== null && (
          <button type="button" className="link-line" onClick={() => setBefore(null)}>
            The newest
          </button>
        )}
        {data.more && (
          <button type="button" className="link-line" onClick={() => setBefore(data.deliveries.at(-1)?.id ?? null)}>
            Earlier ones
          </button>
        )}
      </span>
    </>
  );
}
