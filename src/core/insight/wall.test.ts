import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { weekdayOf, yearMonthDay } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { anyDay } from '../recurrence/generated.ts';
import {
  cellsOfMarks,
  columnOfDay,
  commonSpans,
  packedMarks,
  spansWithin,
  WALL_LOOKS,
  WALL_SPANS,
  WALL_UNITS,
  wallDays,
  wallHalves,
  wallTurned,
} from './wall.ts';

const TODAY = dayOfIso('2026-11-24');
const said = ({ first, last, columns }: ReturnType<typeof wallDays>) => [isoOfDay(first), isoOfDay(last), columns];

describe('the days of a wallchart', () => {
  it('are whole months around today, in whole weeks where a column is a week', () => {
    expect(said(wallDays('year', 'week', null, TODAY))).toEqual(['2026-06-01', '2027-06-06', 53]);
    expect(said(wallDays('year', 'day', null, TODAY))).toEqual(['2026-06-01', '2027-05-31', 365]);
    expect(said(wallDays('quarter', 'day', null, TODAY))).toEqual(['2026-10-01', '2026-12-31', 92]);
    expect(said(wallDays('half', 'week', null, TODAY))).toEqual(['2026-08-31', '2027-02-28', 26]);
  });

  it('go on where they ended, come back to where they began, and hold each of their days in one column', () => {
    fc.assert(
      fc.property(fc.constantFrom(...WALL_SPANS), fc.constantFrom(...WALL_UNITS), anyDay, (span, unit, today) => {
        const days = wallDays(span, unit, null, today);
        expect(columnOfDay(days, days.first)).toBe(0);
        expect(columnOfDay(days, days.last)).toBe(days.columns - 1);
        expect(days.last - days.first + 1).toBe(days.columns * days.length);
        expect(columnOfDay(days, today)).toBeGreaterThanOrEqual(0);
        expect(columnOfDay(days, today)).toBeLessThan(days.columns);
        if (unit === 'week') expect(weekdayOf(days.first)).toBe(1);
        const later = wallDays(span, unit, wallTurned(span, days, 1), today);
        expect(later.first).toBeLessThanOrEqual(days.last + 1);
        expect(later.first).toBeGreaterThan(days.last - 7);
        expect(yearMonthDay(wallTurned(span, days, 1)).day).toBe(1);
        expect(wallDays(span, unit, wallTurned(span, later, -1), today)).toEqual(days);
      }),
    );
  });

  it('are halved between two columns, about as many before today in the one as in the other', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...WALL_SPANS),
        fc.constantFrom(...WALL_UNITS),
        fc.option(anyDay),
        anyDay,
        (span, unit, from, today) => {
          const days = wallDays(span, unit, from, today);
          const halves = wallHalves(days, today);
          expect([halves[0]?.first, halves.at(-1)?.last]).toEqual([days.first, days.last]);
          const [one, other] = halves;
          if (!one || !other) {
            expect(today).toBeLessThan(days.first + 2 * days.length);
            return;
          }
          expect(other.first).toBe(one.last + 1);
          expect((other.first - days.first) % days.length).toBe(0);
          const over = Math.min(today, days.last) - days.first;
          expect(Math.abs(over - 2 * (other.first - days.first))).toBeLessThan(2 * days.length);
        },
      ),
    );
  });
});

describe('the cells of a row', () => {
  const anyMarks = fc.array(
    fc.record({
      column: fc.integer({ min: 0, max: 365 }),
      look: fc.constantFrom(...WALL_LOOKS),
      count: fc.integer({ min: 1, max: 9 }),
    }),
  );

  it('hold all that was told, added up, with what to look at first in front', () => {
    fc.assert(
      fc.property(anyMarks, (marks) => {
        const cells = cellsOfMarks(packedMarks(marks));
        const sum = (of: readonly { count: number }[]) => of.reduce((total, { count }) => total + count, 0);
        expect(sum(cells)).toBe(sum(marks));
        expect(cells.map(({ column }) => column)).toEqual(
          [...new Set(marks.map(({ column }) => column))].sort((a, b) => a - b),
        );
        for (const { column, looks, count } of cells) {
          expect(sum(looks)).toBe(count);
          expect(count).toBe(sum(marks.filter((mark) => mark.column === column)));
          const places = looks.map(({ look }) => WALL_LOOKS.indexOf(look));
          expect(places).toEqual([...new Set(places)].sort((a, b) => a - b));
        }
      }),
    );
  });

  it('are refused where they are no such numbers', () => {
    expect(() => cellsOfMarks([1, 2])).toThrow(RangeError);
    expect(() => cellsOfMarks([1, WALL_LOOKS.length, 1])).toThrow(RangeError);
  });
});

describe('spans of days', () => {
  const anyDays = fc.uniqueArray(fc.integer({ min: 0, max: 60 }));
  const spansOf = (days: readonly number[]) => spansWithin(0, 60, (day) => days.includes(day));
  const daysOf = (spans: ReturnType<typeof spansOf>) =>
    spans.flatMap(({ from, to }) => Array.from({ length: to - from + 1 }, (_, i) => from + i));

  it('that several lists have in common are the days that all of them have', () => {
    fc.assert(
      fc.property(fc.array(anyDays, { minLength: 1, maxLength: 4 }), (lists) => {
        const common = Array.from({ length: 61 }, (_, day) => day).filter((day) =>
          lists.every((days) => days.includes(day)),
        );
        expect(daysOf(commonSpans(lists.map(spansOf)))).toEqual(common);
      }),
    );
    expect(commonSpans([])).toEqual([]);
  });
});
