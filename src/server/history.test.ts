import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { HistoryEntry, Schedule } from '../contract/index.ts';
import { type Agent, type TestServer, testServer } from './testing/test-server.ts';
import { doTo } from './testing/work.ts';

let server: TestServer;
let ines: Agent;
let schedules: Schedule[];
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  schedules = (await ines.get('/api/schedules')).body.schedules;
});
afterAll(() => server.stop());

const history = async (of: string, id: string) => (await ines.get(`/api/${of}/${id}/history`).expect(200)).body;
const said = (entries: readonly HistoryEntry[]) => entries.map(({ by, said: words }) => `${by}: ${words}`);
const taskOn = async (scheduleId: string, nominal: string, step = '') => {
  const [row] = await server.source.query<{ id: string }[]>(
    'select id from task where schedule_id = $1 and nominal_date = $2 and step_key = $3',
    [scheduleId, nominal, step],
  );
  return row?.id ?? '';
};
const named = (template: string, asset?: string) =>
  schedules.find(
    (one) => one.template.name === template && (asset === undefined || one.asset?.name === asset),
  ) as Schedule;

describe('the history', () => {
  it('of a task tells who did what, newest first', async () => {
    const schedule = named('Fire points', 'Long Quay');
    const id = await taskOn(schedule.id, '2026-12-09');
    await ines.post(`/api/tasks/${id}/start`).expect(200);
    await ines.put(`/api/tasks/${id}/note`).send({ note: 'Post 4 is dark.', was: '' }).expect(200);
    const { changeId } = await doTo(ines, id, { kind: 'skip', reason: 'Closed.' });
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    const { entries } = await history('tasks', id);
    expect(said(entries)).toEqual([
      'Ines Calloway: note put back',
      'Ines Calloway: skipped (undone)',
      'Ines Calloway: wrote the note',
      'Ines Calloway: started',
    ]);
  });

  it('of a schedule and a template names the fields', async () => {
    const schedule = named('Deposit review');
    const { template, client, asset, assignee, ...rest } = schedule;
    const ids = { templateId: template.id, clientId: client?.id ?? null, assetId: asset?.id ?? null };
    await ines
      .put(`/api/schedules/${schedule.id}`)
      .send({ ...rest, ...ids, assigneeId: null })
      .expect(200);
    const { entries, why } = await history('schedules', schedule.id);
    expect(said(entries)).toEqual([`Ines Calloway: who does it: nobody yet, was ${assignee?.name}`]);
    expect(why).toEqual([]);
    expect(said((await history('templates', template.id)).entries)).toContain('Ines Calloway: made');
  });

  it('is of one workspace', async () => {
    const ada = await server.browser('Ada Winn');
    const schedule = named('Deposit review');
    await ada.get(`/api/schedules/${schedule.id}/history`).expect(404);
    await ada.get(`/api/templates/${schedule.template.id}/history`).expect(404);
    await ada.get(`/api/tasks/${await taskOn(schedule.id, '2026-12-31')}/history`).expect(404);
  });
});

describe('why a task is here', () => {
  it('is told from the rule over the day off to the run', async () => {
    const bank = named('Bank reconciliation');
    const { why } = await history('tasks', await taskOn(bank.id, '2026-12-25'));
    expect(why).toEqual([
      'The rule “every week on Fri, or the working day before” gives 25 Dec 2026, a Friday.',
      'Christmas Day is a day off, so it is worked on 24 Dec 2026.',
      expect.stringMatching(/^It is seen from /),
      expect.stringMatching(/^Made (by the daily run|when the server started), /),
    ]);
  });

  it('names the step of a set, and what a person did', async () => {
    const boarding = named('Gas and shore power', 'Grey Wagtail');
    const { why } = await history('tasks', await taskOn(boarding.id, '2026-12-01', 'notice'));
    expect(why).toContain('This is a task of its own in the set: 7 days before (24 Nov 2026).');
    const { body } = await ines
      .post('/api/tasks')
      .send({
        title: 'Grit',
        on: '2026-11-25',
        dueOn: '2026-11-25',
        startTime: null,
        dueTime: null,
        assigneeId: null,
        clientId: null,
        assetId: null,
        estimateMinutes: 5,
      })
      .expect(200);
    expect((await history('tasks', body.tasks[0].id)).why).toEqual(['Made by hand, today at 10:40.']);
  });
});
