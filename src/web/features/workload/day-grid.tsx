import type { WorkloadCell } from '../../../contract/index.ts';
import { type CivilDay, DAYS_A_WEEK, dayOfIso, weekdayOf, yearMonthDay } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { sayDay, sayDayOfMonth } from '../../kit/ways.ts';
import type { Carrying } from './carrying.tsx';
import { type LoadGridProps, PeopleRows } from './people-rows.tsx';
import { hoursOf, isOver, sayCell, stripes, sumOf, workOf } from './workload-words.ts';

/** A cell is 24 px wide at least, to be hit (WCAG 2.2, 2.5.8), and all of them stand beside an open sheet at 1280. */
const COLUMNS = 'grid grid-cols-[72px_minmax(92px,150px)_minmax(676px,1fr)] pr-2';
/** The height of a cell that is full, in pixels, and of the tallest bar there can be. */
const TALL = 27;
/** At least a working day is as tall as it gets, in minutes. */
const LEAST_SCALE = 480;

interface DayGridProps extends LoadGridProps {
  readonly carrying: Carrying;
}

/** People by days: a bar of what each has against the hours of the day; a task can be carried from one to another. */
export function DayGrid({ starts, groups, open, onOpen, foreseenUpTo, carrying }: DayGridProps) {
  const { today, workingCalendar } = useWorkspace();
  const days = starts.map(dayOfIso);
  const rows = groups.flatMap(({ rows: of }) => of);
  const weeks = Array.from({ length: days.length / DAYS_A_WEEK }, (_, i) => days[i * DAYS_A_WEEK] as CivilDay);
  const across = { gridTemplateColumns: `repeat(${days.length}, minmax(0, 1fr))` };
  const scale = rows
    .filter(({ person }) => person !== null)
    .flatMap(({ cells }) => cells)
    .reduce((most, cell) => Math.max(most, cell.capacity, workOf(cell)), LEAST_SCALE);
  const lookOf = (day: CivilDay) =>
    `${weekdayOf(day) === 1 ? 'border-l border-line-2' : ''} ${day === today ? 'bg-chosen' : workingCalendar.isWorkingDay(day) ? '' : 'bg-base-200'}`;
  return (
    <div className="min-h-0 flex-1 overflow-auto border-t border-line-2 print:overflow-visible">
      <div className="min-w-[848px] pb-10">
        <div className="sticky top-0 z-1 border-b border-line-2 bg-base-100">
          <div className={COLUMNS}>
            <span className="col-span-2 self-end pb-1 pl-3 text-note leading-4 text-ink-2">hours a day</span>
            <div>
              <div
                className="grid pt-1 text-row leading-6"
                style={{ gridTemplateColumns: `repeat(${weeks.length}, minmax(0, 1fr))` }}
              >
                {weeks.map((monday, i) => (
                  <span key={monday} className="flex items-baseline border-l border-line-2 px-1.5">
                    <b className="truncate font-semibold">{sayDayOfMonth(monday)}</b>
                    <span className="ml-auto text-note text-ink-2">
                      {hoursOf(
                        workOf(sumOf(rows.flatMap(({ cells }) => cells.slice(i * DAYS_A_WEEK, (i + 1) * DAYS_A_WEEK)))),
                      )}{' '}
                      h
                    </span>
                  </span>
                ))}
              </div>
              <div className="grid text-center text-note leading-6" style={across}>
                {days.map((day) => (
                  <span
                    key={day}
                    className={
                      day === today ? 'bg-accent font-semibold text-accent-content' : `${lookOf(day)} text-ink-2`
                    }
                    title={workingCalendar.holidayName(day)}
                  >
                    {yearMonthDay(day).day}
                  </span>
                ))}
              </div>
            </div>
          </div>
        </div>
        <PeopleRows groups={groups} columns={COLUMNS} head="pt-2 pr-1 pl-3">
          {({ person }, cell, at) => {
            const [start, day] = [starts[at] as string, days[at] as CivilDay];
            const personId = person?.id ?? null;
            return (
              <DayCell
                key={start}
                cell={cell}
                scale={scale}
                label={`${person?.name ?? 'nobody'}, ${sayDay(day, today)}`}
                className={lookOf(day)}
                isOpen={`${personId ?? 'nobody'} ${start}` === open}
                isTarget={carrying.takes(personId, start)}
                onOpen={() => onOpen(personId, start)}
                onOver={(event) => carrying.over(event, personId, start)}
                onDrop={() => carrying.drop(personId, start)}
              />
            );
          }}
        </PeopleRows>
        <p className="px-5 pt-2 text-note leading-4.5 text-ink-2">
          Solid is done, light is to be done, hollow is foreseen and not made yet, up to{' '}
          {sayDayOfMonth(dayOfIso(foreseenUpTo))}; the line is the hours of the day, a block above it is over them;
          hatched is leave.
        </p>
      </div>
    </div>
  );
}

interface DayCellProps {
  readonly cell: WorkloadCell;
  /** Minutes of the tallest bar. */
  readonly scale: number;
  readonly label: string;
  readonly className: string;
  readonly isOpen: boolean;
  /** Whether what is carried can be put here. */
  readonly isTarget: boolean;
  readonly onOpen: () => void;
  readonly onOver: (event: React.DragEvent) => void;
  readonly onDrop: () => void;
}

/** One day of somebody: a bar from the foot of the cell, and a line at the hours they have. */
function DayCell({ cell, scale, label, className, isOpen, isTarget, onOpen, onOver, onDrop }: DayCellProps) {
  const { done, open, foreseen, capacity, isAway } = cell;
  const work = workOf(cell);
  const over = isOver(cell);
  const high = (minutes: number) => `${(TALL * minutes) / scale}px`;
  const words = sayCell(label, cell);
  return (
    <button
      type="button"
      data-cell
      aria-label={words}
      aria-pressed={isOpen}
      title={words}
      className={`relative min-h-[37px] cursor-pointer hover:outline-1 hover:-outline-offset-1 hover:outline-line-2 ${className} ${isOpen ? 'z-1 outline-2 -outline-offset-2 outline-primary' : ''} ${isTarget ? 'outline-1 -outline-offset-2 outline-accent outline-dashed' : ''}`}
      style={isAway ? stripes('--line-2') : undefined}
      onClick={onOpen}
      onDragOver={onOver}
      onDrop={(event) => {
        event.preventDefault();
        onDrop();
      }}
    >
      <span className="absolute inset-x-[22%] bottom-[3px] flex flex-col-reverse" aria-hidden>
        <i className="block w-full bg-primary" style={{ height: high(done) }} />
        <i className="block w-full bg-petrol-2" style={{ height: high(open) }} />
        {foreseen > 0 && (
          <i className="block w-full border border-petrol-2 bg-base-100" style={{ height: high(foreseen) }} />
        )}
      </span>
      {over && (
        <i
          className="absolute inset-x-[22%] bg-ink"
          aria-hidden
          style={{ bottom: `calc(3px + ${high(capacity)})`, height: `max(3px, ${high(work - capacity)})` }}
        />
      )}
      {capacity > 0 && (
        <i
          className="absolute inset-x-[12%] h-px bg-ink-2"
          aria-hidden
          style={{ bottom: `calc(3px + ${high(capacity)})` }}
        />
      )}
    </button>
  );
}
