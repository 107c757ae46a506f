import { lazy, Suspense } from 'react';
import type { WorkloadCell } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay, mondayOf } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { sayDayOfMonth } from '../../kit/ways.ts';
import { type LoadGridProps, PeopleRows } from './people-rows.tsx';
import { hoursOf, isOver, sayCell, stripes, sumOf, workOf } from './workload-words.ts';

const SumChart = lazy(() => import('./sum-chart.tsx'));

const COLUMNS = 'grid grid-cols-[112px_minmax(120px,1fr)_minmax(0,5.6fr)]';

/** People by weeks, with the sum of all above them. */
export function WeekGrid({ starts: weeks, groups, open, onOpen, foreseenUpTo }: LoadGridProps) {
  const today = useToday();
  const here = isoOfDay(mondayOf(today));
  const rows = groups.flatMap(({ rows: of }) => of);
  const people = rows.filter(({ person }) => person !== null);
  const sums = weeks.map((_, i) => sumOf(rows.flatMap(({ cells }) => cells[i] ?? [])));
  const across = { gridTemplateColumns: `repeat(${weeks.length}, minmax(0, 1fr))` };
  return (
    <div className="min-h-0 flex-1 overflow-auto border-t border-line-2 print:overflow-visible">
      <div className="min-w-[860px] pb-10">
        <div className={`${COLUMNS} items-end pr-3`}>
          <div className="col-span-2 self-start pt-3 pl-5 text-row leading-4.5">
            <b className="font-semibold">All {people.length}</b>
            <span className="block text-note text-ink-2">
              hours a week,
              <br />
              dotted is what they have
            </span>
          </div>
          <div
            className="h-[104px]"
            role="img"
            aria-label={`Hours of all by the week: ${sums.map((sum) => hoursOf(workOf(sum))).join(', ')}`}
          >
            <Suspense fallback={null}>
              <SumChart sums={sums} />
            </Suspense>
          </div>
        </div>
        <div className="sticky top-0 z-1 border-b border-line-2 bg-base-100">
          <div className={`${COLUMNS} h-8 items-center pr-3 text-note text-ink-2`}>
            <span className="pl-5">week from</span>
            <span />
            <div className="grid text-center" style={across}>
              {weeks.map((week) => (
                <span
                  key={week}
                  className={week === here ? 'bg-accent py-0.5 font-semibold text-accent-content' : 'py-0.5'}
                >
                  {sayDayOfMonth(dayOfIso(week))}
                </span>
              ))}
            </div>
          </div>
        </div>
        <PeopleRows groups={groups} columns={`${COLUMNS} pr-3`} head="pt-1.5 pr-2 pl-5">
          {({ person }, cell, at) => {
            const week = weeks[at] ?? '';
            return (
              <Cell
                key={week}
                cell={cell}
                label={`${person?.name ?? 'nobody'}, week from ${sayDayOfMonth(dayOfIso(week))}`}
                isHere={week === here}
                isOpen={`${person?.id ?? 'nobody'} ${week}` === open}
                onOpen={() => onOpen(person?.id ?? null, week)}
              />
            );
          }}
        </PeopleRows>
        <p className="px-5 pt-2 text-note leading-4.5 text-ink-2">
          Solid is done, light is to be done, hollow is foreseen and not made yet, up to{' '}
          {sayDayOfMonth(dayOfIso(foreseenUpTo))}; a block past the bar is over the hours they have.
        </p>
      </div>
    </div>
  );
}

interface CellProps {
  readonly cell: WorkloadCell;
  readonly label: string;
  readonly isHere: boolean;
  readonly isOpen: boolean;
  readonly onOpen: () => void;
}

/** One week of somebody: the figure, and a bar of what they have. */
function Cell({ cell, label, isHere, isOpen, onOpen }: CellProps) {
  const { done, open, foreseen, capacity, isAway } = cell;
  const work = workOf(cell);
  const over = isOver(cell);
  const most = Math.max(capacity, work, 1);
  const share = (minutes: number) => `${(100 * minutes) / most}%`;
  const words = sayCell(label, cell);
  return (
    <button
      type="button"
      data-cell
      aria-label={words}
      aria-pressed={isOpen}
      title={words}
      className={`relative flex h-[33px] cursor-pointer flex-col justify-center px-2 text-row leading-4 hover:bg-base-200 ${isHere ? 'bg-chosen' : ''} ${isOpen ? 'z-1 outline-2 -outline-offset-2 outline-primary' : ''} ${isAway ? 'text-ink-2' : ''}`}
      style={isAway ? stripes('--line') : undefined}
      onClick={onOpen}
    >
      {isAway && work === 0 ? (
        <span className="text-center text-note">leave</span>
      ) : (
        <>
          <span className={`block text-right ${over ? 'font-bold' : ''} ${work === 0 ? 'text-ink-2' : ''}`}>
            {work === 0 && capacity === 0 ? '' : hoursOf(work)}
          </span>
          {(capacity > 0 || work > 0) && (
            <span className="relative mt-0.5 block h-[5px] bg-base-300" aria-hidden>
              <i className="absolute inset-y-0 left-0 bg-primary" style={{ width: share(done) }} />
              <i className="absolute inset-y-0 bg-petrol-2" style={{ left: share(done), width: share(open) }} />
              <i
                className="absolute inset-y-0 border border-petrol-2 bg-base-100"
                style={{
                  left: share(done + open),
                  width: foreseen > 0 ? share(foreseen) : 0,
                  borderWidth: foreseen > 0 ? 1 : 0,
                }}
              />
              {over && (
                <i className="absolute -inset-y-px bg-ink" style={{ left: share(capacity), right: 0, minWidth: 4 }} />
              )}
            </span>
          )}
        </>
      )}
    </button>
  );
}
