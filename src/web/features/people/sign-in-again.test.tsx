import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { Person } from '../../../contract/index.ts';
import { problemOf } from '../../../contract/problems.ts';
import { useSession } from '../../app/shell/session.ts';
import { onSessionBegun } from '../../app/shell/signed-out.ts';
import { INES, NADIA, refusalOf, show } from '../../testing/show.tsx';
import SignInAgain from './sign-in-again.tsx';

function Page() {
  const { hasEnded } = useSession();
  return hasEnded ? <SignInAgain me={INES} /> : <p>the page</p>;
}

const RIGHT = 'gulls and terns';
const WRONG = 'The address and the password do not go together.';

const calendar = { workingWeekdays: [1, 2, 3, 4, 5], holidays: [] };

/** The session of Ines has ended; signing in makes the person the test says. */
async function ended(enters: Person = INES, demoPeople: readonly unknown[] | null = null) {
  let person: Person | null = null;
  const enter = () => {
    person = enters;
    return { person };
  };
  const begun = vi.fn();
  const stop = onSessionBegun(begun);
  await show(<Page />, {
    answers: {
      '/session': () => ({ person }),
      '/welcome': { name: 'Tern Quay', tagline: '', now: '2026-11-24T10:40', calendar, demoPeople },
      'POST /session': ({ password }: { password: string }) =>
        password === RIGHT ? enter() : refusalOf(problemOf('wrong-password', WRONG)),
      'POST /session/demo': ({ personId }: { personId: string }) =>
        personId === INES.id ? enter() : refusalOf(problemOf('not-allowed', 'Somebody else.')),
    },
  });
  const user = userEvent.setup();
  return {
    user,
    begun,
    stop,
    signIn: async (password: string) => {
      await user.type(await screen.findByLabelText('E-mail'), 'ines@ternquay.example');
      await user.type(screen.getByLabelText('Password'), password);
      await user.click(screen.getByRole('button', { name: 'Sign in' }));
    },
  };
}

describe('signing in again on a page whose session has ended', () => {
  it('says that a password is wrong, and goes on with the right one', async () => {
    const { user, signIn, begun, stop } = await ended();
    await signIn('wrong');
    expect((await screen.findByRole('alert')).textContent).toBe(WRONG);
    expect(begun).not.toHaveBeenCalled();
    await user.clear(screen.getByLabelText('E-mail'));
    await user.clear(screen.getByLabelText('Password'));
    await signIn(RIGHT);
    expect(await screen.findByText('the page')).toBeTruthy();
    expect(begun).toHaveBeenCalledOnce();
    stop();
  });

  it('steps in as who it was in the demo, and in no other place', async () => {
    const shown = await ended(INES, []);
    await shown.user.click(await screen.findByRole('button', { name: 'Step in again as Ines Calloway' }));
    expect(await screen.findByText('the page')).toBeTruthy();
    expect(shown.begun).toHaveBeenCalledOnce();
    shown.stop();
  });

  it('loads the page anew for somebody else: what stands on it is not theirs to send', async () => {
    const reload = vi.fn();
    vi.stubGlobal('location', { ...window.location, reload });
    const { signIn, begun, stop } = await ended(NADIA);
    await signIn(RIGHT);
    await waitFor(() => expect(reload).toHaveBeenCalledOnce());
    expect(begun).not.toHaveBeenCalled();
    stop();
    vi.unstubAllGlobals();
  });
});
