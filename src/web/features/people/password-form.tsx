import { type FormEvent, useId, useState } from 'react';
import { Link } from 'react-router';
import { workspaceAddresses } from '../../../contract/addresses.ts';
import type { Session } from '../../../contract/index.ts';
import { ask, ProblemError } from '../../kit/api.ts';
import { PasswordField } from './password-field.tsx';

interface PasswordFormProps {
  readonly onEnter: (session: Session) => Promise<void>;
  /** Whether the page may be left for another one. */
  readonly mayLeave: boolean;
}

/** Signing in with an address and a password. */
export function PasswordForm({ onEnter, mayLeave }: PasswordFormProps) {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [stays, setStays] = useState(true);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const ids = { email: useId(), password: useId(), problem: useId() };
  const signIn = (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    ask(workspaceAddresses.signIn, { body: { email, password, stay: stays } })
      .then(onEnter)
      .catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setProblem(error);
      })
      .finally(() => setBusy(false));
  };
  const field = 'h-11 w-full rounded-t-[4px] border-0 border-b-2 border-primary bg-field px-3 text-touch text-ink';
  return (
    <form className="mt-2" onSubmit={signIn} noValidate>
      <label className="mt-4 block text-row" htmlFor={ids.email}>
        E-mail
      </label>
      <input
        id={ids.email}
        className={`${field} mt-1`}
        type="email"
        autoComplete="username"
        value={email}
        aria-invalid={problem !== null}
        aria-describedby={problem ? ids.problem : undefined}
        onChange={({ target }) => setEmail(target.value)}
      />
      <label className="mt-4 block text-row" htmlFor={ids.password}>
        Password
      </label>
      <PasswordField
        id={ids.password}
        value={password}
        complete="current-password"
        problemId={problem ? ids.problem : null}
        onChange={setPassword}
      />
      {problem && (
        <p id={ids.problem} role="alert" className="mt-3 text-row text-late">
          {problem.message}
        </p>
      )}
      <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-1 text-row">
        <label className="flex cursor-pointer items-center gap-2">
          <input type="checkbox" checked={stays} onChange={({ target }) => setStays(target.checked)} />
          Stay signed in here
        </label>
        {mayLeave && (
          <Link className="link-line text-note" to="/forgotten">
            Password forgotten
          </Link>
        )}
      </div>
      <button type="submit" className="btn btn-primary mt-4 h-12 w-[132px] text-touch" disabled={busy}>
        Sign in
      </button>
    </form>
  );
}
