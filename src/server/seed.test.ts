import { createHash } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeAll, describe, expect, inject, it } from 'vitest';
import { seedWhenEmpty } from '../../demo/seed.ts';
import { dataSource, migrated } from './data-source.ts';
import { FileStore } from './files/stored/store.ts';
import { testClock } from './testing/clock.ts';

/** Everything a person would see of a seeded workspace, as one short text. */
async function fingerprint(name: string, moment: string): Promise<{ hash: string; tasks: Record<string, number> }> {
  const admin = await dataSource(inject('databaseUrl')).initialize();
  await admin.query(`create database ${name}`);
  const url = new URL(inject('databaseUrl'));
  url.pathname = `/${name}`;
  const source = await dataSource(url.toString()).initialize();
  await migrated(source, url.toString());
  const files = await FileStore.at(await mkdtemp(join(tmpdir(), 'jolly-seed-test-')));
  await seedWhenEmpty(source, files, testClock(moment), { withEmptyWorkspace: false, origin: '' });
  await seedWhenEmpty(source, files, testClock(moment), { withEmptyWorkspace: false, origin: '' });
  const rows = await source.query<unknown[]>(
    `select k.title, k.work_on, k.due_on, k.state, k.note, k.ticks::text, k.answers::text, k.started_at, k.done_at, p.name from task k left join person p on p.id = k.assignee_id
     order by k.title, k.work_on, k.nominal_date, p.name, k.schedule_id, k.set_id`,
  );
  const states = await source.query<{ state: string; count: number }[]>(
    'select state, count(*) as count from task group by 1',
  );
  await source.destroy();
  await rm(files.folder, { recursive: true, force: true });
  await admin.query(`drop database ${name}`);
  await admin.destroy();
  return {
    hash: createHash('sha256').update(JSON.stringify(rows)).digest('hex'),
    tasks: Object.fromEntries(states.map(({ state, count }) => [state, count])),
  };
}

describe('the demo, seeded', () => {
  let first: Awaited<ReturnType<typeof fingerprint>>;
  beforeAll(async () => {
    first = await fingerprint('seed_a', '2026-11-24T10:40');
  });

  it('has half a year of finished, late, skipped and lapsed work', () => {
    expect(first.tasks['done']).toBeGreaterThan(1500);
    expect(first.tasks['skipped']).toBeGreaterThan(20);
    expect(first.tasks['lapsed']).toBeGreaterThan(10);
    expect(first.tasks['open']).toBeGreaterThan(200);
  });

  it('is the same every time for a day', async () => {
    expect((await fingerprint('seed_b', '2026-11-24T10:40')).hash).toBe(first.hash);
  }, 60_000);

  it.each(['2028-02-29T00:00', '2027-01-01T23:59', '2027-03-28T01:30'])(
    'can be made for %s, and is another then',
    async (moment) => {
      const { tasks, hash } = await fingerprint(`seed_${moment.replace(/\W/g, '')}`.toLowerCase(), moment);
      expect(tasks['done']).toBeGreaterThan(1500);
      expect(hash).not.toBe(first.hash);
    },
    60_000,
  );
});
