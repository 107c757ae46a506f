import type { Named } from '../../contract/index.ts';
import { notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';

/** A site, and all that stands there: at it, or at another site that does. */
export interface Standing {
  readonly site: Named;
  readonly assetIds: readonly string[];
}

/** @throws Refusal where there is no such site */
export async function standingAt(scope: Scope, siteId: string): Promise<Standing> {
  const [site] = await scope.sql<Named>(
    `select id, name from asset where workspace_id = $1 and id = $2 and is_site and client_id is null`,
    [siteId],
  );
  if (!site) throw notFound('site');
  return { site, assetIds: await assetIdsAt(scope, siteId) };
}

/** The same by their ids alone; none where there is no such site any more. */
export async function assetIdsAt(scope: Scope, siteId: string): Promise<readonly string[]> {
  const rows = await scope.sql<{ id: string }>(
    `with recursive there as (
       select id from asset where workspace_id = $1 and id = $2
       union select a.id from asset a join there on a.workspace_id = $1 and a.site_id = there.id)
     select id from there`,
    [siteId],
  );
  return rows.map(({ id }) => id);
}
