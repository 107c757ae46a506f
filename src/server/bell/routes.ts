import { bellEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { bellOf, readBell } from './bell.ts';

export function bellRoutes(routes: Routes): Routes {
  return routes
    .add(bellEndpoints.lines, 'account', ({ scope, query }) => bellOf(scope, query.before))
    .add(bellEndpoints.read, 'account', ({ scope, body }) => readBell(scope, body.upTo));
}
