import { workloadEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { evenable, moveTasks, workOfCell } from './even.ts';
import { workload } from './load.ts';

export function workloadRoutes(routes: Routes): Routes {
  return routes
    .add(workloadEndpoints.load, 'read', ({ scope, query }) => workload(scope, query))
    .add(workloadEndpoints.cell, 'read', ({ scope, query }) => workOfCell(scope, query))
    .add(workloadEndpoints.evenable, 'read', ({ scope, query }) => evenable(scope, query))
    .add(workloadEndpoints.move, 'give', ({ scope, body }) => moveTasks(scope, body.moves));
}
