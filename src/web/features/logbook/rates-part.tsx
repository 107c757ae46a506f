import { lazy, Suspense } from 'react';
import type { LogFigures } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay, percentOf } from '../../../core/index.ts';
import { FilterChoice } from '../../kit/filter-choice.tsx';
import { Pennant, type PennantState } from '../../kit/pennant.tsx';
import type { LogView } from './log-filter.tsx';
import { onTimeOf, sayWeekFrom } from './log-words.ts';

const RateChart = lazy(() => import('./rate-chart.tsx'));

interface RatesPartProps {
  readonly view: LogView;
  readonly weeks: readonly (LogFigures & { readonly monday: string })[];
  readonly all: LogFigures;
  readonly before: LogFigures;
}

/** How much was on time, now and before, in figures and by the week; a week is chosen in it. */
export function RatesPart({ view, weeks, all, before }: RatesPartProps) {
  const rate = percentOf(onTimeOf(all));
  const was = percentOf(onTimeOf(before));
  const figures: readonly (readonly [PennantState, boolean, number, string, string])[] = [
    ['done', false, all.onTime, 'on time', 'all'],
    ['done', true, all.late, 'late', 'late'],
    ['lapsed', false, all.lapsed, 'lapsed', 'lapsed'],
    ['open', true, all.open, 'still open', ''],
    ['skipped', false, all.skipped, 'skipped', 'skipped'],
  ];
  const choose = (monday: string) =>
    view.set({ week: view.week !== null && monday === isoOfDay(view.week) ? '' : monday });
  return (
    <div className="grid grid-cols-[148px_minmax(0,1fr)] items-start gap-x-4 px-5 pb-2 max-[720px]:grid-cols-1 max-[720px]:px-4">
      <div>
        <b className="block font-head text-[40px] leading-10 font-bold font-stretch-[80%] normal-nums">
          {rate ?? '–'}
          {rate !== null && <small className="text-[22px] leading-0">%</small>}
        </b>
        <span className="block text-row leading-4.5">
          {rate === null ? 'nothing was due' : `on time${was === null ? '' : `, was ${was}%`}`}
        </span>
        <ul className="mt-1.5">
          {figures.map(
            ([state, late, count, words, kind]) =>
              (count > 0 || state === 'done') && (
                <li
                  key={words}
                  className="grid min-h-6 grid-cols-[20px_48px_1fr] items-center text-row leading-4.75 max-[720px]:min-h-11"
                >
                  <Pennant state={state} late={late} label="" />
                  <b className="pr-2 text-right font-semibold">{count.toLocaleString('en-GB')}</b>
                  {kind === '' || kind === 'all' ? (
                    <span className="text-ink-2">{words}</span>
                  ) : (
                    <button
                      type="button"
                      className="min-h-6 cursor-pointer justify-self-start underline decoration-line-2 underline-offset-4 hover:decoration-ink max-[720px]:min-h-11"
                      onClick={() => view.set({ kind })}
                    >
                      {words}
                    </button>
                  )}
                </li>
              ),
          )}
        </ul>
      </div>
      <div className="min-w-0">
        <Suspense fallback={<div className="h-[166px]" />}>
          <RateChart weeks={weeks} chosen={view.week} onChoose={(day) => choose(isoOfDay(day))} />
        </Suspense>
        <p className="flex justify-end text-row text-ink-2">
          <FilterChoice
            label="Week shown"
            value={view.week === null ? '' : isoOfDay(view.week)}
            onChange={(week) => view.set({ week })}
            options={[
              ['', 'all weeks'],
              ...weeks.toReversed().map((week) => {
                const share = percentOf(onTimeOf(week));
                return [
                  week.monday,
                  `${sayWeekFrom(dayOfIso(week.monday))}${share === null ? '' : `, ${share}%`}`,
                ] as const;
              }),
            ]}
          />
        </p>
      </div>
    </div>
  );
}
