import { memo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { type CellPlace, sheetCell } from '../../../../core/index.ts';
import { type CellIndex, type CellRange, cellId, spanOf } from './cell-range.ts';
import { COLUMNS } from './columns.ts';
import { editedLine, type Sheet, type SheetLine } from './use-sheet.ts';

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
export const SheetRow = memo(
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
        </Link>{' '}
        {line.about && <span className="ml-1 text-ink-2">{line.about}</span>}
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
                options={optionsOf(name, sheet)}
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

function optionsOf(name: CellPlace['column'], { context }: Sheet): readonly string[] | undefined {
  if (name === 'who') return context.people.map((one) => one.name);
  return name === 'plan' ? context.plans?.map((one) => one.name) : OPTIONS[name];
}

const OPTIONS: Readonly<Partial<Record<CellPlace['column'], readonly string[]>>> = {
  appears: ['on the day', '1 day before', '1 working day before', '7 days before'],
  due: ['on the day', '1 day after', '1 working day after'],
  ends: ['never'],
  state: ['running', 'paused', 'ended'],
};

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
