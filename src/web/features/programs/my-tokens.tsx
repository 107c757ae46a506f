import { useState } from 'react';
import { Link } from 'react-router';
import * as z from 'zod/mini';
import { tokenAddresses } from '../../../contract/addresses-later.ts';
import type { AccessToken, TokenInput } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay, TOKEN_SCOPE_WORDS, TOKEN_SCOPES } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useToday } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';
import { ChoiceBlank, DateBlank } from '../../kit/blanks.tsx';
import { useDraft } from '../../kit/draft.ts';
import { ToldOnce } from '../../kit/told-once.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { sayDate, sayDay } from '../../kit/ways.ts';

const YEAR = 365;

/** Null while none is being written. */
const draftSchema = z.nullable(
  z.object({ name: z.string(), scope: z.enum(TOKEN_SCOPES), endsOn: z.nullable(z.string()) }),
);
type Draft = z.infer<typeof draftSchema>;

/** Tokens by which programs ask in one's name: which they are, when they were used last, and their end. */
export function MyTokens() {
  const { data, mutate } = useAnswer(tokenAddresses.mine, {});
  const today = useToday();
  const { busy, trying } = useTrying();
  const [told, setTold] = useState<string | null>(null);
  // What is being written stays, wherever one goes meanwhile.
  const { draft, change, forget } = useDraft('token', null as Draft, draftSchema);
  const make = (input: TokenInput) =>
    void trying(async () => {
      const { token, tokens } = await ask(tokenAddresses.make, { body: input });
      setTold(token);
      forget();
      await mutate({ tokens }, { revalidate: false });
    });
  const withdraw = (tokenId: string) =>
    void trying(async () => {
      await mutate(await ask(tokenAddresses.withdraw, { params: { tokenId } }), { revalidate: false });
      sayDone('That token opens nothing any more.');
    });
  return (
    <section className="mt-7 border-t border-line-2 pt-3">
      <h2 className="flex items-baseline justify-between text-[17px] leading-5.5 text-primary">
        Programs
        <Link className="link-line font-sans text-row font-normal font-stretch-normal" to="/interface">
          What they can ask
        </Link>
      </h2>
      {data?.tokens.length === 0 && draft === null && (
        <p className="text-row leading-5 text-ink-2">No program asks in your name.</p>
      )}
      <ul className="mt-1">
        {data?.tokens.map((token) => (
          <Line key={token.id} token={token} busy={busy} onWithdraw={() => withdraw(token.id)} />
        ))}
      </ul>
      {told !== null && <ToldOnce what="The token" value={told} />}
      {draft !== null ? (
        <TokenForm {...{ draft, today, busy }} onChange={change} onMake={make} onLeave={forget} />
      ) : (
        <button
          type="button"
          className="btn btn-sm mt-2"
          onClick={() => {
            setTold(null);
            change({ name: '', scope: 'read', endsOn: isoOfDay(today + YEAR) });
          }}
        >
          Let a program in
        </button>
      )}
    </section>
  );
}

function Line({
  token: { name, scope, endsOn, usedAt, hasEnded },
  busy,
  onWithdraw,
}: {
  readonly token: AccessToken;
  readonly busy: boolean;
  readonly onWithdraw: () => void;
}) {
  const today = useToday();
  return (
    <li className="border-b border-line py-1.5 text-row leading-5">
      <span className="flex flex-wrap items-baseline gap-x-3">
        <span className="min-w-0 flex-1">
          {name} <span className="text-ink-2">{TOKEN_SCOPE_WORDS[scope]}</span>
        </span>
        <button
          type="button"
          className="link-line text-note"
          disabled={busy}
          aria-label={`Withdraw the token for ${name}`}
          onClick={onWithdraw}
        >
          Withdraw
        </button>
      </span>
      <span className={`block text-note ${hasEnded ? 'text-late' : 'text-ink-2'}`}>
        {hasEnded ? 'ran out on ' : endsOn === null ? 'without an end' : 'until '}
        {endsOn !== null && sayDate(dayOfIso(endsOn))},{' '}
        {usedAt === null ? 'never used yet' : `last used ${sayDay(dayOfIso(usedAt.slice(0, 10)), today)}`}
      </span>
    </li>
  );
}

interface TokenFormProps {
  readonly draft: TokenInput;
  readonly onChange: (draft: TokenInput) => void;
  readonly today: number;
  readonly busy: boolean;
  readonly onMake: (input: TokenInput) => void;
  readonly onLeave: () => void;
}

function TokenForm({ draft, today, busy, onChange, onMake, onLeave }: TokenFormProps) {
  const name = draft.name.trim();
  return (
    <form
      className="mt-2 text-row leading-7"
      onSubmit={(event) => {
        event.preventDefault();
        if (name !== '') onMake({ ...draft, name });
      }}
    >
      <input
        className="blank w-[200px]"
        aria-label="What the token is for"
        placeholder="what it is for"
        maxLength={60}
        // biome-ignore lint/a11y/noAutofocus: it has just been asked for
        autoFocus
        value={draft.name}
        onChange={({ target }) => onChange({ ...draft, name: target.value })}
      />{' '}
      <ChoiceBlank
        label="How far it goes"
        value={draft.scope}
        options={TOKEN_SCOPES.map((scope) => [scope, TOKEN_SCOPE_WORDS[scope]] as const)}
        onChange={(scope) => onChange({ ...draft, scope })}
      />{' '}
      <ChoiceBlank
        label="Whether it ends"
        value={draft.endsOn === null ? 'never' : 'on'}
        options={[
          ['on', 'until'],
          ['never', 'without an end'],
        ]}
        onChange={(ends) => onChange({ ...draft, endsOn: ends === 'never' ? null : isoOfDay(today + YEAR) })}
      />{' '}
      {draft.endsOn !== null && (
        <DateBlank
          label="Its last day"
          value={dayOfIso(draft.endsOn)}
          onChange={(day) => onChange({ ...draft, endsOn: isoOfDay(day) })}
        />
      )}
      <span className="mt-2 flex gap-3">
        <button type="submit" className="btn btn-primary btn-sm" disabled={busy || name === ''}>
          Make the token
        </button>
        <button type="button" className="btn btn-text" onClick={onLeave}>
          Not now
        </button>
      </span>
    </form>
  );
}
