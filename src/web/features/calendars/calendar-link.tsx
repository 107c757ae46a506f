import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { calendarAddresses } from '../../../contract/addresses-later.ts';
import { CALENDAR_DAYS, type CalendarKind, type CalendarOf } from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';
import { addressOf } from '../../kit/api.ts';
import { Popover } from '../../kit/popover.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { makeCalendar, useMyCalendars } from './api.ts';
import { ToldAddress } from './told-address.tsx';

const YEAR_AHEAD = 'What is made, and what is foreseen within a year.';
/** How much of it a calendar tells. */
const SAYS: Readonly<Record<CalendarKind, string>> = {
  person: `What is made, and what is foreseen within ${plural(CALENDAR_DAYS.person / 7, 'week')}.`,
  ...{ client: YEAR_AHEAD, asset: YEAR_AHEAD, schedule: YEAR_AHEAD },
  view: 'What is made and fits the view; what is only foreseen is in the calendars of people and schedules.',
};

interface CalendarLinkProps {
  readonly of: CalendarOf;
  readonly className?: string;
}

/** The work of something as a calendar: as a file, or at an address that programs ask again and again. */
export function CalendarLink({ of, className = 'link-line' }: CalendarLinkProps) {
  const button = useRef<HTMLButtonElement>(null);
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <button
        ref={button}
        type="button"
        className={className}
        aria-expanded={isOpen}
        aria-haspopup="dialog"
        onClick={() => setOpen(!isOpen)}
      >
        Calendar
      </button>
      {isOpen && (
        <Popover
          label="As a calendar"
          anchor={button}
          backTo={button}
          className="w-[360px] max-w-[calc(100vw-16px)] px-3.5 py-2.5 text-row leading-5 text-base-content"
          onClose={() => setOpen(false)}
        >
          <AsCalendar of={of} />
        </Popover>
      )}
    </>
  );
}

function AsCalendar({ of }: { readonly of: CalendarOf }) {
  const { data, mutate } = useMyCalendars();
  const { busy, trying } = useTrying();
  const [address, setAddress] = useState<string | null>(null);
  const own = data?.calendars.filter(({ of: { kind, id } }) => kind === of.kind && id === of.id) ?? [];
  return (
    <>
      <h3 className="text-body leading-5.5 text-primary">As a calendar</h3>
      <p className="text-note leading-4.25 text-ink-2">{SAYS[of.kind]}</p>
      <span className="mt-2 flex flex-wrap gap-2">
        <a className="btn btn-sm" href={addressOf(calendarAddresses.file, { query: of })} download>
          Save a file
        </a>
        {address === null && (
          <button
            type="button"
            className="btn btn-sm"
            disabled={busy}
            onClick={() =>
              void trying(async () => {
                setAddress((await makeCalendar(of)).address);
                await mutate();
              })
            }
          >
            Make a private address
          </button>
        )}
      </span>
      {address !== null && <ToldAddress address={address} />}
      {address === null && own.length > 0 && (
        <p className="mt-2 text-note">
          <Link className="link-line" to="/account">
            {plural(own.length, 'address', 'addresses')} of yours for it
          </Link>
        </p>
      )}
    </>
  );
}
