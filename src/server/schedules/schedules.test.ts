import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Schedule, ScheduleInput, Template } from '../../contract/index.ts';
import { scheduleSchema } from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { runMaking } from '../runs/making.ts';
import { changeSeveral, pause, plainInput, resume, weekly } from '../testing/schedules.ts';
import { type Agent, silent, type TestServer, testServer } from '../testing/test-server.ts';
import { templateNamed } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
let template: Template;
beforeEach(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  template = await templateNamed(server, ines);
});
afterEach(() => server.stop());

const input = (rest: Partial<ScheduleInput> = {}) => plainInput(template.id, rest);
const tasksOf = (schedule: Pick<Schedule, 'id'>) =>
  server.source.query<{ workOn: string; state: string; title: string; nominal: string }[]>(
    `select work_on as "workOn", state, title, nominal_date as nominal from task where schedule_id = $1 order by nominal_date`,
    [schedule.id],
  );

describe('saving a schedule', () => {
  it('makes its tasks at once, up to the horizon', async () => {
    const { body } = await ines.post('/api/schedules').send(input()).expect(200);
    expect(scheduleSchema.parse(body.schedule)).toMatchObject({
      phrase: 'last working day of each month, or the working day before',
      next: '2026-11-30',
      state: 'running',
      timesAYear: 12,
    });
    expect(body.tasks).toEqual({ made: 1, changed: 0, removed: 0, kept: 0 });
    expect((await tasksOf(body.schedule)).map(({ workOn }) => workOn)).toEqual(['2026-11-30']);
  });

  it('makes nothing for dates before today', async () => {
    const { body } = await ines
      .post('/api/schedules')
      .send(input({ recurrence: weekly(2, '2025-01-01') }))
      .expect(200);
    expect((await tasksOf(body.schedule))[0]?.workOn).toBe('2026-11-24');
  });

  it.each<[string, (good: ScheduleInput) => unknown, string, string]>([
    [
      'an end before the start',
      (good) => ({ ...good, recurrence: { ...good.recurrence, end: { kind: 'on', date: '2026-11-01' } } }),
      'recurrence.end.date',
      'before it starts',
    ],
    [
      'a rule that never happens',
      (good) => ({
        ...good,
        recurrence: {
          ...good.recurrence,
          rules: [{ kind: 'months', every: 1, months: [2], on: [{ kind: 'date', day: 30 }], missing: 'omit' }],
        },
      }),
      'recurrence.rules',
      'This never happens',
    ],
    [
      'no rule',
      (good) => ({ ...good, recurrence: { ...good.recurrence, rules: [] } }),
      'recurrence.rules',
      'there is no rule yet',
    ],
    [
      'a date that does not exist',
      (good) => ({ ...good, recurrence: { ...good.recurrence, start: '2026-02-30' } }),
      'recurrence.start',
      'This is not a date',
    ],
    [
      'an interval of 0',
      (good) => ({ ...good, recurrence: { ...good.recurrence, rules: [{ kind: 'days', every: 0, except: [] }] } }),
      'recurrence.rules.0.every',
      'At least 1',
    ],
    [
      'a due time before the start time',
      (good) => ({ ...good, timing: { ...good.timing, startTime: '14:00' } }),
      'timing.dueTime',
      'due before it starts',
    ],
    ['a template that is none', (good) => ({ ...good, templateId: 'x' }), 'templateId', 'not an id'],
  ])('with %s is refused in words', async (_, spoil, path, words) => {
    const { body } = await ines
      .post('/api/schedules')
      .send(spoil(input()) as object)
      .expect(422);
    expect(body.errors[0].path).toBe(path);
    expect(body.errors[0].message).toContain(words);
  });

  it('with anything of another workspace is refused, and never a fault', async () => {
    const ada = await server.browser('Ada Winn');
    const own = (
      await ada
        .post('/api/templates')
        .send({
          template: { name: 'Own', titlePattern: 'Own', category: null, instructions: '', estimateMinutes: 5 },
          like: null,
        })
        .expect(200)
    ).body.template as Template;
    await ada.post('/api/schedules').send(input()).expect(404);
    await ada
      .post('/api/schedules')
      .send(input({ templateId: own.id, assignment: givenTo((await server.person('Nadia Orme')).id) }))
      .expect(422);
    const [client] = await server.source.query<{ id: string }[]>('select id from client limit 1');
    await ada
      .post('/api/schedules')
      .send(input({ templateId: own.id, clientId: client?.id ?? '' }))
      .expect(404);
    const { body } = await ines.post('/api/schedules').send(input());
    await ada.get(`/api/schedules/${body.schedule.id}`).expect(404);
    await changeSeveral(ada, [[body.schedule, { assignment: givenTo(null) }]]).expect(404);
  });

  it('is for managers', async () => {
    const nadia = await server.browser('Nadia Orme');
    await nadia.post('/api/schedules').send(input()).expect(403);
    await nadia.post('/api/runs').expect(403);
    await nadia.get('/api/schedules').expect(200);
  });

  it('with a vessel needs its own berth-holder', async () => {
    const [vessel] = await server.source.query<{ id: string; client: string }[]>(
      'select id, client_id as client from asset where client_id is not null limit 1',
    );
    const { body } = await ines
      .post('/api/schedules')
      .send(input({ assetId: vessel?.id ?? '' }))
      .expect(422);
    expect(body.detail).toContain('does not belong to that client');
    await ines
      .post('/api/schedules')
      .send(input({ assetId: vessel?.id ?? '', clientId: vessel?.client ?? '' }))
      .expect(200);
  });
});

describe('changing a schedule', () => {
  const start = async () =>
    (await ines.post('/api/schedules').send(input({ recurrence: weekly(2) }))).body.schedule as Schedule;

  it('moves what nobody has seen, and leaves what shows already', async () => {
    const schedule = await start();
    const { body } = await ines
      .put(`/api/schedules/${schedule.id}`)
      .send({ ...input({ recurrence: weekly(4) }), version: schedule.version })
      .expect(200);
    expect(body.tasks).toEqual({ made: 5, changed: 0, removed: 5, kept: 1 });
    expect((await tasksOf(schedule)).map(({ workOn }) => workOn)).toEqual([
      '2026-11-24',
      '2026-11-26',
      '2026-12-03',
      '2026-12-10',
      '2026-12-17',
      '2026-12-24',
    ]);
  });

  it('changes its tasks in place when the dates stay', async () => {
    const schedule = await start();
    const nadia = await server.person('Nadia Orme');
    const { body } = await ines
      .put(`/api/schedules/${schedule.id}`)
      .send({ ...input({ recurrence: weekly(2), assignment: givenTo(nadia.id) }), version: 1 })
      .expect(200);
    expect(body.tasks).toEqual({ made: 0, changed: 5, removed: 0, kept: 1 });
  });

  it('is undone with one call, tasks and all', async () => {
    const schedule = await start();
    const before = await tasksOf(schedule);
    const { body } = await ines
      .put(`/api/schedules/${schedule.id}`)
      .send({ ...input({ recurrence: weekly(4) }), version: 1 })
      .expect(200);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await tasksOf(schedule)).toEqual(before);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(409);
  });

  it('over someone else’s change is refused', async () => {
    const schedule = await start();
    await ines
      .put(`/api/schedules/${schedule.id}`)
      .send({ ...input({ recurrence: weekly(4) }), version: 1 })
      .expect(200);
    const { body } = await ines
      .put(`/api/schedules/${schedule.id}`)
      .send({ ...input({ recurrence: weekly(3) }), version: 1 })
      .expect(409);
    expect(body.detail).toContain('Someone else changed this schedule');
  });
});

describe('pausing', () => {
  it('takes back what has not appeared, and resuming makes it again', async () => {
    const schedule = (await ines.post('/api/schedules').send(input({ recurrence: weekly(2) }))).body
      .schedule as Schedule;
    const before = (await tasksOf(schedule)).map(({ workOn }) => workOn);
    expect(await pause(ines, schedule)).toMatchObject({ state: 'paused' });
    expect((await tasksOf(schedule)).map(({ workOn }) => workOn)).toEqual(['2026-11-24']);
    expect(await pause(ines, schedule)).toMatchObject({ pauses: [{ from: '2026-11-24', to: null }] });
    expect(await resume(ines, schedule)).toMatchObject({ state: 'running', pauses: [] });
    expect((await tasksOf(schedule)).map(({ workOn }) => workOn)).toEqual(before);
  });

  it('for two weeks leaves a gap of two weeks', async () => {
    const schedule = (await ines.post('/api/schedules').send(input({ recurrence: weekly(2) }))).body
      .schedule as Schedule;
    await pause(ines, schedule);
    server.clock.set('2026-12-09T09:00');
    await runMaking(await server.scope(), 'daily', silent);
    await resume(ines, schedule, '2026-12-09');
    expect((await tasksOf(schedule)).map(({ workOn }) => workOn)).toEqual([
      '2026-11-24',
      '2026-12-15',
      '2026-12-22',
      '2026-12-29',
      '2027-01-05',
    ]);
  });
});
