import type { DataSource } from 'typeorm';
import { Refusal } from '../http/refusal.ts';
import { Workspace } from '../workspace/entity.ts';
import { Account, Person } from './entity.ts';
import { passwordMatches } from './password.ts';

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
    throw new Refusal(401, 'Not signed in', 'That address and password do not go together. Check both and try again.');
  }
  return person;
}

/** The person to step in as: in a demo only. */
export async function demoPerson(source: DataSource, personId: string): Promise<Person> {
  const person = await source.getRepository(Person).findOneBy({ id: personId });
  const workspace = person && (await source.getRepository(Workspace).findOneBy({ id: person.workspaceId }));
  if (!person?.accountId || !workspace?.isDemo) {
    throw new Refusal(403, 'Not allowed', 'Stepping in without a password works for the people of the demo only.');
  }
  return person;
}
