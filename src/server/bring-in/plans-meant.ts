import { type BringIn as BringInAnswer, MOST_PUT_ON } from '../../contract/index.ts';
import { PlanRecord } from '../plans/stored/index.ts';
import { notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { placesOf } from './check.ts';
import type { BringIn } from './entity.ts';

/** Names of plans that are told of one file. */
const MOST_NAMES = 50;
const planColumn = (scope: Scope, bringIn: BringIn): number | null =>
  placesOf(scope, bringIn, ({ key }) => key === 'plan')[0] ?? null;

/** Names of plans in a file, those that stand most often first, and the plan that each means: one called so, that is in use. */
export async function plansMeant(scope: Scope, bringIn: BringIn): Promise<BringInAnswer['plans']> {
  const column = planColumn(scope, bringIn);
  if (column === null) return [];
  return scope.sql(
    `select said.name, said.count, (select p.id from service_plan p where p.workspace_id = $1 and p.archived_at is null
       and lower(p.name) = lower(said.name) order by p.id limit 1) as "planId"
     from (select min(btrim(cells->>$3::integer)) as name, count(*)::int as count from bring_in_row
       where workspace_id = $1 and bring_in_id = $2 and fate <> 'left' and btrim(coalesce(cells->>$3::integer, '')) <> ''
       group by lower(btrim(cells->>$3::integer)) order by 2 desc, 1 limit ${MOST_NAMES}) said
     order by said.count desc, said.name`,
    [bringIn.id, column],
  );
}

/** Those whom a file that was brought in says on a plan, and who are not on it now. */
export async function clientsForPlan(
  scope: Scope,
  bringIn: BringIn,
  planId: string,
): Promise<{ clients: { id: string; name: string }[]; isMore: boolean }> {
  if (bringIn.state !== 'done') throw notNow('Bring the list in first: nobody of it is here yet.');
  const { name } = await scope.one(PlanRecord, planId, 'plan');
  const clients = await scope.sql<{ id: string; name: string }>(
    `select c.id, c.name from client c
     where c.workspace_id = $1 and c.archived_at is null
       and c.id in (select coalesce(r.before->>'clientId', r.read->>'targetId')::uuid from bring_in_row r
         where r.workspace_id = $1 and r.bring_in_id = $2 and r.fate <> 'left' and lower(btrim(r.cells->>$3::integer)) = lower($4))
       and not exists (select 1 from on_plan o where o.workspace_id = $1 and o.client_id = c.id and o.plan_id = $5
         and o.undone_at is null and o.off_on is null and (o.until_on is null or o.until_on >= $6))
     order by c.name, c.id limit ${MOST_PUT_ON + 1}`,
    [bringIn.id, planColumn(scope, bringIn) ?? -1, name, planId, scope.today],
  );
  return { clients: clients.slice(0, MOST_PUT_ON), isMore: clients.length > MOST_PUT_ON };
}
