import { ArrowRight } from 'lucide-react';
import { useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { useSWRConfig } from 'swr';
import { workspaceAddresses } from '../../../contract/addresses.ts';
import type { Session, Welcome } from '../../../contract/index.ts';
import { problemType } from '../../../contract/problems.ts';
import { useAnswer } from '../../kit/answer.ts';
import { addressOf, ask, ProblemError } from '../../kit/api.ts';
import { GoOn } from '../../kit/go-on.tsx';
import { Trouble } from '../../kit/states.tsx';
import { DayTable } from './day-table.tsx';
import { PasswordForm } from './password-form.tsx';

export default function SignIn() {
  const { data: welcome, error, mutate } = useAnswer(workspaceAddresses.welcome, {});
  // Nothing is there yet that one could sign in to.
  if (error && !welcome && error.problem.type === problemType('not-found')) return <GoOn to="/set-up" />;
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
          className="mb-6 font-head text-title font-bold text-primary min-[1101px]:hidden"
          style={{ fontStretch: '84%' }}
        >
          Jolly Rota
        </p>
        <h1 className="text-[40px] leading-11" style={{ fontStretch: '82%', letterSpacing: '-.015em' }}>
          {welcome.name}
        </h1>
        <p className="mt-0.5 text-ink-2">{welcome.tagline}</p>
        <Enter />
        {welcome.demoPeople && (
          <>
            <DemoPeople people={welcome.demoPeople} />
            <p className="mt-3 text-row">
              <Link className="link-line" to="/set-up">
                Start a workspace of your own
              </Link>
            </p>
          </>
        )}
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
    await mutate(addressOf(workspaceAddresses.session), session, { revalidate: false });
    await navigate(goTo, { replace: true });
  };
}

function Enter() {
  return <PasswordForm onEnter={useEnter()} mayLeave />;
}

function DemoPeople({ people }: { readonly people: NonNullable<Welcome['demoPeople']> }) {
  const enter = useEnter();
  const [problem, setProblem] = useState<string | null>(null);
  const stepIn = (personId: string) => {
    ask(workspaceAddresses.stepIn, { body: { personId } })
      .then(enter)
      .catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setProblem(error.message);
      });
  };
  return (
    <section className="mt-[26px] border-t border-line-2 pt-3">
      <h2 className="text-body leading-5 text-primary">Demo data is loaded</h2>
      <p className="mb-1 text-row text-ink-2">Step in as one of these people. What you change stays in this copy.</p>
      {problem && (
        <p role="alert" className="text-row text-late">
          {problem}
        </p>
      )}
      <ul>
        {people.map(({ id, name, role, saying }) => (
          <li key={id} className="border-b border-line last:border-0">
            <button
              type="button"
              className="grid h-9 w-full cursor-pointer grid-cols-[126px_112px_minmax(0,1fr)_16px] items-center whitespace-nowrap text-left text-row hover:bg-base-200 max-[720px]:grid-cols-[126px_minmax(0,1fr)_16px]"
              onClick={() => stepIn(id)}
            >
              <b className="text-body font-semibold">{name}</b>
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
