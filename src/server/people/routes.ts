import { peopleEndpoints, workspaceEndpoints } from '../../contract/index.ts';
import { isoOfDay } from '../../core/index.ts';
import { linkOrigin } from '../platform/http/addresses.ts';
import type { Routes } from '../platform/http/route.ts';
import {
  accountSessions,
  beginSession,
  endOtherSessions,
  endSession,
  sessionPerson,
} from '../platform/http/session.ts';
import { Person } from '../platform/identity/person.ts';
import type { Scope } from '../platform/scope.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import { describePerson } from '../workspace/index.ts';
import { colleagues, weeksOfWork } from './colleagues.ts';
import { acceptInvitation, lookAtInvitation, sendInvitation, withdrawInvitation } from './invitations.ts';
import { addMember, listMembers, oneMember } from './members.ts';
import { askForAddress, confirmAddress, lookAtReset, resetPassword, SAID_OF_FORGOTTEN, sendReset } from './recovery.ts';
import {
  accountOf,
  changeMyWays,
  changePassword,
  demoPerson,
  personByPassword,
  personElsewhere,
  workspacesOf,
} from './service.ts';

export function sessionRoutes(routes: Routes, { reads, writes, live, clock }: ServerParts): Routes {
  return routes
    .open(workspaceEndpoints.session, async ({ request }) => {
      const signedIn = await sessionPerson(reads, request, clock);
      return { person: signedIn && describePerson(signedIn.person) };
    })
    .open(workspaceEndpoints.signIn, async ({ body, request }) => {
      const person = await personByPassword(reads, clock, body.email, body.password);
      await beginSession(request, person, { isKept: body.stay });
      return { person: describePerson(person) };
    })
    .open(workspaceEndpoints.stepIn, async ({ body, request }) => {
      const person = await demoPerson(reads, body.personId);
      await beginSession(request, person, { isKept: true });
      return { person: describePerson(person) };
    })
    .open(workspaceEndpoints.signOut, async ({ request }) => {
      await endSession(request);
      await live.endSignedOut();
      return { person: null };
    })
    .add(workspaceEndpoints.workspaces, 'account', async ({ scope }) => ({
      workspaces: await workspacesOf(reads, clock, scope.person?.accountId ?? null),
    }))
    .add(workspaceEndpoints.changeWorkspace, 'account', async ({ scope, body, request }) => {
      const person = await personElsewhere(reads, scope, body.personId);
      await beginSession(request, person, { isKept: request.session.isKept === true });
      await live.endSignedOut();
      return { person: describePerson(person) };
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
    })
    .add(workspaceEndpoints.myWays, 'account', async ({ scope, body }) => {
      await changeMyWays(scope, body);
      return body;
    })
    .add(workspaceEndpoints.askForAddress, 'account', async ({ scope, body, request }) => {
      await askForAddress(scope, writes, body, linkOrigin(request));
      return { said: `A link is on its way to ${body.email}. Until it is opened, the old address stays.` };
    });
}

/** People of the workspace, and how they get in. */
export function peopleRoutes(routes: Routes, { reads, writes, clock, live, log }: ServerParts): Routes {
  return routes
    .add(peopleEndpoints.list, 'read', ({ scope }) => listMembers(scope))
    .add(peopleEndpoints.colleagues, 'read', async ({ scope, query }) => {
      const [found, weeks] = await scope.atOnce(
        () => colleagues(scope),
        () => weeksOfWork(scope, query.schedule),
      );
      return { colleagues: found, weeks: weeks.map(({ monday, ...one }) => ({ ...one, monday: isoOfDay(monday) })) };
    })
    .add(peopleEndpoints.add, 'people', ({ scope, body, request }) => addMember(scope, body, linkOrigin(request)))
    .add(peopleEndpoints.invite, 'people', ({ scope, params, request }) =>
      scope.transaction(async (tx) => {
        await sendInvitation(tx, await tx.locked(Person, params.personId, 'person'), linkOrigin(request));
        return told(tx, params.personId);
      }),
    )
    .add(peopleEndpoints.withdraw, 'people', ({ scope, params }) =>
      scope.transaction(async (tx) => {
        await tx.one(Person, params.personId, 'person');
        await withdrawInvitation(tx, params.personId);
        return told(tx, params.personId);
      }),
    )
    .open(peopleEndpoints.lookAtInvitation, ({ body }) => lookAtInvitation(reads, clock, body.token))
    .open(peopleEndpoints.accept, async ({ body, request }) => {
      const person = await acceptInvitation(writes, clock, body.token, body.password);
      await beginSession(request, person, { isKept: true });
      return { person: describePerson(person) };
    })
    .open(peopleEndpoints.forgotten, async ({ body, request }) => {
      const origin = linkOrigin(request);
      // After the answer, so that how long it takes tells nobody anything.
      setImmediate(() => {
        sendReset(writes, clock, body.email, origin).catch((error: unknown) =>
          log.error({ err: error }, 'a link to a new password could not be sent'),
        );
      });
      return { said: SAID_OF_FORGOTTEN };
    })
    .open(peopleEndpoints.lookAtReset, ({ body }) => lookAtReset(reads, clock, body.token))
    .open(peopleEndpoints.reset, async ({ body, request }) => {
      const person = await resetPassword(writes, clock, body.token, body.password);
      await live.endSignedOut();
      await beginSession(request, person, { isKept: true });
      return { person: describePerson(person) };
    })
    .open(workspaceEndpoints.confirmAddress, ({ body }) => confirmAddress(writes, clock, body.token));
}

async function told(scope: Scope, personId: string) {
  await scope.tell('workspace');
  return oneMember(scope, personId);
}
