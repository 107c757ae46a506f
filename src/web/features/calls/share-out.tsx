import { useState } from 'react';
import type { CallDay, ShareLook } from '../../../contract/index.ts';
import { joinAnd, plural, sayDuration } from '../../../core/index.ts';
import { Dialog } from '../../kit/dialog.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { useCallActions, useShareLook } from './api.ts';

interface ShareOutProps {
  readonly of: CallDay;
  readonly onClose: () => void;
}

/** What is left on somebody's list of today given to others: who would have what, before anything is given. */
export function ShareOut({ of: { person }, onClose }: ShareOutProps) {
  const [takers, setTakers] = useState<readonly string[] | null>(null);
  const { share } = useCallActions();
  const { busy, trying } = useTrying();
  const { look, problem, isOfNow } = useShareLook({ person: person.id, to: takers === null ? null : [...takers] });
  const count = look?.moves.length ?? 0;
  const toggle = (id: string) => {
    const now = takers ?? look?.receivers.map((one) => one.id) ?? [];
    setTakers(now.includes(id) ? now.filter((one) => one !== id) : [...now, id]);
  };
  const give = () =>
    trying(async () => {
      if (!look) return;
      await share(person.id, look.moves, `${plural(count, 'call')} of ${person.name} given on.`);
      onClose();
    });
  return (
    <Dialog label={`Share out the calls of ${person.name}`} onClose={onClose} className="w-[640px] p-5">
      <h2 className="font-head text-title leading-7 font-[650]">Share out the calls of {person.name}</h2>
      {problem && (
        <p className="mt-2 text-row text-late" role="alert">
          {problem.message}
        </p>
      )}
      {look && (
        <>
          <p className="mt-1 text-row text-ink-2">
            {look.receivers.length === 0
              ? 'Nobody else rings by this quota today: leave them on the list, or have them carried over.'
              : `${plural(look.calls, 'call')} of today left. Nothing is given before you say so.`}
          </p>
          <ul className="mt-3 border-t border-line-2">
            {look.receivers.map((one) => (
              <Receiver key={one.id} of={one} onToggle={() => toggle(one.id)} />
            ))}
          </ul>
        </>
      )}
      <p className="mt-4 flex flex-wrap items-center gap-x-3">
        <button
          type="button"
          className="btn btn-primary"
          disabled={busy || count === 0 || !isOfNow}
          onClick={() => void give()}
        >
          {count === 0 ? 'Give on' : `Give on ${plural(count, 'call')}`}
        </button>
        <button type="button" className="link-line text-row" onClick={onClose}>
          Leave them
        </button>
        {look && count > 0 && count < look.calls && (
          <span className="text-row text-late">{look.calls - count} stay with nobody else to take them.</span>
        )}
      </p>
    </Dialog>
  );
}

interface ReceiverProps {
  readonly of: ShareLook['receivers'][number];
  readonly onToggle: () => void;
}

function Receiver({ of: { name, isTaking, before, after, minutesAfter, given }, onToggle }: ReceiverProps) {
  const promised = given.filter(({ isPromised }) => isPromised).length;
  return (
    <li className="grid grid-cols-[minmax(0,180px)_minmax(0,1fr)] gap-x-4 border-b border-line py-2 text-row max-[720px]:block">
      <label className="flex cursor-pointer items-baseline gap-2 font-semibold">
        <input type="checkbox" className="accent-(--color-primary)" checked={isTaking} onChange={onToggle} />
        {name}
      </label>
      <span>
        {after === before ? (
          <span className="text-ink-2">{plural(before, 'call')} to make, as before</span>
        ) : (
          <>
            <s className="text-ink-2">{before}</s> <b className="font-semibold">{after}</b> to make,{' '}
            {sayDuration(minutesAfter)}
          </>
        )}
        {given.length > 0 && (
          <span className="block text-ink-2">
            {joinAnd(given.map(({ contact }) => contact))}
            {promised > 0 && ` (${plural(promised, 'promised call')} among them)`}
          </span>
        )}
      </span>
    </li>
  );
}
