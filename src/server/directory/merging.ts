import { type ClientInput, FIELD_WORDS, type Merging } from '../../contract/index.ts';
import { joinAnd } from '../../core/index.ts';
import { Client } from '../clients/index.ts';
import { plansOfEach } from '../plans/stored/index.ts';
import type { FieldChanges } from '../platform/changes/entity.ts';
import { changedMeanwhile, invalid, notNow } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { followName, mustBeSeen, type SavedClient } from './changing.ts';
import { oneClient } from './one-client.ts';

/** What names a client, and goes over to another with it. */
const TABLES = ['contact', 'asset', 'schedule', 'task', 'notice', 'on_plan', 'call', 'answer', 'mail'] as const;
type Table = (typeof TABLES)[number];
const COUNTED = {
  contact: 'contacts',
  asset: 'assets',
  schedule: 'schedules',
  task: 'tasks',
  notice: 'notices',
  on_plan: 'plans',
  call: 'calls',
  answer: 'answers',
  mail: 'mails',
} as const satisfies Record<Table, keyof Merging>;
/** Ids of rows by their table, and whose they were. */
type Moved = Readonly<Record<Table, readonly string[]>> & { readonly otherId: string };

export async function lookAtMerging(scope: Scope, id: string, otherId: string): Promise<Merging> {
  const [one, other] = await bothOf(scope, id, otherId);
  await mustHaveOwnPlans(scope, one, other);
  const [counts] = await scope.sql<Omit<Merging, 'filled'>>(
    `select ${TABLES.map((table) => `(select count(*)::int from ${table} where workspace_id = $1 and client_id = $2) as ${COUNTED[table]}`).join(', ')}`,
    [otherId],
  );
  const filled = Object.keys(takenOver(one, other)).map((field) => FIELD_WORDS[field] ?? field);
  return { ...(counts as Omit<Merging, 'filled'>), filled };
}

/** Everything of another goes over to this one; the other goes into the archive with nothing left. */
export async function mergeClients(
  scope: Scope,
  id: string,
  { otherId, version }: { readonly otherId: string; readonly version: number },
): Promise<SavedClient> {
  const changeId = await scope.transaction(async (tx) => {
    // In the order of their ids, so that two who merge them each way don't wait for each other for good.
    for (const each of [id, otherId].sort()) await tx.locked(Client, each, 'client');
    const [one, other] = await bothOf(tx, id, otherId);
    mustBeSeen(one, version);
    await mustHaveOwnPlans(tx, one, other);
    const set = takenOver(one, other);
    await tx.save(Client, id, { ...set, version: one.version + 1 });
    const archived = { archivedAt: other.archivedAt ?? tx.instant };
    await tx.save(Client, otherId, { ...archived, version: other.version + 1 });
    const moved: Record<string, string[]> = {};
    for (const table of TABLES) moved[table] = await move(tx, table, otherId, id);
    await followName(tx, 'client_id', id);
    const changeId = await tx.recordTogether([
      {
        subject: 'client',
        subjectId: id,
        action: 'merged',
        fields: { ...fieldChanges(one, set), moved: { from: null, to: { ...moved, otherId } } },
      },
      { subject: 'client', subjectId: otherId, action: 'archived', fields: fieldChanges(other, archived) },
    ]);
    await tx.tell('clients', 'schedules', 'tasks');
    return changeId;
  });
  return { client: await oneClient(scope, id), changeId };
}

/** Gives back what went over, and is still there. */
export async function unmerge(scope: Scope, id: string, fields: FieldChanges): Promise<void> {
  const { otherId, ...moved } = (fields['moved']?.to ?? {}) as Moved;
  for (const table of TABLES) {
    const back = await scope.sql<{ id: string }>(
      `update ${table} set client_id = $3${seen(table)} where workspace_id = $1 and client_id = $2 and id = any($4::uuid[]) returning id`,
      [id, otherId, moved[table] ?? []],
    );
    if (table !== 'task' && back.length < (moved[table] ?? []).length)
      throw changedMeanwhile('What went over was changed again since, so this can no longer be undone in one go.');
  }
  await scope.sql(
    `update contact set position = own.place from (
       select id, row_number() over (order by position, id) - 1 as place from contact where workspace_id = $1 and client_id = $2) own
     where contact.workspace_id = $1 and contact.id = own.id`,
    [otherId],
  );
  await followName(scope, 'client_id', otherId);
  await scope.tell('clients', 'schedules', 'tasks');
}

/** Whoever has one of them open is told that it has changed; contacts are a part of their client, and what was written stays as it is. */
const VERSIONED: ReadonlySet<Table> = new Set<Table>(['asset', 'schedule', 'task', 'on_plan', 'call']);
const seen = (table: Table): string => (VERSIONED.has(table) ? ', version = version + 1' : '');

async function move(scope: Scope, table: Table, from: string, to: string): Promise<string[]> {
  // Contacts stand after those that are there.
  const after =
    ', position = position + (select count(*) from contact own where own.workspace_id = $1 and own.client_id = $3)';
  const more = table === 'contact' ? after : seen(table);
  const rows = await scope.sql<{ id: string }>(
    `update ${table} set client_id = $3${more} where workspace_id = $1 and client_id = $2 returning id`,
    [from, to],
  );
  return rows.map(({ id }) => id);
}

/** On one plan twice, a client's work would come twice. */
async function mustHaveOwnPlans(scope: Scope, one: Client, other: Client): Promise<void> {
  const plans = await plansOfEach(scope, [one.id, other.id]);
  const both = (plans.get(one.id) ?? []).filter(({ id }) => plans.get(other.id)?.some((plan) => plan.id === id));
  if (both.length === 0) return;
  const names = joinAnd(both.map(({ name }) => name));
  throw notNow(`Both are on ${names}, so its work would come twice: take ${one.name} or ${other.name} off first.`);
}

async function bothOf(scope: Scope, id: string, otherId: string): Promise<[Client, Client]> {
  if (id === otherId) throw invalid([{ path: 'otherId', message: 'That is the same client: choose another.' }]);
  return [await scope.one(Client, id, 'client'), await scope.one(Client, otherId, 'client')];
}

/** What is empty with one and not with the other; notes stand below each other. */
function takenOver(one: Client, other: Client): Partial<Omit<ClientInput, 'contacts'>> {
  const fields = { ...other.fields, ...one.fields };
  return {
    ...(one.address === '' && other.address !== '' ? { address: other.address } : {}),
    ...(one.usualPersonId === null && other.usualPersonId !== null ? { usualPersonId: other.usualPersonId } : {}),
    ...(other.notes === '' ? {} : { notes: [one.notes, other.notes].filter(Boolean).join('\n\n') }),
    ...(Object.keys(fields).length > Object.keys(one.fields).length ? { fields } : {}),
  };
}
