import { workspaceEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import {
  accountSessions,
  beginSession,
  endOtherSessions,
  endSession,
  sessionPerson,
} from '../platform/http/session.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import { describePerson } from '../workspace/index.ts';
import { accountOf, changePassword, demoPerson, personByPassword } from './service.ts';

export function sessionRoutes(routes: Routes, { reads, writes, live }: ServerParts): Routes {
  return routes
    .open(workspaceEndpoints.session, async ({ request }) => {
      const signedIn = await sessionPerson(reads, request);
      return { person: signedIn && describePerson(signedIn.person) };
    })
    .open(workspaceEndpoints.signIn, async ({ body, request }) => {
      const person = await personByPassword(reads, body.email, body.password);
      await beginSession(request, person);
      return { person: describePerson(person) };
    })
    .open(workspaceEndpoints.stepIn, async ({ body, request }) => {
      const person = await demoPerson(reads, body.personId);
      await beginSession(request, person);
      return { person: describePerson(person) };
    })
    .open(workspaceEndpoints.signOut, async ({ request }) => {
      await endSession(request);
      await live.endSignedOut();
      return { person: null };
    })
    .add(workspaceEndpoints.sessions, 'account', async ({ scope, request }) => ({
      email: (await accountOf(reads, scope)).email,
      sessions: (await accountSessions(reads, request)).map(({ begunAt, ...session }) => ({
        ...session,
        begunAt: scope.moment(begunAt),
      })),
    }))
    .add(workspaceEndpoints.endSessions, 'account', async ({ body, request }) => {
      const ended = await endOtherSessions(writes, request, body.only);
      await live.endSignedOut();
      return { ended };
    })
    .add(workspaceEndpoints.password, 'account', async ({ scope, body, request }) => {
      await changePassword(writes, scope, body);
      const ended = await endOtherSessions(writes, request, null);
      await live.endSignedOut();
      return { ended };
    });
}
