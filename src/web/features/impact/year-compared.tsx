import { useState } from 'react';
import type { Impact } from '../../../contract/index.ts';
import { dayOfIso, monthIndexOf, monthShort, monthStart, plural, yearMonthDay } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';

const YEAR = 365;

/** The coming year of a schedule on two lines: as it is, and as it would be. */
export function YearCompared({ years }: { readonly years: Impact['years'] }) {
  const today = useToday();
  const [chosen, setChosen] = useState(0);
  const year = years[Math.min(chosen, years.length - 1)];
  if (!year) return null;
  const at = (day: number) => `${((day - today) / YEAR) * 100}%`;
  const months = Array.from({ length: 12 }, (_, i) => monthStart(monthIndexOf(today) + i + 1));
  return (
    <section className="border-b border-line-2 px-6 py-2.5" aria-label="The coming year, before and after">
      <p className="flex gap-4 text-note text-ink-2">
        A year of
        {years.map(({ scheduleId, name }, i) => (
          <button
            key={scheduleId}
            type="button"
            aria-pressed={i === chosen}
            className={`cursor-pointer leading-6 ${i === chosen ? 'font-semibold text-ink shadow-[inset_0_-2px_0_var(--color-accent)]' : 'underline decoration-line-2 underline-offset-4'}`}
            onClick={() => setChosen(i)}
          >
            {name}
          </button>
        ))}
      </p>
      <div className="grid grid-cols-[64px_minmax(0,1fr)] items-center text-note">
        <span />
        <div className="relative h-5" aria-hidden>
          {months.map((first) => (
            <span
              key={first}
              className="absolute border-l border-line-2 pl-1 font-semibold"
              style={{ left: at(first) }}
            >
              {/* On a phone the letter is enough; a whole word would lie over the next. */}
              <span className="max-[720px]:hidden">{monthShort(yearMonthDay(first).month)}</span>
              <span className="min-[721px]:hidden">{monthShort(yearMonthDay(first).month).charAt(0)}</span>
            </span>
          ))}
        </div>
        {(['before', 'after'] as const).map((side) => (
          <YearLine key={side} word={side === 'before' ? 'as it is' : 'after'} days={year[side]} at={at} />
        ))}
      </div>
    </section>
  );
}

function YearLine({
  word,
  days,
  at,
}: {
  readonly word: string;
  readonly days: Impact['years'][number]['before'];
  readonly at: (day: number) => string;
}) {
  return (
    <>
      <span className={word === 'after' ? 'font-semibold' : 'text-ink-2'}>{word}</span>
      <div className="relative h-7" role="img" aria-label={`${word}: ${plural(days.length, 'task')}`}>
        <i className="absolute top-1/2 h-px w-full bg-line-2" />
        {days.map(({ on, isMain }) => (
          <i
            key={`${on} ${isMain}`}
            title={on}
            className={`absolute top-1/2 h-3 w-3 -translate-x-1/2 -translate-y-1/2 rounded-full border-[1.5px] border-primary ${isMain ? 'bg-primary' : 'bg-base-100'}`}
            style={{ left: at(dayOfIso(on)) }}
          />
        ))}
      </div>
    </>
  );
}
