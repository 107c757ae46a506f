import { Link } from 'react-router';
import type { Overview } from '../../../contract/index.ts';
import { monthName, plural, weekdayName, weekdayOf, yearMonthDay } from '../../../core/index.ts';
import { useShell } from '../../app/shell/shell-context.ts';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { waysShown } from '../../kit/ways.ts';
import { hoursOf } from '../workload/workload-words.ts';
import { lateBefore, sayToday } from './overview-words.ts';

/** The day in large figures, how far its work is, and how full it is. */
export function OverviewHead({ overview }: { readonly overview: Overview }) {
  const today = useToday();
  const { may } = useWorkspace();
  const { startNow } = useShell();
  const { month, day } = yearMonthDay(today);
  const dayFirst = waysShown().dateOrder === 'day first';
  const { due, done, toCheck, underWay, toStart } = overview.today;
  const states = [
    [done, 'done', 'done'],
    [toCheck, 'to check', 'toCheck'],
    [underWay, 'under way', 'underWay'],
    [toStart, 'to start', 'open'],
  ] as const;
  return (
    <header className="flex min-h-[76px] items-end gap-6 px-5 py-[9px] max-[720px]:flex-wrap max-[720px]:gap-x-4 max-[720px]:gap-y-2 max-[720px]:px-4">
      <h1 className="font-sans text-row leading-4 font-normal text-ink-2">
        {weekdayName(weekdayOf(today))}
        <span className="sr-only"> </span>
        <span className="mt-0.5 flex items-baseline gap-1.5">
          {!dayFirst && <span className="text-body text-ink">{monthName(month)} </span>}
          <b className="font-head text-[40px] leading-9.5 font-[650] text-ink font-stretch-[80%] shadow-[inset_0_-5px_0_var(--color-accent)]">
            {day}
          </b>{' '}
          {dayFirst && <span className="text-body text-ink">{monthName(month)}</span>}
        </span>
      </h1>
      <div className="min-w-0 flex-1 pb-px max-[720px]:order-3 max-[720px]:basis-full">
        <p className="mb-1.5 flex flex-wrap items-baseline gap-x-2 text-body leading-5">
          <b className="font-semibold">{due === 0 ? 'Nothing is due today' : `${plural(due, 'task')} due today:`}</b>
          {states.map(
            ([count, words, are]) =>
              count > 0 && (
                <Link key={are} className="link-line" to={`/tasks?due=today&are=${are}`}>
                  {count} {words}
                </Link>
              ),
          )}
          {overview.today.calls.all > 0 && (
            <Link className="link-line" to="/calls/figures">
              {overview.today.calls.made} of {plural(overview.today.calls.all, 'call')} made
            </Link>
          )}
          <span className="ml-auto text-ink-2 max-[720px]:ml-0 max-[720px]:text-row">{sayToday(overview)}</span>
        </p>
        <LoadBar overview={overview} />
      </div>
      {may('begin') && (
        <button
          type="button"
          className="btn btn-primary max-[720px]:ml-auto max-[720px]:h-11"
          onClick={() => startNow()}
        >
          Start a template
        </button>
      )}
    </header>
  );
}

/** What of today is finished and still to do, with what is late on top, against what everybody can do in a day. */
function LoadBar({ overview: { today, late } }: { readonly overview: Overview }) {
  const { calls } = today;
  const finished = today.finishedMinutes + calls.finishedMinutes;
  const toDo = today.dueMinutes + calls.minutes - finished;
  const before = lateBefore({ today, late });
  const parts = [
    { minutes: finished, colour: 'var(--color-primary)', words: 'finished' },
    { minutes: toDo, colour: 'var(--petrol-2)', words: 'to do' },
    { minutes: before, colour: 'var(--late-fill)', words: 'late from before' },
  ];
  const total = parts.reduce((sum, { minutes }) => sum + minutes, 0);
  const scale = Math.max(total, today.capacity, 1);
  const words = parts
    .filter(({ minutes }) => minutes > 0)
    .map(({ minutes, words: what }) => `${hoursOf(minutes)} h ${what}`)
    .join(', ');
  return (
    <div
      className="relative flex h-2 bg-base-300"
      role="img"
      aria-label={`${words || 'nothing to do'}; ${hoursOf(today.capacity)} h at hand`}
    >
      {parts.map(({ minutes, colour, words: what }) => (
        <i key={what} style={{ width: `${(minutes / scale) * 100}%`, background: colour }} />
      ))}
      {today.capacity > 0 && (
        <span
          className="absolute -top-[3px] h-3.5 w-[1.5px] bg-ink"
          style={{ left: `${(today.capacity / scale) * 100}%` }}
        />
      )}
    </div>
  );
}
