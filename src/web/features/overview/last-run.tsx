import { Link } from 'react-router';
import type { Overview } from '../../../contract/index.ts';
import { dayOfIso, plural } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { sayDay } from '../../kit/ways.ts';
import { sayMoment } from '../tasks/task-words.ts';
import { Below } from './below.tsx';
import { LettingGo } from './letting-go.tsx';

type Run = NonNullable<Overview['lastRun']>;

/** What the last making of tasks made, and what it left out. */
export function LastRun({ run, horizon }: { readonly run: Run | null; readonly horizon: string }) {
  const today = useToday();
  if (run === null)
    return (
      <Below name="Last run" aside="">
        <p className="text-row text-ink-2">
          No tasks have been made yet: the first schedule makes its own when it is saved.
        </p>
      </Below>
    );
  const leftOut = run.leftOut.reduce((sum, { dates }) => sum + dates, 0);
  const lines: readonly (readonly [count: number, what: string, detail: string])[] = [
    [
      run.made,
      'made',
      `${run.schedules > 0 ? `for ${plural(run.schedules, 'schedule')}, ` : ''}up to ${sayDay(dayOfIso(horizon), today)}`,
    ],
    [leftOut, leftOut === 1 ? 'date left out' : 'dates left out', listed(run.leftOutNames)],
    [run.waitCount, run.waitCount === 1 ? 'waits' : 'wait', listed(run.waitNames)],
    [run.withNobody, 'with nobody', listed(run.nobodyNames)],
    [run.problemCount, 'could not be planned', ''],
  ];
  const seconds = Math.max(1, Math.round(run.milliseconds / 1000));
  return (
    <Below
      name="Last run"
      aside={
        <Link className="link-line" to={`/fill/run/${run.id}`}>
          {sayMoment(run.startedAt, today)}, took {seconds} s
        </Link>
      }
    >
      <ul>
        {lines.map(([count, what, detail]) => (
          <li
            key={what}
            className={`grid min-h-[30px] grid-cols-[44px_minmax(0,1fr)] items-baseline gap-x-2.5 border-b border-line pt-1 text-row leading-4.5 last:border-b-0 ${count === 0 ? 'text-ink-2' : ''}`}
          >
            <b
              className={`text-right font-head text-[19px] leading-5.5 font-stretch-[80%] ${count === 0 ? 'font-normal' : 'font-[650]'}`}
            >
              {count}
            </b>
            <span className="truncate" title={detail}>
              {what} <span className="text-ink-2">{detail}</span>
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-1.5 text-row">
        <Link className="link-line" to="/fill">
          All runs
        </Link>
      </p>
      <LettingGo />
    </Below>
  );
}

const listed = (names: readonly string[]): string => names.join('; ');
