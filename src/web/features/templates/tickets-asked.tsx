import { useMemo } from 'react';
import { lackedTicket, peopleHere, plural } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { NamesBlank } from '../../kit/names-blank.tsx';
import { useColleagues } from '../people/colleagues.ts';

interface TicketsAskedProps {
  /** The task of the set, where it is not the main one. */
  readonly of?: string;
  readonly tickets: readonly string[];
  /** Whoever is named for it; null for nobody. */
  readonly personId: string | null;
  readonly onChange: (tickets: string[]) => void;
}

/** What whoever does it has to be qualified for, and how many are. */
export function TicketsAsked({ of, tickets, personId, onChange }: TicketsAskedProps) {
  const { tickets: known } = useWorkspace();
  return (
    <div>
      asks for{' '}
      <NamesBlank
        label={of === undefined ? 'Ticket that it asks for' : `Ticket that ${of} asks for`}
        chosen={tickets}
        known={known}
        most={20}
        placeholder={tickets.length === 0 ? 'no ticket' : 'another ticket'}
        onChange={onChange}
      />
      {tickets.length > 0 && <Holders tickets={tickets} personId={personId} />}
    </div>
  );
}

function Holders({ tickets, personId }: Pick<TicketsAskedProps, 'tickets' | 'personId'>) {
  const { today, staff } = useWorkspace();
  const known = useColleagues();
  const here = useMemo(() => known && peopleHere(known.colleagues), [known]);
  if (here === undefined) return null;
  const holders = staff.filter(({ id }) => {
    const worker = here.workers.get(id);
    return worker !== undefined && lackedTicket(worker, tickets, today) === null;
  });
  const it = tickets.length === 1 ? 'it' : 'all of them';
  const lacking = holders.some(({ id }) => id === personId) ? null : staff.find(({ id }) => id === personId);
  return (
    <span className="block text-note leading-4.25 text-ink-2" role="status">
      {holders.length === 0
        ? `Nobody here holds ${it} today: it would be given to nobody.`
        : `${plural(holders.length, 'person holds', 'people hold')} ${it} today; no schedule gives it to anybody else.`}
      {lacking && <b className="block font-semibold text-ink">{`${lacking.name} does not hold ${it}.`}</b>}
    </span>
  );
}
