import type { DataSource } from 'typeorm';
import { IsNull } from 'typeorm';
import { hasLeftBy } from '../../core/index.ts';
import type { Clock } from '../platform/clock.ts';
import { digestOf, newToken } from '../platform/digest.ts';
import { Account, Person } from '../platform/identity/person.ts';
import { Workspace } from '../platform/identity/workspace.ts';
import { invalid, notNow, Refusal } from '../platform/refusal.ts';
import { Scope } from '../platform/scope.ts';
import { post } from '../post/index.ts';
import { Invitation } from './entity.ts';
import { hashPassword, passwordMatches } from './password.ts';
import { checkNewPassword } from './service.ts';

export const INVITATION_DAYS = 7;
const DAY_MS = 24 * 60 * 60 * 1000;

export type Open = Pick<Invitation, 'id' | 'personId' | 'endsAt'>;

/** Invitations that were neither used nor withdrawn, by person; their time may have run out. */
export async function openInvitations(scope: Scope, personIds: readonly string[]): Promise<ReadonlyMap<string, Open>> {
  const rows = await scope.sql<Open>(
    `select id, person_id as "personId", ends_at as "endsAt" from invitation
     where workspace_id = $1 and person_id = any($2::uuid[]) and used_at is null and withdrawn_at is null`,
    [personIds],
  );
  return new Map(rows.map((row) => [row.personId, row]));
}

/** By mail; a link that went out before works no longer. */
export async function sendInvitation(scope: Scope, person: Person, origin: string): Promise<void> {
  if (person.accountId !== null) throw notNow(`${person.name} signs in already.`);
  if (person.email === null)
    throw invalid([{ path: 'email', message: `${person.name} has no address yet: an invitation goes by mail.` }]);
  if (hasLeftBy(person, scope.now.day)) throw notNow(`${person.name} has left: there is nothing to sign in for.`);
  await withdrawInvitation(scope, person.id);
  const { token, digest } = newToken();
  const id = scope.newId();
  await scope.insert(Invitation, {
    id,
    personId: person.id,
    digest,
    email: person.email,
    sentAt: scope.instant,
    endsAt: new Date(scope.clock.now() + INVITATION_DAYS * DAY_MS),
    usedAt: null,
    withdrawnAt: null,
  });
  const by = scope.person?.name ?? scope.workspace.name;
  await post(scope, {
    reason: `invitation ${id}`,
    kind: 'invitation',
    to: { name: person.name, email: person.email },
    isPrivate: true,
    letter: {
      subject: `${by} asks you to ${scope.workspace.name}`,
      from: scope.workspace.name,
      greeting: `Dear ${person.name},`,
      paragraphs: [
        `${by} has put you down as somebody who works with ${scope.workspace.name}. There you see what is yours to do and when, and say what was done.`,
      ],
      deed: { words: 'Choose a password and begin', url: `${origin}/invitation#${token}` },
      after: [
        `The link works once, and for ${INVITATION_DAYS} days. If you don’t know ${by}, leave it: nothing happens by itself.`,
      ],
    },
  });
}

export async function withdrawInvitation(scope: Scope, personId: string): Promise<void> {
  await scope.sql(
    'update invitation set withdrawn_at = $3 where workspace_id = $1 and person_id = $2 and used_at is null and withdrawn_at is null',
    [personId, scope.instant],
  );
}

const OVER = (why: string) =>
  new Refusal('not-now', `This invitation ${why}. Ask whoever sent it for another: it takes them one click.`);

interface Found {
  readonly invitation: Invitation;
  readonly person: Person;
  readonly workspace: Workspace;
  readonly account: Account | null;
}

async function found(source: DataSource['manager'], clock: Clock, token: string): Promise<Found> {
  const invitation = await source.findOneBy(Invitation, { digest: digestOf(token) });
  if (!invitation) throw OVER('is not known here');
  if (invitation.usedAt !== null)
    throw new Refusal('not-now', 'This invitation was used already. Sign in with your address and password.');
  if (invitation.withdrawnAt !== null) throw OVER('was withdrawn, or a newer one was sent');
  if (invitation.endsAt.getTime() <= clock.now()) throw OVER('has run out');
  const { workspaceId, personId } = invitation;
  const person = await source.findOneByOrFail(Person, { workspaceId, id: personId });
  const workspace = await source.findOneByOrFail(Workspace, { id: workspaceId });
  const account = await source
    .createQueryBuilder(Account, 'account')
    .where('lower(account.email) = lower(:email)', { email: invitation.email })
    .getOne();
  return { invitation, person, workspace, account };
}

export async function lookAtInvitation(source: DataSource, clock: Clock, token: string) {
  const { invitation, person, workspace, account } = await found(source.manager, clock, token);
  return { workspace: workspace.name, name: person.name, email: invitation.email, hasAccount: account !== null };
}

/** Uses an invitation up: whoever has its link is whoever reads mail at that address. */
export function acceptInvitation(source: DataSource, clock: Clock, token: string, password: string): Promise<Person> {
  return source.transaction(async (manager) => {
    const { invitation, person, workspace, account } = await found(manager, clock, token);
    const { workspaceId, id } = invitation;
    const scope = new Scope(manager, workspace, null, clock);
    // Of two who use it at once, the second finds it used.
    const used = await manager.update(Invitation, { workspaceId, id, usedAt: IsNull() }, { usedAt: scope.instant });
    if (used.affected !== 1) throw new Refusal('not-now', 'This invitation was used already.');
    const accountId = account?.id ?? scope.newId();
    if (account) {
      if (!(await passwordMatches(account.passwordHash, password)))
        throw invalid([{ path: 'password', message: 'That is not the password of this address.' }]);
    } else {
      checkNewPassword(password, invitation.email, 'password');
      await manager.insert(Account, {
        id: accountId,
        email: invitation.email,
        passwordHash: await hashPassword(password),
      });
    }
    await manager.update(Person, { workspaceId, id: person.id }, { accountId });
    await scope.record('person', person.id, 'accepted', {});
    await scope.tell('workspace');
    return { ...person, accountId };
  });
}
