import { erasingEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { eraseClient, lookAtClient } from './client.ts';
import { erasePerson, lookAtPerson } from './person.ts';

/** What nothing brings back is a manager's to do. */
export function erasingRoutes(routes: Routes): Routes {
  return routes
    .add(erasingEndpoints.lookAtClient, 'settings', ({ scope, params }) => lookAtClient(scope, params.clientId))
    .add(erasingEndpoints.client, 'settings', async ({ scope, params, body }) => {
      await eraseClient(scope, params.clientId, body.name);
      return { erased: true as const };
    })
    .add(erasingEndpoints.lookAtPerson, 'people', ({ scope, params }) => lookAtPerson(scope, params.personId))
    .add(erasingEndpoints.person, 'people', async ({ scope, params, body }) => {
      await erasePerson(scope, params.personId, body.name);
      return { erased: true as const };
    });
}
