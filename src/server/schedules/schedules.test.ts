import { pino } from 'pino';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Schedule, ScheduleInput, Template } from '../../contract/index.ts';
import { scheduleSchema } from '../../contract/index.ts';
import { FileStore } from '../files/store.ts';
import { isMakingDue } from '../jobs/worker.ts';
import { Scope } from '../scope.ts';
import { changeSeveral, pause, resume } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { Workspace } from '../workspace/entity.ts';
import { runMaking } from './making.ts';

const log = pino({ level: 'silent' });
let server: TestServer;
let ines: Agent;
let template: Template;
beforeEach(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  template = (await ines.get('/api/templates')).body.templates[0];
});
afterEach(() => server.stop());

const input = (rest: Partial<ScheduleInput> = {}): ScheduleInput => ({
  templateId: template.id,
  clientId: null,
  assetId: null,
  assigneeId: null,
  recurrence: {
    start: '2026-11-24',
    rules: [{ kind: 'months', every: 1, months: [], on: [{ kind: 'workingDay', nth: -1 }], missing: 'last' }],
    end: { kind: 'never' },
    dayOff: 'preceding',
  },
  timing: {
    appears: { amount: -1, unit: 'workingDay' },
    starts: { amount: 0, unit: 'day' },
    due: { amount: 0, unit: 'day' },
    startTime: null,
    dueTime: '12:00',
    reminders: [],
    zone: null,
  },
  overlap: { kind: 'add' },
  pauses: [],
  exceptions: [],
  revisions: [],
  ...rest,
});
const weekly = (weekday: 1 | 2 | 3 | 4 | 5, start = '2026-11-24'): ScheduleInput['recurrence'] => ({
  start,
  rules: [{ kind: 'weeks', every: 1, on: [weekday] }],
  end: { kind: 'never' },
  dayOff: 'none',
});
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
      .send(input({ templateId: own.id, assigneeId: (await server.person('Nadia Orme')).id }))
      .expect(404);
    const [client] = await server.source.query<{ id: string }[]>('select id from client limit 1');
    await ada
      .post('/api/schedules')
      .send(input({ templateId: own.id, clientId: client?.id ?? '' }))
      .expect(404);
    const { body } = await ines.post('/api/schedules').send(input());
    await ada.get(`/api/schedules/${body.schedule.id}`).expect(404);
    await changeSeveral(ada, [[body.schedule, { assigneeId: null }]]).expect(404);
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
      .send({ ...input({ recurrence: weekly(2), assigneeId: nadia.id }), version: 1 })
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
    await runMaking(await server.scope(), 'daily', log);
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

describe('making tasks', () => {
  const count = async () =>
    (await server.source.query<{ count: number }[]>('select count(*) as count from task'))[0]?.count;
  const doubles = () =>
    server.source.query(
      'select schedule_id, nominal_date from task where schedule_id is not null group by workspace_id, schedule_id, nominal_date, step_key, head having count(*) > 1',
    );

  it('makes no doubles when it runs again', async () => {
    const before = await count();
    const run = await runMaking(await server.scope(), 'daily', log);
    expect(run.made).toBe(0);
    expect(run.already).toBeGreaterThan(300);
    expect(await count()).toBe(before);
  });

  it('makes no doubles when two connections run at the same moment', async () => {
    await server.source.query(`delete from task where state = 'open' and work_on > '2026-11-24'`);
    server.clock.set('2026-12-05T04:00');
    const other = await testServerOn(server);
    const runs = await Promise.all([
      runMaking(await server.scope(), 'daily', log),
      runMaking(other, 'daily', log),
      runMaking(await server.scope(), 'byHand', log),
    ]);
    expect(await doubles()).toEqual([]);
    const [alone] = await Promise.all([runMaking(await server.scope(), 'daily', log)]);
    expect(alone.made).toBe(0);
    expect(runs.reduce((sum, { made }) => sum + made, 0)).toBeGreaterThan(100);
  });

  it('is refused a double by the database itself', async () => {
    await expect(
      server.source.query(
        `insert into task (workspace_id, id, template_id, schedule_id, nominal_date, set_id, set_on, title, instructions, check_lines, ticks, note, estimate_minutes, state, work_on, appears_on, starts_on, due_on, made_at)
         select workspace_id, gen_random_uuid(), template_id, schedule_id, nominal_date, set_id, set_on, title, '', '[]', '{}', '', 1, 'open', work_on, appears_on, starts_on, due_on, made_at from task
         where schedule_id is not null and step_key = '' limit 1`,
      ),
    ).rejects.toThrow('task_made_once');
  });

  it('catches up after ten days of downtime', async () => {
    const { body } = await ines
      .post('/api/schedules')
      .send(input({ recurrence: { ...weekly(2), rules: [{ kind: 'days', every: 1, except: [] }] } }))
      .expect(200);
    server.clock.set('2027-01-20T09:00');
    await runMaking(await server.scope(), 'startup', log);
    const days = (await tasksOf(body.schedule)).map(({ workOn }) => workOn);
    expect(days[0]).toBe('2026-11-24');
    expect(days.at(-1)).toBe('2027-02-22');
    expect(days).toHaveLength(91);
  });

  it('makes nothing twice and nothing odd when the clock is set back', async () => {
    server.clock.set('2026-12-10T09:00');
    await runMaking(await server.scope(), 'daily', log);
    const before = await count();
    server.clock.set('2026-11-24T10:40');
    expect((await runMaking(await server.scope(), 'daily', log)).made).toBe(0);
    expect(await count()).toBe(before);
  });

  it('goes on past a schedule whose rule can’t be read, and says so', async () => {
    const { body } = await ines.post('/api/schedules').send(input()).expect(200);
    await server.source.query(`update schedule set recurrence = '{"v": 9}' where id = $1`, [body.schedule.id]);
    server.clock.set('2026-12-20T09:00');
    const run = await runMaking(await server.scope(), 'daily', log);
    expect(run.made).toBeGreaterThan(50);
    expect(run.problems).toMatchObject([{ scheduleId: body.schedule.id }]);
    expect(run.problems[0]?.message).toContain("can't be read");
  });

  it('keeps the time said across the end of March', async () => {
    server.clock.set('2027-03-24T09:00');
    const { body } = await ines
      .post('/api/schedules')
      .send(
        input({
          recurrence: { ...weekly(2, '2027-03-24'), rules: [{ kind: 'days', every: 1, except: [] }] },
          timing: { ...input().timing, startTime: '08:00' },
        }),
      )
      .expect(200);
    const rows = await server.source.query<{ work_on: string; start_time: string }[]>(
      `select work_on, start_time from task where schedule_id = $1 and work_on between '2027-03-27' and '2027-03-29' order by work_on`,
      [body.schedule.id],
    );
    expect(rows).toEqual(
      ['2027-03-27', '2027-03-28', '2027-03-29'].map((work_on) => ({ work_on, start_time: '08:00' })),
    );
  });

  it('is due once a day from the workspace’s time of day on', async () => {
    const due = async (moment: string) => {
      server.clock.set(moment);
      return isMakingDue(await server.scope());
    };
    expect(await due('2026-11-24T10:40')).toBe(false);
    expect(await due('2026-11-25T03:59')).toBe(false);
    expect(await due('2026-11-25T04:00')).toBe(true);
    await runMaking(await server.scope(), 'daily', log);
    expect(await due('2026-11-25T04:01')).toBe(false);
  });

  it('by hand answers what it made', async () => {
    server.clock.set('2026-11-30T09:00');
    const { body } = await ines.post('/api/runs').expect(200);
    expect(body.run).toMatchObject({ why: 'byHand', startedAt: '2026-11-30T09:00', problems: [] });
    expect(body.run.made).toBeGreaterThan(20);
    expect((await ines.get('/api/runs/last')).body.run).toEqual(body.run);
  });
});

describe('the server’s own job', () => {
  it('makes what is owed at start-up', async () => {
    await server.source.query(`delete from task where state = 'open' and work_on > '2026-11-24'`);
    const { pool, stop } = await workerOn(server);
    try {
      await expect
        .poll(
          async () => (await server.source.query(`select 1 from task where work_on > '2026-12-10' limit 1`)).length,
          { timeout: 10_000 },
        )
        .toBe(1);
      expect(
        (await server.source.query<{ why: string }[]>('select why from run order by id desc limit 1'))[0]?.why,
      ).toBe('startup');
    } finally {
      await stop();
      await pool.end();
    }
  });
});

/** The workspace seen over a connection of its own. */
async function testServerOn(of: TestServer): Promise<Scope> {
  const { dataSource } = await import('../db/data-source.ts');
  const source = await dataSource(of.databaseUrl).initialize();
  return Scope.on(source, await source.getRepository(Workspace).findOneByOrFail({ name: 'Tern Quay' }), null, of.clock);
}

async function workerOn(of: TestServer) {
  const { default: pg } = await import('pg');
  const { startWorker } = await import('../jobs/worker.ts');
  const pool = new pg.Pool({ connectionString: of.databaseUrl });
  pool.on('error', () => undefined);
  pool.on('connect', (client) => client.on('error', () => undefined));
  const files = await FileStore.at(of.filesFolder);
  const runner = await startWorker({ source: of.source, pool, clock: of.clock, log, files });
  return { pool, stop: () => runner.stop() };
}
