import { Link } from 'react-router';
import type { Member } from '../../../../contract/index.ts';
import { dayOfIso, plural } from '../../../../core/index.ts';
import { useToday } from '../../../app/shell/workspace.tsx';
import { Band } from '../../../kit/band.tsx';
import { sayDay } from '../../../kit/ways.ts';

/** So many days before a ticket ends it is said: renewing one takes weeks. */
const SAID_DAYS = 56;

/** Tickets of those who are here that end within weeks, or have ended, soonest first. */
export function TicketsEnding({ members }: { readonly members: readonly Member[] }) {
  const today = useToday();
  const ending = members
    .flatMap(({ id, name, tickets }) =>
      tickets.flatMap((ticket) =>
        ticket.until !== null && dayOfIso(ticket.until) <= today + SAID_DAYS
          ? [{ id, name, ticket: ticket.name, until: dayOfIso(ticket.until) }]
          : [],
      ),
    )
    .sort((a, b) => a.until - b.until || a.name.localeCompare(b.name));
  if (ending.length === 0) return null;
  return (
    <Band
      name={ending.length === 1 ? 'ticket ends' : 'tickets end'}
      count={ending.length}
      asides={[`within ${SAID_DAYS / 7} weeks`]}
    >
      {ending.map(({ id, name, ticket, until }) => (
        <p
          key={`${id} ${ticket}`}
          className="flex min-h-9 items-center gap-4 border-b border-line pr-5 text-row last:border-b-0 max-[720px]:flex-wrap max-[720px]:gap-y-0 max-[720px]:px-4 max-[720px]:py-2"
        >
          <span className="w-[150px]">
            <Link className="link-line font-semibold" to={`/team/${id}`}>
              {name}
            </Link>
          </span>
          <span className="w-[220px] max-[720px]:w-auto">{ticket}</span>
          <span className={until < today ? 'font-semibold' : ''}>{sayEnd(until, today)}</span>
        </p>
      ))}
    </Band>
  );
}

function sayEnd(until: number, today: number): string {
  if (until < today) return `ended ${sayDay(until, today)}: nothing that asks for it is given any more`;
  if (until === today) return 'ends today';
  return `until ${sayDay(until, today)}, ${plural(until - today, 'day')} from now`;
}
