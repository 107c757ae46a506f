import { workspaceEndpoints } from '../../contract/index.ts';
import type { ServerParts } from '../http/api.ts';
import type { Routes } from '../http/route.ts';
import { beginSession, endSession, sessionPerson } from '../http/session.ts';
import { describePerson } from '../workspace/service.ts';
import { demoPerson, personByPassword } from './service.ts';

export function sessionRoutes(routes: Routes, { source }: ServerParts): Routes {
  return routes
    .open(workspaceEndpoints.session, async ({ request }) => {
      const signedIn = await sessionPerson(source, request);
      return { person: signedIn && describePerson(signedIn.person) };
    })
    .open(workspaceEndpoints.signIn, async ({ body, request }) => {
      const person = await personByPassword(source, body.email, body.password);
      await beginSession(request, person);
      return { person: describePerson(person) };
    })
    .open(workspaceEndpoints.stepIn, async ({ body, request }) => {
      const person = await demoPerson(source, body.personId);
      await beginSession(request, person);
      return { person: describePerson(person) };
    })
    .open(workspaceEndpoints.signOut, async ({ request }) => {
      await endSession(request);
      return { person: null };
    });
}
