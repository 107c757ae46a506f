import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type KeyboardEvent, lazy, Suspense, useMemo } from 'react';
import { Link } from 'react-router';
import type { LoadOfPerson, WorkloadCell } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay, mondayOf, plural } from '../../../core/index.ts';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { useAddressFilter } from '../../kit/address-filter.ts';
import { FilterChoice } from '../../kit/filter-choice.tsx';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDayOfMonth } from '../../kit/ways.ts';
import { useWorkload } from './api.ts';
import { CellSheet } from './cell-sheet.tsx';
import { EvenOutSheet } from './even-out-sheet.tsx';
import { GROUPINGS, type Group, type Grouping, groupsOf, hoursOf, sumOf, tableOf, workOf } from './workload-words.ts';

const SumChart = lazy(() => import('./sum-chart.tsx'));

const COLUMNS = 'grid grid-cols-[112px_minmax(120px,1fr)_minmax(0,5.6fr)]';
const DAYS_A_WEEK = 7;
const SHIFT_WEEKS = 6;

/** People by weeks: what each has done, has to do and is to come, against the hours they have. */
export default function WorkloadPage() {
  const { search, set } = useAddressFilter();
  const { today, may } = useWorkspace();
  const from = search.get('from');
  const { data, error, mutate } = useWorkload(from);
  const grouping: Grouping = GROUPINGS.find(([key]) => key === search.get('by'))?.[0] ?? 'role';
  const groups = useMemo(() => groupsOf(data?.rows ?? [], grouping), [data, grouping]);
  const [openId, openWeek] = (search.get('cell') ?? '').split(' ');
  const evening = search.get('even');
  const fullest = useMemo(() => fullestOf(groups, data?.weeks ?? [], isoOfDay(mondayOf(today))), [groups, data, today]);
  const week = openWeek ?? fullest?.week ?? isoOfDay(mondayOf(today));
  const open = (personId: string | null, of: string) => set({ cell: `${personId ?? 'nobody'} ${of}`, even: '' });
  const people = groups.reduce((sum, { rows }) => sum + rows.filter(({ person }) => person !== null).length, 0);
  const first = data?.weeks[0];
  const shift = (by: number) =>
    first && set({ from: isoOfDay(dayOfIso(first) + by * DAYS_A_WEEK), cell: '', even: '' });
  const groupOf = groups.find(({ rows }) => rows.some(({ person }) => person?.id === openId))?.name ?? fullest?.group;
  const saveCsv = async () => {
    const { csvOf } = await import('../schedules/rehearsal/rehearsal-files.ts');
    if (!data) return;
    const [head = [], ...lines] = tableOf(data.weeks, groups);
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([csvOf(head, lines)], { type: 'text/csv' }));
    link.download = `workload-${first}.csv`;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <div className="flex min-h-0 flex-1">
      <title>Workload · Jolly Rota</title>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <div className="page-head">
          <h1>Workload</h1>
          <span className="text-row text-ink-2">{data ? plural(people, 'person', 'people') : ''}</span>
          <FilterChoice
            label="Grouped"
            value={grouping}
            options={GROUPINGS}
            onChange={(by) => set({ by: by === 'role' ? '' : by })}
          />
          <span className="flex items-center gap-1 text-row">
            <button
              type="button"
              className="btn btn-text h-7 min-h-7 w-7 min-w-7 p-0"
              aria-label="Earlier weeks"
              onClick={() => shift(-SHIFT_WEEKS)}
            >
              <ChevronLeft size={16} aria-hidden />
            </button>
            {first ? `${data.weeks.length} weeks from ${sayDayOfMonth(dayOfIso(first))}` : ''}
            <button
              type="button"
              className="btn btn-text h-7 min-h-7 w-7 min-w-7 p-0"
              aria-label="Later weeks"
              onClick={() => shift(SHIFT_WEEKS)}
            >
              <ChevronRight size={16} aria-hidden />
            </button>
            {from !== null && (
              <button type="button" className="link-line" onClick={() => set({ from: '', cell: '', even: '' })}>
                Around today
              </button>
            )}
          </span>
          <span className="ml-auto flex items-center gap-4 print:hidden">
            <button type="button" className="link-line text-row max-[900px]:hidden" onClick={() => void saveCsv()}>
              Take out as CSV
            </button>
            <button type="button" className="link-line text-row max-[900px]:hidden" onClick={() => window.print()}>
              Print
            </button>
            {may('give') && groupOf && groupOf !== 'nobody' && (
              <button
                type="button"
                className="btn btn-primary"
                onClick={() => set({ even: groupOf, cell: `${openId || ''} ${week}` })}
              >
                Even out {groupOf}
              </button>
            )}
          </span>
        </div>
        {error && !data && <Trouble error={error} retry={() => void mutate()} />}
        {!error && !data && <Skeleton rows={14} />}
        {data && groups.length === 0 && (
          <Empty title="Nobody has any work or hours in these weeks.">
            <Link className="link-line" to="/team">
              The team and their hours
            </Link>
          </Empty>
        )}
        {data && groups.length > 0 && (
          <Weeks
            weeks={data.weeks}
            groups={groups}
            open={openId && openWeek ? `${openId} ${openWeek}` : null}
            onOpen={open}
            foreseenUpTo={data.foreseenUpTo}
          />
        )}
      </div>
      {evening ? (
        <EvenOutSheet
          key={`${grouping} ${evening} ${week}`}
          group={evening}
          among={grouping === 'role' ? { role: evening } : { team: evening }}
          week={week}
          onClose={() => set({ even: '' })}
        />
      ) : (
        openId &&
        openWeek && (
          <CellSheet
            key={`${openId} ${openWeek}`}
            personId={openId === 'nobody' ? null : openId}
            week={openWeek}
            cell={cellOf(data?.rows ?? [], data?.weeks ?? [], openId, openWeek)}
            onClose={() => set({ cell: '' })}
          />
        )
      )}
    </div>
  );
}

/** Where somebody is fullest for their hours from this week on: what is likely to be evened out. */
function fullestOf(
  groups: readonly Group[],
  weeks: readonly string[],
  here: string,
): { group: string; week: string } | null {
  let found: { group: string; week: string; share: number } | null = null;
  for (const { name, rows } of groups)
    for (const { person, cells } of rows)
      cells.forEach((cell, i) => {
        const week = weeks[i] ?? '';
        const share = cell.capacity === 0 ? 0 : workOf(cell) / cell.capacity;
        if (person !== null && week >= here && share > (found?.share ?? 0)) found = { group: name, week, share };
      });
  return found;
}

function cellOf(
  rows: readonly LoadOfPerson[],
  weeks: readonly string[],
  id: string,
  week: string,
): WorkloadCell | null {
  const row = rows.find(({ person }) => (person?.id ?? 'nobody') === id);
  return row?.cells[weeks.indexOf(week)] ?? null;
}

interface WeeksProps {
  readonly weeks: readonly string[];
  readonly groups: readonly Group[];
  /** The cell whose tasks stand beside it: a person's id and a week. */
  readonly open: string | null;
  readonly onOpen: (personId: string | null, week: string) => void;
  readonly foreseenUpTo: string;
}

function Weeks({ weeks, groups, open, onOpen, foreseenUpTo }: WeeksProps) {
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
        {/* Arrow keys are a shortcut between buttons that Tab reaches as well. */}
        {/* biome-ignore lint/a11y/noStaticElementInteractions: see above */}
        <div onKeyDown={moveThroughCells}>
          {groups.map(({ name, rows: of }) => (
            <section key={name} aria-label={name} className="border-b border-line-2">
              {of.map((row, i) => (
                <div key={row.person?.id ?? 'nobody'} className={`${COLUMNS} pr-3`}>
                  <h2 className="pt-1.5 pr-2 pl-5 text-row leading-4 text-primary">{i === 0 ? name : ''}</h2>
                  <span
                    className={`flex min-w-0 items-center truncate text-row ${i > 0 ? 'border-t border-line' : ''}`}
                  >
                    {row.person?.name ?? 'not given to anybody'}
                  </span>
                  <div className={`grid ${i > 0 ? 'border-t border-line' : ''}`} style={across}>
                    {row.cells.map((cell, at) => {
                      const week = weeks[at] ?? '';
                      const key = `${row.person?.id ?? 'nobody'} ${week}`;
                      return (
                        <Cell
                          key={week}
                          cell={cell}
                          label={`${row.person?.name ?? 'nobody'}, week from ${sayDayOfMonth(dayOfIso(week))}`}
                          isHere={week === here}
                          isOpen={key === open}
                          onOpen={() => onOpen(row.person?.id ?? null, week)}
                        />
                      );
                    })}
                  </div>
                </div>
              ))}
            </section>
          ))}
        </div>
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
  const isOver = capacity > 0 ? work > capacity : work > 0 && isAway;
  const most = Math.max(capacity, work, 1);
  const share = (minutes: number) => `${(100 * minutes) / most}%`;
  const words = `${label}: ${hoursOf(work)} of ${hoursOf(capacity)} hours${isAway ? ', away' : ''}${isOver ? ', over' : ''}`;
  return (
    <button
      type="button"
      data-cell
      aria-label={words}
      aria-pressed={isOpen}
      title={words}
      className={`relative flex h-[33px] cursor-pointer flex-col justify-center px-2 text-row leading-4 hover:bg-base-200 ${isHere ? 'bg-chosen' : ''} ${isOpen ? 'z-1 outline-2 -outline-offset-2 outline-primary' : ''} ${isAway ? 'text-ink-2' : ''}`}
      style={
        isAway
          ? { backgroundImage: 'repeating-linear-gradient(135deg, var(--line) 0 1px, transparent 1px 6px)' }
          : undefined
      }
      onClick={onOpen}
    >
      {isAway && work === 0 ? (
        <span className="text-center text-note">leave</span>
      ) : (
        <>
          <span className={`block text-right ${isOver ? 'font-bold' : ''} ${work === 0 ? 'text-ink-2' : ''}`}>
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
              {isOver && (
                <i className="absolute -inset-y-px bg-ink" style={{ left: share(capacity), right: 0, minWidth: 4 }} />
              )}
            </span>
          )}
        </>
      )}
    </button>
  );
}

/** Arrow keys go from cell to cell. */
function moveThroughCells(event: KeyboardEvent<HTMLElement>): void {
  const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
  if (!step || !(event.target instanceof HTMLElement) || !event.target.matches('[data-cell]')) return;
  event.preventDefault();
  const cells = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-cell]')];
  const across = event.target.parentElement?.children.length ?? 1;
  cells[cells.indexOf(event.target) + (step[0] ?? 0) + (step[1] ?? 0) * across]?.focus();
}
