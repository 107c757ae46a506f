import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useLayoutEffect, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import { moveThroughRows } from './arrow-rows.ts';

const ROW_HEIGHT = 36;

/** How far down each table was, by its page: whoever comes back finds it there. */
const scrolled = new Map<string, number>();

interface LongTableProps<T> {
  readonly rows: readonly T[];
  /** Widths of the columns in pixels or per cent; null for what is left. */
  readonly columns: readonly (number | string | null)[];
  readonly minWidth: number;
  readonly head: ReactNode;
  readonly row: (row: T, index: number) => ReactNode;
}

/** A table of any length that draws only the rows in view; arrows move through them. */
export function LongTable<T>({ rows, columns, minWidth, head, row }: LongTableProps<T>) {
  const frame = useRef<HTMLDivElement>(null);
  const { pathname } = useLocation();
  const [began] = useState(() => scrolled.get(pathname) ?? 0);
  useLayoutEffect(() => {
    if (frame.current && began > 0) frame.current.scrollTop = began;
  }, [began]);
  const window = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 12,
    // Before the frame is measured, a screenful.
    initialRect: { width: 1280, height: 800 },
    initialOffset: began,
  });
  const items = window.getVirtualItems();
  const above = items[0]?.start ?? 0;
  const below = window.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <div
      ref={frame}
      className="min-h-0 flex-1 overflow-auto border-t border-line-2"
      onScroll={({ currentTarget }) => scrolled.set(pathname, currentTarget.scrollTop)}
    >
      <table className="tt" style={{ minWidth }} aria-rowcount={rows.length + 1} onKeyDown={moveThroughRows}>
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
          {items.map(({ index }) => {
            const one = rows[index];
            return one === undefined ? null : row(one, index);
          })}
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
