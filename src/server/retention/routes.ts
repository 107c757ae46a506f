import { retentionEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { nextLetGo, pastLetGo } from './letting-go.ts';

export function retentionRoutes(routes: Routes): Routes {
  return routes
    .add(retentionEndpoints.next, 'settings', async ({ scope, query }) => ({
      next: await nextLetGo(scope, query.years, query.withinDays),
    }))
    .add(retentionEndpoints.past, 'read', async ({ scope }) => ({ letGo: await pastLetGo(scope) }));
}
