import { leaveEndpoints, peopleEndpoints, shiftEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import { shiftGaps } from './gaps.ts';
import { impactOfChanging, impactOfEntering, impactOfGiving } from './impact.ts';
import { decideLeave, enterLeave, listLeave, takeBackLeave } from './leave.ts';
import { changePerson } from './members.ts';

/** Who is there when, and what follows from it for who has which work. */
export function availabilityRoutes(routes: Routes, { live }: ServerParts): Routes {
  return routes
    .add(peopleEndpoints.change, 'people', async ({ scope, params, body }) => {
      const saved = await changePerson(scope, params.personId, body);
      await live.endSignedOut();
      return saved;
    })
    .add(peopleEndpoints.impactOfChanging, 'people', ({ scope, params, body }) =>
      impactOfChanging(scope, params.personId, body),
    )
    .add(shiftEndpoints.gaps, 'read', async ({ scope }) => ({ gaps: await shiftGaps(scope) }))
    .add(leaveEndpoints.list, 'read', async ({ scope, query }) => ({ leave: await listLeave(scope, query) }))
    .add(leaveEndpoints.enter, 'leave', ({ scope, params, body }) => enterLeave(scope, params.personId, body))
    .add(leaveEndpoints.impactOfEntering, 'leave', ({ scope, params, body }) =>
      impactOfEntering(scope, params.personId, body),
    )
    .add(leaveEndpoints.decide, 'people', ({ scope, params, body }) => decideLeave(scope, params.leaveId, body))
    .add(leaveEndpoints.impactOfGiving, 'people', ({ scope, params, body }) =>
      impactOfGiving(scope, params.leaveId, body.cover),
    )
    .add(leaveEndpoints.takeBack, 'leave', ({ scope, params, body }) =>
      takeBackLeave(scope, params.leaveId, body.version),
    );
}
