import { lazy, Suspense, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { FIGURE_WEEKS } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay, mondayOf, plural } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { FilterChoice } from '../../kit/filter-choice.tsx';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDate, sayDay } from '../../kit/ways.ts';
import { useQuotas } from './api.ts';
import { CallBacksPart } from './call-backs-part.tsx';
import { EndsPart } from './ends-part.tsx';
import { FigureCalls } from './figure-calls.tsx';
import { KEPT_WORDS, type Narrowing, type Show } from './figure-words.ts';
import { addressOfCallsCsv, useCallFigures } from './figures-api.ts';
import { HoursPart } from './hours-part.tsx';
import { PeopleFigures } from './people-figures.tsx';
import { StreakStrip } from './streak-strip.tsx';

const WeekBars = lazy(() => import('./week-bars.tsx'));

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
  const show: Show = (title, narrowing) => setShown({ title, narrowing });
  const showWeek = (monday: string) => {
    const last = Math.min(dayOfIso(monday) + 6, today);
    show(`Calls from ${sayDay(dayOfIso(monday), today)} to ${sayDay(last, today)}`, {
      from: monday,
      to: isoOfDay(last),
    });
  };
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
              <EndsPart of={data} onShow={show} />
              <h2 className={`${TITLE} mt-2`}>Calls a week</h2>
              <Suspense fallback={<div className="h-[268px]" />}>
                <WeekBars figures={data} chosen={shown?.narrowing.from ?? null} onChoose={showWeek} />
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
                onChange={(monday) => (monday === '' ? setShown(null) : showWeek(monday))}
              />
              {data.people.length <= MOST_STRIPS && (
                <ul className="mt-2">
                  {data.people.map((one) => (
                    <StreakStrip key={one.id} person={one} />
                  ))}
                </ul>
              )}
              <PeopleFigures of={data} onShow={(id, name) => show(`Calls of ${name}`, { person: id })} />
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
                  <HoursPart of={data} onShow={show} />
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
