import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import { moveThroughRows } from './arrow-rows.ts';

const ROW_HEIGHT = 36;

/** How far down each table was, by its page: whoever comes back finds it there. */
const scrolled = new Map<string, number>();

interface LongTableProps {
  readonly count: number;
  /** Widths of the columns in pixels or per cent; null for what is left. */
  readonly columns: readonly (number | string | null)[];
  readonly minWidth: number;
  readonly head: ReactNode;
  /** Null for one that is not here yet: its place is kept free. */
  readonly row: (index: number) => ReactNode;
  /** Told which rows are in view, for those that are fetched as they are looked at. */
  readonly onView?: (first: number, last: number) => void;
}

/** A table of any length that draws only the rows in view; arrows move through them. */
export function LongTable({ count, columns, minWidth, head, row, onView }: LongTableProps) {
  const frame = useRef<HTMLDivElement>(null);
  const { pathname } = useLocation();
  const [began] = useState(() => scrolled.get(pathname) ?? 0);
  useLayoutEffect(() => {
    if (frame.current && began > 0) frame.current.scrollTop = began;
  }, [began]);
  const window = useVirtualizer({
    count,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 12,
    // Before the frame is measured, a screenful.
    initialRect: { width: 1280, height: 800 },
    initialOffset: began,
  });
  const items = window.getVirtualItems();
  const [first, last] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  useEffect(() => onView?.(first, last), [onView, first, last]);
  const above = items[0]?.start ?? 0;
  const below = window.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <div
      ref={frame}
      className="min-h-0 flex-1 overflow-auto border-t border-line-2"
      onScroll={({ currentTarget }) => scrolled.set(pathname, currentTarget.scrollTop)}
    >
      <table className="tt" style={{ minWidth }} aria-rowcount={count + 1} onKeyDown={moveThroughRows}>
        <colgroup>
          {columns.map((width, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: columns never move
            <col key={i} style={width === null ? undefined : { width }} />
          ))}
        </colgroup>
        <thead>
          <tr>{head}</tr>
        </thead>
        <tbody>
          {above > 0 && <Space height={above} columns={columns.length} />}
          {items.map(({ index }) => row(index) ?? <Space key={index} height={ROW_HEIGHT} columns={columns.length} />)}
          {below > 0 && <Space height={below} columns={columns.length} />}
        </tbody>
      </table>
    </div>
  );
}

function Space({ height, columns }: { readonly height: number; readonly columns: number }) {
  return (
    <tr aria-hidden>
      <td colSpan={columns} style={{ height, padding: 0, border: 0 }} />
    </tr>
  );
}
