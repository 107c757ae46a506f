import { lazy, Suspense } from 'react';
import { Link, useLocation } from 'react-router';
import type { LogFilter, LogSeries } from '../../../contract/index.ts';
import { MOST_READ_TASKS, MOST_SERIES } from '../../../contract/index.ts';
import { dayOfIso, liesOutside, plural, sayNumber } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { InView } from '../../kit/in-view.tsx';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDay } from '../../kit/ways.ts';
import { useReadings } from './api.ts';

const ReadingsChart = lazy(() => import('./readings-chart.tsx'));

/** What was read at each step over the time that is looked at, with the limits that held. */
export function ReadingsPart({ filter }: { readonly filter: LogFilter }) {
  const today = useToday();
  const { data, error, mutate } = useReadings(filter);
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Skeleton rows={8} />;
  if (data.count === 0)
    return <Empty title="Nothing was read.">No task of this time asks for a figure, or none was written down.</Empty>;
  return (
    <section aria-label="Readings over time">
      <p className="border-b border-line-2 px-5 pt-1 pb-2 text-row text-ink-2">
        {plural(data.count, 'step')} with figures
        {data.series.length < data.count && `, the ${MOST_SERIES} with the largest share out of limits`}
        {data.since !== null &&
          `; the latest ${MOST_READ_TASKS.toLocaleString('en-GB')} tasks, since ${sayDay(dayOfIso(data.since), today)}`}
      </p>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(380px,1fr))] max-[720px]:grid-cols-1">
        {data.series.map((series) => (
          <Series key={series.series} series={series} />
        ))}
      </ul>
    </section>
  );
}

/** In pixels. */
const READINGS_CHART_HEIGHT = 116;
/** Named below the chart, the latest first. */
const NAMED = 4;

function Series({ series: { label, unit, template, at, outside, readings } }: { readonly series: LogSeries }) {
  const { search } = useLocation();
  const today = useToday();
  const last = readings.at(-1);
  const say = (value: number) => `${sayNumber(value)} ${unit}`.trim();
  const out = readings.filter(liesOutside).reverse();
  return (
    <li className="min-w-0 border-r border-b border-line-2 px-5 pt-2.5 pb-2">
      <h3 className="truncate text-row leading-5 font-semibold">{[label, unit].filter(Boolean).join(', ')}</h3>
      <p className="truncate text-note text-ink-2">{[template, at].filter(Boolean).join(', ')}</p>
      <InView height={READINGS_CHART_HEIGHT}>
        <Suspense fallback={null}>
          <ReadingsChart readings={readings} height={READINGS_CHART_HEIGHT} />
        </Suspense>
      </InView>
      <p className="text-note leading-4.5 text-ink-2">
        {plural(readings.length, 'reading')}
        {last && `, ${say(last.value)} on ${sayDay(dayOfIso(last.on), today)}`}
        {outside === 0 ? (readings.some(hasLimits) ? ', all within' : ', no limits') : ''}
      </p>
      {outside > 0 && (
        <p className="text-note leading-4.5">
          <b className="font-semibold text-late">{outside} out of limits</b>
          {out.slice(0, NAMED).map(({ taskId, on, value }) => (
            <span key={taskId}>
              {', '}
              <Link className="link-line" to={`/logbook/task/${taskId}${search}`}>
                {say(value)} on {sayDay(dayOfIso(on), today)}
              </Link>
            </span>
          ))}
          {out.length > NAMED && ` and ${out.length - NAMED} more`}
        </p>
      )}
    </li>
  );
}

const hasLimits = ({ least, most }: LogSeries['readings'][number]) => least !== null || most !== null;
