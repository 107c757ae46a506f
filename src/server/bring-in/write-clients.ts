import { In } from 'typeorm';
import { ASSET_OWN, type FieldValues, OWN, type RowValues, textOfValue } from '../../core/index.ts';
import { Asset, Client, Contact } from '../clients/index.ts';
import { columnOf } from '../platform/db/columns.ts';
import type { Scope } from '../platform/scope.ts';
import type { BringIn, BringInRow } from './entity.ts';
import { keepWritten, pagesOf } from './pages.ts';
import type { ReadRow } from './read-row.ts';

/** What was written of a line: the ids of what is new, and how that which was there stood before. */
export interface WrittenClient {
  /** Whom the line is about, new or not. */
  readonly clientId: string;
  readonly newClientId?: string;
  readonly newContactId?: string;
  readonly newAssetId?: string;
  readonly client?: Client;
  readonly contact?: Contact;
  readonly asset?: Asset;
}

/** Writes the lines of a file, a page at a time. */
export async function writeClients(scope: Scope, bringIn: BringIn): Promise<void> {
  /** Whom earlier lines have made, by the number of the line. */
  const made = new Map<number, string>();
  for await (const rows of pagesOf(scope, bringIn, 'number, fate, choice, read')) {
    const here = await thereOf(scope, rows);
    const page = new Page(scope, here, made);
    for (const row of rows) page.take(row);
    await page.write(bringIn);
  }
}

interface There {
  readonly clients: ReadonlyMap<string, Client>;
  readonly contacts: ReadonlyMap<string, Contact>;
  readonly assets: ReadonlyMap<string, Asset>;
}

async function thereOf(scope: Scope, rows: readonly BringInRow[]): Promise<There> {
  const ids = (of: (read: ReadRow) => string | null | undefined) => rows.flatMap(({ read }) => of(read) ?? []);
  const byId = <T extends { readonly id: string }>(all: readonly T[]) => new Map(all.map((one) => [one.id, one]));
  const clientIds = ids(({ targetId }) => targetId).sort();
  await scope.sql(
    'select id from client where workspace_id = $1 and id = any($2::uuid[]) order by id for no key update',
    [clientIds],
  );
  return {
    clients: byId(await scope.find(Client, { id: In(clientIds) })),
    contacts: byId(await scope.find(Contact, { id: In(ids(({ contactId }) => contactId)) })),
    assets: byId(await scope.find(Asset, { id: In(ids(({ assetId }) => assetId)) })),
  };
}

/** What a page of lines adds and changes, gathered to be written in a few statements. */
class Page {
  private readonly clients = new Map<string, Client>();
  private readonly contacts = new Map<string, Contact>();
  private readonly assets = new Map<string, Asset>();
  private readonly before = new Map<number, WrittenClient>();
  /** How many contacts a client gets more. */
  private readonly positions = new Map<string, number>();

  constructor(
    private readonly scope: Scope,
    private readonly there: There,
    private readonly made: Map<number, string>,
  ) {}

  take({ number, fate, choice, read }: BringInRow): void {
    const isUpdate = fate === 'alike' && (choice ?? 'update') === 'update';
    if (fate !== 'new' && !isUpdate && !(fate === 'alike' && choice === 'add')) return;
    const written: { -readonly [K in keyof Omit<WrittenClient, 'clientId'>]: WrittenClient[K] } = {};
    const clientId = isUpdate ? this.change(read, written) : this.add(number, read, written);
    if (clientId === null) return;
    this.contact(clientId, read, isUpdate, written);
    this.asset(clientId, read, isUpdate, written);
    this.before.set(number, { clientId, ...written });
  }

  private add(number: number, { values, joins }: ReadRow, written: { newClientId?: string }): string | null {
    const joined = joins === null ? undefined : this.made.get(joins);
    if (joins !== null && joined === undefined) return null;
    if (joined !== undefined) return joined;
    const id = this.scope.newId();
    this.clients.set(id, {
      ...{
        workspaceId: this.scope.workspace.id,
        id,
        name: textOfValue(values, 'name'),
        address: textOfValue(values, 'address'),
      },
      ...{ usualPersonId: textOfValue(values, 'usualPerson') || null, notes: textOfValue(values, 'notes') },
      ...{ fields: ownOf(values, OWN), version: 1, archivedAt: null },
    });
    this.made.set(number, id);
    written.newClientId = id;
    return id;
  }

  private change({ values, targetId }: ReadRow, written: { client?: Client }): string | null {
    const before = targetId === null ? undefined : this.there.clients.get(targetId);
    if (!before) return null;
    const now = this.clients.get(before.id) ?? before;
    const next = {
      ...now,
      address: textOfValue(values, 'address') || now.address,
      usualPersonId: textOfValue(values, 'usualPerson') || now.usualPersonId,
      notes: textOfValue(values, 'notes') || now.notes,
      fields: { ...now.fields, ...ownOf(values, OWN) },
    };
    if (now === before) written.client = before;
    this.clients.set(before.id, { ...next, version: before.version + 1 });
    return before.id;
  }

  private contact(
    clientId: string,
    { values, contactId }: ReadRow,
    isUpdate: boolean,
    written: { newContactId?: string; contact?: Contact },
  ): void {
    if (contactId === undefined) return;
    const before = isUpdate && contactId !== null ? this.there.contacts.get(contactId) : undefined;
    const id = before?.id ?? this.scope.newId();
    const now = this.contacts.get(id) ?? before;
    const text = (key: 'role' | 'email' | 'telephone') => textOfValue(values, key) || (now?.[key] ?? '');
    const prefers = textOfValue(values, 'prefers') || (now?.prefers ?? null);
    this.contacts.set(id, {
      ...{ workspaceId: this.scope.workspace.id, id, clientId, position: now?.position ?? this.positionOf(clientId) },
      name: now?.name ?? (textOfValue(values, 'contact') || textOfValue(values, 'name')).slice(0, 80),
      ...{ role: text('role'), email: text('email'), telephone: text('telephone') },
      prefers: prefers as Contact['prefers'],
    });
    if (before) written.contact = before;
    else written.newContactId = id;
  }

  private positionOf(clientId: string): number {
    // After all that are there: places need only grow.
    const position = this.positions.get(clientId) ?? 1000;
    this.positions.set(clientId, position + 1);
    return position;
  }

  private asset(
    clientId: string,
    { values, assetId }: ReadRow,
    isUpdate: boolean,
    written: { newAssetId?: string; asset?: Asset },
  ): void {
    if (assetId === undefined) return;
    const before = isUpdate && assetId !== null ? this.there.assets.get(assetId) : undefined;
    const id = before?.id ?? this.scope.newId();
    const now = this.assets.get(id) ?? before;
    this.assets.set(id, {
      ...{ workspaceId: this.scope.workspace.id, id, clientId, name: now?.name ?? textOfValue(values, 'asset') },
      ...{
        place: textOfValue(values, 'place') || (now?.place ?? ''),
        tag: textOfValue(values, 'tag') || (now?.tag ?? null),
      },
      ...{ isSite: now?.isSite ?? false, siteId: now?.siteId ?? null },
      fields: { ...now?.fields, ...ownOf(values, ASSET_OWN) },
      ...{ servesFrom: now?.servesFrom ?? null, servesUntil: now?.servesUntil ?? null, archivedAt: null },
      version: before ? before.version + 1 : 1,
    });
    if (before) written.asset = before;
    else written.newAssetId = id;
  }

  async write(bringIn: Pick<BringIn, 'id'>): Promise<void> {
    await upsert(this.scope, 'client', Client, CLIENT, [...this.clients.values()]);
    await upsert(this.scope, 'contact', Contact, CONTACT, [...this.contacts.values()]);
    await upsert(this.scope, 'asset', Asset, ASSET, [...this.assets.values()]);
    const written = [...this.before].map(([number, before]) => ({ number, before }));
    await keepWritten(this.scope, bringIn, written);
    await this.scope.recordEach(
      [...this.clients.values()].map(({ id }) => ({
        ...{ subject: 'client' as const, subjectId: id, fields: {} },
        action: this.there.clients.has(id) ? ('brought up to date' as const) : ('brought in' as const),
      })),
    );
  }
}

const ownOf = (values: RowValues, before: string): FieldValues =>
  Object.fromEntries(
    Object.entries(values).flatMap(([key, value]) =>
      key.startsWith(before) && typeof value !== 'object' ? [[key.slice(before.length), value]] : [],
    ),
  );

type Fields<T> = readonly Exclude<keyof T & string, 'workspaceId' | 'id' | 'words' | 'foundBy'>[];
export const CLIENT: Fields<Client> = ['name', 'address', 'usualPersonId', 'notes', 'fields', 'version', 'archivedAt'];
export const CONTACT: Fields<Contact> = ['clientId', 'position', 'name', 'role', 'email', 'telephone', 'prefers'];
export const ASSET: Fields<Asset> = [
  ...(['clientId', 'name', 'place', 'tag', 'isSite', 'siteId', 'fields'] as const),
  ...(['servesFrom', 'servesUntil', 'version', 'archivedAt'] as const),
];

/** Adds rows, or puts these in the place of those that are there, in one statement. */
export async function upsert<T extends { readonly id: string }>(
  scope: Scope,
  table: string,
  entity: new () => T,
  fields: readonly (keyof T & string)[],
  rows: readonly T[],
): Promise<void> {
  if (rows.length === 0) return;
  const columns = fields.map((field) => ({ field, column: columnOf(entity, field) }));
  const names = columns.map(({ column }) => column).join(', ');
  await scope.sql(
    `insert into ${table} (workspace_id, id, ${names})
     select $1, now.id, ${columns.map(({ column }) => `now.${column}`).join(', ')}
     from jsonb_populate_recordset(null::${table}, $2::jsonb) as now
     on conflict (workspace_id, id) do update set ${columns.map(({ column }) => `${column} = excluded.${column}`).join(', ')}`,
    [
      JSON.stringify(
        rows.map((row) => ({
          id: row.id,
          ...Object.fromEntries(columns.map(({ field, column }) => [column, row[field]])),
        })),
      ),
    ],
  );
}
