import { listEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { sendRows } from '../platform/http/rows-out.ts';
import { assetsOut, clientsOut, nameOfList, peopleOut, schedulesOut, templatesOut } from './lists.ts';
import { tasksOut } from './tasks.ts';

/** Lists as files. */
export function listRoutes(routes: Routes): Routes {
  return routes
    .sendTo(listEndpoints.clients, 'clients', ({ scope, query: { as } }, response) =>
      sendRows(response, nameOfList('clients', scope), clientsOut(scope), as),
    )
    .sendTo(listEndpoints.assets, 'clients', ({ scope, query: { as } }, response) =>
      sendRows(response, nameOfList('assets', scope), assetsOut(scope), as),
    )
    .sendTo(listEndpoints.people, 'people', ({ scope, query: { as } }, response) =>
      sendRows(response, nameOfList('people', scope), peopleOut(scope), as),
    )
    .sendTo(listEndpoints.templates, 'plan', ({ scope, query: { as } }, response) =>
      sendRows(response, nameOfList('templates', scope), templatesOut(scope), as),
    )
    .sendTo(listEndpoints.schedules, 'plan', ({ scope, query: { as } }, response) =>
      sendRows(response, nameOfList('schedules', scope), schedulesOut(scope), as),
    )
    .sendTo(listEndpoints.tasks, 'read', ({ scope, query: { as, ...filter } }, response) =>
      sendRows(response, nameOfList('tasks', scope), tasksOut(scope, filter), as),
    );
}
