import { useVirtualizer } from '@tanstack/react-virtual';
import { type ClipboardEvent, type KeyboardEvent, memo, useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { type CellPlace, pastedInto, readTabs, sheetCell, writeTabs } from '../../../../core/index.ts';
import { COLUMNS, NAME_WIDTH, SHEET_WIDTH } from './columns.ts';
import './sheet-grid.css';
import { editedLine, type Sheet, type SheetLine } from './use-sheet.ts';

const ROW_HEIGHT = 33;

/** Cells from one corner to the other; the first is where the keyboard stands. */
export interface CellRange {
  readonly at: CellIndex;
  readonly to: CellIndex;
}
interface CellIndex {
  readonly row: number;
  readonly column: number;
}

export function spanOf({ at, to }: CellRange) {
  return {
    top: Math.min(at.row, to.row),
    bottom: Math.max(at.row, to.row),
    left: Math.min(at.column, to.column),
    right: Math.max(at.column, to.column),
  };
}

/** The places of a range, row by row. */
export function placesOf(lines: readonly SheetLine[], range: CellRange): CellPlace[][] {
  const { top, bottom, left, right } = spanOf(range);
  return lines
    .slice(top, bottom + 1)
    .map((row) => COLUMNS.slice(left, right + 1).map(({ name }) => ({ row, column: name })));
}

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
    const from = event.shiftKey ? range.to : at;
    const page = Math.max(1, Math.floor((frame.current?.clientHeight ?? 400) / ROW_HEIGHT) - 2);
    const steps: Readonly<Record<string, CellIndex>> = {
      ArrowDown: { row: mod ? last.row : from.row + 1, column: from.column },
      ArrowUp: { row: mod ? 0 : from.row - 1, column: from.column },
      ArrowLeft: { row: from.row, column: mod ? 0 : from.column - 1 },
      ArrowRight: { row: from.row, column: mod ? last.column : from.column + 1 },
      PageDown: { row: from.row + page, column: from.column },
      PageUp: { row: from.row - page, column: from.column },
      Home: { row: mod ? 0 : from.row, column: 0 },
      End: { row: mod ? last.row : from.row, column: last.column },
    };
    const step = steps[event.key];
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

interface SheetRowProps {
  readonly line: SheetLine;
  readonly index: number;
  readonly sheet: Sheet;
  readonly range: CellRange;
  /** What is being typed into the cell where the keyboard stands, if that is in this row. */
  readonly typing: string | null;
  readonly onTyping: (text: string) => void;
  readonly onTake: (text: string, then: CellIndex) => void;
  readonly onPoint: (column: number, how: 'press' | 'extend' | 'enter') => void;
  readonly onLeave: () => void;
}

/** Drawn again only when what it shows changes: while scrolling, rows that stay are left alone. What it calls depends on the same. */
const SheetRow = memo(
  DrawnRow,
  (a, b) =>
    a.line === b.line && a.index === b.index && a.sheet === b.sheet && a.range === b.range && a.typing === b.typing,
);

function DrawnRow({ line, index, sheet, range, typing, onTyping, onTake, onPoint, onLeave }: SheetRowProps) {
  const edited = editedLine(sheet, line);
  const { top, bottom, left, right } = spanOf(range);
  return (
    <tr aria-rowindex={index + 2}>
      <th scope="row" title={`${line.name} ${line.about ?? ''}`}>
        <Link to={`/schedules/${line.id}`} tabIndex={-1} className="font-semibold">
          {line.name}
        </Link>
        {line.about && <span className="ml-2 text-ink-2">{line.about}</span>}
      </th>
      {COLUMNS.map(({ name, words }, column) => {
        const cell = sheetCell(line, name, sheet.edits, edited, sheet.context);
        const isAt = range.at.row === index && range.at.column === column;
        return (
          <td
            key={name}
            id={cellId({ row: index, column })}
            // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: a cell of a grid (ARIA)
            role="gridcell"
            tabIndex={-1}
            aria-colindex={column + 2}
            aria-selected={index >= top && index <= bottom && column >= left && column <= right}
            aria-invalid={cell.problem !== null || undefined}
            data-at={isAt || undefined}
            data-changed={cell.isChanged || undefined}
            data-meanwhile={cell.meanwhile !== null || undefined}
            title={cell.problem?.message ?? cell.text}
            onPointerDown={(event) => {
              if (!isAt || typing === null) onPoint(column, event.shiftKey ? 'extend' : 'press');
            }}
            onPointerEnter={() => onPoint(column, 'enter')}
            onDoubleClick={() => onTyping(cell.text)}
          >
            {isAt && typing !== null ? (
              <CellInput
                label={`${words} of ${line.name}`}
                begun={typing}
                options={name === 'who' ? sheet.context.people.map((one) => one.name) : OPTIONS[name]}
                onTake={(text, step) => onTake(text, { row: index + step.rows, column: column + step.columns })}
                onLeave={onLeave}
              />
            ) : (
              cell.text
            )}
          </td>
        );
      })}
    </tr>
  );
}

function Space({ height }: { readonly height: number }) {
  return (
    <tr aria-hidden>
      <td colSpan={COLUMNS.length + 1} style={{ height, padding: 0, border: 0 }} />
    </tr>
  );
}

const OPTIONS: Readonly<Partial<Record<CellPlace['column'], readonly string[]>>> = {
  appears: ['on the day', '1 day before', '1 working day before', '7 days before'],
  due: ['on the day', '1 day after', '1 working day after'],
  ends: ['never'],
  state: ['running', 'paused', 'ended'],
};

const cellId = ({ row, column }: CellIndex) => `sheet-cell-${row}-${column}`;
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

interface CellInputProps {
  readonly label: string;
  readonly begun: string;
  readonly options: readonly string[] | undefined;
  /** @param step where the keyboard goes on from here */
  readonly onTake: (text: string, step: { readonly rows: number; readonly columns: number }) => void;
  readonly onLeave: () => void;
}

const DOWN = { rows: 1, columns: 0 };

/** The cell that is being typed into. Enter and Tab take it, Esc leaves it as it was, going elsewhere takes it too. */
function CellInput({ label, begun, options, onTake, onLeave }: CellInputProps) {
  const [text, setText] = useState(begun);
  const isOver = useRef(false);
  const over = (then: () => void) => {
    isOver.current = true;
    then();
  };
  return (
    <>
      <input
        // biome-ignore lint/a11y/noAutofocus: it was opened to type into
        autoFocus
        aria-label={label}
        value={text}
        list={options ? 'sheet-options' : undefined}
        onChange={({ target }) => setText(target.value)}
        onBlur={() => {
          if (!isOver.current) over(() => onTake(text, DOWN));
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter' || event.key === 'Tab') {
            event.preventDefault();
            over(() => onTake(text, event.key === 'Enter' ? DOWN : { rows: 0, columns: event.shiftKey ? -1 : 1 }));
          } else if (event.key === 'Escape') {
            event.preventDefault();
            over(onLeave);
          }
        }}
      />
      {options && (
        <datalist id="sheet-options">
          {options.map((option) => (
            <option key={option} value={option} />
          ))}
        </datalist>
      )}
    </>
  );
}
