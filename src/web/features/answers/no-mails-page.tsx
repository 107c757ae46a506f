import { useEffect, useState } from 'react';
import { useLocation } from 'react-router';
import { answerAddresses } from '../../../contract/addresses-later.ts';
import { LINK_HEADER } from '../../../contract/link-headers.ts';
import { type Answer, addressOf, ProblemError, request } from '../../kit/api.ts';

type Mails = Answer<typeof answerAddresses.mails>;

/** Whoever had a mail says that they want no more of them: asked first, since programs open addresses too. */
export default function NoMailsPage() {
  const { hash } = useLocation();
  const [mails, setMails] = useState<Mails | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const asked = async (method: 'GET' | 'POST') => {
    const address = method === 'GET' ? answerAddresses.mails : answerAddresses.stopMails;
    setBusy(true);
    // What stood there may be of another address.
    if (method === 'GET') setMails(null);
    try {
      const headers = { [LINK_HEADER]: hash.slice(1) };
      const body = method === 'GET' ? undefined : {};
      setMails((await request(method, addressOf(address, {}), body, undefined, headers)) as Mails);
      setProblem(null);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error.message);
    } finally {
      setBusy(false);
    }
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked once for each address that is opened
  useEffect(() => void asked('GET'), [hash]);
  return (
    <main className="mx-auto max-w-[460px] px-4 py-10 text-touch leading-6">
      <title>Mails from here</title>
      {mails && (
        <>
          <p className="text-row text-ink-2">{mails.from}</p>
          <h1 className="text-[24px] leading-7">
            {mails.isStopped ? 'No more mails' : `No more mails to ${mails.email}?`}
          </h1>
          <p className="mt-3">
            {mails.isStopped
              ? `${mails.from} sends no more mails to ${mails.email}. What has to be told reaches you by post or by telephone. If that was a mistake, tell ${mails.from}.`
              : `${mails.from} then announces visits by post or by telephone, and asks for papers the same way.`}
          </p>
          {!mails.isStopped && (
            <button
              type="button"
              className="btn btn-primary mt-4 h-12 px-6 text-touch"
              disabled={busy}
              onClick={() => void asked('POST')}
            >
              No more mails
            </button>
          )}
        </>
      )}
      {problem && (
        <div role="alert">
          {!mails && <h1 className="text-[24px] leading-7">This opens nothing</h1>}
          <p className="mt-3">{problem}</p>
          <button type="button" className="btn mt-4 h-12 px-6" disabled={busy} onClick={() => void asked('GET')}>
            Try again
          </button>
        </div>
      )}
    </main>
  );
}
