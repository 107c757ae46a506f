import { type FormEvent, type ReactNode, useEffect, useId, useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { useSWRConfig } from 'swr';
import { peopleAddresses, workspaceAddresses } from '../../../contract/addresses.ts';
import { MIN_PASSWORD, type Session } from '../../../contract/index.ts';
import { type Answer, addressOf, ask, ProblemError } from '../../kit/api.ts';
import { Skeleton } from '../../kit/states.tsx';
import { PasswordField } from './password-field.tsx';

/** What stands after the # of a link: it goes to no server by itself, and stays out of every log. */
const tokenOf = () => window.location.hash.slice(1);

/** A page of its own for whoever comes by a link from a mail. */
export function Alone({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <main className="mx-auto max-w-[460px] px-6 py-20 max-[720px]:py-10">
      <title>{`${title} · Jolly Rota`}</title>
      <p className="mb-6 font-head text-title font-bold text-primary" style={{ fontStretch: '84%' }}>
        Jolly Rota
      </p>
      <h1 className="text-[28px] leading-8.5">{title}</h1>
      {children}
    </main>
  );
}

type State<T> =
  | { readonly kind: 'looking' }
  | { readonly kind: 'found'; readonly found: T }
  | { readonly kind: 'refused'; readonly problem: ProblemError };

/** Looks once at what a link leads to. */
function useLookedUp<T>(look: (token: string) => Promise<T>): State<T> {
  const [state, setState] = useState<State<T>>({ kind: 'looking' });
  // biome-ignore lint/correctness/useExhaustiveDependencies: the link stays what it is for as long as the page stands
  useEffect(() => {
    look(tokenOf())
      .then((found) => setState({ kind: 'found', found }))
      .catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setState({ kind: 'refused', problem: error });
      });
  }, []);
  return state;
}

function Refused({ title, problem }: { readonly title: string; readonly problem: ProblemError }) {
  return (
    <Alone title={title}>
      <p role="alert" className="mt-3 text-body">
        {problem.message}
      </p>
      <p className="mt-4">
        <Link className="btn" to="/sign-in">
          Sign in
        </Link>
      </p>
    </Alone>
  );
}

/** Goes in as whoever the answer says. */
function useGoIn(): (session: Session) => Promise<void> {
  const { mutate } = useSWRConfig();
  const navigate = useNavigate();
  return async (session) => {
    await mutate(addressOf(workspaceAddresses.session), session, { revalidate: false });
    await navigate('/', { replace: true });
  };
}

interface PasswordAskedProps {
  readonly label: string;
  readonly complete: 'new-password' | 'current-password';
  readonly words: string;
  readonly email: string;
  readonly send: (password: string) => Promise<void>;
}

function PasswordAsked({ label, complete, words, email, send }: PasswordAskedProps) {
  const [password, setPassword] = useState('');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const ids = { field: useId(), problem: useId() };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    send(password)
      .catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setProblem(error);
      })
      .finally(() => setBusy(false));
  };
  return (
    <form className="mt-5" onSubmit={submit} noValidate>
      {/* For programs that keep passwords: whose it is. */}
      <input className="hidden" type="email" autoComplete="username" value={email} readOnly />
      <label className="block text-row" htmlFor={ids.field}>
        {label}
      </label>
      <PasswordField
        id={ids.field}
        value={password}
        complete={complete}
        problemId={problem ? ids.problem : null}
        onChange={setPassword}
      />
      {problem && (
        <p id={ids.problem} role="alert" className="mt-3 text-row text-late">
          {problem.message}
        </p>
      )}
      <button type="submit" className="btn btn-primary mt-5 h-12 px-6 text-touch" disabled={busy}>
        {words}
      </button>
    </form>
  );
}

/** What a link from a mail leads to, or asks for one. */
export default function LinkPage() {
  const Page = PAGES[useLocation().pathname];
  return Page && <Page />;
}

/** Somebody was asked to a workspace. */
function InvitationPage() {
  const goIn = useGoIn();
  const state = useLookedUp<Answer<typeof peopleAddresses.lookAtInvitation>>((token) =>
    ask(peopleAddresses.lookAtInvitation, { body: { token } }),
  );
  if (state.kind === 'looking') return <Skeleton rows={4} />;
  if (state.kind === 'refused') return <Refused title="This invitation" problem={state.problem} />;
  const { workspace, name, email, hasAccount } = state.found;
  return (
    <Alone title={`Welcome to ${workspace}, ${name}`}>
      <p className="mt-3 text-body">
        {hasAccount
          ? `${email} signs in here already, for another workspace: its password lets you into this one too.`
          : `You will sign in with ${email} and a password of your own.`}
      </p>
      <PasswordAsked
        label={hasAccount ? 'Your password' : `A password, ${MIN_PASSWORD} characters or more`}
        complete={hasAccount ? 'current-password' : 'new-password'}
        words="Begin"
        email={email}
        send={async (password) => goIn(await ask(peopleAddresses.accept, { body: { token: tokenOf(), password } }))}
      />
    </Alone>
  );
}

/** A new password in the place of one that is forgotten. */
function NewPasswordPage() {
  const goIn = useGoIn();
  const state = useLookedUp((token) => ask(peopleAddresses.lookAtReset, { body: { token } }));
  if (state.kind === 'looking') return <Skeleton rows={4} />;
  if (state.kind === 'refused') return <Refused title="This link" problem={state.problem} />;
  return (
    <Alone title="A new password">
      <p className="mt-3 text-body">
        For {state.found.email}. Wherever you are signed in with the old one, you are signed out.
      </p>
      <PasswordAsked
        label={`A new one, ${MIN_PASSWORD} characters or more`}
        complete="new-password"
        words="Set the password"
        email={state.found.email}
        send={async (password) => goIn(await ask(peopleAddresses.reset, { body: { token: tokenOf(), password } }))}
      />
    </Alone>
  );
}

/** Another address is shown to be read by whoever wants it: by one click, not by whatever looks at links in mails. */
function NewAddressPage() {
  const [state, setState] = useState<State<{ readonly email: string }> | null>(null);
  if (state?.kind === 'refused') return <Refused title="This link" problem={state.problem} />;
  if (state?.kind === 'found')
    return (
      <Alone title="It is your address now">
        <p className="mt-3 text-body">You sign in with {state.found.email} from now on, and mails go there.</p>
        <p className="mt-4">
          <Link className="btn btn-primary" to="/">
            Go on
          </Link>
        </p>
      </Alone>
    );
  const confirm = () => {
    setState({ kind: 'looking' });
    ask(workspaceAddresses.confirmAddress, { body: { token: tokenOf() } })
      .then((found) => setState({ kind: 'found', found }))
      .catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setState({ kind: 'refused', problem: error });
      });
  };
  return (
    <Alone title="Is this your address?">
      <p className="mt-3 text-body">From then on you sign in with it, and the old one is told.</p>
      <button
        type="button"
        className="btn btn-primary mt-5 h-12 px-6 text-touch"
        disabled={state !== null}
        onClick={confirm}
      >
        Yes, sign in with it
      </button>
    </Alone>
  );
}

/** Asks for a link to a new password. */
function ForgottenPage() {
  const [email, setEmail] = useState('');
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const fieldId = useId();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setProblem(null);
    ask(peopleAddresses.forgotten, { body: { email } })
      .then((answer) => setSaid(answer.said))
      .catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setProblem(error);
      })
      .finally(() => setBusy(false));
  };
  return (
    <Alone title="Password forgotten">
      {said !== null ? (
        <p role="status" className="mt-3 text-body">
          {said}
        </p>
      ) : (
        <form className="mt-4" onSubmit={submit} noValidate>
          <label className="block text-row" htmlFor={fieldId}>
            Your e-mail address
          </label>
          <input
            id={fieldId}
            className="mt-1 h-11 w-full rounded-t-[4px] border-0 border-b-2 border-primary bg-field px-3 text-touch text-ink"
            type="email"
            autoComplete="username"
            value={email}
            aria-invalid={problem !== null}
            onChange={({ target }) => setEmail(target.value)}
          />
          {problem && (
            <p role="alert" className="mt-3 text-row text-late">
              {problem.message}
            </p>
          )}
          <button type="submit" className="btn btn-primary mt-5 h-12 px-6 text-touch" disabled={busy}>
            Send a link
          </button>
        </form>
      )}
      <p className="mt-5 text-row">
        <Link className="link-line" to="/sign-in">
          Back to signing in
        </Link>
      </p>
    </Alone>
  );
}

const PAGES: Readonly<Record<string, () => ReactNode>> = {
  '/invitation': InvitationPage,
  '/new-password': NewPasswordPage,
  '/new-address': NewAddressPage,
  '/forgotten': ForgottenPage,
};
