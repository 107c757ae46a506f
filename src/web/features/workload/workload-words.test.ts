import { describe, expect, it } from 'vitest';
import type { LoadOfPerson, WorkloadCell } from '../../../contract/index.ts';
import { groupsOf, hoursOf, isOver, sayCell, sumOf, tableOf, workOf } from './workload-words.ts';

const cell = (of: Partial<WorkloadCell> = {}): WorkloadCell => ({
  ...{ done: 0, open: 0, foreseen: 0, capacity: 450, isAway: false },
  ...of,
});
const row = (name: string | null, roles: string[], team: string | null, cells = [cell()]): LoadOfPerson => ({
  person: name === null ? null : { id: name, name, roles, team },
  cells,
});

describe('figures of the workload', () => {
  it('are hours to a half, of all that there is', () => {
    expect(['0', '0.5', '7.5', '24'].map(Number).map((hours) => hoursOf(hours * 60))).toEqual([
      '0',
      '0.5',
      '7.5',
      '24',
    ]);
    expect(workOf(cell({ done: 10, open: 20, foreseen: 30 }))).toBe(60);
    expect(sumOf([cell({ done: 10 }), cell({ open: 5, isAway: true })])).toEqual({
      ...{ done: 10, open: 5, foreseen: 0, capacity: 900, isAway: false },
    });
  });

  it('are over where there is more than the hours, or anything at all while somebody is away', () => {
    expect(sayCell('Wil, Mon 30 Nov', cell({ open: 540 }))).toBe('Wil, Mon 30 Nov: 9 of 7.5 hours, over');
    expect(sayCell('Wil, Mon 30 Nov', cell({ capacity: 0, isAway: true }))).toBe('Wil, Mon 30 Nov: 0 of 0 hours, away');
    expect(isOver(cell({ open: 450 }))).toBe(false);
    expect(isOver(cell({ open: 451 }))).toBe(true);
    expect(isOver(cell({ capacity: 0, isAway: true }))).toBe(false);
    expect(isOver(cell({ open: 5, capacity: 0, isAway: true }))).toBe(true);
    // On a day off that nobody works, work is no news here: it is told by its bar.
    expect(isOver(cell({ open: 5, capacity: 0 }))).toBe(false);
  });

  it('stand by role or team, those of neither behind them and what is nobody’s last', () => {
    const rows = [
      row('Ada', [], 'yard'),
      row('Ben', ['crew'], null),
      row(null, [], null),
      row('Cy', ['crew', 'yard'], 'yard'),
    ];
    const names = (by: 'role' | 'team') => groupsOf(rows, by).map((group) => `${group.name}: ${group.rows.length}`);
    expect(names('role')).toEqual(['crew: 2', 'none yet: 1', 'nobody: 1']);
    expect(names('team')).toEqual(['yard: 2', 'none yet: 1', 'nobody: 1']);
  });

  it('are taken out as hours with two places, a line for each person and week or day', () => {
    const groups = groupsOf([row('Ben', ['crew'], null, [cell({ done: 50, open: 100 })])], 'role');
    const [head, line] = tableOf(['2026-11-24'], groups, 'day');
    expect(head?.[2]).toBe('day');
    expect(tableOf([], groups, 'week')[0]?.[2]).toBe('week from');
    expect(line).toEqual(['crew', 'Ben', '2026-11-24', '0.83', '1.67', '0.00', '7.50']);
  });
});
