import type { z } from 'zod';
import {
  type ChangedWeeks,
  type callEndpoints,
  FORESEEN_WEEKS,
  type QuotaLook,
  TOLD_OF_LIST,
  TOLD_WEEKS,
} from '../../contract/index.ts';
import {
  dayOfIso,
  forecastPool,
  isoOfDay,
  type ListedCall,
  minutesAWeek,
  mondayOf,
  type PoolAhead,
  type PoolCondition,
  type Quota,
  type QuotaTerms,
  quotaWith,
  shareThatLasts,
  termsOn,
} from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { isAtWork, type Ringing, ringing, spreadOf, wantedOn, workersOf } from '../ringing/index.ts';
import { leftOver, listsOf, wantsOn } from './making.ts';
import {
  CONTACTS,
  conditionSql,
  FIRST_ASSET,
  HAS_NUMBER,
  NOT_NEVER,
  notListedSql,
  Params,
  poolSql,
  restedSql,
} from './pool-sql.ts';
import { mustFit } from './quotas.ts';
import { CallQuota } from './stored/index.ts';

type Input = z.output<(typeof callEndpoints)['look']['body']>;

/** Of a quota that is not there yet, by which its first list is shuffled. */
const NEW_QUOTA = '00000000-0000-7000-8000-000000000000';

/** What a quota comes to: its weeks, its pool, and its first lists, of which nothing is made. */
export async function lookAtQuota(scope: Scope, { quotaId, ...input }: Input): Promise<QuotaLook> {
  const before = quotaId === null ? null : await scope.one(CallQuota, quotaId, 'quota');
  const here = await ringing(scope);
  mustFit(scope, here, input, []);
  const quota = quotaWith(before, input, scope.now.day);
  const says = quota.terms.at(-1)?.says ?? input.says;
  const { day: today } = scope.now;
  const from = Math.max(today, dayOfIso(input.from));
  // Today's lists may be made already: then it begins with the lists of tomorrow.
  const unmade = before?.madeOn === isoOfDay(today) ? today + 1 : today;
  const first = nextRingingDay(here, quota, Math.max(from, unmade));
  // Until then those who ring by it already take from the pool too.
  const begun = Math.max(unmade, dayOfIso(quota.startsOn));
  const next = before === null ? first : Math.min(first, nextRingingDay(here, quota, begun));
  const [funnel, forecast, firstTold] = await scope.atOnce(
    () => funnelOf(scope, says, next),
    () => forecastOf(scope, here, quota, { terms: says, from: next, first, quotaId }),
    () => firstLists(scope, here, quota, { terms: says, day: first, quotaId }),
  );
  return {
    changed: before && changedWeeks(here, before, quota, scope.now.day),
    people: weeksOf(here, quota, says, from),
    ...{ funnel, forecast, first: firstTold },
  };
}

/** Of everybody whose weeks become others by a change of a quota, from this week on: how many calls each has, now and then. */
export function changedWeeks(here: Ringing, before: Quota, after: Quota, today: number): ChangedWeeks {
  const monday = mondayOf(today);
  const [was, now] = [wantedOn(here, before), wantedOn(here, after)];
  const ids = [...new Set([...whoRings(here, before), ...whoRings(here, after)])];
  const sum = (wanted: typeof was, id: string, start: number) =>
    Array.from({ length: 7 }, (_, i) => wanted(id, start + i)).reduce((all, count) => all + count, 0);
  return ids
    .map((id) => ({
      ...{ id, name: here.names.get(id) ?? '' },
      weeks: Array.from({ length: TOLD_WEEKS }, (_, week) => monday + week * 7).map((start) => ({
        ...{ monday: isoOfDay(start), was: sum(was, id, start), now: sum(now, id, start) },
      })),
    }))
    .filter(({ weeks }) => weeks.some((week) => week.was !== week.now))
    .sort((a, b) => a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1));
}

/** Everybody who rings by it at any time. */
const whoRings = (here: Ringing, { terms }: Quota): string[] => [
  ...new Set(terms.flatMap(({ says }) => workersOf(here, says).map(({ id }) => id))),
];

/** The first day from one on on which somebody rings, within a month. */
function nextRingingDay(here: Ringing, quota: Quota, from: number): number {
  const wanted = wantedOn(here, quota);
  const ids = whoRings(here, quota);
  for (let day = from; day < from + 31; day++) if (ids.some((id) => wanted(id, day) > 0)) return day;
  return from;
}

function weeksOf(here: Ringing, quota: Quota, terms: QuotaTerms, from: number): QuotaLook['people'] {
  const monday = mondayOf(from);
  const wanted = wantedOn(here, quota);
  const spread = spreadOf(here, quota, terms);
  return workersOf(here, terms).map((worker) => {
    const weeks = Array.from({ length: TOLD_WEEKS }, (_, week) => {
      const start = monday + week * 7;
      const days = Array.from({ length: 7 }, (_, i) => start + i);
      const periods = new Map(
        days.map((day) => spread.periodOf(worker.id, day)).map((period) => [period.from, period]),
      );
      // Of months what is off is told with the week in which the month begins.
      const told = [...periods.values()].filter((period) => period.from >= start && period.from <= start + 6);
      const sum = (field: 'off' | 'beyond' | 'unplaced') => told.reduce((total, period) => total + period[field], 0);
      return {
        monday: isoOfDay(start),
        days: days.map((day) => {
          return isAtWork(here, worker, day) && termsOn(quota, day) !== null ? wanted(worker.id, day) : null;
        }),
        ...{ off: sum('off'), beyond: sum('beyond'), unplaced: sum('unplaced') },
      };
    });
    return { id: worker.id, name: here.names.get(worker.id) ?? '', weekMinutes: minutesAWeek(worker), weeks };
  });
}

async function funnelOf(scope: Scope, { pool, gap }: QuotaTerms, day: number): Promise<QuotaLook['funnel']> {
  const params = new Params();
  const conditions = pool.conditions.map((condition) => conditionSql(condition, day, params));
  const steps = [
    ...conditions,
    NOT_NEVER,
    HAS_NUMBER,
    `${restedSql(day, gap, params)} and ${notListedSql(day, params)}`,
  ];
  // What one step leaves is asked by the next: each is told once.
  const columns = steps.map(
    (_, i) =>
      `count(*) filter (where ${steps
        .slice(0, i + 1)
        .map((_s, n) => `k.s${n}`)
        .join(' and ')})::int as c${i}`,
  );
  const [row] = await scope.sql<Record<string, number>>(
    `select count(*)::int as everybody, ${columns.join(', ')}
     from (select ${steps.map((step, i) => `(${step}) as s${i}`).join(', ')} from ${CONTACTS} where k.workspace_id = $1) k`,
    params.values,
  );
  const at = (i: number) => row?.[`c${i}`] ?? 0;
  const n = conditions.length;
  return {
    on: isoOfDay(day),
    all: row?.['everybody'] ?? 0,
    after: conditions.map((_, i) => at(i)),
    ...{ notNever: at(n), withNumber: at(n + 1), free: at(n + 2) },
  };
}

/** A quota that becomes another one day is foreseen until weeks after that, within a year. */
const MOST_FORESEEN_DAYS = 366;

interface Seen {
  readonly terms: QuotaTerms;
  readonly quotaId: string | null;
}

async function forecastOf(
  scope: Scope,
  here: Ringing,
  quota: Quota,
  { terms, from, first, quotaId }: Seen & { readonly from: number; readonly first: number },
): Promise<QuotaLook['forecast']> {
  const to = Math.min(first + FORESEEN_WEEKS * 7, from + MOST_FORESEEN_DAYS) - 1;
  const wanted = wantedOn(here, quota);
  const ids = whoRings(here, quota);
  const wants = new Map(
    Array.from({ length: to - from + 1 }, (_, i) => [from + i, ids.reduce((sum, id) => sum + wanted(id, from + i), 0)]),
  );
  const pool = await poolAhead(scope, terms, { from, to, quotaId });
  const comeBack = await comeBackOf(scope, quotaId);
  const rested = terms.pool.conditions.flatMap((one) => (one.kind === 'notRungFor' ? [one.days] : []));
  const isOnce = terms.pool.conditions.some(({ kind }) => kind === 'neverRung');
  const rules = {
    ...{ from, to, wants: (day: number) => wants.get(day) ?? 0 },
    comeBack: isOnce ? 0 : comeBack,
    comeBackAfter: Math.max(terms.gap, ...rested),
  };
  const { days, dryOn } = forecastPool(pool, rules);
  return {
    days: days.map(({ day, ...rest }) => ({ on: isoOfDay(day), ...rest })),
    dryOn: dryOn === null ? null : isoOfDay(dryOn),
    lasts: shareThatLasts(pool, rules),
    comeBack: rules.comeBack,
  };
}

/** The pool from a day on: who is free by then, who comes and who goes, by the day. */
async function poolAhead(
  scope: Scope,
  { pool, gap }: QuotaTerms,
  { from, to, quotaId }: { readonly from: number; readonly to: number; readonly quotaId: string | null },
): Promise<PoolAhead> {
  const params = new Params();
  const isOfTime = (condition: PoolCondition) =>
    condition.kind === 'notRungFor' || (condition.kind === 'field' && condition.test.kind === 'within');
  const still = poolSql({ v: 1, conditions: pool.conditions.filter((one) => !isOfTime(one)) }, from, params);
  const start = `${params.put(isoOfDay(from))}::date`;
  const gaps = [gap, ...pool.conditions.flatMap((one) => (one.kind === 'notRungFor' ? [one.days] : []))];
  const rested = `case when s.again_on is not null then greatest(s.again_on, s.last_rung_on + ${params.put(gap)}::int)
    else s.last_rung_on + ${params.put(Math.max(...gaps))}::int end`;
  const within = pool.conditions.flatMap((one) =>
    one.kind === 'field' && one.test.kind === 'within'
      ? [{ date: dateOf(params.put(one.key)), days: one.test.days }]
      : [],
  );
  const near = within.map(({ date, days }) => `(${date}) - ${params.put(days)}::int`);
  const gone = within.length === 0 ? 'null::date' : `least(${within.map(({ date }) => `(${date}) + 1`).join(', ')})`;
  const known = within.map(({ date }) => `(${date}) >= ${start}`);
  const rows = await scope.sql<{ comes: string; goes: string | null; count: number }>(
    `select comes, goes, count(*)::int as count from (
       select greatest(${[start, rested, 's.alone_until + 1', ...near].join(', ')}) as comes, ${gone} as goes
       from ${CONTACTS} where k.workspace_id = $1 and ${NOT_NEVER} and ${HAS_NUMBER} and s.call_back_on is null
         and ${[still, ...known].join(' and ')}
     ) each where comes <= ${params.put(isoOfDay(to))}::date and (goes is null or goes > comes) group by comes, goes`,
    params.values,
  );
  let free = 0;
  const [comes, goes] = [new Map<number, number>(), new Map<number, number>()];
  const add = (to: Map<number, number>, day: number, count: number) => to.set(day, (to.get(day) ?? 0) + count);
  for (const row of rows) {
    const day = dayOfIso(row.comes);
    if (day <= from) free += row.count;
    else add(comes, day, row.count);
    if (row.goes !== null) add(goes, dayOfIso(row.goes), row.count);
  }
  const promises = await scope.sql<{ on: string; count: number }>(
    `select greatest(call_back_on, $3::date) as "on", count(*)::int as count from call_standing
     where workspace_id = $1 and call_back_quota = $2 and call_back_on <= $4::date group by 1`,
    [quotaId, isoOfDay(from), isoOfDay(to)],
  );
  return { free, comes, goes, promised: new Map(promises.map(({ on, count }) => [dayOfIso(on), count])) };
}

/** A field as a day; what is none, from when the field was of another kind, is left out. */
const dateOf = (key: string): string =>
  `case when c.fields->>${key}::text ~ '^[0-9]{4}-[0-9]{2}-[0-9]{2}$' then (c.fields->>${key}::text)::date end`;

/** Weeks back from which it is told how many come back to the pool. */
const BACK_WEEKS = 8;
/** Of a quota without calls so far: as if most did. */
const USUAL_COME_BACK = 60;

/** Of a hundred who were rung by a quota lately, how many may be rung again. */
async function comeBackOf(scope: Scope, quotaId: string | null): Promise<number> {
  const [row] = await scope.sql<{ rung: number; back: number }>(
    `select count(*)::int as rung, count(*) filter (where c.outcome->'follows'->>'kind' in ('rests', 'triedAgain'))::int as back
     from call c join call_list l on l.workspace_id = c.workspace_id and l.id = c.list_id
     where c.workspace_id = $1 and l.quota_id = $2 and c.state = 'rung' and c.list_on >= $3`,
    [quotaId, isoOfDay(scope.now.day - BACK_WEEKS * 7)],
  );
  return row === undefined || row.rung === 0 ? USUAL_COME_BACK : Math.round((100 * row.back) / row.rung);
}

/** How many of a quota's pool may be rung now, and the day on which there are too few; null where there are enough. */
export async function poolLeft(
  scope: Scope,
  quota: CallQuota,
  terms: QuotaTerms,
): Promise<{ readonly free: number; readonly dryOn: string | null }> {
  const here = await ringing(scope);
  const { day } = scope.now;
  const from = nextRingingDay(here, quota, quota.madeOn === scope.today ? day + 1 : day);
  const { dryOn, days } = await forecastOf(scope, here, quota, { terms, from, first: from, quotaId: quota.id });
  return { free: days[0]?.free ?? 0, dryOn };
}

async function firstLists(
  scope: Scope,
  here: Ringing,
  quota: Quota,
  { terms, day, quotaId }: Seen & { readonly day: number },
): Promise<QuotaLook['first']> {
  const wants = wantsOn(here, quota, terms, day);
  const left = quotaId === null ? [] : await leftOver(scope, quotaId, terms, day);
  const { lists } = await listsOf(scope, { quotaId: quotaId ?? NEW_QUOTA, terms, wants, day, left });
  const told = new Map([...lists].map(([id, calls]) => [id, calls.slice(0, TOLD_OF_LIST)]));
  const names = await namesOf(
    scope,
    [...told.values()].flat().map(({ contactId }) => contactId),
  );
  const listed = ({ contactId, why }: ListedCall) => {
    const of = names.get(contactId);
    return of === undefined ? [] : [{ ...of, why }];
  };
  return {
    on: isoOfDay(day),
    lists: workersOf(here, terms).flatMap(({ id }) => {
      const calls = told.get(id);
      if (calls === undefined) return [];
      const [wanted, found] = [wants.get(id) ?? 0, lists.get(id)?.length ?? 0];
      return [{ id, name: here.names.get(id) ?? '', wanted, found, calls: calls.flatMap(listed) }];
    }),
  };
}

async function namesOf(scope: Scope, contactIds: readonly string[]) {
  const rows = await scope.sql<{ id: string; name: string; clientId: string; client: string; asset: string | null }>(
    `select k.id, k.name, c.id as "clientId", c.name as client, asset.name as asset from contact k
     join client c on c.workspace_id = k.workspace_id and c.id = k.client_id ${FIRST_ASSET}
     where k.workspace_id = $1 and k.id = any($2::uuid[])`,
    [contactIds],
  );
  return new Map(
    rows.map(({ id, name, clientId, client, asset }) => [
      id,
      { contact: { id, name }, client: { id: clientId, name: client }, asset },
    ]),
  );
}
