import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Outlet, useMatch } from 'react-router';
import { ROWS_WITH_SCHEDULES, type WallBlock, type WallReach } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay, plural, WALL_LOOKS, type WallDays } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { AddSheet } from './add-sheet.tsx';
import { type Chart, useChart, useMarks, useWallActions } from './api.ts';
import { WallCellSheet } from './cell-sheet.tsx';
import { type CellAt, type CellBlock, useChosenCells } from './choosing.ts';
import { hueOf, symbolOf, WallSymbols } from './symbols.tsx';
import { useWallFilter, WallTime, WallWords } from './wall-filter.tsx';
import { useMarksLookedAt, WallFoot } from './wall-foot.tsx';
import { sayShift, WallGrid } from './wall-grid.tsx';
import { dayAt } from './wall-place.ts';
import { PAPERS, type Paper, WallPrint } from './wall-print.tsx';
import { LOOK_SHAPES, ROW_WORDS, sayColumn } from './wall-words.ts';

const addableOf = (rows: string) => ROWS_WITH_SCHEDULES.find((one) => one === rows) ?? null;

/** Rows of what work is for or by whom, against the weeks of a year: what was done, is to be done, and is foreseen. */
export default function WallchartPage() {
  const { may, today } = useWorkspace();
  const view = useWallFilter();
  const { asked, search, set } = view;
  const { pages, first, last, error, more, again } = useChart(asked);
  const rows = useMemo(() => pages.flatMap((page) => page.rows), [pages]);
  const days = useDays(first);
  const count = last?.count ?? 0;
  const keyAt = useCallback((row: number) => rows[row]?.key, [rows]);
  const choosing = useChosenCells(JSON.stringify([asked.rows, asked.by, first?.first]), keyAt);
  const chartArea = useRef<HTMLDivElement>(null);
  const { clear } = choosing;
  const [reach, setReach] = useState<WallReach>('these');
  const [cleared, setCleared] = useState(0);
  const clearChosen = useCallback(() => {
    clear();
    // The next ones are chosen for themselves.
    setReach('these');
    setCleared((times) => times + 1);
  }, [clear]);
  // What was pressed has gone with the foot, and with the dialog over the page: the keys go on in the chart.
  useEffect(() => {
    if (cleared > 0) chartArea.current?.querySelector<HTMLElement>('[role=grid]')?.focus();
  }, [cleared]);
  const [picked, setPicked] = useState<ReadonlySet<string> | null>(null);
  const [paper, setPaper] = useState<Paper | null>(null);
  const blocksOf = (blocks: readonly CellBlock[]): WallBlock[] =>
    days === null
      ? []
      : blocks.map(({ keys, from, to }) => ({
          keys: [...keys],
          from: isoOfDay(dayAt(days, from)),
          to: isoOfDay(dayAt(days, to) + days.length - 1),
        }));
  const chosen = useMarks(asked, blocksOf(choosing.blocks));
  const { marksOf } = useWallActions();
  const moving = useMarksLookedAt(clearChosen);
  const isTaskOpen = useMatch('/wallchart/task/:taskId') !== null;
  const [openKey, openFrom, openTo] = (search.get('cell') ?? '').split(' ');
  const showBlock = (block: CellBlock) => {
    const [of] = blocksOf([block]);
    // Names of roles may hold blanks.
    if (of) set({ cell: [encodeURIComponent(of.keys[0] ?? ''), of.from, of.to].join(' ') });
  };
  const open = ({ row, column }: CellAt) => {
    const key = rows[row]?.key;
    if (key !== undefined) showBlock({ keys: [key], from: column, to: column });
  };
  const move = async (cell: CellAt, columns: number) => {
    if (days === null) return;
    const key = rows[cell.row]?.key ?? '';
    const blocks = choosing.holds(cell) ? choosing.blocks : [{ keys: [key], from: cell.column, to: cell.column }];
    try {
      const marks = await marksOf(asked, blocksOf(blocks));
      const to =
        blocks.length === 1 && blocks[0]?.from === blocks[0]?.to
          ? `, to the ${sayColumn(days, cell.column + columns, today)}`
          : '';
      moving.lookAt(
        marks,
        reach,
        { kind: 'move', days: columns * days.length },
        `moved ${sayShift(columns, days.length)}${days.length === 1 ? '' : to}`,
      );
    } catch (trouble) {
      sayTrouble(trouble);
    }
  };
  const addable = may('plan') ? addableOf(asked.rows) : null;
  const pick = useCallback((key: string) => {
    setPicked((was) => {
      const next = new Set(was);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  }, []);
  const begin = () => setPicked(new Set(choosing.blocks.flatMap(({ keys }) => keys)));
  const done = useCallback(() => setPaper(null), []);
  const rowAt = openKey ? decodeURIComponent(openKey) : '';
  return (
    <div className="flex min-h-0 flex-1">
      <title>Wallchart · Jolly Rota</title>
      <WallSymbols />
      <div ref={chartArea} className="flex min-w-0 flex-1 flex-col print:hidden">
        <div className="page-head">
          <h1>Wallchart</h1>
          <WallWords view={view} names={first?.names} />
          <span className="ml-auto flex items-center gap-4">
            <span className="flex gap-2 text-row text-ink-2 max-[900px]:hidden">
              {rows.length < count ? `Print the first ${rows.length.toLocaleString('en-GB')} on` : 'Print on'}
              {PAPERS.map((one) => (
                <button
                  key={one}
                  type="button"
                  className="link-line"
                  disabled={rows.length === 0}
                  onClick={() => setPaper(one)}
                >
                  {one}
                </button>
              ))}
            </span>
            {addable && (
              <button type="button" className="btn btn-primary" onClick={begin}>
                Add a schedule to rows
              </button>
            )}
          </span>
        </div>
        <div className="flex flex-none flex-wrap items-center gap-x-5 gap-y-1 px-5 pb-1.5 text-note text-ink-2">
          {days && <WallTime view={view} days={days} />}
          <span role="status">{first && plural(count, 'row')}</span>
          <Legend />
        </div>
        {error && !first && <Trouble error={error} retry={again} />}
        {!error && !first && <Skeleton rows={18} />}
        {first && count === 0 && (
          <Empty title={`No ${ROW_WORDS[asked.rows]} to show.`}>
            Rows stand here as soon as they have work.{' '}
            <button
              type="button"
              className="link-line"
              onClick={() =>
                set({
                  find: '',
                  category: '',
                  person: '',
                  role: '',
                  team: '',
                  site: '',
                  client: '',
                  template: '',
                  empty: 'yes',
                })
              }
            >
              Show all {ROW_WORDS[asked.rows]}
            </button>
          </Empty>
        )}
        {days && rows.length > 0 && (
          <WallGrid
            key={`${asked.rows} ${asked.by} ${asked.span}`}
            days={days}
            rows={rows}
            count={count}
            onMore={more}
            choosing={choosing}
            onOpen={open}
            onMove={may('plan') ? (cell, columns) => void move(cell, columns) : null}
            picked={picked}
            onPick={pick}
          />
        )}
        {moving.dialog}
        {choosing.blocks.length > 0 && picked === null && (
          <WallFoot
            marks={chosen.data}
            reach={reach}
            onReach={setReach}
            mayPlan={may('plan')}
            // A sheet shows one row: of several there is none for all.
            onShow={
              choosing.blocks.length === 1 && choosing.blocks[0]?.keys.length === 1
                ? () => choosing.blocks[0] && showBlock(choosing.blocks[0])
                : null
            }
            onClear={clearChosen}
          />
        )}
      </div>
      {paper && days && (
        <WallPrint
          title={`Wallchart, ${ROW_WORDS[asked.rows]}`}
          // What is not on these sheets is said on each.
          part={rows.length < count ? `the first ${rows.length} of ${count} rows` : ''}
          days={days}
          rows={rows}
          paper={paper}
          onDone={done}
        />
      )}
      {picked !== null && addable ? (
        <AddSheet
          rows={addable}
          picked={rows.filter(({ key }) => picked.has(key))}
          onClose={() => setPicked(null)}
          onSaved={() => {
            setPicked(null);
            clearChosen();
          }}
        />
      ) : (
        !isTaskOpen &&
        openKey &&
        openFrom &&
        openTo && (
          <WallCellSheet
            key={`${openKey} ${openFrom}`}
            asked={asked}
            row={rows.find(({ key }) => key === rowAt)}
            rowKey={rowAt}
            from={openFrom}
            to={openTo}
            search={search.toString()}
            onClose={() => set({ cell: '' })}
          />
        )
      )}
      <Outlet />
    </div>
  );
}

/** The same days are the same, whenever they are told again: nothing is drawn anew for them. */
function useDays(chart: Chart | undefined): WallDays | null {
  const { first, length = 0, columns = 0 } = chart ?? {};
  return useMemo(() => {
    if (first === undefined) return null;
    const from = dayOfIso(first);
    return { first: from, last: from + length * columns - 1, length, columns };
  }, [first, length, columns]);
}

/** What the shapes mean: told by shape, so that it can be read without colour. */
function Legend() {
  return (
    <span className="flex flex-wrap items-center gap-x-3 gap-y-0.5">
      {[...WALL_LOOKS].reverse().map((look) => (
        <span key={look} className="inline-flex items-center gap-1 whitespace-nowrap">
          <svg width={14} height={14} className={hueOf(look)} aria-hidden>
            <use href={`#${symbolOf(look)}`} width={14} height={14} />
          </svg>
          {LOOK_SHAPES[look].words}
        </span>
      ))}
      <span className="whitespace-nowrap">
        <b className="font-head font-[650] text-late font-stretch-[84%]">2/6</b> late of several
      </span>
    </span>
  );
}
