import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useSWRConfig } from 'swr';
import { workspaceAddresses } from '../../../contract/addresses.ts';
import { plural } from '../../../core/index.ts';
import { outbox } from '../../features/unsent/use-unsent.ts';
import { addressOf, ask } from '../../kit/api.ts';
import { Dialog } from '../../kit/dialog.tsx';
import { forgetAllDrafts } from '../../kit/draft.ts';
import { forgetAnswers } from '../../kit/kept-answers.ts';
import { sayTrouble } from './toast.tsx';

/** Signing out on purpose; what is not sent yet is told of first, since it would be let go. */
export function useSignOut() {
  const { mutate } = useSWRConfig();
  const navigate = useNavigate();
  const [asking, setAsking] = useState<number | null>(null);
  const leave = () =>
    ask(workspaceAddresses.signOut)
      .then(async (session) => {
        await navigate('/sign-in');
        forgetAllDrafts();
        outbox.discardAll();
        await forgetAnswers();
        await mutate(() => true, undefined, { revalidate: false });
        await mutate(addressOf(workspaceAddresses.session), session, { revalidate: false });
      })
      .catch(sayTrouble);
  const signOut = async () => {
    await outbox.flush();
    if (outbox.count > 0) setAsking(outbox.count);
    else await leave();
  };
  const dialog = asking !== null && (
    <Dialog label="Sign out" className="w-[420px] p-6" onClose={() => setAsking(null)}>
      <h2 className="text-title leading-6.5">{plural(asking, 'thing')} not sent yet</h2>
      <p className="mt-1 text-row leading-4.75">
        {[...outbox.all.values()]
          .slice(0, 4)
          .map(({ about }) => about)
          .join(', ')}
        {asking > 4 ? ' and more' : ''}. Whoever uses this browser next must not find it, so signing out lets it go.
      </p>
      <div className="mt-4 flex gap-3">
        <button type="button" className="btn btn-primary" onClick={() => setAsking(null)}>
          Stay signed in
        </button>
        <button type="button" className="btn" onClick={() => void leave()}>
          Let it go and sign out
        </button>
      </div>
    </Dialog>
  );
  return { signOut: () => void signOut(), dialog };
}
