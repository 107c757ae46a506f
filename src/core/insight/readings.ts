import type { IsoDate } from '../civil-date/iso-date.ts';
import { outsideBy } from '../doing/proof.ts';
import { groupBy } from '../group.ts';

/** One figure that was read for a task, with the limits that held for it then. */
export interface Reading {
  /** What is read one after the other has the same: of one step of a template, at one thing. */
  readonly series: string;
  readonly label: string;
  readonly unit: string;
  readonly taskId: string;
  /** The day the task was due. */
  readonly on: IsoDate;
  readonly value: number;
  /** Null for no limit. */
  readonly least: number | null;
  readonly most: number | null;
}

/** The figures of one step over time, the earliest first, under the name and unit it has now. */
export interface ReadingSeries {
  readonly series: string;
  readonly label: string;
  readonly unit: string;
  readonly readings: readonly Reading[];
  /** How many lie outside of what was allowed at the time. */
  readonly outside: number;
}

/** Whether a figure lies beyond a limit; on it, it does not. */
export const liesOutside = (reading: Pick<Reading, 'value' | 'least' | 'most'>): boolean =>
  outsideBy(reading, reading.value) !== 0;

/**
 * Readings put together by what they are of. Where the unit was changed, only those in the unit of now are comparable: the
 * others are left out. Those with the largest share outside their limits come first, then by name.
 * @param readings in any order
 */
export function readingSeries(readings: readonly Reading[]): ReadingSeries[] {
  return [...groupBy(readings, ({ series }) => series)]
    .map(([series, all]): ReadingSeries => {
      const inOrder = all.sort((a, b) => compare(a.on, b.on) || compare(a.taskId, b.taskId));
      const { label, unit } = inOrder.at(-1) as Reading;
      const comparable = inOrder.filter((one) => one.unit === unit);
      return { series, label, unit, readings: comparable, outside: comparable.filter(liesOutside).length };
    })
    .sort(
      (a, b) =>
        b.outside / b.readings.length - a.outside / a.readings.length ||
        a.label.localeCompare(b.label) ||
        compare(a.series, b.series),
    );
}

const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
