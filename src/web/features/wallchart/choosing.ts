import { useCallback, useState } from 'react';

/** Cells in a rectangle: some rows by their keys, from one column to another. */
export interface CellBlock {
  readonly keys: readonly string[];
  readonly from: number;
  readonly to: number;
}

/** A cell, by the place of its row and its column. */
export interface CellAt {
  readonly row: number;
  readonly column: number;
}

interface Chosen {
  /** Of which chart it is: in another one nothing is chosen yet. */
  readonly of: string;
  readonly blocks: readonly CellBlock[];
  /** From where a range goes on. */
  readonly anchor: CellAt | null;
}

const NONE: Omit<Chosen, 'of'> = { blocks: [], anchor: null };

/**
 * The chosen cells: one, a range, or several of them.
 * @param of the chart that is shown: its columns are other days in another one
 * @param keyAt the key of the row at a place
 */
export function useChosenCells(of: string, keyAt: (row: number) => string | undefined) {
  const [kept, setKept] = useState<Chosen>({ of, ...NONE });
  const { blocks, anchor } = kept.of === of ? kept : NONE;
  const setChosen = useCallback((next: Omit<Chosen, 'of'>) => setKept({ of, ...next }), [of]);
  const blockOf = (a: CellAt, b: CellAt): CellBlock => {
    const keys: string[] = [];
    for (let row = Math.min(a.row, b.row); row <= Math.max(a.row, b.row); row++) {
      const key = keyAt(row);
      if (key !== undefined) keys.push(key);
    }
    return { keys, from: Math.min(a.column, b.column), to: Math.max(a.column, b.column) };
  };
  const holds = (cell: CellAt) => {
    const key = keyAt(cell.row) ?? '';
    return blocks.some(({ keys, from, to }) => from <= cell.column && cell.column <= to && keys.includes(key));
  };
  return {
    blocks,
    holds,
    chooseOne: (cell: CellAt) => setChosen({ blocks: [blockOf(cell, cell)], anchor: cell }),
    /** One more, or one fewer. */
    toggle(cell: CellAt) {
      const key = keyAt(cell.row) ?? '';
      if (!holds(cell)) return setChosen({ blocks: [...blocks, blockOf(cell, cell)], anchor: cell });
      setChosen({ blocks: blocks.flatMap((block) => withoutCell(block, key, cell.column)), anchor: cell });
    },
    /** From where the last was chosen to here, in place of that one. */
    chooseTo(cell: CellAt, from: CellAt) {
      const begins = anchor ?? from;
      setChosen({ blocks: [...blocks.slice(0, -1), blockOf(begins, cell)], anchor: begins });
    },
    clear: useCallback(() => setChosen(NONE), [setChosen]),
  };
}

/** What is left of a block without one of its cells. */
function withoutCell(block: CellBlock, key: string, column: number): CellBlock[] {
  const { keys, from, to } = block;
  if (column < from || column > to || !keys.includes(key)) return [block];
  const others = keys.filter((one) => one !== key);
  return [
    ...(others.length > 0 ? [{ keys: others, from, to }] : []),
    ...(from < column ? [{ keys: [key], from, to: column - 1 }] : []),
    ...(column < to ? [{ keys: [key], from: column + 1, to }] : []),
  ];
}
