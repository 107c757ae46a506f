import { Fragment } from 'react';
import { Link } from 'react-router';
import type { ClientLine } from '../../../../contract/index.ts';
import { dayOfIso, groupBy, plural } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { moveThroughRows } from '../../../kit/arrow-rows.ts';
import { DateBlock } from '../../../kit/date-block.tsx';
import { PennantString } from '../../../kit/pennant-string.tsx';
import { sayDay } from '../../../kit/ways.ts';

interface ClientTableProps {
  readonly clients: readonly ClientLine[];
  /** How many are on each plan, in the order of the list; empty where it is by name. */
  readonly groups: readonly { readonly planId: string | null; readonly name: string; readonly count: number }[];
  /** How many there are below those that are here. */
  readonly rest: number;
  readonly onMore: (() => void) | null;
  readonly chosen: ReadonlySet<string>;
  /** Null where nothing can be done with several. */
  readonly onChoose: ((index: number, how: 'one' | 'range') => void) | null;
}

const COLUMNS =
  'grid grid-cols-[20px_minmax(130px,1fr)_minmax(130px,1fr)_76px_118px_118px_146px_minmax(190px,1.3fr)_48px] items-center gap-x-3 pr-5 pl-4 max-[1180px]:grid-cols-[20px_minmax(130px,1fr)_minmax(110px,1fr)_110px_146px_minmax(170px,1.2fr)_48px] max-[860px]:grid-cols-[20px_minmax(0,1fr)_110px_minmax(0,1fr)_48px] max-[720px]:grid-cols-[minmax(0,1fr)_auto] max-[720px]:px-4';
const WIDE = 'max-[1180px]:hidden';
const ROOMY = 'max-[860px]:hidden';
const MIDDLE = 'max-[720px]:hidden';

/** Clients as lines, by name or in a band for each plan; arrows move through them, Space chooses. */
export function ClientTable({ clients, groups, rest, onMore, chosen, onChoose }: ClientTableProps) {
  const places = new Map(clients.map(({ id }, i) => [id, i]));
  const bands = groups.length === 0 ? null : groupBy(clients, ({ plan }) => plan?.id ?? null);
  const line = (client: ClientLine, first?: (typeof groups)[number]) => (
    <Line
      key={client.id}
      client={client}
      first={first}
      isBanded={bands !== null}
      isChosen={chosen.has(client.id)}
      onChoose={onChoose && ((how) => onChoose(places.get(client.id) ?? 0, how))}
    />
  );
  return (
    <section
      aria-label="Clients"
      className="min-h-0 flex-1 overflow-y-auto border-t border-line-2"
      onKeyDown={moveThroughRows}
    >
      <div
        className={`${COLUMNS} sticky top-0 z-1 h-7 border-b border-line-2 bg-base-100 text-note text-ink-2 max-[720px]:hidden ${bands ? 'min-[721px]:ml-[112px]' : ''}`}
        aria-hidden
      >
        <span />
        <span>client</span>
        <span className={ROOMY}>what is theirs</span>
        <span className={WIDE}>where</span>
        <span>{bands ? 'on the plan' : 'plan'}</span>
        <span className={WIDE}>usual person</span>
        <span className={ROOMY}>last eight</span>
        <span>next</span>
        <span className="text-right">late</span>
      </div>
      <ul>
        {bands === null
          ? clients.map((client) => line(client))
          : groups.map((group) => (
              <Fragment key={group.planId ?? ''}>
                {(bands.get(group.planId) ?? []).map((client, i) => line(client, i === 0 ? group : undefined))}
              </Fragment>
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

interface LineProps {
  readonly client: ClientLine;
  /** The band that it is the first of. */
  readonly first: { readonly planId: string | null; readonly name: string; readonly count: number } | undefined;
  readonly isBanded: boolean;
  readonly isChosen: boolean;
  readonly onChoose: ((how: 'one' | 'range') => void) | null;
}

function Line({ client, first, isBanded, isChosen, onChoose }: LineProps) {
  const { id, name, assets, assetCount, place, usualPerson, plan, lastEight, next, lateCount, scheduleCount } = client;
  const more = assetCount - assets.length;
  return (
    <li
      className={
        isBanded ? `relative min-[721px]:pl-[112px] ${first ? 'border-t border-line-2 first:border-t-0' : ''}` : ''
      }
    >
      {first && (
        <span className="absolute top-1 left-5 w-[88px] leading-4.5 max-[720px]:static max-[720px]:block max-[720px]:w-auto max-[720px]:px-4 max-[720px]:pt-2">
          <b className="font-head text-[22px] leading-7 font-[650] min-[721px]:block">{first.count}</b>{' '}
          <span className="text-row font-semibold">{first.planId === null ? 'no plan yet' : first.name}</span>
        </span>
      )}
      <div
        className={`${COLUMNS} relative min-h-9 border-b border-line text-row hover:bg-base-200 max-[720px]:py-1.5 ${isChosen ? 'bg-chosen' : ''}`}
      >
        <span className={`${MIDDLE} z-1`}>
          {onChoose && (
            <input
              type="checkbox"
              className="check block"
              aria-label={`Choose ${name}`}
              checked={isChosen}
              onChange={(event) => onChoose((event.nativeEvent as MouseEvent).shiftKey ? 'range' : 'one')}
            />
          )}
        </span>
        <span className="min-w-0">
          <Link
            data-row
            className="block max-w-full truncate text-body font-semibold before:absolute before:inset-0 before:content-['']"
            to={`/clients/${id}`}
            onKeyDown={(event) => {
              if (event.key !== ' ' || !onChoose) return;
              event.preventDefault();
              onChoose(event.shiftKey ? 'range' : 'one');
            }}
          >
            {name}
          </Link>
          <span className="hidden truncate text-note text-ink-2 max-[720px]:block">{assets.join(', ')}</span>
        </span>
        <span className={`${MIDDLE} ${ROOMY} truncate`}>
          {assets.join(', ')}
          {more > 0 && <span className="text-ink-2"> and {more} more</span>}
        </span>
        <span className={`${MIDDLE} ${WIDE} truncate text-ink-2`}>{place}</span>
        <span className={`${MIDDLE} truncate`}>
          <OnPlan plan={plan} isBanded={isBanded} />
        </span>
        <span className={`${WIDE} ${MIDDLE} truncate`}>
          {usualPerson?.name ?? <span className="text-ink-2">nobody yet</span>}
        </span>
        <span className={`${MIDDLE} ${ROOMY}`}>
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
      </div>
    </li>
  );
}

/** The plan, and in its band what of it is the client's own. */
function OnPlan({ plan, isBanded }: { readonly plan: ClientLine['plan']; readonly isBanded: boolean }) {
  const { today } = useWorkspace();
  if (plan === null) return <span className="text-ink-2">{isBanded ? '' : 'none'}</span>;
  const { name, own, fromOn, offOn, more } = plan;
  const when = offOn
    ? `off ${sayDay(dayOfIso(offOn), today)}`
    : dayOfIso(fromOn) > today
      ? `from ${sayDay(dayOfIso(fromOn), today)}`
      : null;
  if (!isBanded)
    return (
      <>
        {name}
        {more > 0 && <span className="text-ink-2"> and {more} more</span>}
      </>
    );
  if (when) return when;
  return own === 0 ? <span className="text-ink-2">as the plan</span> : plural(own, 'own change');
}
