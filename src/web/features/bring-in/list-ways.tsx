import { Link } from 'react-router';
import { listAddresses } from '../../../contract/addresses-later.ts';
import type { BringKind } from '../../../core/index.ts';
import { addressOf } from '../../kit/api.ts';

interface ListWaysProps {
  readonly list: 'clients' | 'assets' | 'people' | 'schedules' | 'templates';
  /** As what such a list is brought in; without it, it is only taken out. */
  readonly bring?: BringKind;
}

/** A list into a file, and from one. */
export function ListWays({ list, bring }: ListWaysProps) {
  const look = 'link-line ml-2 text-note max-[720px]:hidden';
  return (
    <>
      <span className="text-note text-ink-2 max-[720px]:hidden">
        Take out as{' '}
        <a className="link-line" href={addressOf(listAddresses[list], { query: {} })} download>
          CSV
        </a>{' '}
        or{' '}
        <a className="link-line" href={addressOf(listAddresses[list], { query: { as: 'json' } })} download>
          JSON
        </a>
        {list === 'schedules' && (
          <>
            {' '}
            or{' '}
            <a className="link-line" href={addressOf(listAddresses.schedulesAsCalendar, {})} download>
              iCalendar
            </a>
          </>
        )}
      </span>
      {bring && (
        <Link className={look} to={`/bring-in?kind=${bring}`}>
          Bring in a list
        </Link>
      )}
      {bring === 'schedules' && (
        <Link className={look} to="/bring-in?kind=calendar">
          or a calendar
        </Link>
      )}
    </>
  );
}
