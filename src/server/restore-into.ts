import pg from 'pg';
import { DataSource } from 'typeorm';
import { BackupProblem, checkBackup, type Restored, restoreBackup } from './backup/index.ts';
import { dataSource, migrated } from './data-source.ts';

/**
 * Restores a backup into a database, whichever tables that has by now: a backup of an earlier version comes into tables as they
 * were then, where nothing else is in them, and those are brought up to date with it.
 * @throws BackupProblem in words for whoever brings it
 */
export async function restoreInto(
  path: string,
  databaseUrl: string,
  filesFolder: string,
  { withoutMails = false }: { readonly withoutMails?: boolean } = {},
): Promise<Restored> {
  const { head } = await checkBackup(path);
  const source = await dataSource(databaseUrl, { longestMs: 0 }).initialize();
  try {
    const steps = source.migrations.map(({ name = '' }) => name).sort((a, b) => stampOf(a) - stampOf(b));
    const at = steps.indexOf(head.schema);
    if (at === -1)
      throw new BackupProblem(
        `It was written by a newer version of Jolly Rota (${head.schema}): bring this one up to date.`,
      );
    const done = await stepsDone(source);
    if (done > at + 1) await goBack(source, done - at - 1);
    else if (done < at + 1) await goOn(databaseUrl, source, at + 1);
    const client = new pg.Client({ connectionString: databaseUrl });
    await client.connect();
    try {
      return await restoreBackup(path, { client, filesFolder, withoutMails });
    } finally {
      await client.end();
    }
  } finally {
    // Up to date in any case, as it would be with the next start.
    await migrated(source, databaseUrl).finally(() => source.destroy());
  }
}

/** "FirstSlice1764000000000": in this order they are done. */
const stampOf = (name: string): number => Number(/\d{13}$/.exec(name)?.[0]);

async function stepsDone(source: DataSource): Promise<number> {
  const [table] = await source.query<{ there: boolean }[]>(
    `select to_regclass('public.migrations') is not null as there`,
  );
  if (!table?.there) return 0;
  const [steps] = await source.query<{ count: number }[]>('select count(*)::int as count from migrations');
  return steps?.count ?? 0;
}

/** Only where there is nothing that could be lost by it. */
async function goBack(source: DataSource, steps: number): Promise<void> {
  const [there] = await source.query<{ name: string }[]>('select name from workspace limit 1');
  if (there)
    throw new BackupProblem(
      `It was written by an earlier version, and ${there.name} is here already: restore it into an empty database.`,
    );
  for (let i = 0; i < steps; i++) await source.undoLastMigration({ transaction: 'each' });
}

async function goOn(databaseUrl: string, { options }: DataSource, steps: number): Promise<void> {
  const all = Array.isArray(options.migrations) ? options.migrations : [];
  const then = await new DataSource({
    ...dataSource(databaseUrl, { longestMs: 0 }).options,
    migrations: all.slice(0, steps),
  }).initialize();
  try {
    await then.runMigrations({ transaction: 'each' });
  } finally {
    await then.destroy();
  }
}
