import { Link } from 'react-router';
import type { ClientLine } from '../../../../contract/index.ts';
import { dayOfIso, plural } from '../../../../core/index.ts';
import { moveThroughRows } from '../../../kit/arrow-rows.ts';
import { DateBlock } from '../../../kit/date-block.tsx';
import { PennantString } from '../../../kit/pennant-string.tsx';

interface ClientTableProps {
  readonly clients: readonly ClientLine[];
  /** How many there are below those that are here. */
  readonly rest: number;
  readonly onMore: (() => void) | null;
}

const COLUMNS =
  'grid grid-cols-[minmax(150px,1fr)_minmax(150px,1.1fr)_96px_132px_146px_minmax(230px,1.4fr)_66px] items-center gap-x-3 px-5 max-[1080px]:grid-cols-[minmax(150px,1fr)_minmax(130px,1.1fr)_92px_146px_minmax(170px,1.2fr)_60px] max-[720px]:grid-cols-[minmax(0,1fr)_auto] max-[720px]:px-4';
const WIDE = 'max-[1080px]:hidden';
const MIDDLE = 'max-[720px]:hidden';

/** Clients as lines; arrows move through them. */
export function ClientTable({ clients, rest, onMore }: ClientTableProps) {
  return (
    <section
      aria-label="Clients"
      className="min-h-0 flex-1 overflow-y-auto border-t border-line-2"
      onKeyDown={moveThroughRows}
    >
      <div
        className={`${COLUMNS} sticky top-0 z-1 h-7 border-b border-line-2 bg-base-100 text-note text-ink-2 max-[720px]:hidden`}
        aria-hidden
      >
        <span>client</span>
        <span>what is theirs</span>
        <span>where</span>
        <span className={WIDE}>usual person</span>
        <span>last eight</span>
        <span>next</span>
        <span className="text-right">late</span>
      </div>
      <ul>
        {clients.map((client) => (
          <Line key={client.id} client={client} />
        ))}
      </ul>
      {onMore && (
        <p className="px-5 py-2.5 text-row text-ink-2">
          and {plural(rest, 'more client')}{' '}
          <button type="button" className="link-line ml-2" onClick={onMore}>
            Show the next
          </button>
        </p>
      )}
    </section>
  );
}

function Line({ client }: { readonly client: ClientLine }) {
  const { id, name, assets, assetCount, place, usualPerson, lastEight, next, lateCount, scheduleCount } = client;
  const more = assetCount - assets.length;
  return (
    <li className={`${COLUMNS} relative min-h-9 border-b border-line text-row hover:bg-base-200 max-[720px]:py-1.5`}>
      <span className="min-w-0">
        <Link
          data-row
          className="block max-w-full truncate text-body font-semibold before:absolute before:inset-0 before:content-['']"
          to={`/clients/${id}`}
        >
          {name}
        </Link>
        <span className="hidden truncate text-note text-ink-2 max-[720px]:block">{assets.join(', ')}</span>
      </span>
      <span className={`${MIDDLE} truncate`}>
        {assets.join(', ')}
        {more > 0 && <span className="text-ink-2"> and {more} more</span>}
      </span>
      <span className={`${MIDDLE} truncate text-ink-2`}>{place}</span>
      <span className={`${WIDE} ${MIDDLE} truncate`}>
        {usualPerson?.name ?? <span className="text-ink-2">nobody yet</span>}
      </span>
      <span className={MIDDLE}>
        <PennantString tasks={lastEight} />
      </span>
      <span className="flex min-w-0 items-baseline gap-3">
        {next ? (
          <>
            <DateBlock day={dayOfIso(next.on)} look={next.isMade ? undefined : 'quiet'} />
            <span className={`${MIDDLE} truncate text-ink-2`}>{next.title}</span>
          </>
        ) : (
          <span className="text-ink-2">{scheduleCount > 0 ? 'nothing coming' : 'no schedules'}</span>
        )}
      </span>
      <span className={`${MIDDLE} text-right`}>
        {lateCount > 0 && <b className="font-semibold text-late">{lateCount} late</b>}
      </span>
    </li>
  );
}
