import { taskListEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { groupsOfTasks } from './groups.ts';
import { chosenTasks, listTasks, sumsOfTasks } from './lines.ts';
import { changeView, dropView, keepView, listViews } from './views.ts';

export function taskListRoutes(routes: Routes): Routes {
  return routes
    .add(taskListEndpoints.lines, 'read', ({ scope, query }) => listTasks(scope, query))
    .add(taskListEndpoints.sums, 'read', ({ scope, query }) => sumsOfTasks(scope, query))
    .add(taskListEndpoints.groups, 'read', ({ scope, query }) => groupsOfTasks(scope, query))
    .add(taskListEndpoints.views, 'read', async ({ scope }) => ({ views: await listViews(scope) }))
    .add(taskListEndpoints.keepView, 'account', ({ scope, body }) => keepView(scope, body))
    .add(taskListEndpoints.changeView, 'account', ({ scope, params, body }) => changeView(scope, params.viewId, body))
    .add(taskListEndpoints.dropView, 'account', ({ scope, params }) => dropView(scope, params.viewId))
    .add(taskListEndpoints.chosen, 'read', ({ scope, query }) => chosenTasks(scope, query));
}
