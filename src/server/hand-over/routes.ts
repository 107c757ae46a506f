import { peopleEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { heldBy } from './held.ts';
import { handOver, impactOfHandOver } from './service.ts';

export function handOverRoutes(routes: Routes): Routes {
  return routes
    .add(peopleEndpoints.held, 'people', ({ scope, params }) => heldBy(scope, params.personId))
    .add(peopleEndpoints.handOver, 'people', ({ scope, params, body }) => handOver(scope, params.personId, body))
    .add(peopleEndpoints.impactOfHandOver, 'people', ({ scope, params, body }) =>
      impactOfHandOver(scope, params.personId, body),
    );
}
