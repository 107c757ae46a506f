import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import {
  type DaySheet,
  daySheetSchema,
  type Task,
  type TaskLine,
  type Tideline,
  taskSchema,
  tidelineSchema,
} from '../../contract/index.ts';
import { listenAs } from '../testing/listening.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let nadia: Agent;
let nadiaId: string;
beforeEach(async () => {
  server = await testServer();
  nadia = await server.browser('Nadia Orme');
  nadiaId = (await server.person('Nadia Orme')).id;
});
afterEach(() => server.stop());

const sheet = async (agent: Agent = nadia, date?: string): Promise<DaySheet> =>
  daySheetSchema.parse(
    (
      await agent
        .get(`/api/people/${nadiaId}/day-sheet`)
        .query(date ? { date } : {})
        .expect(200)
    ).body,
  );
const openTask = async (): Promise<TaskLine> => {
  const found = (await sheet()).thisDay.find(({ state, stepsTotal }) => state === 'open' && stepsTotal > 1);
  if (!found) throw new Error('the demo gives Nadia no open task today');
  return found;
};
const task = async (id: string, agent: Agent = nadia): Promise<Task> =>
  taskSchema.parse((await agent.get(`/api/tasks/${id}`).expect(200)).body);

describe('the day sheet', () => {
  it('stands in three bands, the day by its time', async () => {
    const { thisDay, coming, late, person } = await sheet();
    expect(person).toMatchObject({ name: 'Nadia Orme', capacityMinutes: 450 });
    const starts = thisDay.map(({ startTime, dueTime }) => startTime ?? dueTime ?? '~');
    expect(starts).toEqual([...starts].sort());
    expect(late.every((line) => line.late)).toBe(true);
    expect(coming.every(({ startsOn }) => startsOn > '2026-11-24')).toBe(true);
  });

  it('shows a day beyond the horizon as dates that are not made yet', async () => {
    const { thisDay, projected } = await sheet(nadia, '2027-01-29');
    expect(thisDay).toEqual([]);
    expect(projected.map(({ title }) => title)).toContain('Opening walk');
  });

  it('of someone in another workspace is not there', async () => {
    const ada = await server.browser('Ada Winn');
    await ada.get(`/api/people/${nadiaId}/day-sheet`).expect(404);
    await ada.get('/api/tideline').query({ person: nadiaId }).expect(404);
    await ada.get(`/api/tasks/${(await openTask()).id}`).expect(404);
    await ada.post(`/api/tasks/${(await openTask()).id}/start`).expect(404);
  });

  it('refuses a date that is none', async () => {
    await nadia.get(`/api/people/${nadiaId}/day-sheet`).query({ date: '2026-02-30' }).expect(422);
  });
});

describe('the tideline', () => {
  const tide = async (person?: string): Promise<Tideline> =>
    tidelineSchema.parse(
      (
        await nadia
          .get('/api/tideline')
          .query(person ? { person } : {})
          .expect(200)
      ).body,
    );

  it('runs from a week ago over six weeks, real work up to the horizon and projected beyond', async () => {
    // Calls stand in it as quotas ask for them; that is told by a test of their own.
    await server.source.query(`update call_quota set ends_on = '2026-11-24'`);
    const { days, from, to, horizon, scope } = await tide();
    expect({ from, to, horizon, scope }).toEqual({
      from: '2026-11-17',
      to: '2027-01-05',
      horizon: '2026-12-24',
      scope: 'all of Tern Quay',
    });
    expect(days).toHaveLength(50);
    expect(days.filter(({ date, projected }) => date <= '2026-12-24' && projected > 0)).toEqual([]);
    expect(days.find(({ date }) => date === '2027-01-05')?.projected).toBeGreaterThan(600);
    expect(days.find(({ date }) => date === '2026-12-25')).toMatchObject({ isOff: true, holiday: 'Christmas Day' });
  });

  it('of one person agrees with that person’s day sheet', async () => {
    const { days, late } = await tide(nadiaId);
    const { thisDay, late: lateBand } = await sheet();
    const today = days.find(({ date }) => date === '2026-11-24');
    const due = thisDay.filter(({ dueOn, state }) => dueOn === '2026-11-24' && state !== 'skipped');
    expect((today?.done ?? 0) + (today?.open ?? 0)).toBe(
      due.reduce((sum, { estimateMinutes }) => sum + estimateMinutes, 0),
    );
    expect(late).toBe(lateBand.length);
  });
});

describe('doing a task', () => {
  it('goes from start over its steps and a note to the finish, and shows the next one', async () => {
    const line = await openTask();
    await nadia.post(`/api/tasks/${line.id}/start`).expect(200);
    const started = await task(line.id);
    expect(started).toMatchObject({ state: 'underWay', startedAt: '2026-11-24T10:40' });
    const refused = await nadia.post(`/api/tasks/${line.id}/finish`).expect(422);
    expect(refused.body.detail).toContain(`Still missing: ${started.steps[0]?.text}`);
    for (const { key } of started.steps)
      await nadia.put(`/api/tasks/${line.id}/ticks`).send({ key, ticked: true }).expect(200);
    await nadia.put(`/api/tasks/${line.id}/note`).send({ note: 'All well.', was: '' }).expect(200);
    const { body } = await nadia.post(`/api/tasks/${line.id}/finish`).expect(200);
    expect(body.task).toMatchObject({
      state: 'done',
      doneBy: 'Nadia Orme',
      doneAt: '2026-11-24T10:40',
      note: 'All well.',
    });
    expect(body.task.series.next).toMatchObject({ on: '2026-11-25' });
    const next = await task(body.task.series.next.taskId);
    expect(next.series.earlier[0]).toMatchObject({ note: 'All well.', by: 'Nadia Orme' });
  });

  it('starts by ticking the first step', async () => {
    const { id } = await openTask();
    const [step] = (await task(id)).steps;
    await nadia.put(`/api/tasks/${id}/ticks`).send({ key: step?.key, ticked: true }).expect(200);
    expect(await task(id)).toMatchObject({ state: 'underWay', stepsDone: 1 });
    await nadia.put(`/api/tasks/${id}/ticks`).send({ key: step?.key, ticked: false }).expect(200);
    expect((await task(id)).stepsDone).toBe(0);
    await nadia.put(`/api/tasks/${id}/ticks`).send({ key: 'no-such-line', ticked: true }).expect(404);
  });

  it('can be undone after the finish, but not over a later change', async () => {
    const { id } = await openTask();
    for (const { key } of (await task(id)).steps) await nadia.put(`/api/tasks/${id}/ticks`).send({ key, ticked: true });
    const { body } = await nadia.post(`/api/tasks/${id}/finish`).expect(200);
    expect((await task(id)).finishedBy).toBe(body.changeId);
    await nadia.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await task(id)).toMatchObject({ state: 'underWay', doneAt: null, doneBy: null, finishedBy: null });
    const again = await nadia.post(`/api/changes/${body.changeId}/undo`).expect(409);
    expect(again.body.detail).toContain('undone already');
  });

  it('is refused when it is done already', async () => {
    const done = (await sheet()).thisDay.find(({ state }) => state === 'done');
    const { body } = await nadia.post(`/api/tasks/${done?.id}/start`).expect(409);
    expect(body.detail).toContain('This task is done');
  });

  it('keeps both notes apart when two people write at once', async () => {
    const { id } = await openTask();
    const ines = await server.browser('Ines Calloway');
    await ines.put(`/api/tasks/${id}/note`).send({ note: 'Ring the owner first.', was: '' }).expect(200);
    const { body } = await nadia.put(`/api/tasks/${id}/note`).send({ note: 'Mine.', was: '' }).expect(409);
    expect(body.detail).toContain('keep both, yours or theirs');
    expect((await task(id)).note).toBe('Ring the owner first.');
    await nadia
      .put(`/api/tasks/${id}/note`)
      .send({ note: 'x'.repeat(5001), was: '' })
      .expect(422);
  });

  it('is what it was once it is finished: nobody else writes on it, and nobody takes it over', async () => {
    const done = (await sheet()).thisDay.find(({ state }) => state === 'done');
    const before = await task(done?.id ?? '');
    const ines = await server.browser('Ines Calloway');
    const written = await ines.put(`/api/tasks/${done?.id}/note`).send({ note: 'Otherwise.', was: before.note });
    expect([written.status, written.body.detail]).toEqual([409, expect.stringContaining('This task is done')]);
    await ines.post(`/api/tasks/${done?.id}/claim`).expect(409);
    expect(await task(done?.id ?? '')).toEqual(before);
  });

  it('is for the person who has it, or a manager', async () => {
    const { id } = await openTask();
    const kit = await server.browser('Kit Sorrell');
    expect((await task(id, kit)).mayWork).toBe(false);
    const { body } = await kit.post(`/api/tasks/${id}/start`).expect(403);
    expect(body.detail).toContain('someone else’s');
    const taken = await kit.post(`/api/tasks/${id}/claim`).expect(409);
    expect(taken.body.detail).toBe('Nadia Orme has it already.');
    await (await server.browser('Ines Calloway')).post(`/api/tasks/${id}/start`).expect(200);
  });

  it('that is nobody’s can be claimed', async () => {
    const [free] = await server.source.query<{ id: string }[]>(
      `select id from task where assignee_id is null and offered_to is null and state = 'open' order by work_on limit 1`,
    );
    await nadia.post(`/api/tasks/${free?.id}/start`).expect(403);
    const { body } = await nadia.post(`/api/tasks/${free?.id}/claim`).expect(200);
    expect(body.task).toMatchObject({ assignee: { name: 'Nadia Orme' }, mayWork: true });
  });
});

describe('the live stream', () => {
  it('tells another browser of the same workspace, and no other', async () => {
    const news = await listenAs(server, 'Ines Calloway');
    const elsewhere = await listenAs(server, 'Ada Winn');
    await nadia.post(`/api/tasks/${(await openTask()).id}/start`).expect(200);
    await expect.poll(() => news.heard).toContain('"tasks"');
    expect(elsewhere.heard).not.toContain('"tasks"');
    news.close();
    elsewhere.close();
  });

  it('tells as narrowly as it is known what has changed', async () => {
    const news = await listenAs(server, 'Ines Calloway');
    const heard = () =>
      news.heard
        .split('\n')
        .filter((line) => line.startsWith('data: '))
        .map((line) => JSON.parse(line.slice('data: '.length)));
    const { id } = await openTask();
    const nadiaId = (await server.person('Nadia Orme')).id;
    const [line] = (await nadia.get(`/api/tasks/${id}`).expect(200)).body.steps;
    await nadia.post(`/api/tasks/${id}/start`).expect(200);
    await nadia.put(`/api/tasks/${id}/ticks`).send({ key: line.key, ticked: true }).expect(200);
    await nadia.put(`/api/tasks/${id}/note`).send({ note: 'Wet.', was: '' }).expect(200);
    await expect.poll(() => heard().length).toBe(3);
    expect(heard()).toEqual([
      { topics: ['tasks', 'schedules'], tasks: null, people: [nadiaId], load: true },
      { topics: ['tasks'], tasks: [id], people: [nadiaId], load: false },
      { topics: ['tasks'], tasks: null, people: [nadiaId], load: false },
    ]);
    news.close();
  });
});
