import { In } from 'typeorm';
import { textOfValue } from '../../core/index.ts';
import { Asset, Client, Contact } from '../clients/index.ts';
import { takeOutMember, writeMember } from '../people/index.ts';
import { Person } from '../platform/identity/person.ts';
import type { Scope } from '../platform/scope.ts';
import type { BringIn, BringInRow } from './entity.ts';
import { pagesOf } from './pages.ts';
import type { Sum } from './sum.ts';
import { ASSET, CLIENT, CONTACT, upsert, type WrittenClient } from './write-clients.ts';
import type { WrittenPerson } from './write-people.ts';

/** The later lines first: they hang on the earlier ones. */
export async function* writtenRows(scope: Scope, bringIn: BringIn): AsyncGenerator<BringInRow[]> {
  for await (const page of pagesOf(scope, bringIn, 'number, read, before', 'desc'))
    yield page.filter(({ before }) => before !== null);
}

export async function clientsOut(scope: Scope, bringIn: BringIn, sum: Sum): Promise<void> {
  const free = await untouchedSince(scope, bringIn.id);
  for await (const rows of writtenRows(scope, bringIn)) await pageOfClientsOut(scope, rows, free, sum);
}

export async function peopleOut(scope: Scope, bringIn: BringIn, sum: Sum): Promise<void> {
  for await (const rows of writtenRows(scope, bringIn)) await pageOfPeopleOut(scope, rows, sum);
}

/** Clients that are new by a file, and with whom and whose things nobody has done anything since. */
async function untouchedSince(scope: Scope, bringInId: string): Promise<ReadonlySet<string>> {
  const rows = await scope.sql<{ id: string }>(
    `with written as materialized (
       select (before->>'newClientId')::uuid as client_id, (before->>'newAssetId')::uuid as asset_id from bring_in_row
       where workspace_id = $1 and bring_in_id = $2 and before is not null)
     select c.id from client c where c.workspace_id = $1 and c.version = 1 and c.id in (select client_id from written)
       and not exists (select from task t where t.workspace_id = $1 and t.client_id = c.id)
       and not exists (select from notice n where n.workspace_id = $1 and n.client_id = c.id)
       and not exists (select from call x where x.workspace_id = $1 and x.client_id = c.id)
       and not exists (select from on_plan o where o.workspace_id = $1 and o.client_id = c.id)
       and not exists (select from schedule s where s.workspace_id = $1 and s.client_id = c.id)
       and not exists (select from asset a where a.workspace_id = $1 and a.client_id = c.id
         and (a.version > 1 or a.id not in (select asset_id from written where asset_id is not null)))`,
    [bringInId],
  );
  return new Set(rows.map(({ id }) => id));
}

/** What belongs to somebody who stays stays with them: only of those who go, or are as before, is anything taken. */
async function pageOfClientsOut(
  scope: Scope,
  rows: readonly BringInRow[],
  free: ReadonlySet<string>,
  sum: Sum,
): Promise<void> {
  const written = rows.map(({ before, read }) => ({ ...(before as WrittenClient), read }));
  for (const { newClientId, read } of written)
    if (newClientId !== undefined && !free.has(newClientId)) sum.stay.add(read.title);
  await putBack(scope, written, sum);
  const going = written.filter(({ clientId }) => free.has(clientId) || sum.restored.has(clientId));
  const idsOf = (of: (one: WrittenClient) => string | undefined) => going.flatMap((one) => of(one) ?? []);
  const assets = await scope.sql<{ id: string }>(
    `delete from asset a where workspace_id = $1 and id = any($2::uuid[]) and version = 1
       and not exists (select from task t where t.workspace_id = $1 and t.asset_id = a.id)
       and not exists (select from schedule s where s.workspace_id = $1 and s.asset_id = a.id) returning id`,
    [idsOf(({ newAssetId }) => newAssetId)],
  );
  const gone = new Set(assets.map(({ id }) => id));
  for (const { newAssetId, read } of going)
    if (newAssetId !== undefined && !gone.has(newAssetId)) sum.stay.add(textOfValue(read.values, 'asset'));
  await scope.sql('delete from contact where workspace_id = $1 and id = any($2::uuid[])', [
    idsOf(({ newContactId }) => newContactId),
  ]);
  const clients = idsOf(({ newClientId }) => newClientId);
  await scope.sql('delete from client where workspace_id = $1 and id = any($2::uuid[])', [clients]);
  sum.out += clients.length;
}

/** Those that nobody has changed since are as they were before. */
async function putBack(scope: Scope, written: readonly WrittenClient[], sum: Sum): Promise<void> {
  const clients = written.flatMap(({ client }) => client ?? []);
  const assets = written.flatMap(({ asset }) => asset ?? []);
  const contacts = written.flatMap(({ contact }) => contact ?? []);
  const now = new Map((await scope.find(Client, { id: In(clients.map(({ id }) => id)) })).map((one) => [one.id, one]));
  const untouched = clients.filter(({ id, version }) => sum.restored.has(id) || now.get(id)?.version === version + 1);
  const free = new Set(untouched.map(({ id }) => id));
  sum.back += [...free].filter((id) => !sum.restored.has(id)).length;
  for (const { id, name } of clients) if (!free.has(id)) sum.stay.add(name);
  await upsert(
    scope,
    'client',
    Client,
    CLIENT,
    untouched.map((one) => ({ ...one, version: (now.get(one.id)?.version ?? one.version) + 1 })),
  );
  await upsert(
    scope,
    'contact',
    Contact,
    CONTACT,
    contacts.filter(({ clientId }) => free.has(clientId)),
  );
  for (const one of free) sum.restored.add(one);
  const assetsNow = new Map(
    (await scope.find(Asset, { id: In(assets.map(({ id }) => id)) })).map((one) => [one.id, one]),
  );
  const back = assets.filter(({ id, version }) => sum.restored.has(id) || assetsNow.get(id)?.version === version + 1);
  for (const { id } of back) sum.restored.add(id);
  await upsert(
    scope,
    'asset',
    Asset,
    ASSET,
    back.map((one) => ({ ...one, version: (assetsNow.get(one.id)?.version ?? one.version) + 1 })),
  );
}

async function pageOfPeopleOut(scope: Scope, rows: readonly BringInRow[], sum: Sum): Promise<void> {
  for (const { before, read } of rows) {
    const { newPersonId, personId, before: fields, version } = before as WrittenPerson;
    const [person] = await scope.find(Person, { id: newPersonId ?? personId ?? '' });
    if (!person) continue;
    if (newPersonId !== undefined) {
      if (person.version === 1 && (await takeOutMember(scope, person))) sum.out++;
      else sum.stay.add(read.title);
    } else if (fields && person.version === version) {
      await writeMember(scope, person, fields, 'undone');
      sum.back++;
    } else if (fields) sum.stay.add(person.name);
  }
}
