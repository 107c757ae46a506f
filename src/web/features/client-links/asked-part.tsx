import { useState } from 'react';
import { Link } from 'react-router';
import type { Asked, Task } from '../../../contract/index.ts';
import { type AskKind, dayOfIso, isToDo } from '../../../core/index.ts';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { SECTION, SectionTitle } from '../../kit/side-sheet.tsx';
import { sayDay } from '../../kit/ways.ts';
import { sayMoment } from '../tasks/task-words.ts';
import { useAskActions, useAsked } from './api.ts';
import { AskForm } from './ask-form.tsx';

const KIND_WORDS: Readonly<Record<AskKind, string>> = {
  asked: 'asked',
  again: 'asked again',
  before: 'reminded',
  after: 'reminded',
  sentBack: 'told that it came back',
};

/** What the client of a task was asked, how far that is, and what can be done about it. */
export default function AskedPart({ task }: { readonly task: Task }) {
  const { data } = useAsked(task.id);
  const { withdraw } = useAskActions(task.id);
  const [asking, setAsking] = useState(false);
  const [busy, setBusy] = useState(false);
  if (!data) return null;
  const isOpen = isToDo(task.state as 'open') || task.state === 'coming';
  const works = data.asks.some((one) => one.works);
  const endAll = () => {
    setBusy(true);
    void withdraw().finally(() => setBusy(false));
  };
  return (
    <div className={SECTION}>
      <SectionTitle>Asked of the client</SectionTitle>
      <Standing task={task} asked={data} isOpen={isOpen} />
      <ul className="mt-1 text-row leading-4.75">
        {data.asks.map((one) => (
          <AskLine key={one.id} ask={one} isOpen={isOpen} />
        ))}
      </ul>
      {isOpen && task.mayAsk && !asking && (
        <p className="mt-1.5 flex flex-wrap gap-x-4 text-note leading-4.5">
          {data.contacts.length > 0 && (
            <button type="button" className="link-line" onClick={() => setAsking(true)}>
              {data.asks.length === 0 ? 'Ask now' : 'Ask once more'}
            </button>
          )}
          {works && (
            <button type="button" className="link-line" disabled={busy} onClick={endAll}>
              Withdraw the link
            </button>
          )}
        </p>
      )}
      {asking && <AskForm task={task} asked={data} onClose={() => setAsking(false)} />}
    </div>
  );
}

/** Where it stands, in one line. */
function Standing({ task, asked, isOpen }: { readonly task: Task; readonly asked: Asked; readonly isOpen: boolean }) {
  const today = useToday();
  const { asking } = useWorkspace();
  const [last] = asked.asks;
  const wordsOf = (): string => {
    if (task.state === 'toCheck') return 'Sent; somebody here looks at it now.';
    if (task.state === 'done') return 'Sent, and done.';
    if (!isOpen) return '';
    if (task.state === 'underWay') return 'Begun: some of it is here.';
    if (last === undefined)
      return `A mail goes ${task.state === 'coming' ? `once it appears, from ${asking.sendFrom} on` : `from ${asking.sendFrom} on`}.`;
    const opened = asked.asks.find(({ openedAt }) => openedAt !== null);
    return opened?.openedAt ? `Opened ${sayMoment(opened.openedAt, today)}, nothing sent yet.` : 'Not opened yet.';
  };
  if (isOpen && asked.contacts.length === 0)
    return (
      <p className="text-row leading-4.75 text-late">
        No contact of {task.client?.name} has a mail address, so nothing can go.{' '}
        {task.client && (
          <Link className="link-line text-ink" to={`/clients/${task.client.id}`}>
            Add one
          </Link>
        )}
      </p>
    );
  return <p className="text-row leading-4.75">{wordsOf()}</p>;
}

function AskLine({ ask, isOpen }: { readonly ask: Asked['asks'][number]; readonly isOpen: boolean }) {
  const today = useToday();
  const { kind, at, to, email, by, openedAt, works, worksUntil, withdrawnAt } = ask;
  const until = sayDay(dayOfIso(worksUntil), today);
  const state = withdrawnAt
    ? `withdrawn ${sayMoment(withdrawnAt, today)}`
    : works
      ? `works until ${until}`
      : isOpen && `worked until ${until}`;
  return (
    <li className="border-t border-line py-1 first:border-t-0">
      {sayMoment(at, today)}, {to} {KIND_WORDS[kind]}
      {by === null ? '' : ` by ${by}`}
      <span className="block text-note leading-4.5 text-ink-2">
        {[email, openedAt ? `opened ${sayMoment(openedAt, today)}` : 'not opened', state].filter(Boolean).join(', ')}
      </span>
    </li>
  );
}
