import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import type { LoadOfPerson, LoadUnit, WorkloadCell } from '../../../contract/index.ts';
import { DAYS_A_WEEK, dayOfIso, isoOfDay, mondayOf, plural } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAddressFilter } from '../../kit/address-filter.ts';
import { FilterChoice } from '../../kit/filter-choice.tsx';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDayOfMonth } from '../../kit/ways.ts';
import { SitePicker } from '../clients/asset/site-picker.tsx';
import { useWorkload } from './api.ts';
import { useCarrying } from './carrying.tsx';
import { CellSheet, type OtherLoad } from './cell-sheet.tsx';
import { DayGrid } from './day-grid.tsx';
import { EvenOutSheet } from './even-out-sheet.tsx';
import { WeekGrid } from './week-grid.tsx';
import { GROUPINGS, type Group, type Grouping, groupsOf, tableOf, workOf } from './workload-words.ts';

/** How far the arrows go: half of what is told at once. */
const SHIFT_WEEKS: Readonly<Record<LoadUnit, number>> = { week: 6, day: 2 };
const UNITS = [
  ['week', 'by the week'],
  ['day', 'by the day'],
] as const;

/** People by weeks or days: what each has done, has to do and is to come, against the hours they have. */
export default function WorkloadPage() {
  const { search, set } = useAddressFilter();
  const { today, may } = useWorkspace();
  const from = search.get('from');
  const by: LoadUnit = search.get('unit') === 'day' ? 'day' : 'week';
  const site = search.get('site');
  const { data, error, mutate } = useWorkload(from, by, site);
  const starts = data?.starts ?? [];
  const grouping: Grouping = GROUPINGS.find(([key]) => key === search.get('by'))?.[0] ?? 'role';
  const groups = useMemo(() => groupsOf(data?.rows ?? [], grouping), [data, grouping]);
  const [openId, openStart] = (search.get('cell') ?? '').split(' ');
  const evening = search.get('even');
  const fullest = useMemo(
    () => fullestOf(groups, data?.starts ?? [], isoOfDay(mondayOf(today))),
    [groups, data, today],
  );
  const week = isoOfDay(mondayOf(dayOfIso(openStart ?? fullest?.start ?? isoOfDay(today))));
  const open = (personId: string | null, of: string) => set({ cell: `${personId ?? 'nobody'} ${of}`, even: '' });
  const people = groups.reduce((sum, { rows }) => sum + rows.filter(({ person }) => person !== null).length, 0);
  const first = starts[0];
  const carrying = useCarrying(groups, starts);
  const shift = (by: number) =>
    first && set({ from: isoOfDay(dayOfIso(first) + by * DAYS_A_WEEK), cell: '', even: '' });
  const groupOf = groups.find(({ rows }) => rows.some(({ person }) => person?.id === openId))?.name ?? fullest?.group;
  const grid = { starts, groups, open: openId && openStart ? `${openId} ${openStart}` : null, onOpen: open };
  // Beside a sheet there is no room for what is rarely asked for.
  const away = openId || evening ? 'hidden' : 'max-[900px]:hidden';
  const saveCsv = async () => {
    const { csvOf } = await import('../schedules/rehearsal/rehearsal-files.ts');
    if (!data) return;
    const [head = [], ...lines] = tableOf(data.starts, groups, by);
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([csvOf(head, lines)], { type: 'text/csv' }));
    link.download = ['workload', data.site?.name, `${first}.csv`]
      .filter(Boolean)
      .join('-')
      .replaceAll(' ', '-')
      .toLowerCase();
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <div className="flex min-h-0 flex-1">
      <title>Workload · Jolly Rota</title>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <div className="page-head">
          <h1>Workload</h1>
          <span className="text-row whitespace-nowrap text-ink-2">
            {data ? plural(people, 'person', 'people') : ''}
          </span>
          <FilterChoice
            label="Grouped"
            value={grouping}
            options={GROUPINGS}
            onChange={(of) => set({ by: of === 'role' ? '' : of })}
          />
          <FilterChoice
            label="Figures"
            value={by}
            options={UNITS}
            onChange={(unit) => set({ unit: unit === 'week' ? '' : unit, from: '', cell: '', even: '' })}
          />
          <SitePicker
            siteId={site}
            siteName={data?.site?.name ?? null}
            none="at all sites"
            onChoose={(id) => set({ site: id ?? '', cell: '', even: '' })}
          />
          <span className="flex items-center gap-1 text-row whitespace-nowrap">
            <button
              type="button"
              className="btn btn-text h-7 min-h-7 w-7 min-w-7 p-0"
              aria-label="Earlier weeks"
              onClick={() => shift(-SHIFT_WEEKS[by])}
            >
              <ChevronLeft size={16} aria-hidden />
            </button>
            {first
              ? `${by === 'week' ? starts.length : starts.length / DAYS_A_WEEK} weeks from ${sayDayOfMonth(dayOfIso(first))}`
              : ''}
            <button
              type="button"
              className="btn btn-text h-7 min-h-7 w-7 min-w-7 p-0"
              aria-label="Later weeks"
              onClick={() => shift(SHIFT_WEEKS[by])}
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
            <button type="button" className={`link-line text-row ${away}`} onClick={() => void saveCsv()}>
              Take out as CSV
            </button>
            <button type="button" className={`link-line text-row ${away}`} onClick={() => window.print()}>
              Print
            </button>
            {/* A week is evened out with all its work. */}
            {may('give') && site === null && groupOf && groupOf !== 'nobody' && (
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
        {data && groups.length === 0 && data.site && (
          <Empty title={`There is no work at ${data.site.name} in these weeks.`}>
            <button type="button" className="link-line" onClick={() => set({ site: '' })}>
              All sites
            </button>
          </Empty>
        )}
        {data && groups.length === 0 && !data.site && (
          <Empty title="Nobody has any work or hours in these weeks.">
            <Link className="link-line" to="/team">
              The team and their hours
            </Link>
          </Empty>
        )}
        {data && groups.length > 0 && by === 'week' && <WeekGrid {...grid} foreseenUpTo={data.foreseenUpTo} />}
        {data && groups.length > 0 && by === 'day' && (
          <DayGrid {...grid} foreseenUpTo={data.foreseenUpTo} carrying={carrying} />
        )}
        {carrying.dialog}
      </div>
      {evening && site === null ? (
        <EvenOutSheet
          key={`${grouping} ${evening} ${week}`}
          group={evening}
          among={grouping === 'role' ? { role: evening } : { team: evening }}
          week={week}
          onClose={() => set({ even: '' })}
        />
      ) : (
        openId &&
        openStart && (
          <CellSheet
            key={`${openId} ${openStart}`}
            personId={openId === 'nobody' ? null : openId}
            start={openStart}
            by={by}
            site={site}
            cell={cellOf(data?.rows ?? [], starts, openId, openStart)}
            others={by === 'day' ? othersOf(groups, starts, openId, openStart) : []}
            onCarry={by === 'day' && may('give') && site === null ? carrying.begin : null}
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
  starts: readonly string[],
  here: string,
): { group: string; start: string } | null {
  let found: { group: string; start: string; share: number } | null = null;
  for (const { name, rows } of groups)
    for (const { person, cells } of rows)
      cells.forEach((cell, i) => {
        const start = starts[i] ?? '';
        const share = cell.capacity === 0 ? 0 : workOf(cell) / cell.capacity;
        if (person !== null && start >= here && share > (found?.share ?? 0)) found = { group: name, start, share };
      });
  return found;
}

function cellOf(
  rows: readonly LoadOfPerson[],
  starts: readonly string[],
  id: string,
  start: string,
): WorkloadCell | null {
  const row = rows.find(({ person }) => (person?.id ?? 'nobody') === id);
  return row?.cells[starts.indexOf(start)] ?? null;
}

/** What others of the same group, of all where it is nobody's, have on that day, whoever has the most time first. */
function othersOf(
  groups: readonly Group[],
  starts: readonly string[],
  id: string,
  start: string,
): readonly OtherLoad[] {
  const group = groups.find(({ rows }) => rows.some(({ person }) => person?.id === id));
  const rows = group ? group.rows : groups.flatMap((one) => one.rows);
  return rows
    .flatMap(({ person, cells }) => {
      const cell = cells[starts.indexOf(start)];
      return person && person.id !== id && cell && cell.capacity > 0 ? [{ name: person.name, cell }] : [];
    })
    .sort((a, b) => b.cell.capacity - workOf(b.cell) - (a.cell.capacity - workOf(a.cell)));
}
