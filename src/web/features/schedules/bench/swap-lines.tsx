import { X } from 'lucide-react';
import { useState } from 'react';
import {
  type CivilDay,
  callNames,
  type DatesBetween,
  dayOfIso,
  isoOfDay,
  type Turns,
  turnOn,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { DateBlank } from '../../../kit/blanks.tsx';
import { sayShortDay } from '../../../kit/ways.ts';

interface SwapLinesProps {
  readonly turns: Turns;
  readonly datesBetween: DatesBetween;
  readonly onChange: (turns: Turns) => void;
}

/** Two turns that change hands, each named by a day in it. */
export function SwapLines({ turns, datesBetween, onChange }: SwapLinesProps) {
  const { today, people } = useWorkspace();
  const [adding, setAdding] = useState<{ readonly one: CivilDay; readonly other: CivilDay } | null>(null);
  const called = callNames(people);
  const whose = (day: CivilDay, of: Turns = turns) => called.get(turnOn(of, day, datesBetween).personId) ?? 'nobody';
  return (
    <>
      {turns.swaps.map((swap, i) => {
        // As it was when this one was made: those that came after stand upon it.
        const before = { ...turns, swaps: turns.swaps.slice(0, i) };
        const [one, other] = [dayOfIso(swap.one), dayOfIso(swap.other)];
        const words = `${whose(one, before)} on ${sayShortDay(one)} swaps with ${whose(other, before)} on ${sayShortDay(other)}`;
        return (
          <div key={`${swap.one} ${swap.other}`} className="flex items-baseline">
            {words}
            <button
              type="button"
              className="ml-auto cursor-pointer px-1 text-ink-2 hover:text-ink"
              aria-label={`Take back: ${words}`}
              onClick={() => onChange({ ...turns, swaps: turns.swaps.filter((other) => other !== swap) })}
            >
              <X size={13} aria-hidden />
            </button>
          </div>
        );
      })}
      {adding === null ? (
        <button type="button" className="link-line" onClick={() => setAdding({ one: today, other: today + 7 })}>
          Swap two turns
        </button>
      ) : (
        <div>
          {whose(adding.one)} on{' '}
          <DateBlank
            label="One turn"
            value={adding.one}
            when="left"
            onChange={(one) => setAdding({ ...adding, one })}
          />{' '}
          swaps with {whose(adding.other)} on{' '}
          <DateBlank
            label="The other turn"
            value={adding.other}
            when="left"
            onChange={(other) => setAdding({ ...adding, other })}
          />{' '}
          <button
            type="button"
            className="btn h-7 min-h-7"
            disabled={whose(adding.one) === whose(adding.other)}
            onClick={() => {
              const swap = { one: isoOfDay(adding.one), other: isoOfDay(adding.other) };
              onChange({ ...turns, swaps: [...turns.swaps, swap] });
              setAdding(null);
            }}
          >
            Swap
          </button>{' '}
          <button type="button" className="link-line" onClick={() => setAdding(null)}>
            No swap
          </button>
          {whose(adding.one) === whose(adding.other) && (
            <span className="block text-note text-ink-2">
              Both are {whose(adding.one)}’s: choose a day of somebody else’s turn.
            </span>
          )}
        </div>
      )}
    </>
  );
}
