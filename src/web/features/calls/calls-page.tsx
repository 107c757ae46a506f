import { useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { paperAddresses } from '../../../contract/addresses-later.ts';
import type { CallDay, ListedCall } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay, plural, sayDuration, tryDayOfIso, weekdayOf, weekdayShort } from '../../../core/index.ts';
import { useKeys } from '../../app/shell/keys.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { addressOf } from '../../kit/api.ts';
import { DateBlock } from '../../kit/date-block.tsx';
import { PaperLink } from '../../kit/paper-link.tsx';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayTime } from '../../kit/ways.ts';
import { useHere } from '../tasks/on-device.ts';
import type { Unsent } from '../unsent/outbox.ts';
import { useUnsentOf } from '../unsent/use-unsent.ts';
import { AddCall } from './add-call.tsx';
import { useCallDay } from './api.ts';
import { Band, CallLine, DoneLine, Who } from './call-lines.tsx';
import { CallPanel } from './call-panel.tsx';
import { callOnDevice, RUNG } from './ringing.ts';
import { ShareOut } from './share-out.tsx';

/** The people to ring on a day, one after the other. */
export function CallsPage() {
  const { me, today } = useWorkspace();
  const { personId = me.id } = useParams();
  const [search] = useSearchParams();
  const day = tryDayOfIso(search.get('date') ?? '') ?? today;
  const { data, error, mutate } = useCallDay(personId, isoOfDay(day));
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Skeleton rows={12} />;
  return <OnDevice key={`${personId} ${day}`} of={data} />;
}

/** The list with what was said here and waits for a connection. */
function OnDevice({ of }: { readonly of: CallDay }) {
  const all = useUnsentOf(isRung);
  const here = useHere();
  const shown = useMemo(() => {
    if (all.size === 0) return of;
    const calls = of.calls.map((call) => callOnDevice(call, all, here));
    const more = calls.filter(({ state }, i) => state === 'rung' && of.calls[i]?.state === 'open').length;
    const week = of.week.map((day) => (day.on === of.on ? { ...day, made: day.made + more } : day));
    return { ...of, calls, week };
  }, [of, all, here]);
  return <Calls of={shown} />;
}

const isRung = ({ kind }: Unsent) => kind === RUNG.name;

function Calls({ of }: { readonly of: CallDay }) {
  const { me, may, today } = useWorkspace();
  const [chosenId, choose] = useState<string | null>(null);
  const [isSharing, setIsSharing] = useState(false);
  const day = dayOfIso(of.on);
  const open = of.calls.filter(({ state }) => state === 'open');
  const done = of.calls.filter(({ state }) => state === 'rung');
  const isOver = day < today;
  const chosen = of.calls.find(({ id }) => id === chosenId) ?? (isOver ? undefined : open[0]);
  const mayRing = !isOver && (of.person.id === me.id || may('work'));
  const step = (by: 1 | -1) => {
    const at = open.findIndex(({ id }) => id === chosen?.id);
    const next = open[at + by] ?? (by > 0 ? open[0] : open.at(-1));
    if (next) choose(next.id);
  };
  useKeys([
    { key: 'j', says: 'Next call', run: () => step(1) },
    { key: 'k', says: 'Call before', run: () => step(-1) },
  ]);
  const isEmpty = of.calls.length === 0;
  return (
    <div
      className={`grid min-h-0 flex-1 ${chosen ? 'grid-cols-[minmax(0,1fr)_432px]' : ''} max-[1000px]:flex max-[1000px]:flex-col max-[1000px]:overflow-y-auto`}
    >
      <title>Calls · Jolly Rota</title>
      <div className="flex min-h-0 min-w-0 flex-col overflow-y-auto max-[1000px]:flex-none max-[1000px]:overflow-visible">
        <Head of={of} open={open.length} done={done.length} />
        {isEmpty && <NoCalls of={of} />}
        {open.length > 0 && (
          <Band count={open.length} words="to ring">
            {open.map((call) => (
              <CallLine key={call.id} call={call} day={day} isChosen={call.id === chosen?.id} onChoose={choose} />
            ))}
          </Band>
        )}
        {done.length > 0 && (
          <Band
            count={done.length}
            words="done"
            more={`${done.filter(({ outcome }) => outcome?.isReached).length} reached`}
          >
            {done.map((call) => (
              <DoneLine key={call.id} call={call} isChosen={call.id === chosen?.id} onChoose={choose} />
            ))}
          </Band>
        )}
        {of.promised.length > 0 && (
          <Band
            count={of.promisedCount}
            words="promised"
            more={of.promisedCount > of.promised.length ? `the first ${of.promised.length}` : 'later on'}
          >
            {of.promised.map((one) => (
              <li
                key={one.contact.id}
                className="grid min-h-9 grid-cols-[96px_56px_minmax(0,1fr)_minmax(0,1fr)] items-center gap-x-3 border-b border-line text-row max-[720px]:grid-cols-[96px_56px_minmax(0,1fr)]"
              >
                <DateBlock day={dayOfIso(one.callBack.on)} look={dayOfIso(one.callBack.on) < day ? 'late' : 'quiet'} />
                <span className="font-mono">{one.callBack.at ?? ''}</span>
                <Who call={one} />
                <span className="truncate text-ink-2 max-[720px]:hidden">{one.note && `“${one.note}”`}</span>
              </li>
            ))}
          </Band>
        )}
        <footer className="mt-auto flex flex-wrap items-baseline gap-x-4 gap-y-3 border-t border-line-2 px-5 py-2.5 text-row text-ink-2 max-[720px]:px-4 max-[720px]:[&>a]:min-h-6 max-[720px]:[&>button]:min-h-6">
          <span className="min-w-0 flex-1 max-[720px]:basis-full">{sayMade(of)}</span>
          {day === today && mayRing && !isEmpty && <AddCall of={of} />}
          {day === today && may('plan') && open.length > 0 && (
            <button type="button" className="link-line text-ink" onClick={() => setIsSharing(true)}>
              Share out
            </button>
          )}
          <Link className="link-line text-ink" to="/calls/figures">
            Figures
          </Link>
          {may('plan') && (
            <Link className="link-line text-ink" to="/calls/quotas">
              How the list is made
            </Link>
          )}
        </footer>
      </div>
      {isSharing && <ShareOut of={of} onClose={() => setIsSharing(false)} />}
      {chosen && (
        <CallPanel
          key={chosen.id}
          of={of}
          call={chosen}
          mayRing={mayRing}
          next={open[open.findIndex(({ id }) => id === chosen.id) + 1] ?? open.find(({ id }) => id !== chosen.id)}
          onDone={() => choose(null)}
        />
      )}
    </div>
  );
}

function Head({ of, open, done }: { readonly of: CallDay; readonly open: number; readonly done: number }) {
  const { me } = useWorkspace();
  const day = dayOfIso(of.on);
  const minutes = of.calls
    .filter(({ state }) => state === 'open')
    .reduce((sum, { quotaId }) => sum + (of.quotas.find(({ id }) => id === quotaId)?.minutesEach ?? 0), 0);
  const all = open + done;
  return (
    <header className="flex flex-wrap items-end gap-x-7 gap-y-2 px-5 py-3 max-[720px]:px-4">
      <h1 className="text-[15px] font-normal">
        <span className="sr-only">Calls, </span>
        <DateBlock day={day} look="large" />
      </h1>
      <div className="min-w-[220px] flex-1">
        <p className="flex items-baseline gap-x-2 text-row">
          <b className="font-semibold">{of.person.id === me.id ? 'Your calls' : of.person.name}</b>
          <span className="truncate text-ink-2">{of.quotas.map(({ name }) => name).join(', ')}</span>
          <span className="ml-auto whitespace-nowrap">
            {all > 0 && `${done} of ${all}`}
            {open > 0 && `, ${sayDuration(minutes)} left`}
          </span>
          {all > 0 && (
            <PaperLink href={addressOf(paperAddresses.calls, { query: { person: of.person.id, on: of.on } })} />
          )}
        </p>
        <div className="mt-1.5 flex h-2 gap-px" role="img" aria-label={`${done} of ${plural(all, 'call')} made`}>
          {Array.from({ length: all }, (_, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: parts of one bar
            <span key={i} className={`flex-1 ${i < done ? 'bg-primary' : 'bg-line'}`} />
          ))}
        </div>
      </div>
      <ol className="flex gap-x-4 text-note">
        {of.week
          .filter(({ wanted, made, on }) => wanted > 0 || made > 0 || on === of.on)
          .map(({ on, wanted, made }) => (
            <li key={on}>
              <Link
                to={`?date=${on}`}
                className={`block border-b-3 pb-0.5 ${on === of.on ? 'border-accent font-semibold' : made > 0 ? 'border-primary' : 'border-line'}`}
              >
                <span className="block text-ink-2">{weekdayShort(weekdayOf(dayOfIso(on)))}</span>
                <span className="font-mono">{made > 0 && made < wanted ? `${made} of ${wanted}` : wanted || made}</span>
              </Link>
            </li>
          ))}
      </ol>
    </header>
  );
}

/** Why there is nobody to ring. */
function NoCalls({ of }: { readonly of: CallDay }) {
  const { may, today, now } = useWorkspace();
  const day = dayOfIso(of.on);
  const wanted = of.week.find(({ on }) => on === of.on)?.wanted ?? 0;
  const [quota] = of.quotas;
  if (day < today)
    return <Empty title="There was no list on that day.">Lists stay with the day they were made for.</Empty>;
  if (day > today)
    return (
      <Empty title={wanted > 0 ? `${plural(wanted, 'call')} on that day` : 'No calls on that day'}>
        {wanted > 0 ? 'Who is rung is told on the morning of the day.' : 'No quota asks for any.'}
      </Empty>
    );
  if (quota && wanted > 0) {
    const coming = of.quotas.filter(({ isMade }) => !isMade).map(({ readyAt }) => readyAt);
    const [first] = coming.sort();
    if (first === undefined)
      return (
        <Empty title={`No calls today, of ${wanted} that are asked for.`}>
          There is nobody in the pool who may be rung today.
        </Empty>
      );
    return (
      <Empty title={`${plural(wanted, 'call')} today`}>
        {now.slice(11) < first ? `The list is there from ${sayTime(first)} on.` : 'The list is being made.'}
      </Empty>
    );
  }
  return (
    <Empty title="No calls today.">
      {quota
        ? 'The quota asks for none on this day.'
        : 'A quota says how many people somebody rings a day, a week or a month.'}{' '}
      {may('plan') && !quota && (
        <Link className="link-line" to="/calls/quotas">
          Write one
        </Link>
      )}
    </Empty>
  );
}

const KINDS: readonly (readonly [ListedCall['why']['kind'], string])[] = [
  ['promised', 'promised'],
  ['carriedOver', 'carried over'],
  ['neverRung', 'never rung'],
  ['triedAgain', 'tried again'],
  ['rungBefore', 'rung longest ago'],
  ['byHand', 'put on by hand'],
];

/** "12 on the list: 1 promised, 5 never rung, 6 rung longest ago." */
function sayMade({ calls }: CallDay): string {
  if (calls.length === 0) return '';
  const parts = KINDS.flatMap(([kind, words]) => {
    const count = calls.filter(({ why }) => why.kind === kind).length;
    return count === 0 ? [] : [`${count} ${words}`];
  });
  return `${calls.length} on the list: ${parts.join(', ')}.`;
}
