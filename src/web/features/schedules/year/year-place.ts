import type { CivilDay } from '../../../../core/index.ts';

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
}

export const MONTH_FONT = { font: '650 14px var(--font-head)', fontStretch: '88%' } as const;
export const SMALL_DAY_FONT = { font: '700 12px var(--font-head)', fontStretch: '75%' } as const;
export const DAY_FONT = { font: '700 14px var(--font-head)', fontStretch: '80%' } as const;
