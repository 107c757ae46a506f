import { ArrowRight } from 'lucide-react';
import { type FormEvent, useId, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { useSWRConfig } from 'swr';
import { type Session, type Welcome, workspaceEndpoints } from '../../contract/index.ts';
import { useAnswer } from '../answer.ts';
import { addressOf, ask, ProblemError } from '../api.ts';
import { Trouble } from '../ui/states.tsx';
import { DayTable } from './day-table.tsx';

export default function SignIn() {
  const { data: welcome, error, mutate } = useAnswer(workspaceEndpoints.welcome, {});
  if (error && !welcome) return <Trouble error={error} retry={() => void mutate()} />;
  if (!welcome) return null;
  return (
    <div className="grid min-h-full grid-cols-[664px_minmax(0,1fr)] max-[1100px]:grid-cols-1">
      <section
        className="relative overflow-hidden bg-bar pl-14 pt-[22px] text-bar-text max-[1100px]:hidden"
        aria-label="The days ahead"
      >
        <p className="mb-[18px] font-head text-[30px] font-bold leading-9" style={{ fontStretch: '84%' }}>
          Jolly Rota
        </p>
        <DayTable welcome={welcome} />
        <div className="absolute bottom-0 left-[560px] top-0 w-0.5 bg-bar-text" />
        {/* The flag of today flies at today's line: head 82, four lines of 21 before it. */}
        <div
          className="absolute left-[561px] top-[184px] h-[30px] w-[104px] bg-accent"
          style={{ clipPath: 'polygon(0 0, 100% 42%, 0 100%)' }}
        />
      </section>
      <main className="flex flex-col justify-center px-[76px] py-10 max-[720px]:px-6">
        <p
          className="mb-6 font-head text-[22px] font-bold text-primary min-[1101px]:hidden"
          style={{ fontStretch: '84%' }}
        >
          Jolly Rota
        </p>
        <h1 className="text-[40px] leading-[44px]" style={{ fontStretch: '82%', letterSpacing: '-.015em' }}>
          {welcome.name}
        </h1>
        <p className="mt-0.5 text-ink-2">{welcome.tagline}</p>
        <PasswordForm />
        {welcome.demoPeople && <DemoPeople people={welcome.demoPeople} />}
      </main>
    </div>
  );
}

function useEnter(): (session: Session) => Promise<void> {
  const { mutate } = useSWRConfig();
  const navigate = useNavigate();
  const { state } = useLocation();
  const goTo = state && typeof state === 'object' && 'goTo' in state ? String(state.goTo) : '/';
  return async (session) => {
    await mutate(addressOf(workspaceEndpoints.session), session, { revalidate: false });
    await navigate(goTo, { replace: true });
  };
}

function PasswordForm() {
  const enter = useEnter();
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [shows, setShows] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const ids = { email: useId(), password: useId(), problem: useId() };
  const signIn = (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    ask(workspaceEndpoints.signIn, { body: { email, password } })
      .then(enter)
      .catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setProblem(error);
      })
      .finally(() => setBusy(false));
  };
  const field = 'h-11 w-full rounded-t-[4px] border-0 border-b-2 border-primary bg-field px-3 text-[16px] text-ink';
  return (
    <form className="mt-2" onSubmit={signIn} noValidate>
      <label className="mt-4 block text-[14px]" htmlFor={ids.email}>
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
      <label className="mt-4 block text-[14px]" htmlFor={ids.password}>
        Password
      </label>
      <div className="relative mt-1">
        <input
          id={ids.password}
          className={`${field} pr-16`}
          type={shows ? 'text' : 'password'}
          autoComplete="current-password"
          value={password}
          aria-invalid={problem !== null}
          aria-describedby={problem ? ids.problem : undefined}
          onChange={({ target }) => setPassword(target.value)}
        />
        <button
          type="button"
          className="link-line absolute right-3 top-2.5 h-6 px-1 text-[13px] leading-6"
          aria-pressed={shows}
          onClick={() => setShows(!shows)}
        >
          {shows ? 'Hide' : 'Show'}
        </button>
      </div>
      {problem && (
        <p id={ids.problem} role="alert" className="mt-3 text-[14px] text-late">
          {problem.message}
        </p>
      )}
      <button type="submit" className="btn btn-primary mt-5 !h-12 w-[132px] !text-[16px]" disabled={busy}>
        Sign in
      </button>
    </form>
  );
}

function DemoPeople({ people }: { readonly people: NonNullable<Welcome['demoPeople']> }) {
  const enter = useEnter();
  const [problem, setProblem] = useState<string | null>(null);
  const stepIn = (personId: string) => {
    ask(workspaceEndpoints.stepIn, { body: { personId } })
      .then(enter)
      .catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setProblem(error.message);
      });
  };
  return (
    <section className="mt-[26px] border-t border-line-2 pt-3">
      <h2 className="text-[15px] leading-5 text-primary">Demo data is loaded</h2>
      <p className="mb-1 text-[14px] text-ink-2">Step in as one of these people. What you change stays in this copy.</p>
      {problem && (
        <p role="alert" className="text-[14px] text-late">
          {problem}
        </p>
      )}
      <ul>
        {people.map(({ id, name, role, saying }) => (
          <li key={id} className="border-b border-line last:border-0">
            <button
              type="button"
              className="grid h-9 w-full cursor-pointer grid-cols-[126px_112px_minmax(0,1fr)_16px] items-center whitespace-nowrap text-left text-[14px] hover:bg-base-200 max-[720px]:grid-cols-[126px_minmax(0,1fr)_16px]"
              onClick={() => stepIn(id)}
            >
              <b className="text-[15px] font-semibold">{name}</b>
              <span className="text-ink-2">{role}</span>
              <span className="truncate max-[720px]:hidden">{saying}</span>
              <ArrowRight size={15} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
