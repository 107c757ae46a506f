import { type CivilDay, civilDay, mondayOf, yearMonthDay } from '../civil-date/civil-day.ts';
import { DAYS_A_WEEK } from '../people/week-hours.ts';

/** How much time a wallchart shows. */
export const WALL_SPANS = ['quarter', 'half', 'year'] as const;
export type WallSpan = (typeof WALL_SPANS)[number];
/** What one of its columns is. */
export const WALL_UNITS = ['week', 'day'] as const;
export type WallUnit = (typeof WALL_UNITS)[number];

/** Months that each shows, and how many of them lie before the month of today: less than half, since what is to come is planned. */
const MONTHS: Readonly<Record<WallSpan, number>> = { quarter: 3, half: 6, year: 12 };
const MONTHS_BEHIND: Readonly<Record<WallSpan, number>> = { quarter: 1, half: 2, year: 5 };

/** The days of a wallchart, cut into columns of the same length. */
export interface WallDays {
  readonly first: CivilDay;
  readonly last: CivilDay;
  /** Days of a column. */
  readonly length: number;
  readonly columns: number;
}

/**
 * The days that are shown: whole months, in whole weeks (from Monday) where a column is a week.
 * @param from a day of the first month; null for around today
 */
export function wallDays(span: WallSpan, unit: WallUnit, from: CivilDay | null, today: CivilDay): WallDays {
  const begins = from === null ? monthAway(today, -MONTHS_BEHIND[span]) : monthAway(from, 0);
  const ends = monthAway(begins, MONTHS[span]) - 1;
  if (unit === 'day') return { first: begins, last: ends, length: 1, columns: ends - begins + 1 };
  const first = mondayOf(begins);
  const columns = Math.floor((ends - first) / DAYS_A_WEEK) + 1;
  return { first, last: first + columns * DAYS_A_WEEK - 1, length: DAYS_A_WEEK, columns };
}

/** The first day from which the same span goes on, or from which it ended here. @param way 1 for later, -1 for earlier */
export function wallTurned(span: WallSpan, { first, length }: WallDays, way: 1 | -1): CivilDay {
  // The Monday of a first week may lie in the month before.
  const begins = length === 1 ? first : monthAway(first + DAYS_A_WEEK - 1, 0);
  return monthAway(begins, way * MONTHS[span]);
}

/** The first day of a month so many months away. */
function monthAway(day: CivilDay, months: number): CivilDay {
  const { year, month } = yearMonthDay(day);
  const of = year * 12 + month - 1 + months;
  return civilDay(Math.floor(of / 12), (of % 12) + 1, 1);
}

/** The column of a day; outside of them, less than 0 or beyond the last. */
export function columnOfDay({ first, length }: WallDays, day: CivilDay): number {
  return Math.floor((day - first) / length);
}

/**
 * The days in two parts that no column lies across, as many of them before today in the one as in the other; one part where
 * fewer than two columns lie before today.
 */
export function wallHalves(days: WallDays, today: CivilDay): readonly Pick<WallDays, 'first' | 'last'>[] {
  const { first, last, length } = days;
  const split = first + Math.floor(columnOfDay(days, Math.min(Math.max(today, first), last)) / 2) * length;
  if (split === first) return [{ first, last }];
  return [
    { first, last: split - 1 },
    { first: split, last },
  ];
}

/** How what stands in a cell looks, the one to look at first in front. */
export const WALL_LOOKS = [
  'late',
  'heldUp',
  'toCheck',
  'underWay',
  'open',
  'coming',
  'foreseen',
  'lapsed',
  'skipped',
  'doneLate',
  'done',
] as const;
export type WallLook = (typeof WALL_LOOKS)[number];

/** What stands in one cell: how many look like what, the first to look at in front. */
export interface WallCell {
  readonly column: number;
  readonly looks: readonly { readonly look: WallLook; readonly count: number }[];
  readonly count: number;
}

/** How many numbers stand for one look of a cell: its column, the place of the look among all, and how many. */
const PACKED = 3;

/** The place of each look among all. */
const PLACES = new Map(WALL_LOOKS.map((look, place) => [look, place]));

/** Adds to the cells of a row, as they travel (three numbers for each look of a cell), how many look like that; none of none. */
export function addMark(packed: number[], column: number, look: WallLook, count: number): void {
  if (count > 0) packed.push(column, PLACES.get(look) ?? 0, count);
}

/** The cells of a row, as they travel. */
export function packedMarks(
  marks: readonly { readonly column: number; readonly look: WallLook; readonly count: number }[],
): number[] {
  const packed: number[] = [];
  for (const { column, look, count } of marks) addMark(packed, column, look, count);
  return packed;
}

/**
 * The same read again, in the order of their columns; what is told of one cell apart is added up.
 * @throws RangeError where it is no such list of numbers
 */
export function cellsOfMarks(packed: readonly number[]): WallCell[] {
  if (packed.length % PACKED !== 0) throw new RangeError(`${packed.length} numbers are no marks of a row.`);
  const columns = new Map<number, number[]>();
  for (let at = 0; at < packed.length; at += PACKED) {
    const [column, look, count] = packed.slice(at, at + PACKED) as [number, number, number];
    if (WALL_LOOKS[look] === undefined) throw new RangeError(`${look} is no look of a mark.`);
    const counts = columns.get(column) ?? WALL_LOOKS.map(() => 0);
    counts[look] = (counts[look] ?? 0) + count;
    columns.set(column, counts);
  }
  return [...columns]
    .sort(([a], [b]) => a - b)
    .map(([column, counts]) => {
      const looks = WALL_LOOKS.flatMap((look, i) => (counts[i] ? [{ look, count: counts[i] }] : []));
      return { column, looks, count: looks.reduce((sum, { count }) => sum + count, 0) };
    });
}

/** Some days in a row, both included. */
export interface DaySpan {
  readonly from: CivilDay;
  readonly to: CivilDay;
}

/** The days that lie in a span of every list, each of which is in order and without overlaps; none of no lists. */
export function commonSpans([first, ...others]: readonly (readonly DaySpan[])[]): DaySpan[] {
  return others.reduce<DaySpan[]>(
    (common, spans) => {
      const both: DaySpan[] = [];
      for (let i = 0, j = 0; i < common.length && j < spans.length; ) {
        const [one, other] = [common[i] as DaySpan, spans[j] as DaySpan];
        const [from, to] = [Math.max(one.from, other.from), Math.min(one.to, other.to)];
        if (from <= to) both.push({ from, to });
        if (one.to < other.to) i++;
        else j++;
      }
      return both;
    },
    [...(first ?? [])],
  );
}

/** The days within [from, to] for which something holds, as spans. */
export function spansWithin(from: CivilDay, to: CivilDay, holds: (day: CivilDay) => boolean): DaySpan[] {
  const spans: { from: CivilDay; to: CivilDay }[] = [];
  for (let day = from; day <= to; day++) {
    if (!holds(day)) continue;
    const last = spans.at(-1);
    if (last?.to === day - 1) last.to = day;
    else spans.push({ from: day, to: day });
  }
  return spans;
}
