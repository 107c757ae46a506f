import { lazy, Suspense, useState } from 'react';
import type { CallFigures } from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';
import { FilterChoice } from '../../kit/filter-choice.tsx';
import { barsBy, type Show, sayHours } from './figure-words.ts';

const HourBars = lazy(() => import('./hour-bars.tsx'));

/** Of a hundred rung, how many were reached, by the hour or the weekday. */
export function HoursPart({ of, onShow }: { readonly of: CallFigures; readonly onShow: Show }) {
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
      <h2 className="flex items-baseline text-row font-semibold text-primary">
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
