import type { DataSource, EntityManager, SelectQueryBuilder } from 'typeorm';
import type { Clock } from '../platform/clock.ts';
import { uuidv7 } from '../platform/db/uuid.ts';
import { digestOf, newToken } from '../platform/digest.ts';
import { Account, Person } from '../platform/identity/person.ts';
import { Workspace } from '../platform/identity/workspace.ts';
import { forbidden, invalid, Refusal } from '../platform/refusal.ts';
import { Scope } from '../platform/scope.ts';
import { post } from '../post/index.ts';
import { AccountLink } from './entity.ts';
import { hashPassword, passwordMatches } from './password.ts';
import { accountOf, checkNewPassword } from './service.ts';

const HOUR_MS = 60 * 60 * 1000;
/** Hours that a link to a new password, or to another address, works. */
const LINK_HOURS = 2;
/** Links that an account may have open at once: whoever asks over and over fills nobody's mailbox. */
const MOST_OPEN = 3;

/** What is answered to everybody, whether there is such an account or not. */
export const SAID_OF_FORGOTTEN = `If that address signs in here, a mail is on its way to it. Its link works for ${LINK_HOURS} hours.`;

/**
 * Sends a link to a new password, where the address has an account. Done after the answer: how long that takes does not tell
 * whether there is one.
 */
export async function sendReset(source: DataSource, clock: Clock, email: string, origin: string): Promise<void> {
  await source.transaction(async (manager) => {
    const account = await accountBy(manager, email);
    const somewhere = account && (await somewhereOf(manager, clock, account));
    if (!account || !somewhere || somewhere.scope.workspace.isDemo) return;
    const link = await addLink(manager, clock, account.id, 'password', account.email);
    if (link === null) return;
    await post(somewhere.scope, {
      reason: `password ${link.id}`,
      kind: 'password',
      to: { name: somewhere.person.name, email: account.email },
      isPrivate: true,
      letter: {
        subject: 'A new password for Jolly Rota',
        from: somewhere.scope.workspace.name,
        greeting: `Dear ${somewhere.person.name},`,
        paragraphs: ['somebody, probably you, said that the password of this address is forgotten.'],
        deed: { words: 'Choose a new password', url: `${origin}/new-password#${link.token}` },
        after: [
          `The link works once, and for ${LINK_HOURS} hours. If it was not you, leave it: the password stays as it is.`,
        ],
      },
    });
  });
}

export async function lookAtReset(source: DataSource, clock: Clock, token: string) {
  const link = await checkedLink(linkBy(source.manager, 'password', token), clock);
  return { email: link.email };
}

/** Sets the new password; whoever is signed in with the old one is signed out. */
export function resetPassword(source: DataSource, clock: Clock, token: string, password: string): Promise<Person> {
  return source.transaction(async (manager) => {
    const { id, accountId, email } = await heldLink(manager, clock, 'password', token);
    checkNewPassword(password, email, 'password');
    await manager.update(AccountLink, { id }, { usedAt: new Date(clock.now()) });
    await manager.update(Account, { id: accountId }, { passwordHash: await hashPassword(password) });
    await manager.query(`delete from session where sess->>'accountId' = $1`, [accountId]);
    const account = await manager.findOneByOrFail(Account, { id: accountId });
    const somewhere = await somewhereOf(manager, clock, account);
    if (!somewhere) throw forbidden('The password is changed, but this address belongs to no workspace any more.');
    return somewhere.person;
  });
}

/** Sends a link to another address of the account; until it is used all stays as it is. */
export function askForAddress(
  scope: Scope,
  source: DataSource,
  { email, password }: { readonly email: string; readonly password: string },
  origin: string,
): Promise<void> {
  return source.transaction(async (manager) => {
    if (scope.workspace.isDemo) throw forbidden('In the demo everybody keeps the address they have.');
    const account = await accountOf(source, scope);
    if (!(await passwordMatches(account.passwordHash, password)))
      throw invalid([{ path: 'password', message: 'That is not your present password.' }]);
    if (email.toLowerCase() === account.email.toLowerCase())
      throw invalid([{ path: 'email', message: 'That is the address you have.' }]);
    const tx = new Scope(manager, scope.workspace, scope.person, scope.clock);
    const link = await addLink(manager, scope.clock, account.id, 'address', email);
    if (link === null) throw new Refusal('not-now', 'Several links are on their way already. Wait for one of them.');
    await post(tx, {
      reason: `address ${link.id}`,
      kind: 'address',
      to: { name: scope.person?.name ?? '', email },
      isPrivate: true,
      letter: {
        subject: 'Is this your address?',
        from: scope.workspace.name,
        greeting: `Dear ${scope.person?.name ?? ''},`,
        paragraphs: [`you want to sign in with ${email} instead of ${account.email}.`],
        deed: { words: 'Yes, it is mine', url: `${origin}/new-address#${link.token}` },
        after: [`The link works once, and for ${LINK_HOURS} hours. Until then the old address stays.`],
      },
    });
  });
}

/** Makes the new address the account's, and tells the old one. */
export function confirmAddress(source: DataSource, clock: Clock, token: string): Promise<{ email: string }> {
  return source.transaction(async (manager) => {
    const { id, accountId, email } = await heldLink(manager, clock, 'address', token);
    const account = await manager.findOneByOrFail(Account, { id: accountId });
    const taken = await accountBy(manager, email);
    if (taken && taken.id !== accountId)
      throw new Refusal('not-now', 'That address can’t be used: it signs in already.');
    await manager.update(AccountLink, { id }, { usedAt: new Date(clock.now()) });
    await manager.update(Account, { id: accountId }, { email });
    for (const person of await manager.findBy(Person, { accountId }))
      await manager.update(Person, { workspaceId: person.workspaceId, id: person.id }, { email });
    const somewhere = await somewhereOf(manager, clock, account);
    if (somewhere)
      await post(somewhere.scope, {
        reason: `address changed ${id}`,
        kind: 'address',
        to: { name: somewhere.person.name, email: account.email },
        isPrivate: false,
        letter: {
          subject: 'You sign in with another address now',
          from: somewhere.scope.workspace.name,
          greeting: `Dear ${somewhere.person.name},`,
          paragraphs: [
            `from now on you sign in with ${email}, and mails go there. This is the last one to ${account.email}.`,
          ],
          deed: null,
          after: ['If it was not you, tell a manager at once.'],
        },
      });
    return { email };
  });
}

function accountBy(manager: EntityManager, email: string): Promise<Account | null> {
  return manager
    .createQueryBuilder(Account, 'account')
    .where('lower(account.email) = lower(:email)', { email })
    .getOne();
}

/** One of the workspaces of an account: a mail comes from somewhere. */
async function somewhereOf(manager: EntityManager, clock: Clock, { id }: Account) {
  const [person] = await manager.find(Person, { where: { accountId: id }, order: { id: 'ASC' }, take: 1 });
  if (!person) return null;
  const workspace = await manager.findOneByOrFail(Workspace, { id: person.workspaceId });
  return { person, scope: new Scope(manager, workspace, null, clock) };
}

async function addLink(
  manager: EntityManager,
  clock: Clock,
  accountId: string,
  kind: AccountLink['kind'],
  email: string,
): Promise<{ readonly id: string; readonly token: string } | null> {
  const now = new Date(clock.now());
  const [open] = await manager.query<{ count: number }[]>(
    'select count(*)::int as count from account_link where account_id = $1 and kind = $2 and used_at is null and ends_at > $3',
    [accountId, kind, now],
  );
  if ((open?.count ?? 0) >= MOST_OPEN) return null;
  const { token, digest } = newToken();
  const id = uuidv7(clock.now());
  await manager.insert(AccountLink, {
    ...{ id, accountId, kind, digest, email },
    endsAt: new Date(clock.now() + LINK_HOURS * HOUR_MS),
    usedAt: null,
  });
  return { id, token };
}

function linkBy(manager: EntityManager, kind: AccountLink['kind'], token: string): SelectQueryBuilder<AccountLink> {
  return manager
    .createQueryBuilder(AccountLink, 'link')
    .where('link.digest = :digest and link.kind = :kind', { digest: digestOf(token), kind });
}

/** Held until the transaction ends: of two who use it at once, the second finds it used. */
function heldLink(
  manager: EntityManager,
  clock: Clock,
  kind: AccountLink['kind'],
  token: string,
): Promise<AccountLink> {
  return checkedLink(linkBy(manager, kind, token).setLock('pessimistic_write'), clock);
}

async function checkedLink(query: SelectQueryBuilder<AccountLink>, clock: Clock): Promise<AccountLink> {
  const link = await query.getOne();
  const over = (why: string) => new Refusal('not-now', `This link ${why}. Ask for another one.`);
  if (!link) throw over('is not known here');
  if (link.usedAt !== null) throw over('was used already');
  if (link.endsAt.getTime() <= clock.now()) throw over('has run out');
  return link;
}
