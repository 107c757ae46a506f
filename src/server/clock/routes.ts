import { clockEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { clockedLately, clockOff, clockOn, onNow, takeBack } from './clocking.ts';

export function clockRoutes(routes: Routes): Routes {
  return routes
    .add(clockEndpoints.now, 'read', async ({ scope }) => ({ on: await onNow(scope) }))
    .add(clockEndpoints.list, 'clock', async ({ scope, params }) => ({
      clockings: await clockedLately(scope, params.personId),
    }))
    .add(clockEndpoints.on, 'clock', ({ scope, params, body }) => clockOn(scope, params.personId, body.at))
    .add(clockEndpoints.off, 'clock', ({ scope, params, body }) => clockOff(scope, params.personId, body.at))
    .add(clockEndpoints.takeBack, 'clock', async ({ scope, params, body }) => ({
      on: await takeBack(scope, params.personId, body.id),
    }));
}
