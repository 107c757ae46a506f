import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import { DAYS_A_WEEK, dayOfIso, percentOf } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { Trouble } from '../../kit/states.tsx';
import { sayDay } from '../../kit/ways.ts';
import { useOnTime } from './api.ts';
import { Below } from './below.tsx';

const OnTimeChart = lazy(() => import('./on-time-chart.tsx'));

/** How much of what was due in the last weeks was finished by then, and whether that grows. */
export function OnTime() {
  const { data, error, mutate } = useOnTime();
  const today = useToday();
  if (error && !data)
    return (
      <Below name="On time" aside="">
        <Trouble error={error} retry={() => void mutate()} />
      </Below>
    );
  if (!data)
    return (
      <Below name="On time" aside="">
        <p className="text-row text-ink-2">Adding up …</p>
      </Below>
    );
  const { weeks, now, before, mostLate } = data;
  const last = weeks.at(-1);
  const rate = percentOf(now);
  const was = percentOf(before);
  const aside = last ? `${weeks.length} weeks to ${sayDay(dayOfIso(last.monday) + DAYS_A_WEEK - 1, today)}` : '';
  return (
    <Below name="On time" aside={aside}>
      {rate === null ? (
        <p className="text-row text-ink-2">Nothing was due in these weeks.</p>
      ) : (
        <>
          <div className="grid grid-cols-[104px_minmax(0,1fr)] items-start gap-x-3">
            <div className="pt-4">
              <Link
                to="/logbook?span=12"
                aria-label={`${rate}% on time: the logbook`}
                className="block hover:underline hover:underline-offset-4"
              >
                <b className="block font-head text-[40px] leading-10 font-bold font-stretch-[80%] normal-nums">
                  {rate}
                  <small className="text-[22px] leading-0">%</small>
                </b>
              </Link>
              <span className="block text-note leading-4 text-ink-2">of {now.due.toLocaleString('en-GB')} tasks</span>
              <span className="mt-3 block text-note leading-4 text-ink-2">
                {was === null ? 'nothing was due before' : `${was}% in the ${weeks.length} weeks before`}
              </span>
            </div>
            <div className="h-[150px]">
              <Suspense fallback={null}>
                <OnTimeChart weeks={weeks} />
              </Suspense>
            </div>
          </div>
          {mostLate.length > 0 && (
            <p className="mt-1.5 text-row">
              <span className="text-ink-2">Most often late: </span>
              {mostLate.map(({ name, late }) => `${name} (${late})`).join(', ')}
            </p>
          )}
        </>
      )}
    </Below>
  );
}
