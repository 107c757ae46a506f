import { type DataSource, In } from 'typeorm';
import { MIN_PASSWORD, type OwnWaysSet } from '../../contract/index.ts';
import { hasLeftBy } from '../../core/index.ts';
import { type Clock, civilNow } from '../platform/clock.ts';
import { Account, Person, type StoredWays } from '../platform/identity/person.ts';
import { Workspace } from '../platform/identity/workspace.ts';
import { forbidden, invalid, notFound, Refusal } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { hashPassword, passwordMatches } from './password.ts';

/** The person behind an address and password. */
export async function personByPassword(
  source: DataSource,
  clock: Clock,
  email: string,
  password: string,
): Promise<Person> {
  const account = await source
    .getRepository(Account)
    .createQueryBuilder('account')
    .where('lower(account.email) = lower(:email)', { email })
    .getOne();
  const right = await passwordMatches(account?.passwordHash ?? null, password);
  const [person] = right && account ? await placesOf(source, clock, account.id) : [];
  if (!person) {
    throw new Refusal('wrong-password', 'That address and password do not go together. Check both and try again.');
  }
  return person;
}

/** The person to step in as: in a demo only. */
export async function demoPerson(source: DataSource, personId: string): Promise<Person> {
  const person = await source.getRepository(Person).findOneBy({ id: personId });
  const workspace = person && (await source.getRepository(Workspace).findOneBy({ id: person.workspaceId }));
  if (!person?.accountId || !workspace?.isDemo) {
    throw new Refusal('not-allowed', 'Stepping in without a password works for the people of the demo only.');
  }
  return person;
}

/** The people that stand behind an account, one in each of its workspaces, but for those who have left. */
async function placesOf(source: DataSource, clock: Clock, accountId: string): Promise<Person[]> {
  const people = await source.getRepository(Person).find({ where: { accountId }, order: { id: 'ASC' } });
  const zones = await zonesOf(source, people);
  return people.filter((person) => !hasLeftBy(person, civilNow(clock, zones.get(person.workspaceId) ?? 'UTC').day));
}

async function zonesOf(source: DataSource, people: readonly Person[]): Promise<ReadonlyMap<string, string>> {
  const workspaces = await source
    .getRepository(Workspace)
    .findBy({ id: In(people.map(({ workspaceId }) => workspaceId)) });
  return new Map(workspaces.map(({ id, zone }) => [id, zone]));
}

/** The workspaces that an account may change between, each by its person there. */
export async function workspacesOf(source: DataSource, clock: Clock, accountId: string | null) {
  if (accountId === null) return [];
  const people = await placesOf(source, clock, accountId);
  const workspaces = await source
    .getRepository(Workspace)
    .findBy({ id: In(people.map(({ workspaceId }) => workspaceId)) });
  const names = new Map(workspaces.map(({ id, name }) => [id, name]));
  return people.map(({ id, workspaceId }) => ({ id, name: names.get(workspaceId) ?? '' }));
}

/** The same account, in another of its workspaces. */
export async function personElsewhere(source: DataSource, { person, clock }: Scope, personId: string): Promise<Person> {
  const places = person?.accountId ? await placesOf(source, clock, person.accountId) : [];
  const there = places.find(({ id }) => id === personId);
  if (!there) throw notFound('workspace');
  return there;
}

/** The account of whoever is signed in. */
export async function accountOf(source: DataSource, { person }: Scope): Promise<Account> {
  const account = person?.accountId ? await source.getRepository(Account).findOneBy({ id: person.accountId }) : null;
  if (!account) throw notFound('account');
  return account;
}

/** Gives an account another password, for whoever knows its present one. In a demo all keep the one that is told on the first page. */
export async function changePassword(
  source: DataSource,
  scope: Scope,
  { current, next }: { readonly current: string; readonly next: string },
): Promise<void> {
  if (scope.workspace.isDemo)
    throw forbidden('In the demo everybody keeps the password that is told on the first page.');
  const account = await accountOf(source, scope);
  if (!(await passwordMatches(account.passwordHash, current)))
    throw invalid([{ path: 'current', message: 'That is not your present password.' }]);
  if (next === current) throw invalid([{ path: 'next', message: 'That is the password you have.' }]);
  checkNewPassword(next, account.email, 'next');
  await source.getRepository(Account).update({ id: account.id }, { passwordHash: await hashPassword(next) });
}

/** How whoever is signed in sees dates and times from now on, and where they begin. */
export async function changeMyWays(scope: Scope, chosen: OwnWaysSet): Promise<void> {
  if (!scope.person) throw notFound('person');
  const ways: StoredWays = Object.fromEntries(Object.entries(chosen).filter(([, way]) => way !== null));
  await scope.sql('update person set ways = $2 where workspace_id = $1 and id = $3', [
    JSON.stringify(ways),
    scope.person.id,
  ]);
}

/** @throws Refusal where it is too short, or what is tried first */
export function checkNewPassword(password: string, email: string, path: string): void {
  if (password.length < MIN_PASSWORD)
    throw invalid([{ path, message: `A password has ${MIN_PASSWORD} characters or more.` }]);
  if (password.toLowerCase().includes(email.split('@')[0]?.toLowerCase() ?? email))
    throw invalid([{ path, message: 'Leave your own name out of it: that is tried first.' }]);
}
