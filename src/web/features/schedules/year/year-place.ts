import { type CivilDay, civilDay, monthIndexOf, monthStart, yearMonthDay } from '../../../../core/index.ts';
import { daysIntoWeek } from '../../../kit/ways.ts';

/** Height of a month's line, and of the line of weekdays above, in pixels. */
export const ROW = 20;
export const HEAD = 18;
/** Room for the month's name at the left and the year at the right. */
export const LEFT = 44;
export const RIGHT = 42;
/** Six weeks less the days a month can't reach: weekdays stand in columns. */
export const COLUMNS = 37;

/** Where each day stands in the drawing. */
export interface Place {
  readonly x: (day: CivilDay) => number;
  readonly y: (day: CivilDay) => number;
  readonly cell: number;
  readonly hatch: string;
  /** The day at a point of the drawing; null beside its days. */
  readonly dayAt: (left: number, top: number) => CivilDay | null;
}

/**
 * The places of twelve months from one on.
 * @param hatch the name of the pattern for what is paused
 */
export function placeOf(from: CivilDay, width: number, hatch: string): Place {
  const cell = Math.max(12, (width - LEFT - RIGHT) / COLUMNS);
  const firstMonth = monthIndexOf(from);
  return {
    cell,
    hatch,
    x: (day) => {
      const { year, month, day: date } = yearMonthDay(day);
      return LEFT + (daysIntoWeek(civilDay(year, month, 1)) + date - 1) * cell + cell / 2;
    },
    y: (day) => HEAD + (monthIndexOf(day) - firstMonth) * ROW + ROW / 2,
    dayAt: (left, top) => {
      const row = Math.floor((top - HEAD) / ROW);
      const column = Math.floor((left - LEFT) / cell);
      if (row < 0 || row > 11) return null;
      const first = monthStart(firstMonth + row);
      const day = first + column - daysIntoWeek(first);
      return day >= first && day < monthStart(firstMonth + row + 1) ? day : null;
    },
  };
}

export const MONTH_FONT = { font: '650 14px var(--font-head)', fontStretch: '88%' } as const;
export const SMALL_DAY_FONT = { font: '700 12px var(--font-head)', fontStretch: '75%' } as const;
export const DAY_FONT = { font: '700 14px var(--font-head)', fontStretch: '80%' } as const;
