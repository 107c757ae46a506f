import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Schedule, Swap } from '../../contract/index.ts';
import { type Crew, crewOf } from '../testing/crew.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let crew: Crew;
let ines: Agent;
let joss: Agent;
let nadia: Agent;
beforeAll(async () => {
  server = await testServer();
  crew = await crewOf(server);
  ines = crew.ines;
  [joss, nadia] = [await server.browser('Joss Penhale'), await server.browser('Nadia Orme')];
  await crew.allThere();
});
beforeEach(async () => {
  server.clock.set('2026-11-24T10:40');
  await server.source.query('delete from turn_swap');
});
afterAll(() => server.stop());

/** This week Kit, the next Joss, then Nadia. */
const made = (): Promise<Schedule> => crew.made(crew.inTurn('Kit', 'Joss', 'Nadia'));
const taskOn = async (scheduleId: string, date: string) =>
  (await crew.tasks(scheduleId)).find(({ on }) => on === date)?.id ?? '';
const asked = async (taskId: string, takes: string, by: Agent = joss, status = 200) =>
  (await by.post(`/api/tasks/${taskId}/swaps`).send({ takes, note: '' }).expect(status)).body;
const decided = (swap: Swap, deed: string, by: Agent) =>
  by.put(`/api/swaps/${swap.id}/state`).send({ version: swap.version, deed });
const swapsOf = async (by: Agent): Promise<Swap[]> => (await by.get('/api/swaps').expect(200)).body.swaps;
const nods = async (swapsNeedNod: boolean) => {
  const { body } = await ines.get('/api/settings').expect(200);
  await ines
    .put('/api/settings')
    .send({ ...body, swapsNeedNod })
    .expect(200);
};

it('the next turn of each, of what is made, stands on the team', async () => {
  await crew.made(crew.inTurn('Tamsin', 'Joss'));
  const { body } = await ines.get('/api/team').expect(200);
  const of = (name: string) => body.members.find((one: { id: string }) => one.id === crew.id(name));
  expect(of('Tamsin').nextTurn).toEqual({ on: '2026-11-25', work: 'Round', place: 1 });
  const bram = body.members.find(({ name }: { name: string }) => name === 'Bram Hollis');
  expect(bram.nextTurn).toBeNull();
});

describe('a swap of turns', () => {
  it('is offered with the turns of others, asked for, agreed on, and seen on both sheets; one undo takes it back', async () => {
    await nods(false);
    const { id } = await made();
    server.clock.set('2026-11-25T10:40');
    const taskId = await taskOn(id, '2026-12-02');
    const { body: turns } = await joss.get(`/api/tasks/${taskId}/turns`).expect(200);
    expect(turns.mine).toEqual({ first: '2026-11-30', last: '2026-12-04', dates: 5 });
    expect(turns.others[0]).toMatchObject({ first: '2026-12-07', last: '2026-12-11', person: { name: 'Nadia Orme' } });
    // Kit’s turn of this week has begun, and is not offered.
    expect(turns.others.map(({ first }: { first: string }) => first)).not.toContain('2026-11-23');
    const { swap } = await asked(taskId, '2026-12-09');
    expect(swap).toMatchObject({ state: 'asked', takes: { first: '2026-12-07' }, may: ['withdraw'] });
    expect(await swapsOf(nadia)).toMatchObject([{ id: swap.id, may: ['agree', 'refuse'] }]);
    expect(await swapsOf(await server.browser('Kit Sorrell'))).toEqual([]);
    await decided(swap, 'agree', joss).expect(403);
    await decided(swap, 'give', ines).expect(403);
    const { body } = await decided(swap, 'agree', nadia).expect(200);
    expect(body.swap.state).toBe('done');
    expect(await crew.who(id, '2026-11-30', '2026-12-04')).toBe('Nadia Nadia Nadia Nadia Nadia');
    expect(await crew.who(id, '2026-12-07', '2026-12-11')).toBe('Joss Joss Joss Joss Joss');
    const { body: task } = await nadia.get(`/api/tasks/${taskId}`).expect(200);
    expect(task.whyWho).toBe('turn 3 of 3, swapped with Joss');
    await decided(swap, 'agree', nadia).expect(409);
    // Whoever agreed does not take it back alone.
    await nadia.post(`/api/changes/${body.changeId}/undo`).expect(403);
    await crew.undo(body.changeId);
    expect(await crew.who(id, '2026-11-30', '2026-12-04')).toBe('Joss Joss Joss Joss Joss');
    expect(await swapsOf(joss)).toEqual([]);
  });

  it('moves what shows already, but not what is begun, and leaves other tasks as they are', async () => {
    await nods(false);
    server.clock.set('2026-11-29T10:40');
    const { id } = await made();
    const first = await taskOn(id, '2026-11-30');
    await server.source.query('update task set appears_on = $2 where id = $1', [first, '2026-11-28']);
    const second = await taskOn(id, '2026-12-01');
    await server.source.query('update task set appears_on = $2 where id = $1', [second, '2026-11-28']);
    await joss.post(`/api/tasks/${second}/start`).expect(200);
    const { swap } = await asked(first, '2026-12-07');
    await decided(swap, 'agree', nadia).expect(200);
    expect(await crew.who(id, '2026-11-30', '2026-12-02')).toBe('Nadia Joss Nadia');
  });

  it('waits for a planner’s nod where the workspace says so', async () => {
    await nods(true);
    const { id } = await made();
    const { swap } = await asked(await taskOn(id, '2026-11-30'), '2026-12-07');
    const { body: agreed } = await decided(swap, 'agree', nadia).expect(200);
    expect(agreed).toMatchObject({ changeId: null, swap: { state: 'agreed' } });
    expect(await crew.who(id, '2026-11-30', '2026-11-30')).toBe('Joss');
    const [waiting] = (await swapsOf(ines)).filter(({ id: one }) => one === swap.id);
    expect(waiting?.may).toEqual(['give', 'refuse']);
    await decided(agreed.swap, 'give', nadia).expect(403);
    await decided(agreed.swap, 'give', ines).expect(200);
    expect(await crew.who(id, '2026-11-30', '2026-12-07')).toBe('Nadia Nadia Nadia Nadia Nadia Joss');
  });

  it('is refused or withdrawn, asked for once at a time, and only of one’s own turn that has not begun', async () => {
    await nods(false);
    const { id } = await made();
    const taskId = await taskOn(id, '2026-11-30');
    const { swap } = await asked(taskId, '2026-12-07');
    expect((await asked(taskId, '2026-12-14', joss, 409)).detail).toMatch(/a swap is asked for already/);
    await decided({ ...swap, version: 7 }, 'refuse', nadia).expect(409);
    expect((await decided(swap, 'refuse', nadia).expect(200)).body.swap).toMatchObject({
      ...{ state: 'refused', decidedBy: 'Nadia Orme' },
    });
    expect(await swapsOf(joss)).toMatchObject([{ state: 'refused', may: [] }]);
    const { swap: again } = await asked(taskId, '2026-12-07');
    await decided(again, 'withdraw', joss).expect(200);
    await asked(taskId, '2026-12-07', nadia, 403);
    expect((await asked(taskId, '2026-12-24', joss, 422)).errors).toEqual([
      { path: 'takes', message: 'That turn is yours already.' },
    ]);
    const kit = await server.browser('Kit Sorrell');
    server.clock.set('2026-11-25T10:40');
    expect((await asked(await taskOn(id, '2026-11-26'), '2026-12-07', kit, 409)).detail).toBe(
      'One of the two turns has begun.',
    );
  });

  it('that others have overtaken does not hold', async () => {
    await nods(false);
    const { id } = await made();
    const { swap } = await asked(await taskOn(id, '2026-11-30'), '2026-12-07');
    const { body: now } = await ines.get(`/api/schedules/${id}`).expect(200);
    const change = { id, version: now.version, set: { assignment: crew.inTurn('Kit', 'Tamsin', 'Joss') } };
    await ines
      .post('/api/schedules/changes')
      .send({ changes: [change], reach: { open: true, also: [] } })
      .expect(200);
    const { body } = await decided(swap, 'agree', nadia).expect(409);
    expect(body.detail).toBe('The turns are others’ by now: ask for a new swap.');
  });
});
