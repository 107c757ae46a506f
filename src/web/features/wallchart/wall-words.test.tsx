import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { TaskLine, WallDate } from '../../../contract/index.ts';
import { dayOfIso, wallDays } from '../../../core/index.ts';
import type { Marks } from './api.ts';
import { monthsOf, wallPlace } from './wall-place.ts';
import { PAPERS, sheetsOf } from './wall-print.tsx';
import { sayMarks } from './wall-words.ts';

const TODAY = dayOfIso('2026-11-24');
const marks = (tasks: object[], dates: object[], count = { tasks: tasks.length, dates: dates.length }): Marks => ({
  tasks: tasks as TaskLine[],
  dates: dates as WallDate[],
  count,
});
const on = (dueOn: string, title = 'Pontoon D inspection') => ({ dueOn, title });

describe('what is chosen', () => {
  it('is named with its days as long as they are few and of one kind', () => {
    expect(sayMarks(marks([on('2026-12-01'), on('2026-12-08')], [on('2027-01-05')]), TODAY)).toBe(
      'Pontoon D inspection, Tue 1 Dec, Tue 8 Dec and Tue 5 Jan 2027',
    );
    expect(sayMarks(marks([on('2026-12-01')], []), TODAY)).toBe('Pontoon D inspection, Tue 1 Dec');
  });

  it('is counted else, all of it', () => {
    const two = [on('2026-12-01'), on('2026-12-01', 'Life rings')];
    expect(sayMarks(marks(two, [on('2027-01-05')], { tasks: 2, dates: 1 }), TODAY)).toBe(
      '2 tasks and 1 date not made yet',
    );
    expect(sayMarks(marks([], two, { tasks: 0, dates: 800 }), TODAY)).toBe('800 dates not made yet');
  });
});

describe('where the chart is drawn', () => {
  it('fills the room, as long as a mark can be told', () => {
    const year = wallDays('year', 'week', null, TODAY);
    expect(wallPlace(year, 1280).width).toBeCloseTo(1027, 0);
    expect(wallPlace(year, 848).column).toBe(18.5);
    expect(wallPlace(year, 390)).toMatchObject({ isNarrow: true, label: 132 });
  });

  it('names each month once, with its year where another begins', () => {
    expect(monthsOf(wallDays('half', 'week', null, TODAY)).map(({ name }) => name)).toEqual([
      ...['Sep 2026', 'Oct', 'Nov', 'Dec', 'Jan 2027', 'Feb'],
    ]);
    const columns = monthsOf(wallDays('year', 'day', null, TODAY)).map(({ column }) => column);
    expect(columns.slice(0, 4)).toEqual([0, 30, 61, 92]);
  });
});

describe('the sheets of a print', () => {
  it('hold each cell once, and none too many', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PAPERS),
        fc.integer({ min: 1, max: 260 }),
        fc.integer({ min: 1, max: 380 }),
        (paper, rows, columns) => {
          const seen = new Uint8Array(rows * columns);
          for (const { rows: of, columns: across } of sheetsOf(paper, rows, columns)) {
            expect(of[1] - of[0]).toBeLessThanOrEqual(paper === 'A4' ? 26 : 40);
            expect(across[1] - across[0]).toBeLessThanOrEqual(paper === 'A4' ? 54 : 84);
            for (let row = of[0]; row < of[1]; row++)
              for (let column = across[0]; column < across[1]; column++) {
                const at = row * columns + column;
                seen[at] = (seen[at] ?? 0) + 1;
              }
          }
          expect(seen.every((times) => times === 1)).toBe(true);
        },
      ),
      { numRuns: 30 },
    );
  });
});
