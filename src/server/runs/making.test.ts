import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Schedule, ScheduleInput, Template } from '../../contract/index.ts';
import { FileStore } from '../files/stored/store.ts';
import { Workspace } from '../platform/identity/workspace.ts';
import { Scope } from '../platform/scope.ts';
import { runMaking } from '../runs/making.ts';
import { plainInput, weekly } from '../testing/schedules.ts';
import { type Agent, silent, type TestServer, testServer } from '../testing/test-server.ts';
import { doTo, templateNamed } from '../testing/work.ts';
import { isMakingDue } from '../worker.ts';

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

describe('making tasks', () => {
  const count = async () =>
    (await server.source.query<{ count: number }[]>('select count(*) as count from task'))[0]?.count;
  const doubles = () =>
    server.source.query(
      'select schedule_id, nominal_date from task where schedule_id is not null group by workspace_id, schedule_id, nominal_date, step_key, head having count(*) > 1',
    );

  it('makes no doubles when it runs again', async () => {
    const before = await count();
    const run = await runMaking(await server.scope(), 'daily', silent);
    expect(run.made).toBe(0);
    expect(run.already).toBeGreaterThan(300);
    expect(await count()).toBe(before);
  });

  it('makes no doubles when two connections run at the same moment', async () => {
    await server.source.query(`delete from task where state = 'open' and work_on > '2026-11-24'`);
    server.clock.set('2026-12-05T04:00');
    const other = await testServerOn(server);
    const runs = await Promise.all([
      runMaking(await server.scope(), 'daily', silent),
      runMaking(other, 'daily', silent),
      runMaking(await server.scope(), 'byHand', silent),
    ]);
    expect(await doubles()).toEqual([]);
    const [alone] = await Promise.all([runMaking(await server.scope(), 'daily', silent)]);
    expect(alone.made).toBe(0);
    expect(runs.reduce((sum, { made }) => sum + made, 0)).toBeGreaterThan(100);
  });

  it('is refused a double by the database itself', async () => {
    await expect(
      server.source.query(
        `insert into task (workspace_id, id, version, template_id, schedule_id, nominal_date, step_key, head, set_id, set_on, set_index, title, content_id, priority, ticks, answers, note, note_pinned, sent_back, edited, estimate_minutes, state, work_on, appears_on, starts_on, due_on, made_at)
         select workspace_id, gen_random_uuid(), 1, template_id, schedule_id, nominal_date, step_key, head, set_id, set_on, set_index, title, content_id, priority, ticks, answers, note, note_pinned, sent_back, edited, 1, 'open', work_on, appears_on, starts_on, due_on, made_at from task
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
    await runMaking(await server.scope(), 'startup', silent);
    const days = (await tasksOf(body.schedule)).map(({ workOn }) => workOn);
    expect(days[0]).toBe('2026-11-24');
    expect(days.at(-1)).toBe('2027-02-22');
    expect(days).toHaveLength(91);
  });

  it('makes nothing twice and nothing odd when the clock is set back', async () => {
    server.clock.set('2026-12-10T09:00');
    await runMaking(await server.scope(), 'daily', silent);
    const before = await count();
    server.clock.set('2026-11-24T10:40');
    expect((await runMaking(await server.scope(), 'daily', silent)).made).toBe(0);
    expect(await count()).toBe(before);
  });

  it('makes the right tasks once when the workspace moves to another zone, and back', async () => {
    const daily = { ...weekly(2), rules: [{ kind: 'days' as const, every: 1, except: [] }] };
    const timing = { ...input().timing, appears: { amount: 0, unit: 'day' as const } };
    const { body } = await ines
      .post('/api/schedules')
      .send(input({ recurrence: daily, timing }))
      .expect(200);
    const days = async () => (await tasksOf(body.schedule)).map(({ workOn }) => workOn);
    const moveTo = (zone: string) =>
      server.source.query(`update workspace set zone = $1 where name = 'Tern Quay'`, [zone]);
    server.clock.set('2026-11-24T20:00');
    const before = await days();
    expect(before.at(-1)).toBe('2026-12-24');
    // There it is nine in the morning of the 25th: a day more is due, and today's run is still to come.
    await moveTo('Pacific/Auckland');
    expect(isMakingDue(await server.scope())).toBe(true);
    await runMaking(await server.scope(), 'daily', silent);
    expect(await days()).toEqual([...before, '2026-12-25']);
    // There it is noon of the 24th again: the day is run once more, which doubles nothing.
    await moveTo('America/Los_Angeles');
    expect(isMakingDue(await server.scope())).toBe(true);
    expect((await runMaking(await server.scope(), 'daily', silent)).made).toBe(0);
    expect(isMakingDue(await server.scope())).toBe(false);
    await moveTo('Europe/London');
    server.clock.set('2026-11-26T05:00');
    await runMaking(await server.scope(), 'daily', silent);
    expect(await days()).toEqual([...before, '2026-12-25', '2026-12-26']);
    expect(await doubles()).toEqual([]);
  });

  it('makes for every day of a downtime what was due, where the next waits for the last one only that', async () => {
    const daily = { ...weekly(2), rules: [{ kind: 'days' as const, every: 1, except: [] }] };
    const waiting = input({ recurrence: daily, overlap: { kind: 'wait', limitDays: 3 } });
    const one = (await ines.post('/api/schedules').send(waiting).expect(200)).body.schedule as Schedule;
    const all = (
      await ines
        .post('/api/schedules')
        .send(input({ recurrence: daily }))
        .expect(200)
    ).body.schedule as Schedule;
    const [first] = await server.source.query<{ id: string }[]>('select id from task where schedule_id = $1', [one.id]);
    server.clock.set('2026-12-04T06:00');
    const run = await runMaking(await server.scope(), 'startup', silent);
    expect((await tasksOf(all)).map(({ workOn }) => workOn).slice(0, 12)).toEqual(
      Array.from(
        { length: 12 },
        (_, i) => `2026-${i < 7 ? '11' : '12'}-${String(i < 7 ? 24 + i : i - 6).padStart(2, '0')}`,
      ),
    );
    expect(await tasksOf(one)).toHaveLength(1);
    expect(run.waits).toContainEqual({ scheduleId: one.id, days: 9 });
    // None of the ten days is lost: they come one after the other.
    await doTo(ines, first?.id, { kind: 'skip', reason: 'Too late by now.' });
    expect((await tasksOf(one)).map(({ workOn }) => workOn)).toEqual(['2026-11-24', '2026-11-25']);
  });

  it('goes on past a schedule whose rule can’t be read, and says so', async () => {
    const { body } = await ines.post('/api/schedules').send(input()).expect(200);
    await server.source.query(`update schedule set recurrence = '{"v": 9}' where id = $1`, [body.schedule.id]);
    server.clock.set('2026-12-20T09:00');
    const run = await runMaking(await server.scope(), 'daily', silent);
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
    await runMaking(await server.scope(), 'daily', silent);
    expect(await due('2026-11-25T04:01')).toBe(false);
  });

  it('is due as ever once a clock that was years ahead is put right', async () => {
    server.clock.set('2028-03-01T10:00');
    await runMaking(await server.scope(), 'startup', silent);
    server.clock.set('2026-11-26T05:00');
    expect(isMakingDue(await server.scope())).toBe(true);
    await runMaking(await server.scope(), 'daily', silent);
    expect(isMakingDue(await server.scope())).toBe(false);
    expect(await doubles()).toEqual([]);
  });

  it('by hand answers what it made', async () => {
    server.clock.set('2026-11-30T09:00');
    const { body } = await ines.post('/api/runs').expect(200);
    expect(body.run).toMatchObject({ why: 'byHand', startedAt: '2026-11-30T09:00', problemCount: 0 });
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
  const { dataSource } = await import('../data-source.ts');
  const source = await dataSource(of.databaseUrl).initialize();
  return Scope.on(source, await source.getRepository(Workspace).findOneByOrFail({ name: 'Tern Quay' }), null, of.clock);
}

async function workerOn(of: TestServer) {
  const { default: pg } = await import('pg');
  const { startWorker } = await import('../worker.ts');
  const pool = new pg.Pool({ connectionString: of.databaseUrl });
  pool.on('error', () => undefined);
  pool.on('connect', (client) => client.on('error', () => undefined));
  const files = await FileStore.at(of.filesFolder);
  const runner = await startWorker({
    source: of.source,
    pool,
    clock: of.clock,
    log: silent,
    backups: `${of.filesFolder}/backups`,
    tellsInside: false,
    origin: 'http://127.0.0.1',
    mail: null,
    inbound: null,
    files,
  });
  return { pool, stop: () => runner.stop() };
}
