import { type FormEvent, useId, useState } from 'react';
import { byLinkAddresses } from '../../../contract/addresses.ts';
import type { OpenedLink } from '../../../contract/index.ts';
import { ProblemError } from '../../kit/api.ts';
import { FieldError } from '../../kit/field-error.tsx';
import { askByLink, keepPass } from './link-api.ts';

interface CodePageProps {
  readonly asked: Extract<OpenedLink, { kind: 'code' }>;
  readonly onSent: (asked: OpenedLink) => void;
  readonly onEntered: () => void;
}

/** Before the page: a code goes to the address that the link was sent to, so that one that was passed on opens nothing. */
export function CodePage({ asked, onSent, onEntered }: CodePageProps) {
  const [code, setCode] = useState('');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const id = useId();
  const during = (work: Promise<void>) => {
    setBusy(true);
    work
      .then(() => setProblem(null))
      .catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setProblem(error);
      })
      .finally(() => setBusy(false));
  };
  const sendCode = () => during(askByLink(byLinkAddresses.sendCode).then(onSent));
  const enter = (event: FormEvent) => {
    event.preventDefault();
    during(
      askByLink(byLinkAddresses.enterCode, { body: { code } }).then(({ pass }) => {
        keepPass(pass);
        onEntered();
      }),
    );
  };
  return (
    <main className="mx-auto max-w-[460px] px-4 py-8">
      <title>{`Code · ${asked.workspace}`}</title>
      <p className="mb-4 font-head text-title font-bold text-primary font-stretch-[84%]">{asked.workspace}</p>
      <h1 className="text-[24px] leading-7">One code, and you are in</h1>
      <p className="mt-2 text-body leading-5.5">
        {asked.isSent
          ? `Six figures are on their way to ${asked.to}. They work for a quarter of an hour.`
          : `So that this page opens for you alone, six figures go to ${asked.to}.`}
      </p>
      {asked.isSent && (
        <form className="mt-4" onSubmit={enter} noValidate>
          <label className="block text-row" htmlFor={id}>
            The code
          </label>
          <input
            id={id}
            className="mt-1 h-12 w-44 rounded-t-[4px] border-0 border-b-2 border-primary bg-field px-3 font-mono text-[22px] tracking-[0.15em]"
            inputMode="numeric"
            autoComplete="one-time-code"
            maxLength={7}
            aria-invalid={problem?.at('code') !== undefined}
            value={code}
            onChange={({ target }) => setCode(target.value)}
          />
          <button
            type="submit"
            className="btn btn-primary ml-3 h-12 px-6 text-touch"
            disabled={busy || code.trim() === ''}
          >
            Open
          </button>
        </form>
      )}
      {problem && <FieldError message={problem.message} />}
      <button
        type="button"
        className={asked.isSent ? 'link-line mt-5 text-row leading-8' : 'btn btn-primary mt-5 h-12 px-6 text-touch'}
        disabled={busy}
        onClick={sendCode}
      >
        {asked.isSent ? 'Send another code' : 'Send the code'}
      </button>
    </main>
  );
}
