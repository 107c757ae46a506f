import { type CallFigures, FORESEEN_WEEKS } from '../../contract/index.ts';
import {
  DAYS_A_WEEK,
  type DayOfCalls,
  dayOfCalls,
  dayOfIso,
  isoOfDay,
  mondayOf,
  type Outcome,
  PROMISES_KEPT,
  type PromiseKept,
  streaksOf,
  termsOn,
} from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import {
  type AskedCalls,
  clockOf,
  daysAsked,
  hourOf,
  IS_COUNTED,
  KEPT_BY,
  keptSql,
  lateMinutes,
  notRung,
  stoodOn,
  weekdayOf,
} from './asked.ts';
import { poolLeft } from './look.ts';
import { CallQuota, IS_REACHED, LISTED } from './stored/index.ts';

interface Asked {
  readonly from: string;
  readonly to: string;
  readonly quota?: string | undefined;
  readonly person?: string | undefined;
}

/** How calls went: by the week, the person, the hour; which promises were kept; what is left in the pool. */
export async function callFigures(scope: Scope, asked: Asked): Promise<CallFigures> {
  const first = dayOfIso(asked.from);
  const last = dayOfIso(asked.to);
  const monday = mondayOf(first);
  const [ends, days, hours, callBacks, pool] = await scope.atOnce(
    () => endsOf(scope, daysAsked(asked), monday),
    () => daysOf(scope, stoodOn(asked)),
    () => hoursOf(scope, daysAsked(asked)),
    () => promisesOf(scope, daysAsked(asked)),
    () => poolOf(scope, asked.quota),
  );
  const byWeek = new Map<number, { listed: number; notRung: number; by: Map<string, number> }>();
  const said = new Map<string, { name: string; isReached: boolean; follows: Kind; count: number }>();
  const sums = { listed: 0, rung: 0, reached: 0, notRung: 0, toRing: 0 };
  for (const { week, key, name, isReached, follows, isOver, count } of ends) {
    const of = byWeek.get(week) ?? { listed: 0, notRung: 0, by: new Map() };
    byWeek.set(week, of);
    of.listed += count;
    sums.listed += count;
    if (key === null) {
      if (isOver) of.notRung += count;
      sums[isOver ? 'notRung' : 'toRing'] += count;
      continue;
    }
    of.by.set(key, (of.by.get(key) ?? 0) + count);
    sums.rung += count;
    if (isReached) sums.reached += count;
    const known = said.get(key);
    // As it was named last, where the workspace has it no more.
    said.set(key, { name, isReached, follows, count: (known?.count ?? 0) + count });
  }
  const now = new Map(scope.workspace.outcomes.map((outcome) => [outcome.key, outcome]));
  const keys = [...now.keys(), ...[...said.keys()].filter((key) => !now.has(key)).sort()];
  return {
    outcomes: keys.map((key) => {
      const was = said.get(key);
      return {
        ...{ key, name: now.get(key)?.name ?? was?.name ?? key, count: was?.count ?? 0 },
        isReached: now.get(key)?.isReached ?? was?.isReached ?? false,
        follows: now.get(key)?.follows.kind ?? was?.follows ?? 'rests',
      };
    }),
    ...sums,
    weeks: Array.from({ length: Math.floor((last - monday) / DAYS_A_WEEK) + 1 }, (_, at) => {
      const of = byWeek.get(at);
      return {
        monday: isoOfDay(monday + at * DAYS_A_WEEK),
        ...{ listed: of?.listed ?? 0, notRung: of?.notRung ?? 0 },
        by: [...(of?.by ?? [])].map(([key, count]) => ({ key, count })),
      };
    }),
    people: peopleOf(days, { first, last, today: scope.now.day }),
    ...{ hours, callBacks, pool },
  };
}

type Kind = Outcome['follows']['kind'];

interface EndRow {
  readonly week: number;
  /** Null of calls that were not made. */
  readonly key: string | null;
  readonly name: string;
  readonly isReached: boolean;
  readonly follows: Kind;
  readonly isOver: boolean;
  readonly count: number;
}

function endsOf(scope: Scope, { where, params }: AskedCalls, monday: number): Promise<EndRow[]> {
  const start = params.put(isoOfDay(monday));
  const clock = clockOf(scope, params);
  return scope.sql<EndRow>(
    `select (x.list_on - ${start}::date) / ${DAYS_A_WEEK} as week, case when x.state = 'rung' then x.outcome->>'key' end as key,
       coalesce(max(x.outcome->>'name'), '') as name, coalesce(${IS_REACHED}, false) as "isReached",
       coalesce(max(x.outcome->'follows'->>'kind'), 'rests') as follows, ${notRung(clock)} as "isOver",
       count(*)::int as count
     from ${LISTED} where ${where} group by 1, 2, 4, 6 order by 1`,
    params.values,
  );
}

interface DayRow {
  readonly id: string;
  readonly name: string;
  readonly on: string;
  /** With those that were carried over: the list was not whole. */
  readonly stood: number;
  readonly listed: number;
  readonly rung: number;
  readonly reached: number;
}

function daysOf(scope: Scope, { where, params }: AskedCalls): Promise<DayRow[]> {
  return scope.sql<DayRow>(
    `select d.*, p.name from (select l.person_id as id, x.list_on as "on", count(*)::int as stood, count(*) filter (where ${IS_COUNTED})::int as listed,
         count(*) filter (where x.state = 'rung')::int as rung, count(*) filter (where x.state = 'rung' and ${IS_REACHED})::int as reached
       from ${LISTED} where ${where} group by 1, 2) d
     join person p on p.workspace_id = $1 and p.id = d.id order by lower(p.name), p.id, d."on"`,
    params.values,
  );
}

const LETTERS: Readonly<Record<DayOfCalls, string>> = { whole: 'w', part: 'p', none: 'n', noList: '-' };

/** Each who had a list, with their days and how many whole lists in a row. The list of today is not over: it ends no row. */
function peopleOf(
  rows: readonly DayRow[],
  { first, last, today }: { readonly first: number; readonly last: number; readonly today: number },
): CallFigures['people'] {
  const byPerson = new Map<string, DayRow[]>();
  for (const row of rows) {
    const known = byPerson.get(row.id);
    if (known) known.push(row);
    else byPerson.set(row.id, [row]);
  }
  return [...byPerson].map(([id, own]) => {
    const byDay = new Map(own.map((row) => [dayOfIso(row.on), row]));
    const days = Array.from({ length: last - first + 1 }, (_, i) => {
      const row = byDay.get(first + i);
      return {
        day: first + i,
        went: row === undefined ? ('noList' as const) : dayOfCalls({ listed: row.stood, rung: row.rung }),
      };
    });
    const sum = (field: 'listed' | 'rung' | 'reached') => own.reduce((total, row) => total + row[field], 0);
    const over = days.filter(({ day, went }) => day < today || went === 'whole').map(({ went }) => went);
    return {
      ...{ id, name: own[0]?.name ?? '', listed: sum('listed'), rung: sum('rung'), reached: sum('reached') },
      ...streaksOf(over),
      days: days.map(({ went }) => LETTERS[went]).join(''),
    };
  });
}

function hoursOf(scope: Scope, { where, params }: AskedCalls): Promise<CallFigures['hours']> {
  const clock = clockOf(scope, params);
  return scope.sql<CallFigures['hours'][number]>(
    `select ${hourOf(clock)} as hour, ${weekdayOf(clock)} as weekday, count(*)::int as rung,
       count(*) filter (where ${IS_REACHED})::int as reached
     from ${LISTED} where ${where} and x.state = 'rung' group by 1, 2 order by 1, 2`,
    params.values,
  );
}

async function promisesOf(scope: Scope, { where, params }: AskedCalls): Promise<CallFigures['callBacks']> {
  const clock = clockOf(scope, params);
  const rows = await scope.sql<{ kept: PromiseKept | null; count: number; median: number | null }>(
    `select kept, count(*)::int as count, percentile_cont(0.5) within group (order by greatest(late, 0)) filter (where kept in ('kept', 'later', 'late')) as median
     from (select ${keptSql(clock)} as kept, ${lateMinutes(clock)} as late from ${LISTED} ${KEPT_BY} where ${where} and x.call_back is not null) k
     group by grouping sets ((kept), ())`,
    params.values,
  );
  const count = (kept: PromiseKept) => rows.find((row) => row.kept === kept)?.count ?? 0;
  const all = rows.find(({ kept }) => kept === null);
  return {
    promised: all?.count ?? 0,
    by: PROMISES_KEPT.map((kept) => ({ kept, count: count(kept) })),
    medianMinutes: typeof all?.median === 'number' ? Math.round(all.median) : null,
  };
}

async function poolOf(scope: Scope, quotaId: string | undefined): Promise<CallFigures['pool']> {
  if (quotaId === undefined) return null;
  const quota = await scope.one(CallQuota, quotaId, 'quota');
  const terms = termsOn(quota, scope.now.day);
  if (terms === null) return null;
  return { ...(await poolLeft(scope, quota, terms)), weeks: FORESEEN_WEEKS };
}
