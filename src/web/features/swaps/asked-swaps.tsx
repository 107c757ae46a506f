import type { Swap, SwapDeed } from '../../../contract/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Band } from '../../kit/band.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { useSwapActions, useSwaps } from './api.ts';
import { saySwap, saySwapState } from './swap-words.ts';

const DEED_WORDS: Readonly<Record<SwapDeed, string>> = {
  agree: 'Agree',
  give: 'Give the nod',
  refuse: 'Refuse',
  withdraw: 'Withdraw',
};

interface AskedSwapsProps {
  /** Only those that wait for whoever looks to nod. */
  readonly onlyNods?: boolean;
}

/** Swaps of turns that are asked for, wait for a nod, or were decided lately. */
export default function AskedSwaps({ onlyNods = false }: AskedSwapsProps) {
  const { me, people, today } = useWorkspace();
  const { data } = useSwaps();
  const { decide } = useSwapActions();
  const { busy, trying } = useTrying();
  const swaps = data?.swaps.filter(({ may }) => !onlyNods || may.includes('give')) ?? [];
  if (swaps.length === 0) return null;
  const state = (swap: Swap) => {
    const words = saySwapState(swap, me.id);
    return words && <span className="text-note text-ink-2">{words}</span>;
  };
  const waiting = swaps.filter(({ state }) => state === 'asked' || state === 'agreed').length;
  return (
    <Band
      name={swaps.length === 1 ? 'swap of turns' : 'swaps of turns'}
      count={swaps.length}
      asides={waiting > 0 && waiting < swaps.length ? [`${waiting} to decide`] : []}
    >
      {swaps.map((swap) => (
        <div
          key={swap.id}
          className="flex min-h-9 items-center gap-4 border-b border-line py-1 pr-4 text-row leading-4.5 last:border-b-0 max-[720px]:flex-wrap max-[720px]:gap-y-1 max-[720px]:px-4 max-[720px]:py-2"
        >
          <span className="min-w-0 flex-1 max-[720px]:basis-full">
            <b className="font-semibold">
              {swap.schedule.name}
              {swap.about && `, ${swap.about}`}
            </b>
            {swap.note && <span className="ml-3 text-note text-ink-2">“{swap.note}”</span>}
            <span className="block">{saySwap(swap, me.id, people, today)}</span>
          </span>
          {state(swap)}
          {swap.may.map((deed) => (
            <button
              key={deed}
              type="button"
              className={`btn ${deed === 'agree' || deed === 'give' ? '' : 'btn-text'} max-[720px]:h-11`}
              disabled={busy}
              onClick={() => void trying(() => decide(swap, deed))}
            >
              {DEED_WORDS[deed]}
            </button>
          ))}
        </div>
      ))}
    </Band>
  );
}
