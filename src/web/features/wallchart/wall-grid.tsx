import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, type PointerEvent, useEffect, useId, useMemo, useState } from 'react';
import type { WallRow } from '../../../contract/index.ts';
import { columnOfDay, DAYS_A_WEEK, plural, type WallDays } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useWidth } from '../../kit/width.ts';
import type { CellAt, CellBlock } from './choosing.ts';
import { WallGround, WallHead } from './wall-head.tsx';
import { HEAD_HEIGHT, ROW_HEIGHT, wallPlace } from './wall-place.ts';
import { cellsOf, WallRowLine } from './wall-row.tsx';
import { sayCell, sayColumn } from './wall-words.ts';

/** Columns drawn beyond those in view, so that not every step sideways draws anew. */
const SPARE_COLUMNS = 12;
const ROWS_A_PAGE = 15;

export interface GridChoosing {
  readonly blocks: readonly CellBlock[];
  readonly holds: (cell: CellAt) => boolean;
  readonly chooseOne: (cell: CellAt) => void;
  readonly toggle: (cell: CellAt) => void;
  readonly chooseTo: (cell: CellAt, from: CellAt) => void;
  readonly clear: () => void;
}

interface WallGridProps {
  readonly days: WallDays;
  readonly rows: readonly WallRow[];
  /** Of all rows, whether they are here or not. */
  readonly count: number;
  readonly onMore: () => void;
  readonly choosing: GridChoosing;
  readonly onOpen: (cell: CellAt) => void;
  /** Moves what stands in a cell, or all that is chosen with it, by so many columns; null where that is not allowed. */
  readonly onMove: ((cell: CellAt, columns: number) => void) | null;
  /** The rows to which something is added; null while nothing is. */
  readonly picked: ReadonlySet<string> | null;
  readonly onPick: (key: string) => void;
}

/** What the pointer is doing: choosing a range, or carrying what stands in a cell. */
interface Pressed {
  readonly from: CellAt;
  readonly carries: boolean;
  readonly at: CellAt;
}

/** Rows against days or weeks: moved through by keys, chosen by keys and mouse, carried to another day. */
export function WallGrid(props: WallGridProps) {
  const { days, rows, count, onMore, choosing, onOpen, onMove, picked, onPick } = props;
  const { today } = useWorkspace();
  const [frame, room] = useWidth<HTMLDivElement>();
  const place = useMemo(() => wallPlace(days, Math.max(room, 400)), [days, room]);
  const { column: wide, width, label } = place;
  const [cursor, setCursor] = useState<CellAt>({ row: 0, column: 0 });
  const [sideways, setSideways] = useState(0);
  const [pressed, setPressed] = useState<Pressed | null>(null);
  const cursorId = useId();
  const window = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 3,
    scrollMargin: HEAD_HEIGHT,
    initialRect: { width: 1280, height: 640 },
  });
  const items = window.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (rows.length < count && last >= rows.length - 40) onMore();
  }, [last, rows.length, count, onMore]);
  // A step of several columns, so that rows stay as they are drawn while it is scrolled within it.
  const from = Math.max(0, Math.floor(sideways / wide / SPARE_COLUMNS) * SPARE_COLUMNS - SPARE_COLUMNS);
  const to = Math.min(
    days.columns - 1,
    Math.ceil((sideways + Math.max(0, room - label)) / wide / SPARE_COLUMNS) * SPARE_COLUMNS + SPARE_COLUMNS,
  );
  const [seen, setSeen] = useState<WallDays | null>(null);
  // Other days: the cursor goes to today, which stands in view with some of the past.
  if (seen !== days) {
    setSeen(days);
    setCursor(({ row }) => ({ row, column: Math.max(0, Math.min(days.columns - 1, columnOfDay(days, today))) }));
  }
  useEffect(() => {
    const column = Math.max(0, columnOfDay(days, today));
    if (frame.current) frame.current.scrollLeft = Math.max(0, column * wide - (frame.current.clientWidth - label) / 3);
  }, [days, today, wide, label, frame]);

  const chosenOf = useMemo(() => {
    const byKey = new Map<string, string>();
    for (const { keys, from: first, to: end } of choosing.blocks)
      for (const key of keys) byKey.set(key, [byKey.get(key), `${first}-${end}`].filter(Boolean).join(','));
    return byKey;
  }, [choosing.blocks]);

  const show = (cell: CellAt) => {
    window.scrollToIndex(cell.row);
    const box = frame.current;
    if (!box) return;
    const [left, right] = [cell.column * wide, (cell.column + 1) * wide];
    const seen = box.clientWidth - label;
    if (left < box.scrollLeft) box.scrollLeft = left;
    else if (right > box.scrollLeft + seen) box.scrollLeft = right - seen;
  };
  const goTo = (row: number, column: number): CellAt => {
    const cell = {
      row: Math.max(0, Math.min(rows.length - 1, row)),
      column: Math.max(0, Math.min(days.columns - 1, column)),
    };
    setCursor(cell);
    show(cell);
    return cell;
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget || event.altKey) return;
    const steps: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      PageUp: [-ROWS_A_PAGE, 0],
      PageDown: [ROWS_A_PAGE, 0],
      Home: [0, -days.columns],
      End: [0, days.columns],
    };
    const step = steps[event.key];
    if (step) {
      event.preventDefault();
      const cell = goTo(cursor.row + step[0], cursor.column + step[1]);
      if (event.shiftKey) choosing.chooseTo(cell, cursor);
    } else if (event.key === ' ') {
      event.preventDefault();
      choosing.toggle(cursor);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      onOpen(cursor);
    } else if (event.key === 'Escape' && choosing.blocks.length > 0) {
      event.stopPropagation();
      choosing.clear();
    }
  };

  const cellAt = (event: PointerEvent): CellAt | null => {
    const box = frame.current?.getBoundingClientRect();
    if (!box || !frame.current) return null;
    const x = event.clientX - box.left - label + frame.current.scrollLeft;
    const y = event.clientY - box.top - HEAD_HEIGHT + frame.current.scrollTop;
    if (event.clientX - box.left < label || event.clientY - box.top < HEAD_HEIGHT) return null;
    const cell = { row: Math.floor(y / ROW_HEIGHT), column: Math.floor(x / wide) };
    return cell.row < rows.length && cell.column < days.columns ? cell : null;
  };
  const markAt = ({ row, column }: CellAt) => {
    const of = rows[row];
    return of && cellsOf(of).find((cell) => cell.column === column);
  };
  /** Whether something there is still to be done. */
  const canBeCarried = (cell: CellAt) =>
    onMove !== null &&
    (markAt(cell)?.looks.some(({ look }) => ['late', 'heldUp', 'open', 'coming', 'foreseen'].includes(look)) ?? false);
  const carried = pressed?.carries && pressed.at.column !== pressed.from.column ? pressed : null;
  return (
    <div
      ref={frame}
      // Rows and cells are drawn in SVG, only those in view: a table could hold neither. The grid has the focus.
      role="grid"
      aria-label="Wallchart"
      aria-rowcount={count + 1}
      aria-colcount={days.columns + 1}
      aria-multiselectable
      aria-activedescendant={rows.length > 0 ? cursorId : undefined}
      tabIndex={0}
      className="group/wall relative min-h-0 flex-1 touch-pan-x touch-pan-y overflow-auto border-t border-line-2 select-none focus:shadow-none focus:outline-none"
      onKeyDown={onKeyDown}
      onScroll={({ currentTarget }) => {
        const step = Math.floor(currentTarget.scrollLeft / wide / SPARE_COLUMNS) * SPARE_COLUMNS * wide;
        if (step !== sideways) setSideways(step);
      }}
      onPointerDown={(event) => {
        if (event.button !== 0 || event.pointerType === 'touch' || !(event.target instanceof Element)) return;
        if (event.target.closest('input, a, button')) return;
        const cell = cellAt(event);
        if (!cell) return;
        event.preventDefault();
        event.currentTarget.focus({ preventScroll: true });
        setCursor(cell);
        if (event.shiftKey) return choosing.chooseTo(cell, cursor);
        if (event.ctrlKey || event.metaKey) return choosing.toggle(cell);
        const carries = canBeCarried(cell);
        if (!(carries && choosing.holds(cell))) choosing.chooseOne(cell);
        event.currentTarget.setPointerCapture(event.pointerId);
        setPressed({ from: cell, at: cell, carries });
      }}
      onPointerMove={(event) => {
        if (!pressed) return;
        const cell = cellAt(event);
        if (!cell || (cell.row === pressed.at.row && cell.column === pressed.at.column)) return;
        setPressed({ ...pressed, at: cell });
        if (!pressed.carries) {
          setCursor(cell);
          choosing.chooseTo(cell, pressed.from);
        }
      }}
      onPointerUp={() => {
        if (carried) onMove?.(carried.from, carried.at.column - carried.from.column);
        setPressed(null);
      }}
      onPointerCancel={() => setPressed(null)}
      onClick={(event) => {
        // By touch a cell is chosen by a tap: dragging scrolls.
        if ((event.nativeEvent as globalThis.PointerEvent).pointerType !== 'touch') return;
        const cell = cellAt(event as unknown as PointerEvent);
        if (!cell) return;
        setCursor(cell);
        choosing.chooseOne(cell);
      }}
      onDoubleClick={(event) => {
        const cell = cellAt(event as unknown as PointerEvent);
        if (cell) onOpen(cell);
      }}
    >
      <div role="rowgroup">
        <WallHead place={place} from={from} to={to} />
      </div>
      <WallGround place={place} from={from} to={to} rows={rows.length} />
      <div role="rowgroup" className="relative" style={{ height: window.getTotalSize(), width: label + width }}>
        {items.map(({ index, start }) => {
          const row = rows[index];
          if (!row) return null;
          const hasCursor = cursor.row === index;
          return (
            <div
              key={row.key}
              role="presentation"
              className="absolute left-0"
              style={{ transform: `translateY(${start - HEAD_HEIGHT}px)` }}
            >
              <WallRowLine
                row={row}
                index={index}
                place={place}
                hasGroup={index === 0 || rows[index - 1]?.group !== row.group || index === items[0]?.index}
                isLast={rows[index + 1]?.group !== row.group}
                from={from}
                to={to}
                chosen={chosenOf.get(row.key) ?? ''}
                cursor={hasCursor ? cursor.column : null}
                cursorId={cursorId}
                cursorWords={hasCursor ? sayCell(row.name, days, cursor.column, markAt(cursor), today) : ''}
                isPicked={picked === null ? null : picked.has(row.key)}
                onPick={onPick}
              />
            </div>
          );
        })}
        {carried && (
          <div
            className="pointer-events-none absolute z-1 rounded-[3px] border-2 border-dashed border-accent outline-1 outline-primary"
            style={{
              left: label + carried.at.column * wide,
              top: carried.from.row * ROW_HEIGHT,
              width: wide,
              height: ROW_HEIGHT - 1,
            }}
          >
            <span
              role="status"
              className="absolute top-7 left-0 border border-ink bg-base-100 px-2 py-0.5 text-row whitespace-nowrap"
            >
              {sayShift(carried.at.column - carried.from.column, days.length)},{' '}
              {sayColumn(days, carried.at.column, today)}
            </span>
          </div>
        )}
      </div>
    </div>
  );
}

/** "2 weeks later" */
export function sayShift(columns: number, length: number): string {
  const amount = Math.abs(columns);
  return `${plural(amount, length === DAYS_A_WEEK ? 'week' : 'day')} ${columns < 0 ? 'earlier' : 'later'}`;
}
