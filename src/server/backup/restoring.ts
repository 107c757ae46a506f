import { createWriteStream, existsSync } from 'node:fs';
import { chmod, mkdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { ClientBase } from 'pg';
import { FILES, type Head, tableOf } from './format.ts';
import { BackupProblem, checkBackup, eachEntry, textOf } from './reading.ts';
import { type KeptTable, keptTables, schemaOf } from './tables.ts';

export interface Restored {
  readonly head: Head;
  readonly rows: number;
  readonly files: number;
  /** People who sign in by an account that was here already. */
  readonly knownAccounts: number;
  /** Mails that had not left yet: they do once the server runs. */
  readonly waitingMails: number;
}

interface Into {
  /** Of its own: all of it is one transaction. */
  readonly client: ClientBase;
  /** Where the bytes of files lie. */
  readonly filesFolder: string;
  /** Whether mails that had not left never do, as of a copy to try things with. */
  readonly withoutMails?: boolean;
}

/** Rows that are put in at a time: a few megabytes. */
const ROWS = 500;
const STORED = /^[0-9a-f]{40}(\.small)?$/;

/**
 * Puts a workspace where none of its id is. Nothing is written before all of it has been read and held against its sums, and
 * nothing stays of it where something goes wrong in between.
 * @throws BackupProblem in words for whoever brings it
 */
export async function restoreBackup(
  path: string,
  { client, filesFolder, withoutMails = false }: Into,
): Promise<Restored> {
  const { head } = await checkBackup(path);
  const schema = await schemaOf(client);
  if (head.schema !== schema)
    throw new BackupProblem(
      `It is of other tables (${head.schema}) than there are here (${schema}): restore it into an empty database.`,
    );
  const { rows: there } = await client.query('select name from workspace where id = $1', [head.workspace.id]);
  if (there.length > 0)
    throw new BackupProblem(
      `${head.workspace.name} is here already. Restore it into another installation, or empty this one first.`,
    );
  const placed: string[] = [];
  const incoming = join(filesFolder, `restoring-${head.workspace.id}`);
  await client.query('begin');
  try {
    await client.query(`set local timezone = 'UTC'; set local statement_timeout = 0`);
    const tables = await keptTables(client);
    await watchNothing(client, tables, true);
    await mkdir(incoming, { recursive: true });
    const { rows, accounts, waiting } = await putEntries(path, client, tables, incoming);
    await client.query('set constraints all immediate');
    await watchNothing(client, tables, false);
    await countOn(client, tables);
    for (const name of waiting) {
      const to = join(filesFolder, name);
      if (existsSync(to))
        throw new BackupProblem(`A file of another workspace has the name of one of its own: ${name}.`);
      await rename(join(incoming, name), to);
      placed.push(to);
    }
    const { rows: mails } = await client.query<{ count: number }>(
      `select count(*)::int as count from mail where workspace_id = $1 and state = 'waiting'`,
      [head.workspace.id],
    );
    // Of a copy nothing leaves that the workspace itself is about to send.
    if (withoutMails)
      await client.query(
        `update mail set state = 'refused', trouble = 'restored without its mails' where workspace_id = $1 and state = 'waiting'`,
        [head.workspace.id],
      );
    await client.query('commit');
    return {
      ...{ head, rows, files: waiting.filter((name) => !name.endsWith('.small')).length, knownAccounts: accounts },
      waitingMails: mails[0]?.count ?? 0,
    };
  } catch (error) {
    await client.query('rollback');
    for (const file of placed) await rm(file, { force: true });
    throw error;
  } finally {
    await rm(incoming, { recursive: true, force: true });
  }
}

interface Put {
  readonly rows: number;
  readonly accounts: number;
  /** Names of the bytes that lie ready. */
  readonly waiting: readonly string[];
}

async function putEntries(
  path: string,
  client: ClientBase,
  tables: readonly KeptTable[],
  incoming: string,
): Promise<Put> {
  const known = new Set(tables.map(({ name }) => name));
  const accounts = new Map<string, string>();
  const waiting: string[] = [];
  let rows = 0;
  await eachEntry(path, async (entry) => {
    const { name } = entry;
    const table = tableOf(name);
    if (table !== null) {
      if (!known.has(table)) throw new BackupProblem(`There is no table “${table}” here.`);
      const lines = (await textOf(entry)).split('\n').filter(Boolean);
      rows += lines.length;
      for (let at = 0; at < lines.length; at += ROWS) {
        const some = lines.slice(at, at + ROWS);
        if (table === 'account') await putAccounts(client, some, accounts);
        else await putRows(client, table, table === 'person' ? some.map((line) => reached(line, accounts)) : some);
      }
    } else if (name.startsWith(FILES)) {
      const stored = name.slice(FILES.length);
      // Nothing is written anywhere but there, whatever an archive calls it.
      if (!STORED.test(stored)) throw new BackupProblem(`“${name}” in it is no name of a file of ours.`);
      const to = join(incoming, stored);
      await pipeline(entry.chunks, createWriteStream(to, { mode: 0o600 }));
      await chmod(to, 0o600);
      waiting.push(stored);
    }
  });
  return { rows, accounts: accounts.size, waiting };
}

/** As many columns as a table has by now, from JSON. */
async function putRows(client: ClientBase, table: string, lines: readonly string[]): Promise<void> {
  await client.query(
    `insert into "${table}" overriding system value select * from jsonb_populate_recordset(null::"${table}", $1::jsonb)`,
    [`[${lines.join(',')}]`],
  );
}

/** Whoever has an account here already signs in by that. @param same from theirs to the one that is here */
async function putAccounts(client: ClientBase, lines: readonly string[], same: Map<string, string>): Promise<void> {
  for (const line of lines) {
    const { id, email } = JSON.parse(line) as { id: string; email: string };
    const { rows } = await client.query<{ id: string }>('select id from account where lower(email) = lower($1)', [
      email,
    ]);
    const [here] = rows;
    if (here === undefined) await putRows(client, 'account', [line]);
    else same.set(id, here.id);
  }
}

function reached(line: string, same: ReadonlyMap<string, string>): string {
  if (same.size === 0) return line;
  const person = JSON.parse(line) as { account_id: string | null };
  const here = person.account_id === null ? undefined : same.get(person.account_id);
  return here === undefined ? line : JSON.stringify({ ...person, account_id: here });
}

/** What writing a row sets off is not set off again: what it led to is in the backup. Rows that name later ones may come first. */
async function watchNothing(client: ClientBase, tables: readonly KeptTable[], isOff: boolean): Promise<void> {
  for (const { name, ownKeys } of tables) {
    await client.query(`alter table "${name}" ${isOff ? 'disable' : 'enable'} trigger user`);
    for (const key of ownKeys)
      await client.query(
        `alter table "${name}" alter constraint "${key}" ${isOff ? 'deferrable initially deferred' : 'not deferrable'}`,
      );
  }
}

/** What counts up by itself goes on behind what came. */
async function countOn(client: ClientBase, tables: readonly KeptTable[]): Promise<void> {
  for (const { name, counters } of tables)
    for (const column of counters)
      await client.query(
        `select setval(pg_get_serial_sequence('"${name}"', '${column}'), last) from (select max("${column}") as last from "${name}") of where last is not null`,
      );
}
