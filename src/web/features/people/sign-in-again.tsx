import { useState } from 'react';
import { useSWRConfig } from 'swr';
import { workspaceAddresses } from '../../../contract/addresses.ts';
import type { Person, Session } from '../../../contract/index.ts';
import { tellSessionBegun } from '../../app/shell/signed-out.ts';
import { useAnswer } from '../../kit/answer.ts';
import { addressOf, ask, ProblemError } from '../../kit/api.ts';
import { Dialog } from '../../kit/dialog.tsx';
import { PasswordForm } from './password-form.tsx';

/**
 * Over the page whose session has ended: signs in again without leaving it, so that nothing on it is lost. It does not
 * close by Esc: behind it nothing can be done.
 */
export default function SignInAgain({ me }: { readonly me: Person }) {
  const { mutate } = useSWRConfig();
  const { data: welcome } = useAnswer(workspaceAddresses.welcome, {});
  const [problem, setProblem] = useState<string | null>(null);
  const enter = async (session: Session) => {
    // What stands on the page belongs to somebody else then: it must not be sent in another name.
    if (session.person?.id !== me.id) return window.location.reload();
    await mutate(addressOf(workspaceAddresses.session), session, { revalidate: false });
    tellSessionBegun();
    await mutate(() => true);
  };
  const stepIn = () =>
    ask(workspaceAddresses.stepIn, { body: { personId: me.id } })
      .then(enter)
      .catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setProblem(error.message);
      });
  return (
    <Dialog label="Sign in again" className="w-[420px] p-6" onClose={() => undefined} stays>
      <h2 className="text-title leading-6.5">You are signed out</h2>
      <p className="mt-1 text-row leading-4.75 text-ink-2">
        Your session has ended. Sign in again as {me.name}: the page stays as it is, and what you typed is sent.
      </p>
      <PasswordForm onEnter={enter} mayLeave={false} />
      {welcome?.demoPeople && (
        <p className="mt-4 border-t border-line-2 pt-3">
          <button type="button" className="btn" onClick={() => void stepIn()}>
            Step in again as {me.name}
          </button>
        </p>
      )}
      {problem && (
        <p role="alert" className="mt-2 text-row text-late">
          {problem}
        </p>
      )}
      <p className="mt-3 text-note">
        <button type="button" className="link-line" onClick={() => window.location.assign('/sign-in')}>
          Sign in as somebody else
        </button>
      </p>
    </Dialog>
  );
}
