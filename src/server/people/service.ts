import type { DataSource } from 'typeorm';
import { Account, Person } from '../platform/identity/person.ts';
import { Workspace } from '../platform/identity/workspace.ts';
import { forbidden, invalid, notFound, Refusal } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { hashPassword, passwordMatches } from './password.ts';

/** The person behind an address and password. */
export async function personByPassword(source: DataSource, email: string, password: string): Promise<Person> {
  const account = await source
    .getRepository(Account)
    .createQueryBuilder('account')
    .where('lower(account.email) = lower(:email)', { email })
    .getOne();
  const right = await passwordMatches(account?.passwordHash ?? null, password);
  const person = right && account ? await source.getRepository(Person).findOneBy({ accountId: account.id }) : null;
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
  if (next.toLowerCase().includes(account.email.split('@')[0]?.toLowerCase() ?? account.email))
    throw invalid([{ path: 'next', message: 'Leave your own name out of it: that is tried first.' }]);
  await source.getRepository(Account).update({ id: account.id }, { passwordHash: await hashPassword(next) });
}
