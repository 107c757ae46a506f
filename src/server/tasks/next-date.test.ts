import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Schedule, Task } from '../../contract/index.ts';
import { givenTo, PLAIN_TIMING, parsePhrase } from '../../core/index.ts';
import { oneSchedule } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
let nadia: Agent;
beforeEach(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  nadia = await server.browser('Nadia Orme');
});
afterEach(() => server.stop());

/** A schedule of plain work of Nadia's, and its task of today. */
async function series(phrase: string, more: object = {}): Promise<{ schedule: Schedule; taskId: string }> {
  const template = {
    name: 'Test',
    titlePattern: 'Test',
    category: null,
    instructions: '',
    estimateMinutes: 30,
    ...more,
  };
  const made = await ines.post('/api/templates').send({ template, like: null }).expect(200);
  const { body } = await ines
    .post('/api/schedules')
    .send({
      templateId: made.body.template.id,
      clientId: null,
      assetId: null,
      assignment: givenTo((await server.person('Nadia Orme')).id),
      recurrence: parsePhrase(phrase, { start: '2026-11-24' }),
      timing: PLAIN_TIMING,
    })
    .expect(200);
  const [first] = await days(body.schedule);
  return { schedule: body.schedule, taskId: first?.id ?? '' };
}
const days = (schedule: Schedule) =>
  server.source.query<{ id: string; on: string; state: string }[]>(
    `select id, work_on as "on", state from task where schedule_id = $1 order by nominal_date`,
    [schedule.id],
  );
const task = async (id: string): Promise<Task> => (await nadia.get(`/api/tasks/${id}`).expect(200)).body;
const finish = (id: string, nextOn: string | null) => nadia.post(`/api/tasks/${id}/finish`).send({ nextOn });

describe('finishing', () => {
  it('shows the next date as if it were done today, and takes another this once; undone, both are as before', async () => {
    const { schedule, taskId } = await series('2 weeks after completion');
    server.clock.set('2026-11-26T09:00');
    expect((await task(taskId)).series.next).toMatchObject({ on: '2026-12-10', taskId: null, isIfDoneToday: true });
    const { body } = await finish(taskId, '2026-12-14').expect(200);
    expect((await days(schedule)).map(({ on, state }) => `${on} ${state}`)).toEqual([
      '2026-11-24 done',
      '2026-12-14 open',
    ]);
    expect(body.task.series.next).toMatchObject({ on: '2026-12-14', isIfDoneToday: false });
    expect(body.task.finishedBy).toBe(body.changeId);
    await nadia.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect((await days(schedule)).map(({ on, state }) => `${on} ${state}`)).toEqual(['2026-11-24 open']);
    expect((await oneSchedule(ines, schedule.id)).exceptions).toEqual([]);
  });

  it('leaves the next date to whoever signs it off', async () => {
    const { schedule, taskId } = await series('every week on Tue', { signOff: { by: 'manager' } });
    expect((await task(taskId)).mayChooseNext).toBe(false);
    await finish(taskId, '2026-12-03').expect(403);
    await finish(taskId, null).expect(200);
    const { body } = await ines.get(`/api/tasks/${taskId}`).expect(200);
    expect([body.state, body.mayChooseNext]).toEqual(['toCheck', true]);
    await ines.post(`/api/tasks/${taskId}/sign`).send({ nextOn: '2026-12-03' }).expect(200);
    expect((await days(schedule)).map(({ on, state }) => `${on} ${state}`).slice(0, 2)).toEqual([
      '2026-11-24 done',
      '2026-12-03 open',
    ]);
  });

  it('moves the next one of a fixed rule too, and only that', async () => {
    const { schedule, taskId } = await series('every week on Tue');
    await finish(taskId, '2026-12-03').expect(200);
    expect((await days(schedule)).map(({ on }) => on)).toEqual([
      '2026-11-24',
      '2026-12-03',
      '2026-12-08',
      '2026-12-15',
      '2026-12-22',
    ]);
    expect((await oneSchedule(ines, schedule.id)).exceptions).toEqual([
      { kind: 'move', date: '2026-12-01', to: '2026-12-03' },
    ]);
  });

  it('without another date leaves the schedule as it is, and refuses one that can’t be; nothing is finished then', async () => {
    const { schedule, taskId } = await series('every week on Tue');
    await finish(taskId, '2026-11-20').expect(422);
    // One a day is all there can be: another's day is refused, not silently dropped.
    expect((await finish(taskId, '2026-12-08').expect(422)).body.detail).toContain('another one on that day');
    expect((await task(taskId)).state).toBe('open');
    await finish(taskId, '2026-12-01').expect(200);
    expect((await oneSchedule(ines, schedule.id)).exceptions).toEqual([]);
    const once = await series('on 24 Nov 2026');
    expect((await finish(once.taskId, '2026-12-01').expect(422)).body.detail).toContain('last one');
  });
});
