import { In } from 'typeorm';
import { type AssetRecord, CLIENTS_A_PAGE, type ClientRecord } from '../../contract/index.ts';
import { plainWords } from '../../core/index.ts';
import { Asset, Client, Contact } from '../clients/index.ts';
import { patternsOf } from '../platform/db/like.ts';
import { readCursor } from '../platform/http/cursor.ts';
import { Person } from '../platform/identity/person.ts';
import { namedOrNull } from '../platform/named.ts';
import type { Scope } from '../platform/scope.ts';
import { refusedAddresses, stoppedAddresses } from '../post/index.ts';
import { keptLines } from '../schedules/index.ts';
import { byClient } from './list.ts';

export async function oneClient(scope: Scope, id: string): Promise<ClientRecord> {
  const client = await scope.one(Client, id, 'client');
  const [contacts, assets, lines, person] = await scope.atOnce(
    () => contactsOf(scope, id),
    () => scope.find(Asset, { clientId: id }),
    async () => byClient(await keptLines(scope)),
    async () => (client.usualPersonId === null ? null : scope.one(Person, client.usualPersonId, 'person')),
  );
  const refused = await refusedAddresses(
    scope,
    contacts.map(({ email }) => email),
  );
  const stopped = await stoppedAddresses(
    scope,
    contacts.map(({ email }) => email),
  );
  const { name, address, usualPersonId, notes, fields, version, archivedAt } = client;
  return {
    ...{ id, name, address, usualPersonId, notes, fields, version, contacts, refused, stopped },
    isArchived: archivedAt !== null,
    usualPerson: person && { id: person.id, name: person.name },
    assets: (await assetRecords(scope, assets)).sort((a, b) => a.name.localeCompare(b.name)),
    schedules: (lines.get(id) ?? [])
      .map(({ row, who, phrase, state, next, timesAYear }) => ({
        id: row.id,
        template: { id: row.templateId, name: row.templateName },
        asset: namedOrNull(row.assetId, row.assetName),
        ...{ who, phrase, state, next, timesAYear },
      }))
      .sort((a, b) => (a.next ?? '9999').localeCompare(b.next ?? '9999')),
  };
}

export async function contactsOf(scope: Scope, clientId: string): Promise<ClientRecord['contacts']> {
  const contacts = await scope.find(Contact, { clientId });
  return contacts
    .sort((a, b) => a.position - b.position)
    .map(({ id, name, role, email, telephone, prefers }) => ({ id, name, role, email, telephone, prefers }));
}

export async function assetRecords(scope: Scope, assets: readonly Asset[]): Promise<AssetRecord[]> {
  const siteIds = [...new Set(assets.flatMap(({ siteId }) => siteId ?? []))];
  const sites = new Map(
    (
      await scope.sql<{ id: string; name: string }>(
        'select id, name from asset where workspace_id = $1 and id = any($2::uuid[])',
        [siteIds],
      )
    ).map((site) => [site.id, site]),
  );
  return assets.map((asset) => {
    const { id, clientId, name, place, tag, isSite, siteId, fields, servesFrom, servesUntil, version } = asset;
    return {
      ...{ id, clientId, name, place, tag, isSite, siteId, fields, servesFrom, servesUntil, version },
      isArchived: asset.archivedAt !== null,
      site: siteId === null ? null : (sites.get(siteId) ?? null),
    };
  });
}

interface AskedOwn {
  readonly q: string;
  readonly which: 'all' | 'sites' | 'archived';
  readonly after?: string | undefined;
}

/** The workspace's own, by name, a page at a time. */
export async function ownAssets(scope: Scope, { q, which, after }: AskedOwn) {
  const patterns = patternsOf(plainWords(q));
  const [words, id] = readCursor(after) ?? ['', ''];
  const fits = `workspace_id = $1 and client_id is null and ' ' || found_by like all ($2::text[])
    and (archived_at is not null) = ${which === 'archived'} ${which === 'sites' ? 'and is_site' : ''}`;
  const [rows, [counted]] = await scope.atOnce(
    () =>
      scope.sql<{ id: string; words: string }>(
        `select id, words from asset where ${fits} and ($3 = '' or (words, id) > ($3, nullif($4, '')::uuid))
         order by words, id limit ${CLIENTS_A_PAGE + 1}`,
        [patterns, words, id],
      ),
    () =>
      scope.sql<{ count: number; archived: number }>(
        `select (select count(*)::int from asset where ${fits}) as count,
           (select count(*)::int from asset where workspace_id = $1 and client_id is null and archived_at is not null) as archived`,
        [patterns],
      ),
  );
  const page = rows.slice(0, CLIENTS_A_PAGE);
  const found = new Map((await scope.find(Asset, { id: In(page.map((row) => row.id)) })).map((one) => [one.id, one]));
  const last = page.at(-1);
  return {
    assets: await assetRecords(
      scope,
      page.flatMap((row) => found.get(row.id) ?? []),
    ),
    more: rows.length > CLIENTS_A_PAGE && last ? JSON.stringify([last.words, last.id]) : null,
    count: counted?.count ?? 0,
    archived: counted?.archived ?? 0,
  };
}
