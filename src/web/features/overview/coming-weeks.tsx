import { Link } from 'react-router';
import type { Overview } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { DateBlock } from '../../kit/date-block.tsx';
import { sayDay } from '../../kit/ways.ts';
import { hoursOf } from '../workload/workload-words.ts';
import { Below } from './below.tsx';
import { sayWeek } from './overview-words.ts';

/** What the weeks ahead hold, against what everybody can do in them. */
export function ComingWeeks({ weeks, horizon }: Pick<Overview, 'weeks' | 'horizon'>) {
  const { people, today } = useWorkspace();
  const widest = Math.max(1, ...weeks.map(({ made, foreseen, capacity }) => Math.max(made + foreseen, capacity)));
  return (
    <Below name="Coming load" aside="hours, of those there are; who is over">
      <ul>
        {weeks.map((week) => {
          const { monday, made, foreseen, capacity } = week;
          const work = made + foreseen;
          const isFar = monday > horizon;
          const { words, isOver } = sayWeek(week, people);
          const share = (minutes: number) => `${(minutes / widest) * 100}%`;
          return (
            <li key={monday} className="border-b border-line last:border-b-0">
              <Link
                data-row
                to={`/workload?from=${monday}`}
                className="grid h-[30px] grid-cols-[116px_72px_84px_minmax(0,1fr)] items-center gap-x-2.5 text-row hover:bg-base-200 max-[720px]:h-11"
                aria-label={`Week from ${sayDay(dayOfIso(monday), today)}: ${hoursOf(work)} of ${hoursOf(capacity)} hours${words ? `, ${words}` : ''}${isFar ? ', not made yet' : ''}`}
              >
                <DateBlock day={dayOfIso(monday)} />
                <span className="relative h-1.5" aria-hidden>
                  <i className="absolute inset-y-0 left-0 bg-base-300" style={{ width: share(capacity) }} />
                  <i className="absolute inset-y-0 left-0 bg-petrol-2" style={{ width: share(made) }} />
                  <i
                    className="absolute inset-y-0 border border-petrol-2 bg-base-100"
                    style={{ left: share(made), width: share(foreseen), borderWidth: foreseen > 0 ? 1 : 0 }}
                  />
                </span>
                <span className="text-right whitespace-nowrap">
                  {hoursOf(work)} <span className="text-note text-ink-2">of {hoursOf(capacity)}</span>
                </span>
                <span className={`truncate ${isOver ? 'font-semibold' : 'text-ink-2'}`}>
                  {words || (isFar ? 'not made yet' : '')}
                </span>
              </Link>
            </li>
          );
        })}
      </ul>
    </Below>
  );
}
