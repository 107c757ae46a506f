import { swapEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { askSwap, decideSwap, listSwaps } from './swapping.ts';
import { turnsAround } from './turns.ts';

export function swapRoutes(routes: Routes): Routes {
  return routes
    .add(swapEndpoints.list, 'read', async ({ scope }) => ({ swaps: await listSwaps(scope) }))
    .add(swapEndpoints.turns, 'read', ({ scope, params }) => turnsAround(scope, params.taskId))
    .add(swapEndpoints.ask, 'swap', ({ scope, params, body }) => askSwap(scope, params.taskId, body))
    .add(swapEndpoints.decide, 'swap', ({ scope, params, body }) => decideSwap(scope, params.swapId, body));
}
