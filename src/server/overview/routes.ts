import { overviewEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { onTimeTrend } from './on-time.ts';
import { overview } from './overview.ts';

export function overviewRoutes(routes: Routes): Routes {
  return routes
    .add(overviewEndpoints.overview, 'read', ({ scope }) => overview(scope))
    .add(overviewEndpoints.onTime, 'read', ({ scope }) => onTimeTrend(scope));
}
