import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { FillRow, Run, Schedule } from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { schedulesFound } from '../testing/schedules.ts';
import { type Agent, silent, type TestServer, testServer } from '../testing/test-server.ts';
import { doTo } from '../testing/work.ts';
import { carryOutFill } from './fill.ts';
import { runMaking } from './making.ts';

let server: TestServer;
let ines: Agent;
beforeEach(async () => {
  server = await testServer({ worker: true });
  ines = await server.browser('Ines Calloway');
});
afterEach(() => server.stop());

const JANUARY = { from: '2027-01-01', to: '2027-01-31', scheduleIds: [] as string[] };
const rehearsal = async (input: object = JANUARY): Promise<FillRow[]> =>
  (await ines.post('/api/fills/rehearsal').send(input).expect(200)).body.rows;
const total = (rows: readonly FillRow[], key: 'new' | 'there' | 'deleted' | 'paused' = 'new') =>
  rows.reduce((sum, row) => sum + row[key], 0);
const schedule = async (words: string): Promise<Schedule> => {
  const all = await schedulesFound(ines, words);
  return all.find(({ template, asset }) => `${template.name} ${asset?.name ?? ''}`.includes(words)) as Schedule;
};
const count = async (where: string) => {
  const [row] = await server.source.query<{ count: number }[]>(`select count(*) as count from task where ${where}`);
  return row?.count ?? 0;
};
async function filled(input: object = JANUARY): Promise<Run> {
  const { body } = await ines.post('/api/fills').send(input).expect(200);
  await expect
    .poll(async () => (await ines.get(`/api/runs/${body.run.id}`)).body.run.state, { timeout: 20_000, interval: 100 })
    .toBe('done');
  return (await ines.get(`/api/runs/${body.run.id}`)).body.run;
}

describe('a fill', () => {
  it('is rehearsed, makes exactly that, and does nothing the second time', async () => {
    const before = await count('true');
    const rows = await rehearsal();
    expect(total(rows)).toBeGreaterThan(300);
    expect(total(rows, 'there')).toBeGreaterThan(0);
    expect(total(rows, 'paused')).toBeGreaterThan(0);
    expect(await count('true')).toBe(before);
    const run = await filled();
    expect(run).toMatchObject({
      why: 'fill',
      by: 'Ines Calloway',
      made: total(rows),
      total: total(rows),
      from: '2027-01-01',
    });
    expect(await count('true')).toBe(before + total(rows));
    const again = await rehearsal();
    expect(total(again)).toBe(0);
    expect(total(again, 'there')).toBe(total(rows) + total(rows, 'there'));
    expect((await ines.post('/api/fills').send(JANUARY).expect(422)).body.detail).toContain('nothing to make');
    // The daily run comes upon them, and doubles none.
    server.clock.set('2027-01-05T04:00');
    await runMaking(await server.scope(), 'daily', silent);
    const doubles = await server.source.query(
      'select 1 from task where schedule_id is not null group by schedule_id, nominal_date, step_key, head having count(*) > 1',
    );
    expect(doubles).toEqual([]);
  });

  it('of chosen schedules is taken back, but for what somebody has worked on', async () => {
    const washrooms = await schedule('Washrooms');
    const run = await filled({ ...JANUARY, scheduleIds: [washrooms.id] });
    expect(run.made).toBe(21);
    const opened = (await ines.get(`/api/runs/${run.id}`)).body;
    expect(opened).toMatchObject({ there: 21, keeps: 0 });
    expect(opened.tasks).toHaveLength(21);
    await ines.put(`/api/tasks/${opened.tasks[3].id}/note`).send({ note: 'Order soap.', was: '' }).expect(200);
    const { body } = await ines.post(`/api/runs/${run.id}/undo`).expect(200);
    expect(body.said).toBe('20 tasks taken back. 1 task stays: somebody has worked on it.');
    expect(await count(`run_id = '${run.id}'`)).toBe(1);
    await ines.post(`/api/runs/${run.id}/undo`).expect(409);
    const list: Run[] = (await ines.get('/api/runs').expect(200)).body.runs;
    expect(list.find(({ id }) => id === run.id)).toMatchObject({ state: 'undone', made: 1 });
  });

  it('leaves out what was deleted on purpose, and its tasks follow a later change of the schedule', async () => {
    const washrooms = await schedule('Washrooms');
    const run = await filled({ ...JANUARY, scheduleIds: [washrooms.id] });
    const { tasks } = (await ines.get(`/api/runs/${run.id}`)).body;
    await doTo(ines, tasks[0].id, { kind: 'delete' });
    const [row] = await rehearsal({ ...JANUARY, scheduleIds: [washrooms.id] });
    expect(row).toMatchObject({ new: 0, deleted: 1, there: 20 });
    const { id, template, client, asset, who, ...rest } = washrooms;
    await ines
      .put(`/api/schedules/${id}`)
      .send({
        ...rest,
        templateId: template.id,
        clientId: client?.id ?? null,
        assetId: asset?.id ?? null,
        assignment: givenTo((await server.person('Kit Sorrell')).id),
      })
      .expect(200);
    const ofKit = await count(`run_id = '${run.id}' and assignee_id = '${(await server.person('Kit Sorrell')).id}'`);
    expect([ofKit, who]).toEqual([20, 'Tamsin Wray']);
  });

  it('goes on after a fall where it stood, and makes nothing twice', async () => {
    const rows = await rehearsal();
    const { body } = await ines.post('/api/fills').send(JANUARY).expect(200);
    const scope = await server.scope();
    // Two at once, as after a restart while the first one still works.
    await Promise.all([carryOutFill(scope, body.run.id), carryOutFill(await server.scope(), body.run.id)]);
    await expect
      .poll(async () => (await ines.get(`/api/runs/${body.run.id}`)).body.run.state, { timeout: 20_000 })
      .toBe('done');
    expect(await count(`run_id = '${body.run.id}'`)).toBe(total(rows));
  });

  it.each([
    [{ from: '2026-11-01', to: '2026-12-31' }, 'begin today at the earliest'],
    [{ from: '2027-02-01', to: '2027-01-31' }, 'lies before the first'],
    [{ from: '2027-01-01', to: '2036-01-01' }, '800 days at most'],
    [{ from: '2027-02-30', to: '2027-03-01' }, 'date'],
  ])('of %j is refused in words', async (input, words) => {
    expect((await ines.post('/api/fills/rehearsal').send(input).expect(422)).body.detail).toContain(words);
  });

  it('is a manager’s, and of one workspace', async () => {
    const nadia = await server.browser('Nadia Orme');
    await nadia.post('/api/fills').send(JANUARY).expect(403);
    await nadia.get('/api/runs').expect(200);
    const [run]: Run[] = (await ines.get('/api/runs')).body.runs;
    const ada = await server.browser('Ada Winn');
    await ada.get(`/api/runs/${run?.id}`).expect(404);
    await ada.post(`/api/runs/${run?.id}/undo`).expect(404);
    const washrooms = await schedule('Washrooms');
    expect(
      (await ada.post('/api/fills/rehearsal').send({ ...JANUARY, scheduleIds: [washrooms.id] })).body.rows,
    ).toEqual([]);
  });
});

describe('the run log', () => {
  it('opens a run down to each task that it made', async () => {
    server.clock.set('2026-11-28T04:00');
    const run = await runMaking(await server.scope(), 'daily', silent);
    expect(run.made).toBeGreaterThan(0);
    const opened = (await ines.get(`/api/runs/${run.id}`).expect(200)).body;
    expect(opened.run).toMatchObject({ why: 'daily', by: null, made: run.made, state: 'done' });
    expect(opened.tasks.length).toBe(run.made);
    await ines.post(`/api/runs/${run.id}/undo`).expect(409);
  });
});
