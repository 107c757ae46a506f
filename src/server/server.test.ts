import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { workspaceSchema } from '../contract/index.ts';
import { dataSource } from './data-source.ts';
import { clockFrom, wallClock } from './platform/clock.ts';
import { readCursor } from './platform/http/cursor.ts';
import { type TestServer, testServer } from './testing/test-server.ts';

describe('the clock', () => {
  it('stands at the moment told, in London', () => {
    expect(new Date(clockFrom('2026-07-01T08:30').now()).toISOString()).toBe('2026-07-01T07:30:00.000Z');
    expect(clockFrom('2026-07-01T08:30').stands).toBe(true);
    expect(clockFrom(undefined)).toBe(wallClock);
  });

  it.each(['today', '2026-02-30T08:00', '2026-07-01', '2026-07-01T25:00'])('refuses %j in words', (text) => {
    expect(() => clockFrom(text)).toThrow(`JOLLY_NOW is “${text}”`);
  });
});

describe('a place in a list', () => {
  it('is read back, and anything else refused', () => {
    expect(readCursor(undefined)).toBeUndefined();
    expect(readCursor('["a","00000000-0000-4000-8000-000000000000"]')).toEqual([
      'a',
      '00000000-0000-4000-8000-000000000000',
    ]);
    for (const wrong of ['', '[]', '["a","b"]', '{"a":1}', 'null'])
      expect(() => readCursor(wrong)).toThrow('not a place in the list');
  });
});

describe('a server that is stopped', () => {
  it('answers what is under way, and lets nobody else in', async () => {
    const server = await testServer();
    const nadia = await server.browser('Nadia Orme');
    const me = await server.person('Nadia Orme');
    const sheet = (await nadia.get(`/api/people/${me.id}/day-sheet`)).body;
    const task = sheet.thisDay.find(({ state }: { state: string }) => state === 'open');
    const source = await dataSource(server.databaseUrl).initialize();
    const runner = source.createQueryRunner();
    await runner.startTransaction();
    await runner.query('select from task where id = $1 for update', [task.id]);
    const started = nadia.post(`/api/tasks/${task.id}/start`);
    const answer = started.then(({ status }) => status);
    await expect
      .poll(() => runner.query(`select count(*)::int as n from pg_stat_activity where wait_event_type = 'Lock'`))
      .toEqual([{ n: 1 }]);
    const stopped = server.stop();
    await expect(nadia.get('/api/session')).rejects.toThrow();
    await runner.commitTransaction();
    await source.destroy();
    expect(await answer).toBe(200);
    await stopped;
  });
});

describe('the server', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await testServer();
  });
  afterEach(() => server.stop());

  it('describes the workspace as the contract says', async () => {
    const answer = await (await server.browser('Nadia Orme')).get('/api/workspace').expect(200);
    const workspace = workspaceSchema.parse(answer.body);
    expect(workspace).toMatchObject({
      name: 'Tern Quay',
      now: '2026-11-24T10:40',
      clockStands: true,
      horizonDays: 30,
      makeTime: '04:00',
    });
    expect(workspace.people).toHaveLength(17);
    expect(workspace.calendar.holidays.map(({ date }) => date)).toContain('2026-08-31');
  });

  it('keeps a person signed in over a restart of another process, by the database alone', async () => {
    const nadia = await server.browser('Nadia Orme');
    const [secret] = await server.source.query<{ value: string }[]>(
      `select value from setting where key = 'session_secret'`,
    );
    expect(secret?.value).toMatch(/^[0-9a-f]{64}$/);
    expect(await server.source.query('select 1 from session')).toHaveLength(1);
    await nadia.get('/api/session').expect(200);
  });

  it('answers 503 in words while the database is away, and goes on when it is back', async () => {
    const nadia = await server.browser('Nadia Orme');
    const admin = await dataSource(server.databaseUrl.replace(/\/[^/]*$/, '/postgres')).initialize();
    const name = new URL(server.databaseUrl).pathname.slice(1);
    await admin.query(`alter database ${name} allow_connections false`);
    await admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [name]);
    const away = await nadia.get('/api/templates');
    expect([500, 503]).toContain(away.status);
    expect(away.body.detail).toContain('Nothing was saved');
    await admin.query(`alter database ${name} allow_connections true`);
    await admin.destroy();
    await expect.poll(async () => (await nadia.get('/api/templates')).status, { timeout: 10_000 }).toBe(200);
  });

  it('writes who changed what, from what to what', async () => {
    const nadia = await server.browser('Nadia Orme');
    const me = await server.person('Nadia Orme');
    const sheet = (await nadia.get(`/api/people/${me.id}/day-sheet`)).body;
    const task = sheet.thisDay.find(({ state }: { state: string }) => state === 'open');
    await nadia.post(`/api/tasks/${task.id}/start`).expect(200);
    const [change] = await server.source.query(
      'select actor_id, action, subject, fields from change where subject_id = $1',
      [task.id],
    );
    expect(change).toMatchObject({
      actor_id: me.id,
      action: 'started',
      subject: 'task',
      fields: { state: { from: 'open', to: 'underWay' } },
    });
  });
});
