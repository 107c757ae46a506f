import type { ClientBase } from 'pg';

/** What a backup does not hold: what belongs to one installation and means nothing in another, and the backups themselves. */
const NOT_KEPT = new Set(['push_device', 'backup', 'backup_plan', 'webhook_delivery']);

/** A table of which a workspace has rows. */
export interface KeptTable {
  readonly name: string;
  /** Which rows are those of workspace $1. */
  readonly where: string;
  /** In which order they are written: the same whatever the database's language. */
  readonly order: string;
  /** Columns that count up by themselves. */
  readonly counters: readonly string[];
  /** Keys by which its rows name others of the same table. */
  readonly ownKeys: readonly string[];
}

/** Accounts are of no workspace; those go along by which its people sign in. */
const ACCOUNTS: Pick<KeptTable, 'name' | 'where'> = {
  name: 'account',
  where: 'id in (select account_id from person where workspace_id = $1)',
};

/**
 * The tables of a workspace as the database has them, each after those that its rows name: whichever columns there are, by
 * whichever version, nothing is forgotten. @throws Error where tables name each other in a circle
 */
export async function keptTables(client: ClientBase): Promise<KeptTable[]> {
  const { rows: columns } = await client.query<{ table: string; column: string; type: string; counts: boolean }>(
    `select c.relname as table, a.attname as column, format_type(a.atttypid, null) as type, a.attidentity <> '' as counts
     from pg_class c join pg_attribute a on a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped
     where c.relnamespace = 'public'::regnamespace and c.relkind = 'r' order by c.relname, a.attnum`,
  );
  const { rows: keys } = await client.query<{ table: string; columns: string[] }>(
    `select i.indrelid::regclass::text as table, array_agg(a.attname::text order by k.at) as columns
     from pg_index i cross join lateral unnest(i.indkey::int[]) with ordinality k(attnum, at)
     join pg_attribute a on a.attrelid = i.indrelid and a.attnum = k.attnum
     join pg_class c on c.oid = i.indrelid where i.indisprimary and c.relnamespace = 'public'::regnamespace group by i.indrelid`,
  );
  const { rows: names } = await client.query<{ table: string; other: string; name: string }>(
    `select conrelid::regclass::text as table, confrelid::regclass::text as other, conname as name from pg_constraint
     where contype = 'f' and connamespace = 'public'::regnamespace`,
  );
  const keyOf = new Map(keys.map((key) => [key.table, key.columns]));
  const tables = [...new Set(columns.map(({ table }) => table))].flatMap((name): KeptTable[] => {
    const of = columns.filter(({ table }) => table === name);
    const isOf = of.some(({ column }) => column === 'workspace_id');
    const where =
      name === 'workspace' ? 'id = $1' : name === ACCOUNTS.name ? ACCOUNTS.where : isOf ? 'workspace_id = $1' : null;
    if (where === null || NOT_KEPT.has(name)) return [];
    const typeOf = new Map(of.map(({ column, type }) => [column, type]));
    const byWhat = keyOf.get(name) ?? of.map(({ column }) => column);
    return [
      {
        ...{ name, where },
        order: byWhat
          .map((column) => (typeOf.get(column) === 'text' ? `"${column}" collate "C"` : `"${column}"`))
          .join(', '),
        counters: of.filter(({ counts }) => counts).map(({ column }) => column),
        ownKeys: names.filter(({ table, other }) => table === name && other === name).map((key) => key.name),
      },
    ];
  });
  return inOrder(
    tables,
    names.filter(({ table, other }) => table !== other),
  );
}

function inOrder(
  tables: readonly KeptTable[],
  names: readonly { readonly table: string; readonly other: string }[],
): KeptTable[] {
  const ordered: KeptTable[] = [];
  let left = tables;
  while (left.length > 0) {
    const waiting = new Set(left.map(({ name }) => name));
    const ready = left.filter(
      ({ name }) => !names.some(({ table, other }) => table === name && waiting.has(other) && other !== name),
    );
    if (ready.length === 0) throw new Error(`Tables name each other in a circle: ${[...waiting].join(', ')}`);
    ordered.push(...ready);
    left = left.filter((one) => !ready.includes(one));
  }
  return ordered;
}

/** The last step by which the tables came to be what they are. */
export async function schemaOf(client: ClientBase): Promise<string> {
  const { rows } = await client.query<{ name: string }>('select name from migrations order by id desc limit 1');
  const [last] = rows;
  if (!last) throw new Error('This database has no tables of ours.');
  return last.name;
}
