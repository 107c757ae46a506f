import { workspaceEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { Refusal } from '../platform/refusal.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import { changeLists, describeClock, describeWorkspace, welcome } from './service.ts';

export function workspaceRoutes(routes: Routes, { reads, clock }: ServerParts): Routes {
  return routes
    .open(workspaceEndpoints.welcome, async () => {
      const answer = await welcome(reads, clock);
      if (!answer)
        throw new Refusal('not-found', 'There is no workspace yet. Start the server with the demo data, or make one.');
      return answer;
    })
    .add(workspaceEndpoints.workspace, 'read', ({ scope }) => describeWorkspace(scope))
    .add(workspaceEndpoints.clock, 'read', async ({ scope }) => describeClock(scope))
    .add(workspaceEndpoints.lists, 'plan', ({ scope, body }) => changeLists(scope, body));
}
