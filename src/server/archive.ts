import { createWriteStream } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import pg from 'pg';
import { plural } from '../core/index.ts';
import { BackupProblem, writeBackup } from './backup/index.ts';
import { restoreInto } from './restore-into.ts';

/** The command line of backups: what npm run backup and npm run restore do, with a database and files that are named. */

const USAGE = `npm run backup -- --out FILE [--workspace NAME]
npm run restore -- FILE [--without-mails]`;

async function main(): Promise<void> {
  // What we write is nobody else's to read.
  process.umask(0o077);
  const { DATABASE_URL = '', JOLLY_FILES = '' } = process.env;
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { out: { type: 'string' }, workspace: { type: 'string' }, 'without-mails': { type: 'boolean' } },
  });
  const [deed, file, ...more] = positionals;
  if (deed === 'backup' && values.out !== undefined && file === undefined)
    return backup(DATABASE_URL, JOLLY_FILES, values.out, values.workspace ?? null);
  if (deed === 'restore' && file !== undefined && more.length === 0 && values.out === undefined)
    return restore(DATABASE_URL, JOLLY_FILES, file, values['without-mails'] === true);
  throw new BackupProblem(USAGE);
}

async function backup(url: string, files: string, out: string, name: string | null): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  // Under its name only once it is whole.
  const half = `${out}.part`;
  try {
    const workspaceId = await workspaceOf(client, name);
    const pathOf = (stored: string) => join(files, stored);
    const { rows, files: count, missing } = await writeBackup(client, { workspaceId, pathOf }, createWriteStream(half));
    await rename(half, out);
    console.log(`${out}: ${plural(rows, 'row')} and ${plural(count, 'file')}.`);
    if (missing.length > 0)
      console.log(`The bytes of ${plural(missing.length, 'file')} are gone: ${missing.slice(0, 10).join(', ')}.`);
  } finally {
    await rm(half, { force: true });
    await client.end();
  }
}

async function workspaceOf(client: pg.Client, name: string | null): Promise<string> {
  const { rows } = await client.query<{ id: string; name: string }>('select id, name from workspace order by name');
  const names = rows.map((row) => row.name).join(', ');
  const fitting = name === null ? rows : rows.filter((row) => row.name === name);
  const [only, another] = fitting;
  if (only === undefined)
    throw new BackupProblem(
      name === null ? 'There is no workspace here.' : `There is no “${name}” here, but ${names}.`,
    );
  if (another !== undefined) throw new BackupProblem(`Say which one with --workspace NAME: ${names}.`);
  return only.id;
}

async function restore(url: string, files: string, file: string, withoutMails: boolean): Promise<void> {
  const {
    head,
    rows,
    files: count,
    knownAccounts,
    waitingMails,
  } = await restoreInto(file, url, files, { withoutMails });
  console.log(`${head.workspace.name}: ${plural(rows, 'row')} and ${plural(count, 'file')} are here.`);
  if (knownAccounts > 0)
    console.log(`${plural(knownAccounts, 'person', 'people')} of it had an account here already, and sign in by that.`);
  if (waitingMails > 0)
    console.log(
      withoutMails
        ? `${plural(waitingMails, 'mail')} of it had not left yet, and never will from here.`
        : `${plural(waitingMails, 'mail')} of it had not left yet: they do once Jolly Rota runs here (--without-mails for a copy to try things with).`,
    );
}

try {
  await main();
} catch (error) {
  if (!(error instanceof BackupProblem)) throw error;
  console.error(`\n${error.message}\n`);
  process.exitCode = 1;
}
