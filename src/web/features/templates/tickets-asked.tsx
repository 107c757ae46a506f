import { isoOfDay, plural } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { NamesBlank } from '../../kit/names-blank.tsx';
import { useColleagues } from '../people/colleagues.ts';

interface TicketsAskedProps {
  /** The task of the set, where it is not the main one. */
  readonly of?: string;
  readonly tickets: readonly string[];
  readonly onChange: (tickets: string[]) => void;
}

/** What whoever does it has to be qualified for, and how many are. */
export function TicketsAsked({ of, tickets, onChange }: TicketsAskedProps) {
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
      {tickets.length > 0 && <Holders tickets={tickets} />}
    </div>
  );
}

function Holders({ tickets }: { readonly tickets: readonly string[] }) {
  const { today, staff } = useWorkspace();
  const here = useColleagues()?.colleagues.filter(({ id }) => staff.some((one) => one.id === id));
  if (here === undefined) return null;
  const date = isoOfDay(today);
  const holders = here.filter((one) =>
    tickets.every((name) =>
      one.tickets.some((ticket) => ticket.name === name && (ticket.until === null || ticket.until >= date)),
    ),
  );
  return (
    <span className="block text-note leading-4.25 text-ink-2" role="status">
      {holders.length === 0
        ? `Nobody here holds ${tickets.length === 1 ? 'it' : 'all of them'} today: it would be given to nobody.`
        : `${plural(holders.length, 'person holds', 'people hold')} ${tickets.length === 1 ? 'it' : 'all of them'} today; no schedule gives it to anybody else.`}
    </span>
  );
}
