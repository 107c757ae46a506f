import { useState } from 'react';
import { Outlet, useNavigate, useParams } from 'react-router';
import { MAIL_STATES, type MailLine, type MailState } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay, plural } from '../../../core/index.ts';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { Band } from '../../kit/band.tsx';
import { FindWords } from '../../kit/find-words.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { Empty, NotAllowed, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDay, timeOf } from '../../kit/ways.ts';
import { AnswerTrays } from '../answers/answer-trays.tsx';
import { useMails } from './api.ts';

/** Every mail that left, waits or was refused. */
export default function PostPage() {
  const { may } = useWorkspace();
  return may('post') ? (
    <PostTray />
  ) : (
    <NotAllowed right="post" what="read what left by mail" to="/" back="Back to the work" />
  );
}

function PostTray() {
  const [words, setWords] = useState('');
  const refused = useMails('refused', words);
  const waiting = useMails('waiting', words);
  const sent = useMails('sent', words);
  const { first, error } = sent;
  const of = { refused, waiting, sent };
  const isEmpty = first && first.counts.refused + first.counts.waiting + first.counts.sent === 0;
  const isNoneFound = first && MAIL_STATES.every((state) => of[state].first && of[state].mails.length === 0);
  return (
    <div className="flex min-h-0 flex-1">
      <title>Post tray · Jolly Rota</title>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <div className="page-head">
          <h1>Post tray</h1>
          <FindWords label="Find a mail" value={words} onChange={setWords} />
          <span className="ml-auto text-note leading-4 text-ink-2">
            {first &&
              (first.isStandIn
                ? 'Mail ends here: no outside server is set.'
                : 'Mail goes out through the server that is set.')}
          </span>
        </div>
        <div className="min-h-0 flex-1 overflow-y-auto">
          {error && !first && <Trouble error={error} retry={sent.again} />}
          {!error && !first && <Skeleton rows={10} />}
          {isEmpty && (
            <Empty title="No mail has left yet.">
              Invitations, forgotten passwords and all that people are told by mail stand here as they were sent.
            </Empty>
          )}
          {!isEmpty && isNoneFound && <Empty title="No mail of these words.">Try fewer of them.</Empty>}
          {words === '' && <AnswerTrays />}
          {first &&
            MAIL_STATES.map((state) => <Mails key={state} state={state} found={of[state]} isAll={words === ''} />)}
        </div>
      </div>
      <Outlet />
    </div>
  );
}

const NAMES: Readonly<Record<MailState, string>> = { refused: 'refused', waiting: 'to try', sent: 'delivered' };

interface MailsProps {
  readonly state: MailState;
  readonly found: ReturnType<typeof useMails>;
  readonly isAll: boolean;
}

function Mails({ state, found: { mails, first, isMore, more }, isAll }: MailsProps) {
  if (mails.length === 0) return null;
  const count = isAll ? (first?.counts[state] ?? mails.length) : mails.length;
  return (
    <Band
      name={NAMES[state]}
      count={count}
      isLate={state === 'refused'}
      asides={isAll ? [] : [isMore ? 'and more' : 'found']}
    >
      <ul>
        {mails.map((mail) => (
          <Line key={mail.id} mail={mail} />
        ))}
      </ul>
      {isMore && (
        <button type="button" className="link-line my-2 text-note max-[720px]:ml-4" onClick={more}>
          Show older ones
        </button>
      )}
    </Band>
  );
}

const KIND_WORDS = {
  invitation: 'invitation',
  password: 'new password',
  address: 'address',
  notice: 'notice',
  task: 'client’s task',
  code: 'code for a link',
  calls: 'call list',
  summary: 'summary of a day',
  message: 'what happened',
} as const satisfies Record<MailLine['kind'], string>;

function Line({ mail }: { readonly mail: MailLine }) {
  const today = useToday();
  const navigate = useNavigate();
  const { mailId } = useParams();
  const isOpen = mailId === mail.id;
  const date = mail.createdAt.slice(0, 10);
  const when = date === isoOfDay(today) ? timeOf(mail.createdAt) : sayDay(dayOfIso(date), today);
  return (
    <li
      className={`relative grid min-h-8 grid-cols-[22px_92px_minmax(0,160px)_minmax(0,1fr)_auto] items-center gap-x-2 border-b border-line py-1 pr-5 text-row leading-4.5 last:border-b-0 max-[720px]:grid-cols-[22px_minmax(0,1fr)_auto] max-[720px]:pl-4 ${isOpen ? 'bg-chosen shadow-[inset_3px_0_0_var(--color-accent)]' : 'hover:bg-base-200'}`}
    >
      <Pennant
        state={mail.state === 'sent' ? 'done' : mail.state === 'waiting' ? 'underWay' : 'open'}
        late={mail.state === 'refused'}
        label=""
      />
      <span className="text-ink-2 max-[720px]:hidden">{when}</span>
      <span className="truncate max-[720px]:hidden">{mail.toName}</span>
      <span className="min-w-0">
        <button
          type="button"
          className="block max-w-full cursor-pointer truncate text-left font-semibold before:absolute before:inset-0 before:content-['']"
          aria-current={isOpen || undefined}
          onClick={() => void navigate(isOpen ? '/post' : `/post/${mail.id}`)}
        >
          {mail.subject}
        </button>
        {mail.state !== 'sent' && <span className="block truncate text-note text-ink-2">{sayTrouble(mail)}</span>}
      </span>
      <span className="text-note text-ink-2">{KIND_WORDS[mail.kind]}</span>
    </li>
  );
}

/** "mailbox busy; tried twice, again in 2 minutes". */
export function sayTrouble({
  state,
  trouble,
  tries,
  triedAgainIn,
}: Pick<MailLine, 'state' | 'trouble' | 'tries' | 'triedAgainIn'>): string {
  const tried = tries === 0 ? 'not tried yet' : `tried ${tries === 1 ? 'once' : `${tries} times`}`;
  if (state === 'sent') return '';
  if (state === 'refused') return `${trouble ?? 'refused'}; ${tried}, and given up`;
  const next =
    triedAgainIn === null ? '' : triedAgainIn === 0 ? ', again now' : `, again in ${plural(triedAgainIn, 'minute')}`;
  return [trouble, `${tried}${next}`].filter(Boolean).join('; ');
}
