import supertest from 'supertest';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Setup } from '../../contract/index.ts';
import { startServer } from '../server.ts';
import { silent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
beforeEach(async () => {
  server = await testServer();
});
afterEach(() => server.stop());

const KEY = 'the-key-of-this-test';
const saltmarsh = (rest: Partial<Setup> = {}): Setup => ({
  key: '',
  name: 'Saltmarsh Landing',
  zone: 'Europe/London',
  workingWeekdays: [1, 2, 3, 4, 6],
  weekMinutes: [480, 480, 480, 480, 0, 240, 0],
  country: 'GB',
  region: 'SCT',
  person: { name: 'Edda Polglase', email: 'edda@saltmarsh.example', password: 'long and plain enough' },
  ...rest,
});

describe('a workspace of one’s own, beside the demo', () => {
  it('begins with its days off and its first manager, who is signed in and sees nobody else’s work', async () => {
    const edda = await server.browser();
    expect((await edda.get('/api/setup').expect(200)).body).toMatchObject({ isOpen: true, needsKey: false });
    const { body } = await edda.post('/api/setup').send(saltmarsh()).expect(200);
    expect(body.person).toMatchObject({ name: 'Edda Polglase', access: 'manager' });
    const { body: workspace } = await edda.get('/api/workspace').expect(200);
    expect(workspace).toMatchObject({ name: 'Saltmarsh Landing', people: [{ name: 'Edda Polglase' }] });
    expect(workspace.calendar.workingWeekdays).toEqual([1, 2, 3, 4, 6]);
    expect(workspace.calendar.holidays).toContainEqual({ date: '2026-11-30', name: expect.stringContaining('Andrew') });
    expect((await edda.get('/api/schedules').expect(200)).body.counts.all).toBe(0);
    expect((await edda.get('/api/settings').expect(200)).body.name).toBe('Saltmarsh Landing');
    // And again with the password.
    const later = await server.browser();
    const again = { email: 'EDDA@saltmarsh.example', password: 'long and plain enough' };
    expect((await later.post('/api/session').send(again).expect(200)).body.person.name).toBe('Edda Polglase');
  });

  it.each([
    ['US', '', { weekStarts: 7, dateOrder: 'month first', clock: 12 }],
    ['DE', 'BY', { weekStarts: 1, dateOrder: 'day first', clock: 24 }],
    ['EG', '', { weekStarts: 6, dateOrder: 'month first', clock: 12 }],
    ['', '', { weekStarts: 1, dateOrder: 'day first', clock: 24 }],
  ])('shows dates and times as they are usually seen in its country: “%s”', async (country, region, ways) => {
    const edda = await server.browser();
    await edda.post('/api/setup').send(saltmarsh({ country, region })).expect(200);
    expect((await edda.get('/api/workspace')).body.ways).toEqual(ways);
  });

  it.each<[string, Partial<Setup>, string]>([
    ['without a name', { name: ' ' }, 'name'],
    ['without a day of work', { workingWeekdays: [] }, 'workingWeekdays'],
    ['with a day of no hours', { weekMinutes: [480, 480, 480, 480, 0, 0, 0] }, 'weekMinutes'],
    ['with hours on a day off', { weekMinutes: [480, 480, 480, 480, 60, 240, 0] }, 'weekMinutes'],
    ['by no clock', { zone: 'Nowhere/Else' }, 'zone'],
    ['with a country that is not known', { country: 'ZZ' }, 'country'],
    ['with a short password', { person: { name: 'E', email: 'e@f.example', password: 'short' } }, 'person.password'],
    ['with half an address', { person: { name: 'E', email: 'e@f', password: 'long and plain' } }, 'person.email'],
    [
      'with an address that somebody has',
      { person: { name: 'E', email: 'Ines@ternquay.example', password: 'long and plain' } },
      'person.email',
    ],
  ])('does not begin %s', async (_, wrong, path) => {
    const browser = await server.browser();
    const workspaces = () => server.source.query('select id from workspace order by id');
    const before = await workspaces();
    const { body } = await browser.post('/api/setup').send(saltmarsh(wrong)).expect(422);
    expect(body.errors.map((one: { path: string }) => one.path)).toContain(path);
    expect(await workspaces()).toEqual(before);
    await browser.get('/api/workspace').expect(401);
  });
});

describe('an installation without the demo', () => {
  /** The same database without a workspace, on a server that was started with a key. */
  const empty = async (setupKey: string | null) => {
    await server.source.query('truncate workspace cascade');
    const other = await startServer({
      databaseUrl: server.databaseUrl,
      filesFolder: server.filesFolder,
      port: 0,
      clock: server.clock,
      log: silent,
      webFolder: null,
      roles: { web: true, worker: false },
      prepare: async () => undefined,
      setupKey,
    });
    const address = `http://127.0.0.1:${other.port}`;
    return { ...other, agent: () => supertest.agent(address).set('Origin', address) };
  };

  it('is opened by the key alone, and only once', async () => {
    const other = await empty(KEY);
    expect(other.isEmpty).toBe(true);
    const edda = other.agent();
    expect((await edda.get('/api/setup')).body).toMatchObject({ isOpen: true, needsKey: true });
    const { body } = await edda
      .post('/api/setup')
      .send(saltmarsh({ key: 'guessed' }))
      .expect(422);
    expect(body.errors).toEqual([{ path: 'key', message: expect.stringContaining('not the set-up key') }]);
    const both = await Promise.all([
      edda.post('/api/setup').send(saltmarsh({ key: KEY })),
      other
        .agent()
        .post('/api/setup')
        .send(saltmarsh({ key: KEY, name: 'Another' })),
    ]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 403]);
    expect((await edda.get('/api/setup')).body).toMatchObject({ isOpen: false });
    await other.agent().get('/api/setup/countries').expect(403);
    await other.stop();
  });

  it('that was started without a key is not begun from outside', async () => {
    const other = await empty(null);
    await other.agent().post('/api/setup').send(saltmarsh()).expect(403);
    await other.stop();
  });
});
