import { useVirtualizer } from '@tanstack/react-virtual';
import { type ClipboardEvent, type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { type CellPlace, pastedInto, readTabs, sheetCell, writeTabs } from '../../../../core/index.ts';
import { type CellIndex, type CellRange, cellId, placesOf, spanOf, stepOf } from './cell-range.ts';
import { COLUMNS, NAME_WIDTH, SHEET_WIDTH } from './columns.ts';
import './sheet-grid.css';
import { SheetRow } from './sheet-row.tsx';
import { editedLine, type Sheet, type SheetLine } from './use-sheet.ts';

const ROW_HEIGHT = 33;

interface SheetGridProps {
  readonly lines: readonly SheetLine[];
  readonly sheet: Sheet;
  readonly range: CellRange;
  readonly onRange: (range: CellRange) => void;
}

/** Schedules by columns of text. Arrows move, Shift chooses more, typing changes, the clipboard works as in any spreadsheet. */
export function SheetGrid({ lines, sheet, range, onRange }: SheetGridProps) {
  const frame = useRef<HTMLDivElement>(null);
  const grid = useRef<HTMLTableElement>(null);
  const dragging = useRef(false);
  const [typing, setTyping] = useState<string | null>(null);
  const window = useVirtualizer({
    count: lines.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 10,
    scrollPaddingStart: ROW_HEIGHT,
    initialRect: { width: 1280, height: 800 },
  });
  const { at } = range;
  const last = { row: lines.length - 1, column: COLUMNS.length - 1 };
  const textAt = ({ row, column }: CellPlace) =>
    sheetCell(row, column, sheet.edits, editedLine(sheet, row), sheet.context).text;

  useEffect(() => {
    const end = () => {
      dragging.current = false;
    };
    document.addEventListener('pointerup', end);
    return () => document.removeEventListener('pointerup', end);
  }, []);
  const go = (to: CellIndex, { extend = false } = {}) => {
    const inside = {
      row: Math.max(0, Math.min(last.row, to.row)),
      column: Math.max(0, Math.min(last.column, to.column)),
    };
    onRange(extend ? { at: range.at, to: inside } : { at: inside, to: inside });
    window.scrollToIndex(inside.row);
    scrollSideways(frame.current, inside.column);
  };
  /** The cell that is typed into has to be on the screen, wherever the chosen ones reach to. */
  const begin = (text: string) => {
    window.scrollToIndex(at.row);
    setTyping((before) => (before ?? '') + text);
  };
  const chosen = () => placesOf(lines, range).flat();
  const take = (text: string, then: CellIndex) => {
    sheet.put(chosen().map((place) => ({ ...place, text })));
    setTyping(null);
    grid.current?.focus();
    const isOne = range.at.row === range.to.row && range.at.column === range.to.column;
    if (isOne) go(then);
  };

  const onKeyDown = (event: KeyboardEvent) => {
    if (!isOfGrid(event.target)) return;
    const mod = event.ctrlKey || event.metaKey;
    const page = Math.max(1, Math.floor((frame.current?.clientHeight ?? 400) / ROW_HEIGHT) - 2);
    const step = stepOf(event, event.shiftKey ? range.to : at, { last, page });
    const act = step
      ? () => go(step, { extend: event.shiftKey })
      : event.key === 'Enter' && !mod
        ? () => begin(textAt({ row: lines[at.row] as SheetLine, column: COLUMNS[at.column]?.name ?? 'who' }))
        : event.key === 'Delete' || event.key === 'Backspace'
          ? () => sheet.putBack(chosen())
          : mod && event.key.toLowerCase() === 'z'
            ? sheet.stepBack
            : mod && event.key.toLowerCase() === 'a'
              ? () => onRange({ at: { row: 0, column: at.column }, to: { row: last.row, column: range.to.column } })
              : !mod && !event.altKey && event.key.length === 1
                ? () => begin(event.key)
                : null;
    if (act === null) return;
    event.preventDefault();
    act();
  };
  const onCopy = (event: ClipboardEvent) => {
    if (!isOfGrid(event.target)) return;
    event.preventDefault();
    event.clipboardData.setData('text/plain', writeTabs(placesOf(lines, range).map((line) => line.map(textAt))));
  };
  const onPaste = (event: ClipboardEvent) => {
    if (!isOfGrid(event.target)) return;
    event.preventDefault();
    const block = readTabs(event.clipboardData.getData('text/plain'));
    const { top, left } = spanOf(range);
    const beyond = placesOf(lines, { at: { row: top, column: left }, to: last });
    const texts = pastedInto(block, placesOf(lines, range), beyond);
    sheet.put(texts.map(({ place, text }) => ({ ...place, text })));
    onRange({
      at: { row: top, column: left },
      to: {
        row: Math.max(top, ...texts.map(({ place }) => lines.indexOf(place.row as SheetLine))),
        column: Math.max(left, ...texts.map(({ place }) => COLUMNS.findIndex(({ name }) => name === place.column))),
      },
    });
  };
  const items = window.getVirtualItems();
  const above = items[0]?.start ?? 0;
  const below = window.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <div ref={frame} className="min-h-0 flex-1 overflow-auto border-t border-line-2">
      <table
        ref={grid}
        // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: a table whose cells are edited is a grid (ARIA)
        role="grid"
        tabIndex={0}
        aria-label="Schedules by what can be changed of them"
        aria-rowcount={lines.length + 1}
        aria-colcount={COLUMNS.length + 1}
        aria-multiselectable
        aria-activedescendant={typing === null ? cellId(at) : undefined}
        className="sheet"
        style={{ width: SHEET_WIDTH }}
        onKeyDown={onKeyDown}
        onCopy={onCopy}
        onPaste={onPaste}
      >
        <colgroup>
          <col style={{ width: NAME_WIDTH }} />
          {COLUMNS.map(({ name, width }) => (
            <col key={name} style={{ width }} />
          ))}
        </colgroup>
        <thead>
          <tr>
            <th scope="col">template and for whom</th>
            {COLUMNS.map(({ name, words }) => (
              <th key={name} scope="col">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {above > 0 && <Space height={above} />}
          {items.map(({ index }) => {
            const line = lines[index];
            return line ? (
              <SheetRow
                key={line.id}
                line={line}
                index={index}
                sheet={sheet}
                range={range}
                typing={at.row === index ? typing : null}
                onTyping={setTyping}
                onTake={take}
                onPoint={(column, how) => {
                  const place = { row: index, column };
                  if (how === 'enter') {
                    if (dragging.current) onRange({ at, to: place });
                    return;
                  }
                  dragging.current = true;
                  onRange(how === 'extend' ? { at, to: place } : { at: place, to: place });
                }}
                onLeave={() => {
                  setTyping(null);
                  grid.current?.focus();
                }}
              />
            ) : null;
          })}
          {below > 0 && <Space height={below} />}
        </tbody>
      </table>
    </div>
  );
}

function Space({ height }: { readonly height: number }) {
  return (
    <tr aria-hidden>
      <td colSpan={COLUMNS.length + 1} style={{ height, padding: 0, border: 0 }} />
    </tr>
  );
}

/** A key in a cell's own field is that field's. */
const isOfGrid = (target: EventTarget) => !(target instanceof HTMLInputElement);

/** Keeps the first column, which stays in place, off the cell. */
function scrollSideways(frame: HTMLElement | null, column: number): void {
  if (!frame) return;
  const left = COLUMNS.slice(0, column).reduce((sum, { width }) => sum + width, 0);
  const right = left + (COLUMNS[column]?.width ?? 0) + NAME_WIDTH;
  if (left < frame.scrollLeft) frame.scrollLeft = left;
  else if (right > frame.scrollLeft + frame.clientWidth) frame.scrollLeft = right - frame.clientWidth;
}
