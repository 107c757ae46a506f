import type { LoadOfPerson, LoadUnit, WorkloadCell } from '../../../contract/index.ts';
import { groupBy } from '../../../core/index.ts';

export const GROUPINGS = [
  ['role', 'by role'],
  ['team', 'by team'],
] as const;
export type Grouping = (typeof GROUPINGS)[number][0];

/** Hours, to a half: "30", "43.5". */
export const hoursOf = (minutes: number): string => String(Math.round(minutes / 30) / 2);

/** Whether somebody has more to do than they can. */
export const isOver = (cell: WorkloadCell): boolean =>
  cell.capacity > 0 ? workOf(cell) > cell.capacity : workOf(cell) > 0 && cell.isAway;

export const workOf = ({ done, open, foreseen }: WorkloadCell): number => done + open + foreseen;

/** "Wil Sands, Mon 30 Nov: 9 of 7.5 hours, over". */
export function sayCell(label: string, cell: WorkloadCell): string {
  const states = [cell.isAway ? ', away' : '', isOver(cell) ? ', over' : ''].join('');
  return `${label}: ${hoursOf(workOf(cell))} of ${hoursOf(cell.capacity)} hours${states}`;
}

/** Behind the figures of whoever is away. */
export const stripes = (line: '--line' | '--line-2') => ({
  backgroundImage: `repeating-linear-gradient(135deg, var(${line}) 0 1px, transparent 1px 6px)`,
});

/** The same of several, added up. */
export function sumOf(cells: readonly WorkloadCell[]): WorkloadCell {
  const sum = (figure: 'done' | 'open' | 'foreseen' | 'capacity') => cells.reduce((all, one) => all + one[figure], 0);
  return { done: sum('done'), open: sum('open'), foreseen: sum('foreseen'), capacity: sum('capacity'), isAway: false };
}

export interface Group {
  readonly name: string;
  readonly rows: readonly LoadOfPerson[];
}

const NO_GROUP = 'none yet';

/** People by their first role or their team; what is nobody's stands last. */
export function groupsOf(rows: readonly LoadOfPerson[], grouping: Grouping): Group[] {
  const people = rows.filter(({ person }) => person !== null);
  const nobody = rows.filter(({ person }) => person === null);
  const groups = [
    ...groupBy(people, ({ person }) => (grouping === 'role' ? person?.roles[0] : person?.team) ?? NO_GROUP),
  ].map(([name, of]) => ({ name, rows: of }));
  groups.sort((a, b) => Number(a.name === NO_GROUP) - Number(b.name === NO_GROUP) || a.name.localeCompare(b.name));
  return nobody.length > 0 ? [...groups, { name: 'nobody', rows: nobody }] : groups;
}

/** As a spreadsheet takes it: a line for each person and week, or day. */
export function tableOf(starts: readonly string[], groups: readonly Group[], by: LoadUnit): string[][] {
  const hours = (minutes: number) => (minutes / 60).toFixed(2);
  return [
    [
      'group',
      'person',
      by === 'week' ? 'week from' : 'day',
      'hours done',
      'hours to be done',
      'hours foreseen',
      'hours they have',
    ],
    ...groups.flatMap(({ name, rows }) =>
      rows.flatMap(({ person, cells }) =>
        cells.map((cell, i) => [
          ...[name, person?.name ?? 'nobody', starts[i] ?? ''],
          ...[cell.done, cell.open, cell.foreseen, cell.capacity].map(hours),
        ]),
      ),
    ),
  ];
}
