import { In } from 'typeorm';
import type { SameBy } from '../../contract/index.ts';
import {
  ASSET_OWN,
  type BringField,
  groupBy,
  joinAnd,
  nameKey,
  OWN,
  type RowValues,
  textOfValue,
} from '../../core/index.ts';
import { Asset, Client, Contact } from '../clients/index.ts';
import type { Scope } from '../platform/scope.ts';
import { type Line, leftBecause, type ReadRow, type Told, UNREAD } from './read-row.ts';

/** What earlier lines of the file were about. */
export class SeenClients {
  /** By the plain name: the line that was first, and whom and what it and its likes have named. */
  readonly clients = new Map<string, { readonly number: number; readonly named: Set<string> }>();
  /** The plain name and the line that was first, by the mail. */
  readonly mails = new Map<string, { readonly key: string; readonly number: number }>();
}

interface Match {
  readonly number: number;
  readonly id: string;
  readonly name: string;
  readonly by: 'name' | 'mail' | 'asset';
}

const CONTACT_KEYS = ['contact', 'role', 'email', 'telephone', 'prefers'] as const;

/** Holds lines against the clients that are here, and against the lines before them. */
export async function clientLines(
  scope: Scope,
  lines: readonly Line[],
  sameBy: SameBy,
  fields: ReadonlyMap<string, BringField>,
  seen: SeenClients,
): Promise<Told[]> {
  const matches = await matchesOf(
    scope,
    lines.filter(({ problems }) => problems.length === 0),
    sameBy,
  );
  const here = await clientsHere(scope, [...new Set([...matches.values()].flatMap((all) => all.map(({ id }) => id)))]);
  return lines.map((line) => {
    const { values } = line;
    const title = textOfValue(values, 'name');
    const about = [textOfValue(values, 'asset'), textOfValue(values, 'place')].filter(Boolean).join(', ');
    if (line.problems.length > 0) return leftBecause(line, { title, about }, '');
    const found = matches.get(line.number) ?? [];
    const ids = new Set(found.map(({ id }) => id));
    if (ids.size > 1) return leftBecause(line, { title, about }, sayTwo(found));
    const key = nameKey(title);
    const mail = textOfValue(values, 'email').toLowerCase();
    const mailOf = mail === '' ? undefined : seen.mails.get(mail);
    const [only] = found;
    if (sameBy !== 'name' && mailOf !== undefined && mailOf.key !== key)
      return leftBecause(line, { title, about }, `Line ${mailOf.number} has the same mail under another name`);
    if (mail !== '' && mailOf === undefined) seen.mails.set(mail, { key, number: line.number });
    const base = { ...UNREAD, title, about, values };
    if (only) {
      const target = here.get(only.id);
      if (!target) return leftBecause(line, { title, about }, 'What it is like has gone meanwhile');
      return alike(line.number, base, target, found, fields);
    }
    const first = seen.clients.get(key);
    const named = first?.named ?? new Set<string>();
    if (!first) seen.clients.set(key, { number: line.number, named });
    const contact = contactKey(values);
    const asset = assetKey(values);
    const isNew = (one: string | null) => one !== null && !named.has(one);
    const read: ReadRow = {
      ...base,
      ...(isNew(contact) ? { contactId: null } : {}),
      ...(isNew(asset) ? { assetId: null } : {}),
      joins: first?.number ?? null,
      why: first ? `goes with line ${first.number}` : '',
    };
    const fate = first && read.contactId === undefined && read.assetId === undefined ? 'same' : 'new';
    for (const one of [contact, asset]) if (one !== null) named.add(one);
    return {
      number: line.number,
      fate,
      read: fate === 'same' ? { ...read, why: `says no more than line ${first?.number}` } : read,
    };
  });
}

const contactKey = (values: RowValues): string | null =>
  CONTACT_KEYS.some((key) => values[key] !== undefined)
    ? `contact ${textOfValue(values, 'email').toLowerCase() || nameKey(textOfValue(values, 'contact') || textOfValue(values, 'name'))}`
    : null;
const assetKey = (values: RowValues): string | null =>
  values['asset'] === undefined ? null : `asset ${nameKey(textOfValue(values, 'asset'))}`;

function sayTwo(found: readonly Match[]): string {
  const [one, ...others] = found;
  const other = others.find(({ id }) => id !== one?.id);
  return one?.by === 'name' && other?.by === 'name'
    ? `There are two of the name ${one.name} here`
    : `It has the ${one?.by} of ${one?.name} and the ${other?.by} of ${other?.name}`;
}

/** What is here of the same name, mail or asset, by line. */
async function matchesOf(scope: Scope, lines: readonly Line[], sameBy: SameBy): Promise<ReadonlyMap<number, Match[]>> {
  const rows = await scope.sql<Match>(
    `with line as materialized (
       select * from jsonb_to_recordset($2::jsonb) as line (number integer, name text, mail text, asset text, tag text))
     select line.number, c.id, c.name, 'name' as by from line
       join client c on c.workspace_id = $1 and c.archived_at is null and c.words = plain_words(line.name)
     union all
     select line.number, c.id, c.name, 'mail' from line
       join contact k on k.workspace_id = $1 and lower(k.email) = line.mail and k.email <> ''
       join client c on c.workspace_id = $1 and c.id = k.client_id and c.archived_at is null
       where $3 <> 'name' and line.mail <> ''
     union all
     select line.number, c.id, c.name, 'asset' from line
       join asset a on a.workspace_id = $1 and a.archived_at is null and (
         (line.asset <> '' and a.words = plain_words(line.asset)) or (line.tag <> '' and lower(a.tag) = line.tag))
       join client c on c.workspace_id = $1 and c.id = a.client_id and c.archived_at is null
       where $3 = 'asset, mail or name'`,
    [
      JSON.stringify(
        lines.map(({ number, values }) => ({
          number,
          name: textOfValue(values, 'name'),
          mail: textOfValue(values, 'email').toLowerCase(),
          asset: textOfValue(values, 'asset'),
          tag: textOfValue(values, 'tag').toLowerCase(),
        })),
      ),
      sameBy,
    ],
  );
  return groupBy(rows, ({ number }) => number);
}

interface Here {
  readonly client: Client;
  readonly contacts: readonly Contact[];
  readonly assets: readonly Asset[];
  /** Everybody's name by their id. */
  readonly people: ReadonlyMap<string, string>;
}

async function clientsHere(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, Here>> {
  if (ids.length === 0) return new Map();
  const clients = await scope.find(Client, { id: In([...ids]) });
  const contacts = await scope.find(Contact, { clientId: In([...ids]) });
  const assets = await scope.find(Asset, { clientId: In([...ids]) });
  const people = await scope.peopleNames();
  const contactsOf = groupBy(contacts, ({ clientId }) => clientId);
  const assetsOf = groupBy(
    assets.filter(({ archivedAt }) => archivedAt === null),
    ({ clientId }) => clientId,
  );
  return new Map(
    clients.map((client) => [
      client.id,
      {
        client,
        contacts: contactsOf.get(client.id) ?? [],
        assets: assetsOf.get(client.id) ?? [],
        people,
      },
    ]),
  );
}

function alike(
  number: number,
  base: ReadRow,
  { client, contacts, assets, people }: Here,
  found: readonly Match[],
  fields: ReadonlyMap<string, BringField>,
): Told {
  const { values } = base;
  const contact = contactKey(values) === null ? undefined : (contactMeant(values, contacts) ?? null);
  const asset = assetKey(values) === null ? undefined : (assetMeant(values, assets) ?? null);
  const diffs: { name: string; from: string; to: string }[] = [];
  const differ = (key: string, from: string | number | null | undefined) => {
    const to = textOfValue(values, key);
    if (to === '' || to === String(from ?? '')) return;
    const said = (id: string) => (key === 'usualPerson' ? (people.get(id) ?? 'nobody yet') : id);
    diffs.push({ name: fields.get(key)?.name ?? key, from: said(String(from ?? '')), to: said(to) });
  };
  differ('address', client.address);
  differ('usualPerson', client.usualPersonId);
  differ('notes', client.notes);
  for (const key of Object.keys(values)) if (key.startsWith(OWN)) differ(key, client.fields[key.slice(OWN.length)]);
  if (contact === null)
    diffs.push({ name: 'a new contact', from: '', to: textOfValue(values, 'contact') || base.title });
  if (contact) for (const key of ['role', 'email', 'telephone', 'prefers'] as const) differ(key, contact[key]);
  if (asset === null) diffs.push({ name: 'a new asset', from: '', to: textOfValue(values, 'asset') });
  if (asset) {
    differ('tag', asset.tag);
    differ('place', asset.place);
    for (const key of Object.keys(values))
      if (key.startsWith(ASSET_OWN)) differ(key, asset.fields[key.slice(ASSET_OWN.length)]);
  }
  const by = joinAnd([...new Set(found.map((match) => match.by))]);
  const keeps = client.name === base.title ? '' : `; it keeps the name ${client.name}`;
  return {
    number,
    fate: diffs.length === 0 ? 'same' : 'alike',
    read: {
      ...base,
      targetId: client.id,
      ...(contact === undefined ? {} : { contactId: contact?.id ?? null }),
      ...(asset === undefined ? {} : { assetId: asset?.id ?? null }),
      why: `same ${by}${keeps}`,
      diffs,
    },
  };
}

function contactMeant(values: RowValues, contacts: readonly Contact[]): Contact | undefined {
  const mail = textOfValue(values, 'email').toLowerCase();
  const name = nameKey(textOfValue(values, 'contact') || textOfValue(values, 'name'));
  return (
    contacts.find(({ email }) => mail !== '' && email.toLowerCase() === mail) ??
    contacts.find((contact) => nameKey(contact.name) === name)
  );
}

function assetMeant(values: RowValues, assets: readonly Asset[]): Asset | undefined {
  const tag = textOfValue(values, 'tag').toLowerCase();
  const name = nameKey(textOfValue(values, 'asset'));
  return (
    assets.find((asset) => tag !== '' && asset.tag?.toLowerCase() === tag) ??
    assets.find((asset) => nameKey(asset.name) === name)
  );
}
