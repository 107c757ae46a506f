import type { ClientLine } from '../../../contract/index.ts';
import type { Scope } from '../../platform/scope.ts';
import { isOn, ownCounts } from './members.ts';

/**
 * The first plan by name of each client `c`, as `of_plan`; null where there is none.
 * @param today its place among the parameters
 */
export const firstPlans = (today: string): string =>
  `left join (
     select distinct on (o.client_id) o.client_id, o.plan_id, p.name, lower(p.name) as words from on_plan o
     join service_plan p on p.workspace_id = o.workspace_id and p.id = o.plan_id
     where o.workspace_id = $1 and o.undone_at is null and (o.off_on is null or o.off_on > ${today}::date)
     order by o.client_id, lower(p.name), o.plan_id) of_plan on of_plan.client_id = c.id`;

/** The same where nobody asks for it. */
export const noPlans = (today: string): string =>
  `left join (select null::uuid as plan_id, null as name, null as words) of_plan on ${today}::date is null`;

/** What some clients are on today and from then on, by name. */
export async function plansOfEach(
  scope: Scope,
  clientIds: readonly string[],
): Promise<ReadonlyMap<string, { readonly id: string; readonly name: string }[]>> {
  const rows = await scope.sql<{ clientId: string; id: string; name: string }>(
    `select distinct o.client_id as "clientId", p.id, p.name, lower(p.name) as words from on_plan o
     join client c on c.workspace_id = o.workspace_id and c.id = o.client_id
     join service_plan p on p.workspace_id = o.workspace_id and p.id = o.plan_id
     where o.workspace_id = $1 and o.client_id = any($2::uuid[]) and ${isOn('$3')} order by words, p.id`,
    [clientIds, scope.today],
  );
  const plans = new Map<string, { id: string; name: string }[]>();
  for (const { clientId, id, name } of rows) plans.set(clientId, [...(plans.get(clientId) ?? []), { id, name }]);
  return plans;
}

/** The first plan by name of some clients, with how much each has of its own. */
export async function planOfEach(
  scope: Scope,
  clientIds: readonly string[],
): Promise<ReadonlyMap<string, NonNullable<ClientLine['plan']>>> {
  const rows = await scope.sql<NonNullable<ClientLine['plan']> & { clientId: string }>(
    `select distinct on (o.client_id) o.client_id as "clientId", p.id, p.name, o.from_on as "fromOn", o.off_on as "offOn",
       (count(*) over (partition by o.client_id) - 1)::int as more,
       coalesce(own.changes, 0)::int as own
     from on_plan o join client c on c.workspace_id = o.workspace_id and c.id = o.client_id
     join service_plan p on p.workspace_id = o.workspace_id and p.id = o.plan_id
     left join (${ownCounts(`o.workspace_id = $1 and o.client_id = any($2::uuid[]) and ${isOn('$3')}`)}) own on own.id = o.id
     where o.workspace_id = $1 and o.client_id = any($2::uuid[]) and ${isOn('$3')}
     order by o.client_id, lower(p.name), p.id`,
    [clientIds, scope.today],
  );
  return new Map(rows.map(({ clientId, ...plan }) => [clientId, plan]));
}
