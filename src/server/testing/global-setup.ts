import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { seedWhenEmpty } from '../../../demo/seed.ts';
import { memoryFolder } from '../../../scripts/memory-folder.mjs';
import { startPostgres } from '../../../scripts/postgres.mjs';
import { dataSource, migrated } from '../data-source.ts';
import { FileStore } from '../files/stored/index.ts';
import { TEST_NOW, testClock } from './clock.ts';

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string;
    /** The folder of the files of the seeded database. */
    seedFiles: string;
  }
}

/** One PostgreSQL for all API tests, with a migrated and seeded database that each file copies. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = memoryFolder(join(import.meta.dirname, '../../../.cache/test-postgres'));
  const postgres = await startPostgres({ folder, fast: true });
  const admin = await dataSource(postgres.url).initialize();
  await admin.query('create database tern_quay');
  await admin.destroy();
  const url = databaseNamed(postgres.url, 'tern_quay');
  const source = await dataSource(url).initialize();
  await migrated(source, url);
  const filesFolder = await mkdtemp(join(tmpdir(), 'jolly-seed-'));
  await seedWhenEmpty(source, await FileStore.at(filesFolder), testClock(TEST_NOW), {
    withEmptyWorkspace: true,
    origin: 'http://127.0.0.1:4180',
  });
  // As the server does once its database is filled: copies plan with what they know of this one.
  await source.query('analyze');
  await source.destroy();
  project.provide('databaseUrl', postgres.url);
  project.provide('seedFiles', filesFolder);
  return async () => {
    await postgres.stop();
    await rm(filesFolder, { recursive: true, force: true });
  };
}

function databaseNamed(url: string, name: string): string {
  const address = new URL(url);
  address.pathname = `/${name}`;
  return address.toString();
}
