import { lazy, Suspense, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { type CallFigures, FIGURE_WEEKS } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay, mondayOf, percentOf, plural } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { FilterChoice } from '../../kit/filter-choice.tsx';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDate, sayDay } from '../../kit/ways.ts';
import { useQuotas } from './api.ts';
import { CallBacksPart } from './call-backs-part.tsx';
import { FigureCalls } from './figure-calls.tsx';
import { FigureMark } from './figure-fills.tsx';
import { barsBy, KEPT_WORDS, type Narrowing, sayHours, stacked } from './figure-words.ts';
import { addressOfCallsCsv, useCallFigures } from './figures-api.ts';
import { StreakStrip } from './streak-strip.tsx';

const WeekBars = lazy(() => import('./week-bars.tsx'));
const HourBars = lazy(() => import('./hour-bars.tsx'));

/** Whose days are drawn below the weeks; of more there is the table. */
const MOST_STRIPS = 6;
const TITLE = 'text-row font-semibold text-primary';

/** How the calls of some weeks went. */
export default function CallFiguresPage() {
  const { today } = useWorkspace();
  const [search, setSearch] = useSearchParams();
  const { data: quotas } = useQuotas();
  const weeks = FIGURE_WEEKS.find((count) => String(count) === search.get('weeks')) ?? 12;
  const from = isoOfDay(mondayOf(today) - (weeks - 1) * 7);
  const to = isoOfDay(today);
  const quota = search.get('quota') ?? (quotas?.quotas.length === 1 ? quotas.quotas[0]?.id : undefined) ?? '';
  const person = search.get('person') ?? '';
  const query = { from, to, ...(quota && { quota }), ...(person && { person }) };
  const { data, error, mutate } = useCallFigures(query);
  const [shown, setShown] = useState<{ readonly title: string; readonly narrowing: Narrowing } | null>(null);
  const set = (part: Readonly<Record<string, string>>) =>
    setSearch((before) => {
      const next = new URLSearchParams(before);
      for (const [name, value] of Object.entries(part)) {
        if (value === '') next.delete(name);
        else next.set(name, value);
      }
      return next;
    });
  const show = (title: string, narrowing: Narrowing) => setShown({ title, narrowing });
  // Whoever had a list stays choosable while one is chosen.
  const callers = new Map((quotas?.quotas ?? []).flatMap(({ people }) => people.map(({ id, name }) => [id, name])));
  for (const { id, name } of data?.people ?? []) callers.set(id, name);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>Call figures · Jolly Rota</title>
      <div className="page-head flex-wrap">
        <h1>Call figures</h1>
        <p className="flex flex-wrap gap-x-3 text-row">
          <FilterChoice
            label="Quota"
            value={quota}
            options={[['', 'all quotas'], ...(quotas?.quotas ?? []).map(({ id, name }) => [id, name] as const)]}
            onChange={(value) => set({ quota: value })}
          />
          <FilterChoice
            label="Whose lists"
            value={person}
            options={[['', 'everyone'], ...[...callers].sort((a, b) => a[1].localeCompare(b[1]))]}
            onChange={(value) => set({ person: value })}
          />
          <FilterChoice
            label="How many weeks"
            value={String(weeks)}
            options={FIGURE_WEEKS.map((count) => [String(count), `${count} weeks`] as const)}
            onChange={(value) => set({ weeks: value })}
          />
          <span className="text-ink-2">
            {sayDate(dayOfIso(from))} to {sayDate(today)}
          </span>
        </p>
        <Link className="btn ml-auto" to="/calls">
          Today’s list
        </Link>
        <a className="btn btn-primary inline-flex items-center" href={addressOfCallsCsv(query)} download>
          Save {weeks} weeks as CSV
        </a>
      </div>
      {error && !data && <Trouble error={error} retry={() => void mutate()} />}
      {!data && !error && <Skeleton rows={12} />}
      {data &&
        (data.listed === 0 ? (
          <Empty title="No calls in these weeks.">Choose a longer time, another quota or somebody else.</Empty>
        ) : (
          <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_400px] border-t border-line-2 max-[1000px]:block max-[1000px]:overflow-y-auto">
            <div className="min-h-0 overflow-y-auto px-5 pt-2.5 pb-6 max-[720px]:px-4">
              <Ends of={data} onShow={show} />
              <h2 className={`${TITLE} mt-2`}>Calls a week</h2>
              <Suspense fallback={<div className="h-[268px]" />}>
                <WeekBars
                  figures={data}
                  chosen={shown?.narrowing.from ?? null}
                  onChoose={(monday) => {
                    const sunday = dayOfIso(monday) + 6;
                    show(`Calls from ${sayDay(dayOfIso(monday), today)} to ${sayDay(Math.min(sunday, today), today)}`, {
                      from: monday < from ? from : monday,
                      to: sunday > today ? to : isoOfDay(sunday),
                    });
                  }}
                />
              </Suspense>
              <FilterChoice
                label="A week’s calls"
                value={shown?.narrowing.from ?? ''}
                options={[
                  ['', 'the calls of a week …'],
                  ...data.weeks
                    .toReversed()
                    .map(
                      ({ monday, listed }) => [monday, `from ${sayDay(dayOfIso(monday), today)}, ${listed}`] as const,
                    ),
                ]}
                onChange={(monday) => {
                  if (monday === '') return setShown(null);
                  const sunday = dayOfIso(monday) + 6;
                  show(`Calls from ${sayDay(dayOfIso(monday), today)}`, {
                    from: monday,
                    to: sunday > today ? to : isoOfDay(sunday),
                  });
                }}
              />
              {data.people.length <= MOST_STRIPS && (
                <ul className="mt-2">
                  {data.people.map((one) => (
                    <StreakStrip key={one.id} person={one} />
                  ))}
                </ul>
              )}
              <People of={data} onShow={(id, name) => show(`Calls of ${name}`, { person: id })} />
            </div>
            <div className="min-h-0 overflow-y-auto border-l border-line-2 max-[1000px]:border-t max-[1000px]:border-l-0">
              {shown ? (
                <FigureCalls
                  query={{ ...query, ...shown.narrowing }}
                  title={shown.title}
                  onClose={() => setShown(null)}
                />
              ) : (
                <>
                  <Hours of={data} onShow={show} />
                  <CallBacksPart
                    of={data.callBacks}
                    query={query}
                    onShow={(kept) => show(`Promised calls, ${KEPT_WORDS[kept]}`, { kept })}
                  />
                  {data.pool && (
                    <section className="border-t border-line-2 px-5 py-3">
                      <h2 className={TITLE}>Left in the pool</h2>
                      <p className="mt-1 text-row">
                        <b className="font-semibold">{plural(data.pool.free, 'contact')}</b> may be rung on the next
                        list.{' '}
                        {data.pool.dryOn === null
                          ? `It lasts for the coming ${data.pool.weeks} weeks.`
                          : `From ${sayDate(dayOfIso(data.pool.dryOn))} on there are too few.`}{' '}
                        <Link className="link-line" to={`/calls/quotas/${quota}`}>
                          The quota
                        </Link>
                      </p>
                    </section>
                  )}
                </>
              )}
            </div>
          </div>
        ))}
    </div>
  );
}

type Show = (title: string, narrowing: Narrowing) => void;

/** How calls ended, in figures: each opens its calls. */
function Ends({ of, onShow }: { readonly of: CallFigures; readonly onShow: Show }) {
  const told = stacked(of.outcomes).filter(({ count }) => count > 0);
  const button = (count: number, words: string, narrowing: Narrowing, mark: React.ReactNode = null) => (
    <button
      type="button"
      key={words}
      className="flex cursor-pointer items-baseline gap-1.5 hover:underline"
      onClick={() => onShow(`Calls: ${words}`, narrowing)}
    >
      {mark}
      <b className="font-head text-[17px] font-bold">{count.toLocaleString('en-GB')}</b>
      <span className="text-ink-2">{words}</span>
    </button>
  );
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 gap-y-1 text-row">
      {told.map(({ key, name, count, follows }) =>
        button(count, name, { ended: 'rung', outcome: key }, <FigureMark ending={follows} />),
      )}
      {of.notRung > 0 && button(of.notRung, 'not rung', { ended: 'notRung' }, <FigureMark ending="notRung" />)}
      {of.toRing > 0 && (
        <span className="flex items-baseline gap-1.5 text-ink-2">
          <FigureMark ending="toRing" />
          {of.toRing} still to ring
        </span>
      )}
      <span className="ml-auto">{button(of.listed, 'listed', {})}</span>
    </p>
  );
}

const CELL = 'py-1.5 text-right';

function People({ of, onShow }: { readonly of: CallFigures; readonly onShow: (id: string, name: string) => void }) {
  const all = { listed: of.listed, rung: of.rung, reached: of.reached };
  const share = ({ reached, rung }: { readonly reached: number; readonly rung: number }) =>
    percentOf({ due: rung, onTime: reached });
  const say = (count: number) => count.toLocaleString('en-GB');
  return (
    <table className="mt-2 w-full border-t border-line-2 text-row">
      <caption className="sr-only">Calls by who rang</caption>
      <thead className="text-ink-2">
        <tr className="border-b border-line-2">
          {['', 'rung', 'of listed', 'reached', 'share', 'whole lists', 'best row'].map((name) => (
            <th key={name} scope="col" className={`${CELL} font-normal`}>
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {of.people.map((one) => (
          <tr key={one.id} className="border-b border-line">
            <th scope="row" className="py-1.5 text-left font-semibold">
              <button type="button" className="cursor-pointer hover:underline" onClick={() => onShow(one.id, one.name)}>
                {one.name}
              </button>
            </th>
            <td className={CELL}>{say(one.rung)}</td>
            <td className={`${CELL} text-ink-2`}>{say(one.listed)}</td>
            <td className={CELL}>{say(one.reached)}</td>
            <td className={`${CELL} font-semibold`}>{share(one) === null ? '' : `${share(one)}%`}</td>
            <td className={CELL}>
              {one.whole} of {one.lists}
            </td>
            <td className={CELL}>{one.best}</td>
          </tr>
        ))}
      </tbody>
      {of.people.length > 1 && (
        <tfoot className="font-semibold">
          <tr>
            <th scope="row" className="py-1.5 text-left font-semibold">
              {of.people.length === 2 ? 'Both' : 'All of them'}
            </th>
            <td className={CELL}>{say(all.rung)}</td>
            <td className={`${CELL} font-normal text-ink-2`}>{say(all.listed)}</td>
            <td className={CELL}>{say(all.reached)}</td>
            <td className={CELL}>{share(all) === null ? '' : `${share(all)}%`}</td>
            <td className={CELL}>
              {of.people.reduce((sum, { whole }) => sum + whole, 0)} of{' '}
              {of.people.reduce((sum, { lists }) => sum + lists, 0)}
            </td>
            <td />
          </tr>
        </tfoot>
      )}
    </table>
  );
}

/** Of a hundred rung, how many were reached, by the hour or the weekday. */
function Hours({ of, onShow }: { readonly of: CallFigures; readonly onShow: Show }) {
  const [by, setBy] = useState<'hour' | 'weekday'>('hour');
  const bars = barsBy(of.hours, by);
  const choose = (at: number) => {
    const bar = bars.find((one) => one.at === at);
    if (!bar) return;
    if (by === 'hour') onShow(`Calls from ${bar.name}:00 to ${bar.name}:59`, { ended: 'rung', hour: at });
    else onShow(`Calls on a ${bar.name}`, { ended: 'rung', weekday: at });
  };
  return (
    <section className="px-5 py-3">
      <h2 className={`${TITLE} flex items-baseline`}>
        Reached
        <span className="ml-2 font-normal">
          <FilterChoice
            label="By what"
            value={by}
            options={[
              ['hour', 'by the hour of the call'],
              ['weekday', 'by the weekday'],
            ]}
            onChange={setBy}
          />
        </span>
        <span className="ml-auto text-note font-normal text-ink-2">of 100 rung</span>
      </h2>
      {bars.length > 0 && (
        <>
          <Suspense fallback={<div className="h-[150px]" />}>
            <HourBars bars={bars} onChoose={choose} />
          </Suspense>
          <ol
            className="relative grid pl-[34px] text-center text-note before:absolute before:left-0 before:text-ink-2 before:content-['rung']"
            style={{ gridTemplateColumns: `repeat(${bars.length}, minmax(0, 1fr))` }}
          >
            {bars.map((bar) => (
              <li key={bar.at}>
                <button
                  type="button"
                  className="cursor-pointer text-ink-2 hover:underline"
                  aria-label={`${bar.name}: ${bar.reached} of ${plural(bar.rung, 'call')} reached`}
                  onClick={() => choose(bar.at)}
                >
                  {bar.rung}
                </button>
              </li>
            ))}
          </ol>
          <p className="mt-1 text-note leading-4.5 text-ink-2">{sayHours(of.hours)}</p>
        </>
      )}
    </section>
  );
}
