import { useState } from 'react';
import type { CalendarAddress, CalendarKind } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { sayDay, timeOf } from '../../kit/ways.ts';
import { renewCalendar, useMyCalendars, withdrawCalendar } from './api.ts';
import { CalendarLink } from './calendar-link.tsx';
import { ToldAddress } from './told-address.tsx';

const KINDS: Readonly<Record<CalendarKind, string>> = {
  person: 'the work of',
  client: 'the client',
  asset: 'the asset',
  schedule: 'the schedule',
  view: 'the view',
};

/** Addresses at which programs ask for calendars: which they are, when that was last, and their end. */
export function MyCalendars() {
  const { me } = useWorkspace();
  const { data } = useMyCalendars();
  return (
    <section className="mt-7 border-t border-line-2 pt-3">
      <h2 className="flex items-baseline justify-between text-[17px] leading-5.5 text-primary">
        Calendars
        <span className="font-sans text-row font-normal font-stretch-normal">
          your own work: <CalendarLink of={{ kind: 'person', id: me.id }} />
        </span>
      </h2>
      {data?.calendars.length === 0 && (
        <p className="text-row leading-5 text-ink-2">
          No program asks for a calendar of yours. People, clients, assets, schedules and views have “Calendar” on their
          pages.
        </p>
      )}
      <ul className="mt-1">
        {data?.calendars.map((one) => (
          <OneCalendar key={one.id} calendar={one} />
        ))}
      </ul>
    </section>
  );
}

function OneCalendar({ calendar: { id, of, name, madeAt, askedAt, askedBy } }: { readonly calendar: CalendarAddress }) {
  const today = useToday();
  const { mutate } = useMyCalendars();
  const { busy, trying } = useTrying();
  const [address, setAddress] = useState<string | null>(null);
  const day = (moment: string) => sayDay(dayOfIso(moment.slice(0, 10)), today);
  const called = name === null ? 'something that is gone' : `${KINDS[of.kind]} ${name}`;
  return (
    <li className="border-b border-line py-1.5 text-row leading-5">
      <span className="flex flex-wrap items-baseline gap-x-3">
        <span className={`min-w-0 flex-1 ${name === null ? 'text-late' : ''}`}>{called}</span>
        <button
          type="button"
          className="link-line text-note"
          disabled={busy}
          aria-label={`Another address for ${called}`}
          onClick={() => void trying(async () => setAddress((await renewCalendar(id)).address))}
        >
          Another address
        </button>
        <button
          type="button"
          className="link-line text-note"
          disabled={busy}
          aria-label={`Withdraw the address of ${called}`}
          onClick={() =>
            void trying(async () => {
              await mutate(await withdrawCalendar(id), { revalidate: false });
              sayDone('That address opens nothing any more.');
            })
          }
        >
          Withdraw
        </button>
      </span>
      <span className="block text-note text-ink-2">
        made {day(madeAt)},{' '}
        {askedAt === null ? 'never asked for yet' : `last asked for ${day(askedAt)}, ${timeOf(askedAt)} by ${askedBy}`}
      </span>
      {address !== null && <ToldAddress address={address} />}
    </li>
  );
}
