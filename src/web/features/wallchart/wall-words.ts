import type { WallReach, WallRows } from '../../../contract/index.ts';
import {
  type CivilDay,
  DAYS_A_WEEK,
  dayOfIso,
  plural,
  type WallCell,
  type WallDays,
  type WallLook,
  type WallSpan,
  type WallUnit,
} from '../../../core/index.ts';
import type { PennantState } from '../../kit/pennant.tsx';
import { sayDay, sayDayOfMonth } from '../../kit/ways.ts';
import type { Marks } from './api.ts';

/** How each look is drawn, and said in the legend. */
export const LOOK_SHAPES: Readonly<
  Record<
    WallLook,
    { readonly state: PennantState; readonly late: boolean; readonly heldUp: boolean; readonly words: string }
  >
> = {
  done: { state: 'done', late: false, heldUp: false, words: 'done' },
  doneLate: { state: 'done', late: true, heldUp: false, words: 'done late' },
  open: { state: 'open', late: false, heldUp: false, words: 'open' },
  underWay: { state: 'underWay', late: false, heldUp: false, words: 'under way' },
  toCheck: { state: 'toCheck', late: false, heldUp: false, words: 'to check' },
  late: { state: 'open', late: true, heldUp: false, words: 'late' },
  heldUp: { state: 'open', late: false, heldUp: true, words: 'held up' },
  coming: { state: 'coming', late: false, heldUp: false, words: 'coming' },
  foreseen: { state: 'bare', late: false, heldUp: false, words: 'not made yet' },
  skipped: { state: 'skipped', late: false, heldUp: false, words: 'skipped' },
  lapsed: { state: 'lapsed', late: false, heldUp: false, words: 'lapsed' },
};

export const ROW_WORDS: Readonly<Record<WallRows, string>> = {
  asset: 'assets',
  site: 'sites',
  client: 'clients',
  person: 'people',
  role: 'roles',
  template: 'templates',
  schedule: 'schedules',
};
export const SPAN_WORDS: Readonly<Record<WallSpan, string>> = {
  quarter: 'over a quarter',
  half: 'over half a year',
  year: 'over a year',
};
export const UNIT_WORDS: Readonly<Record<WallUnit, string>> = { week: 'by the week', day: 'by the day' };
export const REACH_WORDS: Readonly<Record<WallReach, string>> = {
  these: 'only these',
  later: 'these and later',
  series: 'the series',
};

/** "week of 7 Dec", "Mon 7 Dec" */
export function sayColumn({ first, length }: WallDays, column: number, today: CivilDay): string {
  const day = first + column * length;
  return length === DAYS_A_WEEK ? `week of ${sayDayOfMonth(day)}` : sayDay(day, today);
}

/** "2 late, 4 done" */
export const sayLooks = ({ looks }: WallCell): string =>
  looks.map(({ look, count }) => `${count} ${LOOK_SHAPES[look].words}`).join(', ');

/** "Pontoon D, week of 7 Dec: 1 coming" */
export function sayCell(
  row: string,
  days: WallDays,
  column: number,
  cell: WallCell | undefined,
  today: CivilDay,
): string {
  return `${row}, ${sayColumn(days, column, today)}: ${cell ? sayLooks(cell) : 'nothing'}`;
}

/** How much stands behind some marks. */
export const countOf = ({ count }: Marks): number => count.tasks + count.dates;

const DAYS_NAMED = 4;

/** What is chosen: "Pontoon D inspection, Tue 1, Tue 8 and Tue 15 Dec", or how much of what. */
export function sayMarks(marks: Marks, today: CivilDay): string {
  const all = [...marks.tasks, ...marks.dates];
  const titles = new Set(all.map(({ title }) => title));
  const [title] = titles;
  const days = [...new Set(all.map(({ dueOn }) => dueOn))].sort();
  if (title !== undefined && titles.size === 1 && days.length <= DAYS_NAMED)
    return `${title}, ${joined(days.map((day) => sayDay(dayOfIso(day), today)))}`;
  const { tasks, dates } = marks.count;
  return joined([
    ...(tasks > 0 ? [plural(tasks, 'task')] : []),
    ...(dates > 0 ? [`${plural(dates, 'date')} not made yet`] : []),
  ]);
}

function joined(words: readonly string[]): string {
  if (words.length < 2) return words.join('');
  return `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}
