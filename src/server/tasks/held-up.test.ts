import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { taskSchema } from '../../contract/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { checkLine, newTemplate, startedTasks } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
let nadia: Agent;
let kit: Agent;
let nadiaId: string;
let kitId: string;
beforeAll(async () => {
  server = await testServer();
  // Nobody has heard of anything.
  await server.source.query('delete from message');
  ines = await server.browser('Ines Calloway');
  nadia = await server.browser('Nadia Orme');
  kit = await server.browser('Kit Sorrell');
  nadiaId = (await server.person('Nadia Orme')).id;
  kitId = (await server.person('Kit Sorrell')).id;
});
afterAll(() => server.stop());

const task = async (id: string) => taskSchema.parse((await ines.get(`/api/tasks/${id}`).expect(200)).body);
const one = async (of: string = nadiaId, rest: object = {}) => {
  const [id = ''] = await startedTasks(ines, await newTemplate(ines, rest), of);
  return id;
};
const hold = (by: Agent, id: string, until: string, reason = 'part on order') =>
  by.post(`/api/tasks/${id}/hold-up`).send({ reason, until });
const late = async () => (await ines.get('/api/tideline').expect(200)).body.late;
const bell = async (of: Agent) => (await of.get('/api/bell').expect(200)).body;

describe('work that is held up', () => {
  it('says why, until when and by whom, and is not late meanwhile', async () => {
    const id = await one();
    await server.source.query(`update task set due_on = '2026-11-20', starts_on = '2026-11-20' where id = $1`, [id]);
    const before = await late();
    await hold(nadia, id, '2026-11-26').expect(200);
    expect(await task(id)).toMatchObject({
      heldUp: true,
      late: true,
      daysLate: 4,
      hold: { reason: 'part on order', until: '2026-11-26', by: 'Nadia Orme' },
    });
    expect(await late()).toBe(before - 1);
    const { body: held } = await ines.get('/api/task-list').query({ are: 'heldUp' }).expect(200);
    expect(held.lines.map((line: { id: string }) => line.id)).toContain(id);
    const { body: lateOnes } = await ines.get('/api/task-list').query({ are: 'late' }).expect(200);
    expect(lateOnes.lines.map((line: { id: string }) => line.id)).not.toContain(id);
    const { body: sheet } = await ines.get(`/api/people/${nadiaId}/day-sheet`).expect(200);
    expect(sheet.thisDay.map((line: { id: string }) => line.id)).toContain(id);
    // On its day it is back by itself.
    server.clock.set('2026-11-26T10:40');
    expect(await task(id)).toMatchObject({ heldUp: false, hold: null, daysLate: 6 });
    const { body: again } = await ines.get('/api/task-list').query({ are: 'late', order: 'due' }).expect(200);
    expect(again.lines.map((line: { id: string }) => line.id)).toContain(id);
    server.clock.set('2026-11-24T10:40');
  });

  it('goes on when it is started, or when somebody says so; what was done is undone', async () => {
    const id = await one();
    const { body } = await hold(nadia, id, '2026-11-27').expect(200);
    await nadia.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect((await task(id)).hold).toBeNull();
    await nadia.post(`/api/tasks/${id}/go-on`).expect(409);
    await hold(nadia, id, '2026-11-27').expect(200);
    await ines.post(`/api/tasks/${id}/go-on`).expect(200);
    expect((await task(id)).heldUp).toBe(false);
    await hold(nadia, id, '2026-11-27').expect(200);
    await nadia.post(`/api/tasks/${id}/start`).expect(200);
    expect(await task(id)).toMatchObject({ heldUp: false, state: 'underWay' });
  });

  it.each([
    ['2026-11-24', 'It is held up until a day after today'],
    ['2039-01-01', 'is too far off'],
  ])('until %s is refused', async (until, words) => {
    const { body } = await hold(nadia, await one(), until).expect(422);
    expect(body.detail).toContain(words);
  });

  it('is said by whoever has it or plans, and of nothing that is over', async () => {
    const id = await one();
    await hold(kit, id, '2026-11-26').expect(403);
    await nadia.post(`/api/tasks/${id}/finish`).expect(200);
    await hold(nadia, id, '2026-11-26').expect(409);
  });
});

describe('a nudge', () => {
  const nudge = (tasks: string[], text = '') => ines.post('/api/tasks/nudges').send({ tasks, text });

  it('rings for whoever has the work, once for all of it and not twice within the hour', async () => {
    const [first, second, held, done] = [await one(kitId), await one(kitId), await one(kitId), await one(kitId)];
    const own = await one((await server.person('Ines Calloway')).id);
    await hold(kit, held, '2026-11-26').expect(200);
    await kit.post(`/api/tasks/${done}/finish`).expect(200);
    const { body: bins } = await ines.get('/api/task-list').query({ find: 'bin store gate' }).expect(200);
    const { body } = await nudge([first, second, held, done, bins.lines[0].id, own], 'before noon, please').expect(200);
    expect(body).toEqual({ nudged: 2, people: 1, own: 1, nobodys: 1, over: 2, again: 0 });
    const { unread, lines } = await bell(kit);
    expect([unread, lines[0]]).toEqual([
      1,
      expect.objectContaining({
        kind: 'named',
        text: 'Ines Calloway nudges you: before noon, please',
        times: 2,
        isRead: false,
      }),
    ]);
    expect(await task(first)).toMatchObject({ nudged: { by: 'Ines Calloway' }, mayNudge: false, version: 1 });
    expect((await nudge([first, second]).expect(200)).body).toMatchObject({ nudged: 0, again: 2 });
    server.clock.set('2026-11-24T11:41');
    expect((await nudge([first]).expect(200)).body).toMatchObject({ nudged: 1 });
    server.clock.set('2026-11-24T10:40');
    await kit
      .post('/api/tasks/nudges')
      .send({ tasks: [first] })
      .expect(403);
  });

  it('has been seen once the bell was opened; what has come since has not', async () => {
    const { lines } = await bell(kit);
    expect(lines).toHaveLength(2);
    expect((await kit.post('/api/bell/read').send({ upTo: lines[1].id }).expect(200)).body.unread).toBe(1);
    expect((await kit.post('/api/bell/read').send({ upTo: lines[0].id }).expect(200)).body.unread).toBe(0);
    // Nobody else's.
    expect((await bell(nadia)).lines).toEqual([]);
  });
});

describe('comments', () => {
  const key = () => crypto.randomUUID();
  const say = (by: Agent, id: string, body: object) => by.post(`/api/tasks/${id}/comments`).send(body);

  it('stand in their order, once however often they are sent, and ring for those who are named', async () => {
    const id = await one();
    const sent = { key: key(), text: 'Is it done, @Nadia Orme?', named: [nadiaId] };
    await say(ines, id, sent).expect(200);
    await say(ines, id, sent).expect(200);
    await say(nadia, id, { key: key(), text: 'Nearly.' }).expect(200);
    const { body } = await ines.get(`/api/tasks/${id}/comments`).expect(200);
    expect(body.comments.map(({ by, text, isOwn }: Record<string, unknown>) => [by, text, isOwn])).toEqual([
      ['Ines Calloway', 'Is it done, @Nadia Orme?', true],
      ['Nadia Orme', 'Nearly.', false],
    ]);
    expect((await bell(nadia)).lines).toHaveLength(1);
    // Written on: it is not deleted by the way.
    const { version } = await task(id);
    const deletion = { tasks: [{ id, version }], deed: { kind: 'delete' } };
    expect((await ines.post('/api/tasks/changes').send(deletion).expect(409)).body.detail).toContain('comments');
  });

  it('name only people who are here, and by their names', async () => {
    const id = await one();
    const wrong = await say(ines, id, { key: key(), text: 'Hello', named: [nadiaId] }).expect(422);
    expect(wrong.body.detail).toBe('“@Nadia Orme” does not stand in the comment.');
    await say(ines, id, { key: key(), text: '@X', named: [key()] }).expect(422);
    await say(ines, id, { key: key(), text: '  ' }).expect(422);
    const mine = { key: key(), text: 'Mine.' };
    await say(ines, id, mine).expect(200);
    await say(nadia, id, mine).expect(409);
  });

  it('come page by page', async () => {
    const id = await one();
    for (let n = 1; n <= 32; n++) await say(ines, id, { key: key(), text: `No ${n}` }).expect(200);
    const { body: last } = await ines.get(`/api/tasks/${id}/comments`).expect(200);
    expect([last.comments.length, last.comments.at(-1).text, last.more]).toEqual([30, 'No 32', true]);
    const { body: first } = await ines
      .get(`/api/tasks/${id}/comments`)
      .query({ before: last.comments[0].id })
      .expect(200);
    expect([first.comments.map((one: { text: string }) => one.text), first.more]).toEqual([['No 1', 'No 2'], false]);
  });
});

describe('finishing several', () => {
  it('finishes those that lack nothing, with a note on each, and leaves the others', async () => {
    const [plain, begun, lacking] = [await one(), await one(), await one(nadiaId, { steps: [checkLine('gates')] })];
    await nadia.post(`/api/tasks/${begun}/start`).expect(200);
    const tasks = await Promise.all(
      [plain, begun, lacking].map(async (id) => ({ id, version: (await task(id)).version })),
    );
    const deed = { kind: 'finish', note: 'done with the storm round' };
    const { body: impact } = await ines.post('/api/tasks/changes/impact').send({ tasks, deed }).expect(200);
    expect(impact.figures).toMatchObject({ changed: 2, keptLacking: 1 });
    const { body } = await ines.post('/api/tasks/changes').send({ tasks, deed }).expect(200);
    expect(body.changed).toBe(2);
    expect(await task(begun)).toMatchObject({ state: 'done', note: deed.note, doneBy: 'Ines Calloway' });
    expect((await task(lacking)).state).toBe('open');
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect([(await task(plain)).state, (await task(begun)).state]).toEqual(['open', 'underWay']);
  });
});
