import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { PushDevices } from '../../contract/index.ts';
import { hear, pushMessages, tellNoted } from '../messages/index.ts';
import { isPublic } from '../platform/http/public-only.ts';
import { type PushStandIn, startPushServer } from '../standins/index.ts';
import { TEST_NOW } from '../testing/clock.ts';
import { type Crew, crewOf } from '../testing/crew.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { newTemplate, startedTasks } from '../testing/work.ts';
import { type PushKeys, pushKeys } from './index.ts';

let server: TestServer;
let crew: Crew;
let ines: Agent;
let kit: Agent;
let template: string;
let phones: PushStandIn;
let keys: PushKeys;
beforeAll(async () => {
  server = await testServer();
  crew = await crewOf(server);
  ({ ines } = crew);
  kit = await server.browser('Kit Sorrell');
  template = await newTemplate(ines, { name: 'Hose reels', titlePattern: 'Hose reels' });
  phones = await startPushServer();
  keys = await pushKeys(server.source);
});
afterAll(async () => {
  await phones.stop();
  await server.stop();
});
beforeEach(async () => {
  server.clock.set(TEST_NOW);
  phones.answer(201);
  await tellNoted(await server.scope());
  await server.source.query(
    'delete from message; delete from message_wish; delete from push_device; delete from untold',
  );
});

const add = (by: Agent, of: object = {}) =>
  by
    .post('/api/push')
    .send({ ...phones.subscribe(), endpoint: `https://push.example/${randomUUID()}`, name: 'phone', ...of });
/** A phone of Kit's that the stand-in reaches: its address is none that anybody could add. */
async function addPhone(): Promise<void> {
  const { endpoint, keys } = phones.subscribe();
  await server.source.query(
    `insert into push_device (workspace_id, id, person_id, endpoint, p256dh, auth, name, added_at)
     select workspace_id, gen_random_uuid(), id, $2, $3, $4, 'phone', now() from person where id = $1`,
    [crew.id('Kit'), endpoint, keys.p256dh, keys.auth],
  );
}
const devices = async (by: Agent): Promise<PushDevices['devices']> =>
  (await by.get('/api/push').expect(200)).body.devices;
const push = async () => pushMessages(await server.scope(), async () => keys, 'mailto:rota@ternquay.example');
const give = async (count = 1) => {
  for (let i = 0; i < count; i++) await startedTasks(ines, template, crew.id('Kit'), [{ step: '', on: '2026-11-26' }]);
  await tellNoted(await server.scope());
};
const wish = (by: Agent, phone: boolean) =>
  by
    .put('/api/messages/kinds')
    .send({ side: 'mine', kind: 'new', wish: { here: true, mail: false, phone } })
    .expect(200);
const signs = (from: number) => phones.received.slice(from).map(({ sign }) => sign as Record<string, string>);

describe('a device', () => {
  it('is told what its person wishes to hear on it, encrypted for it alone, once', async () => {
    const before = phones.received.length;
    await give();
    // Who has no device is sent nothing, and what was told by then does not come later.
    expect(await push()).toBe(0);
    await addPhone();
    await wish(kit, false);
    await give();
    expect(await push()).toBe(0);
    await wish(kit, true);
    await give();
    expect([await push(), await push()]).toEqual([1, 0]);
    const [sign, ...rest] = signs(before);
    expect(rest).toEqual([]);
    expect(sign).toMatchObject({
      title: 'Hose reels',
      body: 'yours now, due Thu 26 Nov, from Ines Calloway',
      path: expect.stringMatching(/^\/tasks\/task\//),
    });
    expect(phones.received.at(-1)?.topic).toBe(sign?.['tag']?.replaceAll('-', ''));
    expect(await devices(kit)).toMatchObject([{ name: 'phone', toldAt: '2026-11-24T10:40', trouble: null }]);
  });

  it('shows many at once as one sign, and every device of a person shows it', async () => {
    await addPhone();
    await addPhone();
    await wish(kit, true);
    const before = phones.received.length;
    for (let i = 0; i < 4; i++) await give();
    expect(await push()).toBe(2);
    expect(signs(before).map(({ title, body, path }) => [title, body, path])).toEqual([
      ['4 things', '4 new', '/'],
      ['4 things', '4 new', '/'],
    ]);
  });

  it('is left in peace within quiet hours, and told after them', async () => {
    await addPhone();
    await wish(kit, true);
    server.clock.set('2026-11-24T22:00');
    const before = phones.received.length;
    await give();
    expect(await push()).toBe(0);
    server.clock.set('2026-11-25T06:59');
    expect(await push()).toBe(0);
    server.clock.set('2026-11-25T07:00');
    expect(await push()).toBe(1);
    expect(signs(before)).toHaveLength(1);
  });

  it('has its quiet hours by the clock on the wall, in the nights in which that is changed too', async () => {
    await addPhone();
    await wish(kit, true);
    await kit
      .put('/api/messages/quiet')
      .send({ from: '18:00', to: '07:00', offDays: false, through: null })
      .expect(200);
    // An hour more in the night to 25 October, one less in that to 28 March (Europe/London).
    for (const [evening, leaves] of [
      ['2026-10-24T22:00', '2026-10-25T07:00:00.000Z'],
      ['2027-03-27T22:00', '2027-03-28T06:00:00.000Z'],
    ] as const) {
      server.clock.set(evening);
      await server.source.query('delete from message; delete from untold');
      await give();
      await push();
      const [row] = await server.source.query<{ at: Date }[]>(`select push_at as at from message where push = 'waits'`);
      expect(row?.at.toISOString()).toBe(leaves);
    }
  });

  it('is tried again where its service has trouble, given up after a while, and forgotten once it is gone', async () => {
    await addPhone();
    await wish(kit, true);
    phones.answer(503);
    const before = phones.received.length;
    await give();
    expect(await push()).toBe(0);
    expect((await devices(kit))[0]?.trouble).toBe('its push service answered 503');
    // Held by whoever has just tried.
    phones.answer(201);
    expect(await push()).toBe(0);
    await server.source.query('update message set push_held = now()');
    expect(await push()).toBe(1);
    expect((await devices(kit))[0]?.trouble).toBeNull();
    phones.answer(503);
    await give();
    await push();
    await server.source.query('update message set push_held = now()');
    server.clock.set('2026-11-24T11:20');
    await push();
    expect(await server.source.query(`select push from message where push <> 'no' order by id desc limit 1`)).toEqual([
      { push: 'failed' },
    ]);
    phones.answer(410);
    await give();
    await push();
    expect(await devices(kit)).toEqual([]);
    expect(signs(before)).toHaveLength(1);
  });

  it('of two who send at once is told by one, and again by nobody who falls in between', async () => {
    await addPhone();
    await wish(kit, true);
    const before = phones.received.length;
    for (let i = 0; i < 3; i++) await give();
    const taken = await Promise.all([push(), push(), push()]);
    expect(taken.reduce((sum, n) => sum + n, 0)).toBe(3);
    expect(new Set(signs(before).map(({ tag }) => tag)).size).toBe(3);
  });

  it('is somebody’s own: added once, ten at most, taken out by nobody else; and reached outside alone', async () => {
    const one = { ...phones.subscribe(), endpoint: 'https://push.example/one' };
    await add(kit, one).expect(200);
    const { body } = await add(kit, one).expect(200);
    expect(body.devices).toHaveLength(1);
    expect(body.key).toMatch(/^[A-Za-z0-9_-]{87}$/);
    await ines.delete(`/api/push/${body.devices[0].id}`).expect(404);
    await kit.delete(`/api/push/${body.devices[0].id}`).expect(200);
    for (let i = 0; i < 10; i++) await add(kit).expect(200);
    await add(kit).expect(422);
    for (const endpoint of [
      ...[
        'https://10.0.0.1/x',
        'https://localhost/x',
        'https://[::1]/x',
        'http://outside.example/push',
        'ftp://a.example/x',
      ],
      ...['https://printer.local/x', 'https://user@outside.example/x', 'http://127.0.0.1:80/x', 'not an address'],
    ])
      await add(ines, { endpoint }).expect(422);
    await add(ines, { keys: { p256dh: 'short', auth: 'x' } }).expect(422);
  });

  it('is not looked for within our own network', () => {
    for (const inside of [
      '127.0.0.1',
      '10.1.2.3',
      '172.16.0.9',
      '192.168.1.1',
      '169.254.169.254',
      '100.64.0.1',
      '0.0.0.0',
      '::1',
    ])
      expect([inside, isPublic(inside)]).toEqual([inside, false]);
    for (const inside of ['fe80::1', 'fd00::1', '::ffff:127.0.0.1', '::ffff:7f00:1', '224.0.0.1', 'name'])
      expect([inside, isPublic(inside)]).toEqual([inside, false]);
    for (const outside of ['93.184.215.14', '2606:2800:21f:cb07:6820:80da:af6b:8b2c', '::ffff:93.184.215.14'])
      expect([outside, isPublic(outside)]).toEqual([outside, true]);
  });
});

it('a nudge is a sign as well', async () => {
  await addPhone();
  const [id = ''] = await startedTasks(ines, template, crew.id('Kit'), [{ step: '', on: '2026-11-24' }]);
  await hear(await server.scope(), server.address);
  await push();
  const before = phones.received.length;
  await ines
    .post('/api/tasks/nudges')
    .send({ tasks: [id], text: 'before noon' })
    .expect(200);
  await push();
  expect(signs(before).map(({ body }) => body)).toEqual(['Ines Calloway nudges you: before noon']);
});
