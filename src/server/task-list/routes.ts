import { taskListEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { groupsOfTasks } from './groups.ts';
import { chosenTasks, listTasks, sumsOfTasks } from './lines.ts';

export function taskListRoutes(routes: Routes): Routes {
  return routes
    .add(taskListEndpoints.lines, 'read', ({ scope, query }) => listTasks(scope, query))
    .add(taskListEndpoints.sums, 'read', ({ scope, query }) => sumsOfTasks(scope, query))
    .add(taskListEndpoints.groups, 'read', ({ scope, query }) => groupsOfTasks(scope, query))
    .add(taskListEndpoints.chosen, 'read', ({ scope, query }) => chosenTasks(scope, query));
}
