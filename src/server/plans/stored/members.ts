import type { IsoDate } from '../../../core/index.ts';
import { columnsOf } from '../../platform/db/columns.ts';
import type { Scope } from '../../platform/scope.ts';
import { OnPlan } from './entity.ts';

/** A client's time on a plan, with what has to be known of the client. */
export interface Member
  extends Pick<OnPlan, 'id' | 'version' | 'planId' | 'clientId' | 'fromOn' | 'untilOn' | 'offOn' | 'leftOut'> {
  readonly clientName: string;
}

const FIELDS = ['id', 'version', 'planId', 'clientId', 'fromOn', 'untilOn', 'offOn', 'leftOut'] as const;

/** Whether a time on a plan `o` of a client `c` reaches a day and goes on from there; its place among the parameters is given. */
export const isOn = (place: string): string =>
  `o.undone_at is null and (o.off_on is null or o.off_on > ${place}::date) and c.archived_at is null`;

/** Times on a plan, with the names of their clients. @param where narrows `o` and `c`; its parameters begin at $2 */
const selectMembers = (scope: Scope, where: string, params: readonly unknown[]): Promise<Member[]> =>
  scope.sql<Member>(
    `select ${columnsOf(OnPlan, 'o', FIELDS)}, c.name as "clientName" from on_plan o
     join client c on c.workspace_id = o.workspace_id and c.id = o.client_id where o.workspace_id = $1 and ${where}`,
    params,
  );

/** Who is on a plan on a day or later. */
export const membersOf = (scope: Scope, planId: string, on: IsoDate): Promise<Member[]> =>
  selectMembers(scope, `o.plan_id = $2 and ${isOn('$3')} order by o.id`, [planId, on]);

/** A client's times on plans that reach today and go on. */
export const timesOfClient = (scope: Scope, clientId: string): Promise<Member[]> =>
  selectMembers(scope, `o.client_id = $2 and ${isOn('$3')} order by o.from_on, o.id`, [clientId, scope.today]);

/** Whoever of some clients is on a plan on a day or later. */
export const membersAmong = (
  scope: Scope,
  planId: string,
  clientIds: readonly string[],
  on: IsoDate,
): Promise<Member[]> =>
  selectMembers(scope, `o.plan_id = $2 and o.client_id = any($3::uuid[]) and ${isOn('$4')}`, [planId, clientIds, on]);

/** Some of them by their own ids, held against others until the transaction ends. */
export const lockedMembers = (scope: Scope, ids: readonly string[]): Promise<Member[]> =>
  selectMembers(scope, 'o.id = any($2::uuid[]) and o.undone_at is null order by o.id for no key update of o', [ids]);

/** How many clients are on each plan today. */
export async function countsOfPlans(scope: Scope): Promise<ReadonlyMap<string, number>> {
  const rows = await scope.sql<{ planId: string; clients: number }>(
    `select o.plan_id as "planId", count(distinct o.client_id)::int as clients from on_plan o
     join client c on c.workspace_id = o.workspace_id and c.id = o.client_id
     where o.workspace_id = $1 and ${isOn('$2')} group by o.plan_id`,
    [scope.today],
  );
  return new Map(rows.map(({ planId, clients }) => [planId, clients]));
}

export interface AssetOfClient {
  readonly id: string;
  readonly name: string;
  readonly clientId: string;
}

/** Assets in use of some clients, by name; sites are places, not things that work is done on for a client. */
export function assetsOf(scope: Scope, clientIds: readonly string[]): Promise<AssetOfClient[]> {
  return scope.sql<AssetOfClient>(
    `select id, name, client_id as "clientId" from asset
     where workspace_id = $1 and client_id = any($2::uuid[]) and archived_at is null and not is_site order by lower(name), id`,
    [clientIds],
  );
}

/**
 * In what a schedule `s` of a plan is its client's own by now, as SQL over the item `i.item` that it belongs to: the same that
 * `ownChanges` of the core tells, which a test holds it against.
 */
const LAST_RULE = `coalesce(s.revisions->-1->'recurrence', s.recurrence)`;
const LAST_TIMING = `coalesce(s.revisions->-1->'timing', s.timing)`;
const BARE = `'{start,end,v}'::text[]`;
/** Minutes by the keys of tasks that say other than the template: of a schedule, and of its item. */
const LAST_MINUTES = `coalesce((select jsonb_object_agg(key, value->'estimateMinutes')
  from jsonb_each(s.revisions->-1->'own') where value ? 'estimateMinutes'), '{}')`;
const PLANNED_MINUTES = `coalesce(i.item->'stepMinutes', '{}') ||
  case when i.item->'estimateMinutes' = 'null' then '{}' else jsonb_build_object('', i.item->'estimateMinutes') end`;
const OWN = {
  rule: `(${LAST_RULE} - ${BARE}) <> ((i.item->'recurrence') - ${BARE})`,
  timing: `(${LAST_TIMING} - 'v') <> ((i.item->'timing') - 'v')`,
  who: `s.assignment <> (i.item->'assignment')`,
  estimate: `${LAST_MINUTES} <> ${PLANNED_MINUTES}`,
} as const;
export const OWN_ASPECTS_SQL = `array_remove(array[${Object.entries(OWN)
  .map(([aspect, sql]) => `case when ${sql} then '${aspect}' end`)
  .join(', ')}], null)`;

/** Schedules `s` of the times `o` on a plan, with the item `i.item` of each: those that are not deleted and whose item the plan still has. */
export const SCHEDULES_OF_PLAN = `on_plan o
  join client c on c.workspace_id = o.workspace_id and c.id = o.client_id
  join schedule s on s.workspace_id = o.workspace_id and s.on_plan_id = o.id and s.deleted_at is null
  join (select p.workspace_id, p.id as plan_id, item->>'key' as key, item from service_plan p, jsonb_array_elements(p.items) item) i
    on i.workspace_id = o.workspace_id and i.plan_id = o.plan_id and i.key = s.plan_item`;

/**
 * How much each time on a plan has of its own, as rows of `id` and `changes`: schedules that say something else than their item,
 * and items that are left out. Those that have nothing are not among them.
 * @param where narrows `o` and `c`
 */
export const ownCounts = (where: string): string => `select id, sum(n)::int as changes from (
    select o.id, 1 as n from ${SCHEDULES_OF_PLAN} where ${where} and cardinality(${OWN_ASPECTS_SQL}) > 0
    union all
    select o.id, 1 from on_plan o join client c on c.workspace_id = o.workspace_id and c.id = o.client_id
      join service_plan p on p.workspace_id = o.workspace_id and p.id = o.plan_id
      cross join lateral jsonb_array_elements(o.left_out) without (one)
    where ${where} and exists (select from jsonb_array_elements(p.items) of (item) where of.item->>'key' = without.one->>'item')
  ) each group by id`;
