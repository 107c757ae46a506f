import type { CellPlace } from '../../../../core/index.ts';
import { COLUMNS } from './columns.ts';
import type { SheetLine } from './use-sheet.ts';

/** Cells from one corner to the other; the first is where the keyboard stands. */
export interface CellRange {
  readonly at: CellIndex;
  readonly to: CellIndex;
}
export interface CellIndex {
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

export const cellId = ({ row, column }: CellIndex) => `sheet-cell-${row}-${column}`;

interface Reach {
  readonly last: CellIndex;
  /** Rows of a page. */
  readonly page: number;
}

/** Where a key leads from a cell, beyond the sheet perhaps; undefined for a key that leads nowhere. With Ctrl or ⌘, to the end. */
export function stepOf(
  { key, ctrlKey, metaKey }: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey'>,
  { row, column }: CellIndex,
  { last, page }: Reach,
): CellIndex | undefined {
  const mod = ctrlKey || metaKey;
  const steps: Readonly<Record<string, CellIndex>> = {
    ArrowDown: { row: mod ? last.row : row + 1, column },
    ArrowUp: { row: mod ? 0 : row - 1, column },
    ArrowLeft: { row, column: mod ? 0 : column - 1 },
    ArrowRight: { row, column: mod ? last.column : column + 1 },
    PageDown: { row: row + page, column },
    PageUp: { row: row - page, column },
    Home: { row: mod ? 0 : row, column: 0 },
    End: { row: mod ? last.row : row, column: last.column },
  };
  return steps[key];
}
