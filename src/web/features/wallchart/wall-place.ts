import { type CivilDay, monthShort, type WallDays, yearMonthDay } from '../../../core/index.ts';

export const ROW_HEIGHT = 28;
export const HEAD_HEIGHT = 42;
/** What stands left of the cells: the group and the name; where there is little room, the name alone. */
const LABEL_WIDTH = 252;
const NARROW_LABEL_WIDTH = 132;
const NARROW = 560;
/** Columns are this wide at least, so that a mark can be told and hit. */
const LEAST_COLUMN = 18.5;

/** Where everything of the chart is drawn: pixels from its left edge, without the names. */
export interface WallPlace {
  readonly days: WallDays;
  readonly column: number;
  readonly width: number;
  /** Of what stands left of them. */
  readonly label: number;
  readonly isNarrow: boolean;
}

export function wallPlace(days: WallDays, room: number): WallPlace {
  const isNarrow = room < NARROW;
  const label = isNarrow ? NARROW_LABEL_WIDTH : LABEL_WIDTH;
  const column = Math.max(LEAST_COLUMN, (room - label - 1) / days.columns);
  return { days, column, width: column * days.columns, label, isNarrow };
}

/** The columns at which months begin, with their names; the first, and each January, with its year. */
export function monthsOf({ first, length, columns }: WallDays): { readonly column: number; readonly name: string }[] {
  const months: { column: number; name: string }[] = [];
  let before = -1;
  for (let column = 0; column < columns; column++) {
    // A week belongs to the month in which it ends.
    const { year, month } = yearMonthDay(first + column * length + length - 1);
    if (month !== before)
      months.push({ column, name: `${monthShort(month)}${before === -1 || month === 1 ? ` ${year}` : ''}` });
    before = month;
  }
  return months;
}

export const dayAt = ({ first, length }: WallDays, column: number): CivilDay => first + column * length;
