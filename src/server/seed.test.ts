import { createHash } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { DataSource } from 'typeorm';
import { beforeAll, describe, expect, inject, it } from 'vitest';
import { seedWhenEmpty } from '../../demo/seed.ts';
import { dataSource, migrated } from './data-source.ts';
import { FileStore } from './files/stored/store.ts';
import { TEST_NOW, testClock } from './testing/clock.ts';

interface Seeded {
  readonly hash: string;
  readonly tasks: Record<string, number>;
}

/** Everything a person would see of the workspace in a database of its own, as one short text. */
async function fingerprint(
  name: string,
  template: string,
  fill: (source: DataSource, url: string) => Promise<void>,
): Promise<Seeded> {
  const admin = await dataSource(inject('databaseUrl')).initialize();
  await admin.query(`create database ${name} template ${template}`);
  const url = new URL(inject('databaseUrl'));
  url.pathname = `/${name}`;
  const source = await dataSource(url.toString()).initialize();
  await fill(source, url.toString());
  const rows = await source.query<unknown[]>(
    `select k.title, k.work_on, k.due_on, k.state, k.note, k.ticks::text, k.answers::text, k.started_at, k.done_at, p.name from task k left join person p on p.id = k.assignee_id
     order by k.title, k.work_on, k.nominal_date, p.name, k.schedule_id, k.set_id`,
  );
  const states = await source.query<{ state: string; count: number }[]>(
    'select state, count(*) as count from task group by 1',
  );
  await source.destroy();
  await admin.query(`drop database ${name}`);
  await admin.destroy();
  return {
    hash: createHash('sha256').update(JSON.stringify(rows)).digest('hex'),
    tasks: Object.fromEntries(states.map(({ state, count }) => [state, count])),
  };
}

/** Seeded at a moment, and once more, which changes nothing. */
const seededAt = (moment: string) =>
  fingerprint(`seed_${moment.replace(/\W/g, '')}`.toLowerCase(), 'template1', async (source, url) => {
    await migrated(source, url);
    const files = await FileStore.at(await mkdtemp(join(tmpdir(), 'jolly-seed-test-')));
    for (let times = 0; times < 2; times += 1)
      await seedWhenEmpty(source, files, testClock(moment), { withEmptyWorkspace: false, origin: '' });
    await rm(files.folder, { recursive: true, force: true });
  });

describe('the demo, seeded', () => {
  let first: Seeded;
  beforeAll(async () => {
    // As all API tests have it.
    first = await fingerprint('seed_first', 'tern_quay', async () => undefined);
  });

  it('has half a year of finished, late, skipped and lapsed work', () => {
    expect(first.tasks['done']).toBeGreaterThan(1500);
    expect(first.tasks['skipped']).toBeGreaterThan(20);
    expect(first.tasks['lapsed']).toBeGreaterThan(10);
    expect(first.tasks['open']).toBeGreaterThan(200);
  });

  it('is the same every time for a day', async () => {
    expect((await seededAt(TEST_NOW)).hash).toBe(first.hash);
  }, 60_000);

  it.each(['2028-02-29T00:00', '2027-01-01T23:59', '2027-03-28T01:30'])(
    'can be made for %s, and is another then',
    async (moment) => {
      const { tasks, hash } = await seededAt(moment);
      expect(tasks['done']).toBeGreaterThan(1500);
      expect(hash).not.toBe(first.hash);
    },
    60_000,
  );
});
