import { workloadEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { evenable, moveTasks, workOfCell } from './even.ts';
import { workloadWeeks } from './weeks.ts';

export function workloadRoutes(routes: Routes): Routes {
  return routes
    .add(workloadEndpoints.weeks, 'read', ({ scope, query }) => workloadWeeks(scope, query))
    .add(workloadEndpoints.cell, 'read', ({ scope, query }) => workOfCell(scope, query))
    .add(workloadEndpoints.evenable, 'read', ({ scope, query }) => evenable(scope, query))
    .add(workloadEndpoints.move, 'give', ({ scope, body }) => moveTasks(scope, body.moves));
}
