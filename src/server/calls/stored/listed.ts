import type { Scope } from '../../platform/scope.ts';

/** Calls `x` with the list `l` that each stands on. */
export const LISTED = 'call x join call_list l on l.workspace_id = x.workspace_id and l.id = x.list_id';

/** Whether whoever was rung by a call `x` was spoken to. */
export const IS_REACHED = "(x.outcome->>'isReached')::boolean";

/** The place behind the last call of each of some lists; lists without calls begin at the first. */
export async function nextPlaces(scope: Scope, listIds: readonly string[]): Promise<Map<string, number>> {
  const rows = await scope.sql<{ id: string; place: number }>(
    'select list_id as id, max(place)::int + 1 as place from call where workspace_id = $1 and list_id = any($2::uuid[]) group by 1',
    [listIds],
  );
  return new Map([...listIds.map((id) => [id, 0] as const), ...rows.map(({ id, place }) => [id, place] as const)]);
}

export const nextPlace = async (scope: Scope, listId: string): Promise<number> =>
  (await nextPlaces(scope, [listId])).get(listId) ?? 0;
