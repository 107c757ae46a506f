import { X } from 'lucide-react';
import type { PersonInput } from '../../../../contract/index.ts';
import { DayOrNone } from '../../../kit/blanks.tsx';
import { NamesBlank } from '../../../kit/names-blank.tsx';

type Tickets = PersonInput['tickets'];

interface TicketsBlankProps {
  readonly held: Tickets;
  /** Those that are known here; another one may be typed. */
  readonly known: readonly string[];
  readonly onChange: (held: Tickets) => void;
}

/** What somebody is qualified for, each with its last day. */
export function TicketsBlank({ held, known, onChange }: TicketsBlankProps) {
  return (
    <>
      {held.map(({ name, until }, i) => (
        <span key={name} className="flex flex-wrap items-center gap-x-1.5">
          <span>
            <b className="font-semibold">{name}</b>, until
          </span>
          <DayOrNone
            label={`Last day of ${name}`}
            placeholder="no end"
            value={until}
            onChange={(day) => onChange(held.map((one, n) => (n === i ? { name, until: day } : one)))}
          />
          <button
            type="button"
            className="cursor-pointer text-ink-2 hover:text-ink"
            aria-label={`Take out ${name}`}
            onClick={() => onChange(held.filter((_, n) => n !== i))}
          >
            <X size={12} aria-hidden />
          </button>
        </span>
      ))}
      <NamesBlank
        label="Another ticket"
        chosen={[]}
        known={known.filter((name) => !held.some((one) => one.name === name))}
        most={1}
        placeholder={held.length === 0 ? 'a ticket' : 'another ticket'}
        onChange={([name]) => {
          if (name !== undefined && !held.some((one) => one.name === name)) onChange([...held, { name, until: null }]);
        }}
      />
    </>
  );
}
