import { WALL_NOBODY, type WallFilter, type WallRow, type WallRows } from '../../contract/index.ts';
import {
  addMark,
  columnOfDay,
  commonSpans,
  type DaySpan,
  dayOfIso,
  isoOfDay,
  peopleHere,
  WALL_LOOKS,
  type WallDays,
  type WallLook,
  type WallSpan,
  type WallUnit,
  wallDays,
  wallHalves,
} from '../../core/index.ts';
import { colleagues } from '../people/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { FAR_DAYS, type FarDates, farDates } from '../schedules/index.ts';
import { isHeldUp, isLate, minuteThere, namesOfFilter, type TaskQuestion } from '../task-list/index.ts';
import { WAS_ON_TIME } from '../tasks/stored/index.ts';
import { placingOf } from './placing.ts';
import {
  isFoundByDay,
  isOfPeople,
  type RowOf,
  rowsFrom,
  rowsThere,
  type ScheduleOfRows,
  schedulesOfRows,
  taskColumnOf,
  tasksOf,
} from './rows.ts';

interface AskedChart extends WallFilter {
  readonly rows: WallRows;
  readonly find?: string | undefined;
  readonly empty?: 'yes' | undefined;
  readonly span: WallSpan;
  readonly by: WallUnit;
  readonly from?: string | undefined;
  readonly start: number;
}

/** Rows against days or weeks: what was made, as it looks now, and what schedules foresee. */
export async function wallchart(scope: Scope, asked: AskedChart) {
  const days = wallDays(asked.span, asked.by, asked.from === undefined ? null : dayOfIso(asked.from), scope.now.day);
  const there = await rowsThere(scope, asked, days);
  const { rows, count } = await rowsFrom(scope, there, asked.start);
  const [made, { schedules, dates }, names] = await scope.atOnce(
    () => madeMarks(scope, asked, days, rows),
    () => datesOf(scope, asked, rows),
    () => namesOfFilter(scope, asked),
  );
  const foreseen = await foreseenMarks(scope, asked, days, rows, schedules, dates);
  const rests = await restsOf(scope, asked.rows, days, rows, schedules, dates);
  return {
    ...{ first: isoOfDay(days.first), length: days.length, columns: days.columns },
    ...{ start: asked.start, count, foreseenUpTo: isoOfDay(scope.now.day + FAR_DAYS) },
    names,
    rows: await eachInTurn(
      rows,
      ({ key, name, detail, group }): WallRow => ({
        ...{ key, name, detail, group },
        marks: [...(made.get(key) ?? []), ...(foreseen.get(key) ?? [])],
        rests: rests.get(key) ?? [],
      }),
    ),
  };
}

/** What schedules foresee that may stand in some rows. */
async function datesOf(scope: Scope, asked: AskedChart, rows: readonly RowOf[]) {
  const schedules = await schedulesOfRows(scope, asked, asked.rows, rows);
  const dates = await farDates(
    scope,
    schedules.map(({ id }) => id),
  );
  return { schedules, dates };
}

/** By the key of a row, as they travel. */
type MarksByRow = ReadonlyMap<string, readonly number[]>;

/** How a task looks in a cell, as SQL: the same as `lookOf` tells it. */
function lookInCell(scope: Scope, asked: TaskQuestion): string {
  const place = (look: WallLook): number => WALL_LOOKS.indexOf(look);
  return `case
    when t.state = 'done' then case when ${WAS_ON_TIME} then ${place('done')} else ${place('doneLate')} end
    when t.state = 'skipped' then ${place('skipped')}
    when t.state = 'lapsed' then ${place('lapsed')}
    when t.state = 'toCheck' then ${place('toCheck')}
    when ${isHeldUp(scope, asked)} then ${place('heldUp')}
    when ${isLate(scope, asked)} then ${place('late')}
    when t.state = 'underWay' then ${place('underWay')}
    when t.appears_on > ${minuteThere(scope, asked)}::date then ${place('coming')}
    else ${place('open')} end`;
}

/**
 * What was made, by row and cell, as it travels: each row's members are looked up by the index of their column, due on those
 * days, which holds all that the look of a task is told from. The database packs it, a number a cell, so that a chart of tens
 * of thousands of cells is a line or two a row.
 */
async function madeMarks(
  scope: Scope,
  filter: WallFilter & { readonly rows: WallRows },
  days: WallDays,
  rows: readonly RowOf[],
): Promise<MarksByRow> {
  const ask = async (
    span: { readonly first: number; readonly last: number },
    from: (asked: TaskQuestion) => { row: string; join: string; also?: string },
  ) => {
    const asked = await tasksOf(scope, filter, span);
    const { row, join, also = 'true' } = from(asked);
    const column = `(t.due_on - ${asked.with(isoOfDay(days.first))}::date) / ${days.length}`;
    return scope.sql<{ row: number; cells: string }>(
      `select "row", string_agg((n * ${days.columns * WALL_LOOKS.length} + cell)::text, ',') as cells from (
         select ${row} as "row", ${column} * ${WALL_LOOKS.length} + ${lookInCell(scope, asked)} as cell, count(*) as n
         from ${join} where ${asked.where} and ${also} group by 1, 2) there group by 1`,
      asked.params,
    );
  };
  const members = rows.flatMap(({ members: of }, row) => of.map((member) => [row, member] as const));
  const ids = members.map(([, id]) => id);
  const nobody = rows.findIndex(({ key }) => key === WALL_NOBODY);
  const pairs = (asked: TaskQuestion, of: readonly (readonly [number, string])[], type: string) =>
    `unnest(${asked.with(of.map(([row]) => row))}::int[], ${asked.with(of.map(([, id]) => id))}::${type}[])`;
  const column = taskColumnOf(filter.rows);
  // Where all there is stands in the rows, two ask for half of what is made each; that ends about today.
  const spans = isOfPeople(filter.rows) ? wallHalves(days, scope.now.day) : [days];
  const questions = spans.flatMap((span) => [
    () =>
      ask(span, (asked) => {
        const of = pairs(asked, members, 'uuid');
        return {
          row: 'm."row"',
          join: `${of} as m("row", id) join task t on ${column} = m.id`,
          also: isFoundByDay(filter.rows) ? 'true' : `(${column} = any(${asked.with(ids)}::uuid[])) is true`,
        };
      }),
    ...(nobody >= 0
      ? [() => ask(span, () => ({ row: `${nobody}`, join: 'task t', also: 't.assignee_id is null' }))]
      : []),
    ...(filter.rows === 'role'
      ? [
          () =>
            ask(span, (asked) => ({
              row: 'm."row"',
              join: `${pairs(
                asked,
                rows.map(({ key }, row) => [row, key] as const),
                'text',
              )} as m("row", role) join task t on t.offered_to->>'role' = m.role`,
              also: 't.assignee_id is null',
            })),
        ]
      : []),
  ]);
  const found = await scope.atOnce(...questions);
  const byRow = new Map<string, number[]>();
  await eachInTurn(found.flat(), ({ row, cells }) => {
    const key = rows[row]?.key ?? '';
    const marks = byRow.get(key) ?? [];
    for (const packed of cells.split(',')) {
      const [cell, look] = [Math.floor(Number(packed) / WALL_LOOKS.length), Number(packed) % WALL_LOOKS.length];
      marks.push(cell % days.columns, look, Math.floor(cell / days.columns));
    }
    byRow.set(key, marks);
  });
  return byRow;
}

/** What is not made yet, by row and cell. */
async function foreseenMarks(
  scope: Scope,
  filter: WallFilter & { readonly rows: WallRows },
  days: WallDays,
  rows: readonly RowOf[],
  schedules: readonly ScheduleOfRows[],
  dates: ReadonlyMap<string, FarDates>,
): Promise<MarksByRow> {
  const place = await placingOf(scope, filter.rows, rows, filter);
  // Hundreds of rows by hundreds of columns: counted in place.
  const counts = new Map<string, Uint32Array>();
  await eachInTurn(schedules, (schedule) => {
    for (const some of dates.get(schedule.id)?.days ?? [])
      for (const key of place(schedule, some)) {
        const ofRow = counts.get(key) ?? new Uint32Array(days.columns);
        for (const day of some.dueOn) {
          if (day < days.first || day > days.last) continue;
          const column = columnOfDay(days, day);
          ofRow[column] = (ofRow[column] ?? 0) + 1;
        }
        counts.set(key, ofRow);
      }
  });
  return new Map(
    await eachInTurn([...counts], ([key, ofRow]): [string, number[]] => {
      const marks: number[] = [];
      for (let column = 0; column < ofRow.length; column++) addMark(marks, column, 'foreseen', ofRow[column] ?? 0);
      return [key, marks];
    }),
  );
}

/** When nothing happens in a row: its person is away, or all of its schedules rest. */
async function restsOf(
  scope: Scope,
  kind: WallRows,
  days: WallDays,
  rows: readonly RowOf[],
  schedules: readonly ScheduleOfRows[],
  dates: ReadonlyMap<string, FarDates>,
): Promise<ReadonlyMap<string, WallRow['rests']>> {
  const told = (spans: readonly DaySpan[], because: 'resting' | 'away') =>
    spans
      .map(({ from, to }) => ({ from: Math.max(from, days.first), to: Math.min(to, days.last) }))
      .filter(({ from, to }) => from <= to)
      .map(({ from, to }) => ({ from: isoOfDay(from), to: isoOfDay(to), because }));
  if (kind === 'role') return new Map();
  if (kind === 'person') {
    const { workers } = peopleHere(await colleagues(scope));
    return new Map(
      rows.map(({ key }) => {
        const leave = (workers.get(key)?.leave ?? []).filter(({ half }) => half === undefined);
        return [
          key,
          told(
            [...leave].sort((a, b) => a.from - b.from),
            'away',
          ),
        ];
      }),
    );
  }
  const byMember = new Map<string, (readonly DaySpan[])[]>();
  for (const { id, member } of schedules) {
    const of = byMember.get(member ?? '') ?? [];
    of.push(dates.get(id)?.rests ?? []);
    byMember.set(member ?? '', of);
  }
  return new Map(
    rows.map(({ key, members }) => [
      key,
      told(commonSpans(members.flatMap((member) => byMember.get(member) ?? [])), 'resting'),
    ]),
  );
}
