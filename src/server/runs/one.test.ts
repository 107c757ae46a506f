import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { RunOne, Schedule } from '../../contract/index.ts';
import { allSchedules, changeSeveral, oneSchedule, pause, scheduleNamed } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { doTo } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
let schedule: Schedule;
beforeEach(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  schedule = await scheduleNamed(ines, 'Fire points', 'Long Quay');
});
afterEach(() => server.stop());

const days = async () =>
  (
    await server.source.query<{ work_on: string }[]>(
      `select work_on from task where schedule_id = $1 and work_on >= '2026-11-24' order by work_on`,
      [schedule.id],
    )
  ).map(({ work_on }) => work_on);
const run = async (asOf: string, isRehearsal: boolean, status = 200): Promise<RunOne> =>
  (await ines.post(`/api/schedules/${schedule.id}/runs`).send({ asOf, isRehearsal }).expect(status)).body;

describe('a run of one schedule as of a day', () => {
  it('is rehearsed and made with the dates of the schedule, not of the test; stands in the log and can be taken back', async () => {
    const before = await days();
    expect(before).toEqual(['2026-11-25', '2026-12-09', '2026-12-23']);
    const told = await run('2027-01-15', true);
    expect(told.run).toBeNull();
    expect(told.tasks.map(({ on, fate }) => `${on} ${fate}`)).toEqual([
      '2026-11-25 there',
      '2026-12-09 there',
      '2026-12-23 there',
      '2027-01-06 new',
      '2027-01-20 new',
      '2027-02-03 new',
    ]);
    expect(await days()).toEqual(before);
    const made = await run('2027-01-15', false);
    expect(made.run).toMatchObject({ why: 'byHand', by: 'Ines Calloway', made: 3, from: '2027-01-15' });
    expect(await days()).toEqual([...before, '2027-01-06', '2027-01-20', '2027-02-03']);
    // Made again it doubles nothing.
    expect((await run('2027-01-15', false)).run).toMatchObject({ made: 0 });
    await ines.post(`/api/runs/${made.run?.id}/undo`).expect(200);
    expect(await days()).toEqual(before);
  });

  it('says what it leaves out, and why', async () => {
    await pause(ines, schedule, '2026-12-01');
    const told = await run('2026-11-24', true);
    expect(told.leftOut).toEqual([
      { on: '2026-12-09', because: 'paused' },
      { on: '2026-12-23', because: 'paused' },
    ]);
    const { body } = await ines.post('/api/runs').expect(200);
    const { details } = (await ines.get(`/api/runs/${body.run.id}`).expect(200)).body;
    expect(details.leftOut).toContainEqual({ scheduleId: schedule.id, because: 'paused', dates: 2 });
    const [listed] = (await ines.get('/api/runs').expect(200)).body.runs;
    expect(listed).toEqual(body.run);
    expect(listed.leftOut.find(({ because }: { because: string }) => because === 'paused').dates).toBeGreaterThan(1);
  });

  it('puts a schedule with a problem right as soon as it can be planned', async () => {
    await server.source.query(
      `update schedule set recurrence = jsonb_set(recurrence, '{rules,0,every}', '0') where id = $1`,
      [schedule.id],
    );
    await ines.post('/api/runs').expect(200);
    // The others are there, and this one says what is wrong with it.
    expect(await oneSchedule(ines, schedule.id)).toMatchObject({ state: 'problem', next: null });
    expect(await allSchedules(ines)).toHaveLength(239);
    const [made] = await server.source.query<{ id: string }[]>('select id from task where schedule_id = $1 limit 1', [
      schedule.id,
    ]);
    await ines.get(`/api/tasks/${made?.id}`).expect(200);
    await ines.get(`/api/tasks/${made?.id}/history`).expect(200);
    await ines.delete(`/api/templates/${schedule.template.id}`).expect(409);
    const told = await run('2026-11-24', true);
    expect(told.problem).toContain("can't be read");
    await run('2026-11-24', false, 422);
    await server.source.query('update schedule set recurrence = $2 where id = $1', [schedule.id, schedule.recurrence]);
    await run('2026-11-24', false);
    expect(await oneSchedule(ines, schedule.id)).toMatchObject({ problem: null, state: 'running' });
  });

  it('is for managers, and for days that are not too far', async () => {
    const nadia = await server.browser('Nadia Orme');
    const body = { asOf: '2026-11-24', isRehearsal: true };
    await nadia.post(`/api/schedules/${schedule.id}/runs`).send(body).expect(403);
    await (await server.browser('Ada Winn')).post(`/api/schedules/${schedule.id}/runs`).send(body).expect(404);
    await run('2036-01-01', true, 422);
  });

  it('does not make what was deleted on purpose', async () => {
    const [task] = await server.source.query<{ id: string }[]>(
      `select id from task where schedule_id = $1 and work_on = '2026-12-09'`,
      [schedule.id],
    );
    await doTo(ines, task?.id, { kind: 'delete' });
    expect((await run('2026-11-24', true)).tasks.map(({ fate }) => fate)).toEqual(['there', 'deleted', 'there']);
    expect((await run('2026-11-24', false)).run).toMatchObject({ made: 0 });
    await changeSeveral(ines, [[schedule, { isDeleted: true }]]).expect(200);
    expect((await run('2026-11-24', true)).tasks).toEqual([]);
  });
});
