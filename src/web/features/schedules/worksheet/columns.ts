import type { CellName } from '../../../../core/index.ts';

/** The columns of the sheet after the first, which names the schedule: their words, and how wide in pixels. */
export const COLUMNS: readonly { readonly name: CellName; readonly words: string; readonly width: number }[] = (
  [
    ['who', 'who', 122],
    ['when', 'when', 262],
    ['appears', 'appears', 152],
    ['from', 'from', 76],
    ['due', 'due', 126],
    ['by', 'by', 92],
    ['ends', 'ends', 108],
    ['state', 'state', 98],
    ['plan', 'client’s plans', 168],
  ] as const
).map(([name, words, width]) => ({ name, words, width }));

export const NAME_WIDTH = 236;
export const SHEET_WIDTH = NAME_WIDTH + COLUMNS.reduce((sum, { width }) => sum + width, 0);
