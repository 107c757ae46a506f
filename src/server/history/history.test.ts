import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type DaySheet, type HistoryEntry, type Impact, impactSchema, type Schedule } from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { allSchedules, changeSeveral } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { doTo } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
let schedules: Schedule[];
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  schedules = await allSchedules(ines);
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
    const { template, client, asset, who, ...rest } = schedule;
    const ids = { templateId: template.id, clientId: client?.id ?? null, assetId: asset?.id ?? null };
    await ines
      .put(`/api/schedules/${schedule.id}`)
      .send({ ...rest, ...ids, assignment: givenTo(null) })
      .expect(200);
    const { entries, why } = await history('schedules', schedule.id);
    expect(said(entries)).toEqual([`Ines Calloway: who does it: nobody yet, was ${who}`]);
    expect(why).toEqual([]);
    expect(said((await history('templates', template.id)).entries)).toContain('Ines Calloway: made');
  });

  it('tells of what is long by its name alone, and keeps it whole for the undo', async () => {
    const { template } = named('Deposit review');
    const { body: was } = await ines.get(`/api/templates/${template.id}`).expect(200);
    const long = `<p>${Array.from({ length: 4000 }, (_, i) => (i * 7919).toString(36)).join(' ')}</p>`;
    const { nextOn, archivedOn, changedOn, id, files, ...input } = was;
    const change = { ...input, instructions: long, name: 'Deposits looked through', reach: { kind: 'unseen' } };
    const { body: saved } = await ines.put(`/api/templates/${id}`).send(change).expect(200);
    const { entries } = await history('templates', id);
    expect(entries[0].said).toBe('name and instructions changed');
    await ines.post(`/api/changes/${saved.changeId}/undo`).expect(200);
    const { body: again } = await ines.get(`/api/templates/${id}`).expect(200);
    expect([again.name, again.instructions]).toEqual([was.name, was.instructions]);
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

describe('from the history', () => {
  const entry = async (of: string, id: string, words: string): Promise<HistoryEntry> => {
    const { entries } = (await history(of, id)) as { entries: HistoryEntry[] };
    const found = entries.find(({ said: told }) => told.includes(words));
    if (!found) throw new Error(`Nothing says “${words}”.`);
    return found;
  };
  const openOf = async (scheduleId: string): Promise<string[]> =>
    (
      await server.source.query<{ id: string }[]>(
        `select id from task where schedule_id = $1 and state = 'open' order by work_on limit 3`,
        [scheduleId],
      )
    ).map(({ id }) => id);
  const undoOf = async (of: string, id: string, words: string) => (await entry(of, id, words)).undo;
  const impact = async (changeId: string | undefined): Promise<Impact> =>
    impactSchema.parse((await ines.post(`/api/changes/${changeId}/undo/impact`).expect(200)).body);

  it('a deleted task is brought back long after, by the history of its schedule or on its day', async () => {
    const schedule = named('Fire points', 'Long Quay');
    const id = await taskOn(schedule.id, '2026-12-23');
    await doTo(ines, id, { kind: 'delete' });
    const told = await entry('schedules', schedule.id, 'deleted “Fire points');
    expect(told.said).toContain('of Wed 23 Dec');
    const nadia = await server.person('Nadia Orme');
    const sheet: DaySheet = (await ines.get(`/api/people/${nadia.id}/day-sheet?date=2026-12-23`)).body;
    expect(sheet.deleted).toMatchObject([{ changeId: told.undo?.changeId, by: 'Ines Calloway' }]);
    const back = await impact(told.undo?.changeId);
    expect(back.figures).toMatchObject({ added: 1, removed: 0, changed: 0 });
    expect(back.datesAfter - back.datesBefore).toBe(1);
    expect(await taskOn(schedule.id, '2026-12-23')).toBe('');
    await ines.post(`/api/changes/${told.undo?.changeId}/undo`).expect(200);
    expect(await taskOn(schedule.id, '2026-12-23')).toBe(id);
    expect((await history('schedules', schedule.id)).entries).toEqual([]);
    expect((await ines.get(`/api/people/${nadia.id}/day-sheet?date=2026-12-23`)).body.deleted).toEqual([]);
  });

  it('what was done in one go is undone for one, or for all of them; its impact is told first', async () => {
    const schedule = named('Fire points', 'Gannet Quay');
    const ids = await openOf(schedule.id);
    const tasks = await Promise.all(ids.map(async (id) => (await ines.get(`/api/tasks/${id}`)).body));
    const deed = { kind: 'skip', reason: 'The quay is shut.' };
    await ines
      .post('/api/tasks/changes')
      .send({ tasks: tasks.map(({ id, version }) => ({ id, version })), deed })
      .expect(200);
    const first = await undoOf('tasks', ids[0] ?? '', 'skipped');
    expect(first?.together?.count).toBe(3);
    await ines.post(`/api/changes/${first?.changeId}/undo`).expect(200);
    const second = await undoOf('tasks', ids[1] ?? '', 'skipped');
    expect(second?.together?.count).toBe(2);
    const told = await impact(second?.together?.changeId);
    expect(told.figures).toMatchObject({ changed: 2, removed: 0, added: 0 });
    expect(told.items[0]?.fields).toEqual([
      { name: 'state', from: 'skipped', to: 'open' },
      { name: 'note', from: 'as it is', to: 'as before' },
    ]);
    await ines.post(`/api/changes/${second?.together?.changeId}/undo`).expect(200);
    for (const id of ids) expect((await ines.get(`/api/tasks/${id}`)).body.state).not.toBe('skipped');
    expect(await undoOf('tasks', ids[1] ?? '', 'skipped')).toBeNull();
  });

  it('only what nothing has changed since can be undone, and only by who may', async () => {
    const schedule = named('Fire points', 'Long Quay');
    const id = await taskOn(schedule.id, '2026-12-23');
    const nadia = await server.browser('Nadia Orme');
    await nadia.post(`/api/tasks/${id}/start`).expect(200);
    await ines.put(`/api/tasks/${id}/note`).send({ note: 'Post 4 is dark.', was: '' }).expect(200);
    await ines.put(`/api/tasks/${id}/note`).send({ note: 'Post 5 too.', was: 'Post 4 is dark.' }).expect(200);
    const seenBy = async (who: Agent) =>
      ((await who.get(`/api/tasks/${id}/history`).expect(200)).body.entries as HistoryEntry[])
        .slice(0, 3)
        .map(({ said: told, undo }) => [told, undo !== null]);
    expect(await seenBy(ines)).toEqual([
      ['wrote the note', true],
      ['wrote the note', false],
      ['started', true],
    ]);
    expect(await seenBy(nadia)).toEqual([
      ['wrote the note', false],
      ['wrote the note', false],
      ['started', true],
    ]);
    const { undo } = await entry('tasks', id, 'wrote the note');
    await nadia.post(`/api/changes/${undo?.changeId}/undo/impact`).expect(403);
    await nadia.post(`/api/changes/${undo?.changeId}/undo`).expect(403);
  });

  it('a schedule’s change is undone with a look at its year', async () => {
    const schedule = named('Deposit review');
    const paused = { pauses: [{ from: '2027-01-01', to: '2027-12-31', reason: '' }] };
    const now: Schedule = (await ines.get(`/api/schedules/${schedule.id}`)).body;
    await changeSeveral(ines, [[now, paused]]).expect(200);
    const { undo } = await entry('schedules', schedule.id, 'pause');
    const told = await impact(undo?.changeId);
    expect(told.datesAfter).toBeGreaterThan(told.datesBefore);
    await ines.post(`/api/changes/${undo?.changeId}/undo`).expect(200);
    expect((await ines.get(`/api/schedules/${schedule.id}`)).body.pauses).toEqual(now.pauses);
    await ines.post(`/api/changes/${undo?.changeId}/undo/impact`).expect(409);
  });
});
