import { useEffect, useState } from 'react';
import { workspaceAddresses } from '../../../contract/addresses.ts';
import type { Person } from '../../../contract/index.ts';
import { useAnswer } from '../../kit/answer.ts';
import { ask, ProblemError } from '../../kit/api.ts';
import { onSessionEnded } from './signed-out.ts';

interface SignedInAs {
  /** Whose page it is, also once the session has ended under it; null of nobody's, undefined before it is known. */
  readonly me: Person | null | undefined;
  readonly hasEnded: boolean;
  readonly error: ProblemError | undefined;
  readonly retry: () => void;
}

/** Who is signed in. A session that ends under an open page takes nothing off the screen. */
export function useSession(): SignedInAs {
  const { data, error, mutate } = useAnswer(workspaceAddresses.session, {});
  const [known, setKnown] = useState<Person | null>(null);
  const person = data?.person;
  useEffect(() => {
    if (person) setKnown(person);
  }, [person]);
  const isOpen = person !== null;
  useEffect(() => {
    if (!isOpen) return;
    let isAsking = false;
    // What was refused may have been asked in the session before this one, and told of only now: the server knows.
    const look = async () => {
      if (isAsking) return;
      isAsking = true;
      try {
        const session = await ask(workspaceAddresses.session);
        if (session.person === null) await mutate(session, { revalidate: false });
      } catch (problem) {
        // Whoever has no connection can't sign in again either: the next thing that is refused asks anew.
        if (!(problem instanceof ProblemError)) throw problem;
      } finally {
        isAsking = false;
      }
    };
    return onSessionEnded(() => void look());
  }, [isOpen, mutate]);
  return { me: person ?? (data && known), hasEnded: person === null, error, retry: () => void mutate() };
}
