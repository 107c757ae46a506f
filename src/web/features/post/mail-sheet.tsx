import { type FormEvent, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { MailAnswer } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { sayTrouble as toastTrouble } from '../../app/shell/toast.tsx';
import { useToday } from '../../app/shell/workspace.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { CloseButton, SECTION, SideSheet } from '../../kit/side-sheet.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDay, timeOf } from '../../kit/ways.ts';
import { TryAnswer } from '../answers/try-answer.tsx';
import { useMail, usePostActions } from './api.ts';
import { sayTrouble } from './post-page.tsx';

/** One mail, as it is read and as it was sent. */
export default function MailSheet() {
  const { mailId = '' } = useParams();
  const { data, error, mutate } = useMail(mailId);
  const navigate = useNavigate();
  const close = () => void navigate('/post');
  return (
    <SideSheet label={data?.subject ?? 'A mail'} onClose={close} className="w-[520px]">
      {error && !data && <Trouble error={error} retry={() => void mutate()} />}
      {!error && !data && <Skeleton rows={8} />}
      {data && <Mail key={data.id} mail={data} onClose={close} />}
    </SideSheet>
  );
}

const VIEWS = [
  ['html', 'as it is read'],
  ['text', 'as plain text'],
  ['raw', 'as it was sent'],
] as const;
type View = (typeof VIEWS)[number][0];

function Mail({ mail, onClose }: { readonly mail: MailAnswer; readonly onClose: () => void }) {
  const today = useToday();
  const views = VIEWS.filter(([view]) => mail[view]);
  const [view, setView] = useState<View>(views[0]?.[0] ?? 'text');
  const when = (moment: string) => `${sayDay(dayOfIso(moment.slice(0, 10)), today)}, ${timeOf(moment)}`;
  return (
    <>
      <header className={SECTION}>
        <div className="flex items-center gap-2 text-row">
          <Pennant state={mail.state === 'sent' ? 'done' : 'open'} late={mail.state === 'refused'} label="" />
          <span className="flex-1">
            {mail.state === 'sent' && mail.sentAt !== null
              ? `Delivered ${when(mail.sentAt)}, ${mail.tries <= 1 ? 'at the first try' : `at try ${mail.tries}`}`
              : sayTrouble(mail)}
          </span>
          <CloseButton onClose={onClose} />
        </div>
        <h2 className="text-title leading-6.5">{mail.subject}</h2>
        <dl className="mt-1 grid grid-cols-[52px_minmax(0,1fr)] text-row leading-5">
          <dt className="text-ink-2">to</dt>
          <dd>
            {mail.toName}, {mail.toEmail}
          </dd>
          <dt className="text-ink-2">asked</dt>
          <dd>{when(mail.createdAt)}</dd>
          {mail.parts.length > 0 && (
            <>
              <dt className="text-ink-2">with it</dt>
              <dd>
                {mail.parts.map(({ id, name }) => (
                  <a
                    key={id}
                    className="link-line mr-3"
                    href={`/api/mail-parts/${id}`}
                    target="_blank"
                    rel="noreferrer"
                  >
                    {name}
                  </a>
                ))}
              </dd>
            </>
          )}
        </dl>
      </header>
      {mail.state !== 'sent' && <TryAgain mail={mail} />}
      {mail.mayBeAnswered && <TryAnswer mail={mail} />}
      <div className="flex gap-4 px-5 pt-2.5 text-note" role="tablist" aria-label="How the mail is shown">
        {views.map(([key, words]) => (
          <button
            key={key}
            type="button"
            role="tab"
            aria-selected={view === key}
            className={`cursor-pointer leading-5 ${view === key ? 'border-b-2 border-accent font-semibold' : 'border-b border-line-2 text-ink-2'}`}
            onClick={() => setView(key)}
          >
            {words}
          </button>
        ))}
      </div>
      <div className="min-h-[456px] flex-1 px-5 py-3">
        {view === 'html' ? (
          <iframe
            title={`The mail ${mail.subject}`}
            className="h-full min-h-[430px] w-full border border-line-2 bg-white"
            // Nothing of it runs; its links open beside.
            sandbox="allow-popups allow-popups-to-escape-sandbox"
            srcDoc={`<base target="_blank">${mail.html}`}
          />
        ) : (
          // biome-ignore lint/a11y/noNoninteractiveTabindex: a long text that is scrolled by keys
          <pre className="max-h-full overflow-auto text-note leading-4.5 whitespace-pre-wrap" tabIndex={0}>
            {view === 'raw' ? mail.raw : mail.text}
          </pre>
        )}
      </div>
      <p className="border-t border-line px-5 py-2 font-mono text-note text-ink-2">{mail.messageId}</p>
    </>
  );
}

function TryAgain({ mail }: { readonly mail: MailAnswer }) {
  const { again } = usePostActions();
  const [email, setEmail] = useState(mail.toEmail);
  const [busy, setBusy] = useState(false);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    again(mail.id, email === mail.toEmail ? undefined : email)
      .catch(toastTrouble)
      .finally(() => setBusy(false));
  };
  return (
    <form className={`${SECTION} text-row leading-7`} onSubmit={submit}>
      to{' '}
      <input
        className="blank w-[250px]"
        aria-label="Address of the mail"
        value={email}
        onChange={({ target }) => setEmail(target.value)}
      />{' '}
      <button type="submit" className="btn btn-sm" disabled={busy}>
        Try now
      </button>
    </form>
  );
}
