import type { ClientInput, ClientRecord } from '../../contract/index.ts';
import { type FieldValues, fieldProblem, hasLeftBy, type OwnField } from '../../core/index.ts';
import { Client, Contact } from '../clients/index.ts';
import { Person } from '../platform/identity/person.ts';
import { changedMeanwhile, invalid } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { followSchedules } from '../schedules/index.ts';
import { contactsOf, oneClient } from './one-client.ts';

export interface SavedClient {
  readonly client: ClientRecord;
  readonly changeId: string | null;
}

export async function addClient(scope: Scope, input: ClientInput): Promise<SavedClient> {
  const { id, changeId } = await scope.transaction(async (tx) => {
    await check(tx, input, null);
    const { contacts, ...fields } = input;
    const { id } = await tx.insert(Client, { ...fields, id: tx.newId(), version: 1, archivedAt: null });
    await writeContacts(tx, id, contacts);
    const changeId = await tx.record('client', id, 'added', fieldChanges({}, input));
    await tx.tell('clients');
    return { id, changeId };
  });
  return { client: await oneClient(scope, id), changeId };
}

export async function changeClient(
  scope: Scope,
  id: string,
  { version, ...input }: ClientInput & { readonly version: number },
): Promise<SavedClient> {
  const changeId = await scope.transaction(async (tx) => {
    const before = await tx.locked(Client, id, 'client');
    mustBeSeen(before, version);
    await check(tx, input, before);
    return writeClient(tx, before, input, 'changed');
  });
  return { client: await oneClient(scope, id), changeId };
}

export function mustBeSeen(now: { readonly version: number }, version: number): void {
  if (now.version !== version)
    throw changedMeanwhile(
      'Someone else changed this since you opened it. Yours is still on the screen, not saved; “Put back” shows theirs.',
    );
}

/** Writes what differs, within another change; null where nothing does. */
export async function writeClient(
  scope: Scope,
  before: Client,
  set: Partial<ClientInput>,
  action: 'changed' | 'undone',
): Promise<string | null> {
  const contacts = set.contacts ? await contactsOf(scope, before.id) : [];
  const changed = fieldChanges({ ...before, contacts }, set);
  if (Object.keys(changed).length === 0) return null;
  const { contacts: others, ...own } = set;
  await scope.save(Client, before.id, { ...own, version: before.version + 1 });
  if (others && 'contacts' in changed) await writeContacts(scope, before.id, others);
  if ('name' in changed || 'usualPersonId' in changed) await followName(scope, 'client_id', before.id);
  const changeId = await scope.record('client', before.id, action, changed);
  await scope.tell('clients');
  return changeId;
}

/** Titles that name it name it as it is called now, and its usual person has its work, in tasks that nobody has seen. */
export async function followName(scope: Scope, column: 'client_id' | 'asset_id', id: string): Promise<void> {
  const schedules = await scope.sql<{ id: string }>(
    `select id from schedule where workspace_id = $1 and ${column} = $2 and deleted_at is null`,
    [id],
  );
  await followSchedules(
    scope,
    schedules.map((schedule) => schedule.id),
  );
  await scope.tell('schedules', 'tasks');
}

async function writeContacts(scope: Scope, clientId: string, contacts: ClientInput['contacts']): Promise<void> {
  const ids = contacts.map(({ id }) => id);
  const taken = await scope.sql<{ name: string }>(
    'select name from contact where workspace_id = $1 and client_id <> $2 and id = any($3::uuid[]) limit 1',
    [clientId, ids],
  );
  if (taken[0]) throw invalid([{ path: 'contacts', message: `${taken[0].name} is a contact of another client.` }]);
  await scope.sql('delete from contact where workspace_id = $1 and client_id = $2', [clientId]);
  for (const [position, contact] of contacts.entries()) await scope.insert(Contact, { ...contact, clientId, position });
}

/** What the schemas can't see. What stands there already may stay, though it could not be given anew. */
async function check(scope: Scope, input: ClientInput, before: Client | null): Promise<void> {
  const problems = fieldProblems(scope.workspace.clientFields, input.fields, before?.fields ?? {});
  if (input.usualPersonId !== null && input.usualPersonId !== before?.usualPersonId) {
    const [person] = await scope.find(Person, { id: input.usualPersonId });
    if (!person) problems.push({ path: 'usualPersonId', message: 'There is no such person here.' });
    else if (hasLeftBy(person, scope.now.day))
      problems.push({ path: 'usualPersonId', message: `${person.name} has left.` });
  }
  if (problems.length > 0) throw invalid(problems);
}

export function fieldProblems(
  fields: readonly OwnField[],
  values: FieldValues,
  before: FieldValues,
): { path: string; message: string }[] {
  return Object.entries(values).flatMap(([key, value]) => {
    if (before[key] === value) return [];
    const field = fields.find((one) => one.key === key);
    const message = field ? fieldProblem(field, value) : 'There is no such field here any more.';
    return message === null ? [] : [{ path: `fields.${key}`, message }];
  });
}
