import { findEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { find } from './queries.ts';

export function findRoutes(routes: Routes): Routes {
  return routes.add(findEndpoints.find, 'read', ({ scope, query }) => find(scope, query.q));
}
