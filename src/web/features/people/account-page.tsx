import { type FormEvent, useId, useState } from 'react';
import { workspaceAddresses } from '../../../contract/addresses.ts';
import { backupAddresses } from '../../../contract/addresses-later.ts';
import { type AccountSession, MIN_PASSWORD } from '../../../contract/index.ts';
import { plural, sayRoles } from '../../../core/index.ts';
import { sayDone, sayTrouble } from '../../app/shell/toast.tsx';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { addressOf, ask, ProblemError } from '../../kit/api.ts';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { MyCalendars } from '../calendars/my-calendars.tsx';
import { MyTokens } from '../programs/my-tokens.tsx';
import { sayMoment } from '../tasks/task-words.ts';
import { LeavePart } from './leave/leave-part.tsx';
import { MyWays } from './my-ways.tsx';

/** One's own account: where it is signed in, and its password. */
export default function AccountPage() {
  const { me } = useWorkspace();
  const { data, error, mutate } = useAnswer(workspaceAddresses.sessions, {});
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  return (
    <div className="min-h-0 flex-1 overflow-y-auto">
      <title>Your account · Jolly Rota</title>
      <div className="page-head">
        <h1>{me.name}</h1>
        <span className="text-note text-ink-2">
          {data ? `${sayRoles(me.roles)}, signs in as ${data.email}` : sayRoles(me.roles)}
        </span>
      </div>
      {!data && <Skeleton rows={5} />}
      {data && (
        <div className="border-t border-line-2">
          <div className="grid max-w-[980px] grid-cols-[minmax(0,1fr)_320px] gap-x-12 gap-y-8 px-5 py-4 max-[820px]:grid-cols-1 max-[720px]:px-4">
            <div>
              <Sessions sessions={data.sessions} onEnded={() => void mutate()} />
              <LeavePart personId={me.id} name={me.name} className="mt-7 border-t border-line-2 pt-3" />
              <MyWays />
              <MyCalendars />
              <MyTokens />
            </div>
            <div>
              <Password onChanged={() => void mutate()} />
              <Address email={data.email} />
              <p className="mt-7 border-t border-line-2 pt-3 text-row leading-5">
                <a
                  className="link-line"
                  href={addressOf(backupAddresses.ofPerson, { params: { personId: me.id } })}
                  download
                >
                  All that is kept of you
                </a>{' '}
                <span className="text-ink-2">as an archive, without keys and passwords</span>
              </p>
            </div>
          </div>
        </div>
      )}
    </div>
  );
}

interface SessionsProps {
  readonly sessions: readonly AccountSession[];
  readonly onEnded: () => void;
}

function Sessions({ sessions, onEnded }: SessionsProps) {
  const today = useToday();
  const end = (only: string | null) =>
    ask(workspaceAddresses.endSessions, { body: { only } })
      .then(({ ended }) => {
        sayDone(ended === 1 ? 'Signed out there.' : `Signed out in ${plural(ended, 'other place')}.`);
        onEnded();
      })
      .catch(sayTrouble);
  const others = sessions.filter(({ isThis }) => !isThis).length;
  return (
    <section>
      <h2 className="text-[17px] leading-5.5 text-primary">Signed in</h2>
      <ul className="mt-1">
        {sessions.map(({ id, agent, begunAt, isThis }) => (
          <li key={id} className="flex min-h-9 items-center gap-3 border-b border-line text-row max-[720px]:min-h-11">
            <span className="min-w-0 flex-1">
              {sayBrowser(agent)}
              <span className="ml-2 text-ink-2">since {sayMoment(begunAt, today)}</span>
            </span>
            {isThis ? (
              <span className="text-note text-ink-2">here</span>
            ) : (
              <button type="button" className="link-line text-note" onClick={() => void end(id)}>
                Sign out there
              </button>
            )}
          </li>
        ))}
      </ul>
      <p className="mt-3 text-note leading-4.25 text-ink-2">
        A session ends after fourteen days without use, and after thirty in any case.
      </p>
      {others > 0 && (
        <button type="button" className="btn mt-3" onClick={() => void end(null)}>
          Sign out everywhere else
        </button>
      )}
    </section>
  );
}

/** Another address to sign in with: asked for here, and confirmed through a link that goes there. */
function Address({ email }: { readonly email: string }) {
  const [next, setNext] = useState('');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const ids = { next: useId(), password: useId() };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setProblem(null);
    setSaid(null);
    ask(workspaceAddresses.askForAddress, { body: { email: next, password } })
      .then((answer) => {
        setSaid(answer.said);
        setNext('');
        setPassword('');
      })
      .catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setProblem(error);
      })
      .finally(() => setBusy(false));
  };
  return (
    <form onSubmit={submit} noValidate aria-label="Address" className="mt-7 border-t border-line-2 pt-3">
      <h2 className="text-[17px] leading-5.5 text-primary">Address</h2>
      <p className="text-row leading-5">You sign in with {email}.</p>
      <label className="mt-2.5 block text-row" htmlFor={ids.next}>
        Another one
      </label>
      <input
        id={ids.next}
        type="email"
        className="writing mt-0.5 h-9 max-[720px]:h-11"
        autoComplete="off"
        value={next}
        aria-invalid={problem?.at('email') !== undefined}
        aria-describedby={`${ids.next}-problem`}
        onChange={({ target }) => setNext(target.value)}
      />
      <span id={`${ids.next}-problem`} role="alert" className="field-error">
        {problem?.at('email')}
      </span>
      <label className="mt-2.5 block text-row" htmlFor={ids.password}>
        Your password, to be sure
      </label>
      <input
        id={ids.password}
        type="password"
        className="writing mt-0.5 h-9 max-[720px]:h-11"
        autoComplete="current-password"
        value={password}
        aria-invalid={problem?.at('password') !== undefined}
        aria-describedby={`${ids.password}-problem`}
        onChange={({ target }) => setPassword(target.value)}
      />
      <span id={`${ids.password}-problem`} role="alert" className="field-error">
        {problem?.at('password')}
      </span>
      {problem && !problem.problem.errors && (
        <p role="alert" className="mt-1 text-row text-late">
          {problem.message}
        </p>
      )}
      {said && (
        <p role="status" className="mt-1 text-row">
          {said}
        </p>
      )}
      <button type="submit" className="btn mt-3" disabled={busy}>
        Send a link there
      </button>
    </form>
  );
}

/** "Firefox on Linux", as far as a browser says so; its own words name it for anything else. */
function sayBrowser(agent: string): string {
  const browser = /Edg\//.test(agent)
    ? 'Edge'
    : /Firefox\//.test(agent)
      ? 'Firefox'
      : /Chrom(e|ium)\//.test(agent)
        ? 'Chromium'
        : /Safari\//.test(agent)
          ? 'Safari'
          : null;
  const system = /Android/.test(agent)
    ? 'Android'
    : /iPhone|iPad/.test(agent)
      ? 'a phone or tablet'
      : /Windows/.test(agent)
        ? 'Windows'
        : /Mac OS X/.test(agent)
          ? 'a Mac'
          : /Linux/.test(agent)
            ? 'Linux'
            : null;
  if (browser === null) return agent === '' ? 'a program that does not say what it is' : agent.slice(0, 40);
  return system === null ? browser : `${browser} on ${system}`;
}

function Password({ onChanged }: { readonly onChanged: () => void }) {
  const [current, setCurrent] = useState('');
  const [next, setNext] = useState('');
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [busy, setBusy] = useState(false);
  const ids = { current: useId(), next: useId() };
  const change = (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setProblem(null);
    ask(workspaceAddresses.password, { body: { current, next } })
      .then(({ ended }) => {
        sayDone(`Your password is changed.${ended > 0 ? ` Signed out in ${plural(ended, 'other place')}.` : ''}`);
        setCurrent('');
        setNext('');
        onChanged();
      })
      .catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setProblem(error);
      })
      .finally(() => setBusy(false));
  };
  const field = (
    id: string,
    name: 'current' | 'next',
    label: string,
    complete: string,
    value: string,
    set: (text: string) => void,
  ) => (
    <>
      <label className="mt-2.5 block text-row" htmlFor={id}>
        {label}
      </label>
      <input
        id={id}
        type="password"
        className="writing mt-0.5 h-9 max-[720px]:h-11"
        autoComplete={complete}
        value={value}
        aria-invalid={problem?.at(name) !== undefined}
        aria-describedby={`${id}-problem`}
        onChange={({ target }) => set(target.value)}
      />
      <span id={`${id}-problem`} role="alert" className="field-error">
        {problem?.at(name)}
      </span>
    </>
  );
  return (
    <form onSubmit={change} noValidate aria-label="Password">
      <h2 className="text-[17px] leading-5.5 text-primary">Password</h2>
      {field(ids.current, 'current', 'Your present one', 'current-password', current, setCurrent)}
      {field(ids.next, 'next', `A new one, ${MIN_PASSWORD} characters or more`, 'new-password', next, setNext)}
      {problem && !problem.problem.errors && (
        <p role="alert" className="mt-1 text-row text-late">
          {problem.message}
        </p>
      )}
      <button type="submit" className="btn btn-primary mt-3" disabled={busy}>
        Change the password
      </button>
      <p className="mt-2 text-note leading-4.25 text-ink-2">Everywhere else you are signed out by it.</p>
    </form>
  );
}
