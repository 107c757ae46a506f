import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AGO_HEADER, KEY_HEADER, LONGEST_AGO_SECONDS, problemType, type Task } from '../../contract/index.ts';
import { sweepArrivals } from '../platform/arrival.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { checkLine, newTemplate, startedTasks } from '../testing/work.ts';

/** A picture of one dot. */
const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

let server: TestServer;
let nadia: Agent;
let nadiaId: string;
beforeAll(async () => {
  server = await testServer();
  nadia = await server.browser('Nadia Orme');
  nadiaId = (await server.person('Nadia Orme')).id;
});
afterAll(() => server.stop());

const capture = { dueTime: null, startTime: null, clientId: null, assetId: null, estimateMinutes: 10 };
const line = () => ({ ...capture, title: 'Round', on: '2026-11-24', dueOn: '2026-11-24', assigneeId: nadiaId });

async function ownTask(): Promise<string> {
  const { body } = await nadia.post('/api/tasks').send(line()).expect(200);
  return body.tasks[0].id;
}

const sent = (method: 'post' | 'put', path: string, body: object, { key = randomUUID() as string, ago = 0 } = {}) =>
  nadia[method](`/api/tasks${path}`).set(KEY_HEADER, key).set(AGO_HEADER, String(ago)).send(body);

const task = async (id: string): Promise<Task> => (await nadia.get(`/api/tasks/${id}`).expect(200)).body;
const changesOf = async (id: string) =>
  (
    await server.source.query<{ action: string }[]>('select action from change where subject_id = $1 order by id', [id])
  ).map(({ action }) => action);

describe('what a device had to keep', () => {
  it('is done once, however often it comes with the same key, and says that it was there before', async () => {
    const key = randomUUID();
    const first = await sent('post', '', line(), { key }).expect(200);
    const again = await sent('post', '', line(), { key }).expect(409);
    expect(again.body).toMatchObject({ type: problemType('arrived-before') });
    // The same key of somebody else is another one.
    const maud = await server.browser('Maud Ferrier');
    await maud.post('/api/tasks').set(KEY_HEADER, key).send(line()).expect(200);
    const id = first.body.tasks[0].id;
    const start = randomUUID();
    await sent('post', `/${id}/start`, {}, { key: start }).expect(200);
    const both = await Promise.all([1, 2, 3].map(() => sent('post', `/${id}/finish`, {}, { key: start })));
    expect(both.map(({ status }) => status)).toEqual([409, 409, 409]);
    const finish = randomUUID();
    const all = await Promise.all([1, 2, 3].map(() => sent('post', `/${id}/finish`, {}, { key: finish })));
    expect(all.map(({ status }) => status).sort()).toEqual([200, 409, 409]);
    expect(await changesOf(id)).toEqual(['made by hand', 'started', 'finished']);
  });

  it('that was refused is not taken for done: it may come again', async () => {
    const id = await ownTask();
    const key = randomUUID();
    await sent('post', `/${id}/skip`, { reason: '' }, { key }).expect(422);
    await sent('post', `/${id}/skip`, { reason: 'Storm' }, { key }).expect(200);
    await sent('post', `/${id}/skip`, { reason: 'Storm' }, { key }).expect(409);
    expect(await task(id)).toMatchObject({ state: 'skipped', note: 'Storm' });
  });

  it('counts as done when it was done, not when it came; never before the task was there, or begun', async () => {
    const id = await ownTask();
    server.clock.set('2026-11-24T14:00');
    await sent('post', `/${id}/start`, {}, { ago: 60 * 60 }).expect(200);
    await sent('post', `/${id}/finish`, {}, { ago: 30 * 60 }).expect(200);
    expect(await task(id)).toMatchObject({ startedAt: '2026-11-24T13:00', doneAt: '2026-11-24T13:30' });
    const [change] = await server.source.query<{ at: Date }[]>(
      `select at from change where subject_id = $1 and action = 'finished'`,
      [id],
    );
    // When it came is on record beside it.
    expect(change?.at.toISOString()).toBe('2026-11-24T14:00:00.000Z');
    const other = await ownTask();
    await sent('post', `/${other}/finish`, {}, { ago: LONGEST_AGO_SECONDS }).expect(200);
    expect(await task(other)).toMatchObject({ startedAt: '2026-11-24T14:00', doneAt: '2026-11-24T14:00' });
  });

  it('is a photo too: of when it was taken, and what it completes is finished by it as by any last tick', async () => {
    const ines = await server.browser('Ines Calloway');
    const templateId = await newTemplate(ines, {
      steps: [checkLine('seen', [{ key: 'pic', kind: 'file', label: 'Picture' }])],
      finishWithLast: true,
    });
    const [id = ''] = await startedTasks(ines, templateId, nadiaId);
    server.clock.set('2026-11-24T16:00');
    const send = (key: string) =>
      nadia
        .post('/api/files')
        .field({ key, taskId: id, demand: 'pic', ago: '1800' })
        .attach('file', PICTURE, 'lamp.png')
        .expect(200);
    const key = randomUUID();
    await send(key);
    await send(key);
    expect(await task(id)).toMatchObject({
      state: 'done',
      doneAt: '2026-11-24T15:30',
      stepsDone: 1,
      files: [{ name: 'lamp.png', at: '2026-11-24T15:30' }],
    });
  });

  it('is the last change of a task by its time, though another process has given an older one a later id', async () => {
    const id = await ownTask();
    const { body } = await sent('post', `/${id}/finish`, {}).expect(200);
    await server.source.query(
      `update change set id = 'ffffffff-ffff-7fff-bfff-ffffffffffff' where subject_id = $1 and action = 'made by hand'`,
      [id],
    );
    expect(await task(id)).toMatchObject({ finishedBy: body.changeId });
    server.clock.set('2026-11-24T16:05');
    await nadia.put(`/api/tasks/${id}/note`).send({ note: 'One more thing.', was: '' }).expect(200);
    // Something was done with it since: it is not undone over that.
    expect(await task(id)).toMatchObject({ finishedBy: null });
  });

  it('is refused in words where what it says of itself makes no sense', async () => {
    const id = await ownTask();
    await sent('post', `/${id}/start`, {}, { key: 'once' }).expect(422);
    await sent('post', `/${id}/start`, {}, { ago: -5 }).expect(422);
    await sent('post', `/${id}/start`, {}, { ago: LONGEST_AGO_SECONDS + 1 }).expect(422);
    await nadia.post(`/api/tasks/${id}/start`).set(AGO_HEADER, '5').expect(422);
    expect(await task(id)).toMatchObject({ state: 'open' });
  });

  it('is known by its key for months, and then let go', async () => {
    const count = async () => (await server.source.query('select count(*)::int as n from arrival'))[0].n;
    const [now, before] = [new Date('2026-11-24T15:00Z'), await count()];
    expect(before).toBeGreaterThan(0);
    expect(await sweepArrivals(server.source, now)).toBe(0);
    expect(await sweepArrivals(server.source, new Date(now.getTime() + 121 * 86_400_000))).toBe(before);
    expect(await count()).toBe(0);
  });
});
