import { readdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Backups } from '../../contract/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { askForBackup, checkBackup, isBackupDue } from './index.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer({ worker: true });
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const list = async (): Promise<Backups> => (await ines.get('/api/backups').expect(200)).body;
const folder = () => join(server.filesFolder, 'backups');

/** Once nothing is being written any more. */
const settled = () =>
  expect
    .poll(async () => (await list()).backups.every(({ state }) => state !== 'asked'), {
      timeout: 20_000,
      interval: 100,
    })
    .toBe(true);

describe('backups in the browser', () => {
  it('are written by the queue, fetched, and dropped; by a manager alone', async () => {
    const { body } = await ines.post('/api/backups').send({}).expect(200);
    expect(body.backups[0]).toMatchObject({ state: 'asked', by: 'Ines Calloway', bytes: null });
    await settled();
    const [done] = (await list()).backups;
    expect(done).toMatchObject({ state: 'done', missing: [], trouble: null });
    expect(done?.rows).toBeGreaterThan(5_000);
    const sent = await ines.get(`/api/backups/${done?.id}/file`).responseType('blob').expect(200);
    expect(sent.headers['content-disposition']).toContain(done?.name);
    const copy = join(server.filesFolder, 'copy.tar.gz');
    await writeFile(copy, sent.body);
    expect((await checkBackup(copy)).head.workspace.name).toBe('Tern Quay');
    for (const name of ['Maud Ferrier', 'Nadia Orme', 'Ada Winn']) {
      const other = await server.browser(name);
      const status = name === 'Ada Winn' ? 404 : 403;
      await other.get(`/api/backups/${done?.id}/file`).expect(status);
      await other.delete(`/api/backups/${done?.id}`).expect(status);
    }
    expect((await ines.delete(`/api/backups/${done?.id}`).expect(200)).body.backups).toEqual([]);
    expect(await readdir(folder())).toEqual([]);
  });

  it('are written at night as it is said, and the last few kept; those asked for by hand stay', async () => {
    const scope = await server.scope();
    expect(await isBackupDue(scope)).toBe(false);
    await ines.put('/api/backups/plan').send({ every: 'day', keep: 0 }).expect(422);
    await ines.put('/api/backups/plan').send({ every: 'day', keep: 2 }).expect(200);
    await ines.post('/api/backups').send({}).expect(200);
    await ines.post('/api/backups').send({}).expect(409);
    await settled();
    for (const day of ['25', '26', '27']) {
      server.clock.set(`2026-11-${day}T01:59`);
      expect(await isBackupDue(await server.scope())).toBe(false);
      server.clock.set(`2026-11-${day}T02:00`);
      const tonight = await server.scope();
      expect(await isBackupDue(tonight)).toBe(true);
      await askForBackup(tonight);
      expect(await isBackupDue(await server.scope())).toBe(false);
      await settled();
      expect(await isBackupDue(await server.scope())).toBe(false);
    }
    // Those that are too many go once the new one is written.
    await vi.waitFor(async () => expect((await list()).backups.length).toBe(3), { timeout: 10_000 });
    const { plan, backups } = await list();
    expect(plan).toEqual({ every: 'day', keep: 2 });
    expect(backups.map(({ by, askedAt }) => [by, askedAt.slice(8, 10)])).toEqual([
      [null, '27'],
      [null, '26'],
      ['Ines Calloway', '24'],
    ]);
    expect((await readdir(folder())).sort()).toEqual(backups.map(({ name }) => name).sort());
    // One whose writer fell is none that is being written for ever: it can be dropped, and others are written.
    await server.source.query(
      `insert into backup (workspace_id, id, state, asked_at, name, rows, files, missing) select id, gen_random_uuid(), 'asked', '2026-11-26T20:30Z', 'x.tar.gz', 9, 0, '[]'
       from workspace where name = 'Tern Quay'`,
    );
    const stuck = (await list()).backups.find(({ name }) => name === 'x.tar.gz');
    expect([stuck?.state, stuck?.trouble]).toEqual(['asked', null]);
    await ines.delete(`/api/backups/${stuck?.id}`).expect(409);
    server.clock.set('2026-11-27T03:00');
    expect((await list()).backups.find(({ name }) => name === 'x.tar.gz')?.state).toBe('failed');
    await ines.delete(`/api/backups/${stuck?.id}`).expect(200);
    await ines.put('/api/backups/plan').send({ every: 'never', keep: 7 }).expect(200);
    server.clock.set('2026-11-28T03:00');
    expect(await isBackupDue(await server.scope())).toBe(false);
    server.clock.set('2026-11-24T10:40');
  });
});
