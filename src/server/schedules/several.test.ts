import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Impact, impactSchema, type Schedule } from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { runMaking } from '../runs/making.ts';
import { allSchedules, changeSeveral, oneSchedule, schedulesFound } from '../testing/schedules.ts';
import { type Agent, silent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
let rounds: Schedule[];
beforeEach(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  const all = await schedulesFound(ines, 'Fire points');
  rounds = all.filter(({ template }) => template.name === 'Fire points');
  expect(rounds.length).toBeGreaterThan(1);
});
afterEach(() => server.stop());

const openTasks = () =>
  server.source.query<{ id: string; work_on: string; who: string; schedule_id: string }[]>(
    `select t.id, work_on, p.name as who, schedule_id from task t left join person p on p.id = t.assignee_id
     where schedule_id = any($1) and state = 'open' and work_on >= '2026-11-24' order by t.id`,
    [rounds.map(({ id }) => id)],
  );
const impact = async (changes: Parameters<typeof changeSeveral>[1]): Promise<Impact> =>
  impactSchema.parse((await changeSeveral(ines, changes, '/impact').expect(200)).body);
const kit = async () => (await server.person('Kit Sorrell')).id;

describe('many schedules changed in one go', () => {
  it('have one impact, are saved together, and are put back by one undo', async () => {
    const before = await openTasks();
    const to = rounds.map((schedule) => [schedule, {}] as const);
    const set = { assignment: givenTo(await kit()), timing: { ...(rounds[0] as Schedule).timing, startTime: '07:15' } };
    const told = await impact(to.map(([schedule]) => [schedule, set]));
    expect(await openTasks()).toEqual(before);
    expect(told.figures.changed).toBeGreaterThan(1);
    const saved = (
      await changeSeveral(
        ines,
        to.map(([schedule]) => [schedule, set]),
      ).expect(200)
    ).body;
    expect(saved.tasks).toMatchObject({ changed: told.figures.changed, made: told.figures.added });
    const now = await openTasks();
    expect(now.filter(({ who }) => who === 'Kit Sorrell')).toHaveLength(told.figures.changed);
    await ines.post(`/api/changes/${saved.changeId}/undo`).expect(200);
    expect(await openTasks()).toEqual(before);
    for (const { id, who, timing } of rounds) expect(await oneSchedule(ines, id)).toMatchObject({ who, timing });
    await ines.post(`/api/changes/${saved.changeId}/undo`).expect(409);
  });

  it('each has it in its own history', async () => {
    await changeSeveral(
      ines,
      rounds.map((schedule) => [schedule, { assignment: givenTo(null) }]),
    ).expect(200);
    for (const { id } of rounds) {
      const { entries } = (await ines.get(`/api/schedules/${id}/history`).expect(200)).body;
      expect(entries[0]).toMatchObject({
        by: 'Ines Calloway',
        said: expect.stringContaining('who does it: nobody yet'),
      });
    }
  });

  it('stand or fall together: one that somebody else has changed, a person of nowhere, a rule without dates', async () => {
    const [first, second] = rounds as [Schedule, Schedule];
    await changeSeveral(ines, [[second, { assignment: givenTo(null) }]]).expect(200);
    const refused = await changeSeveral(
      ines,
      rounds.map((schedule) => [schedule, { pauses: [] }]),
    ).expect(409);
    expect(refused.body.detail).toContain('1 schedule was changed by someone else meanwhile');
    expect(refused.body.errors).toEqual([{ path: 'changes.1', message: expect.any(String) }]);
    const ada = (await server.person('Ada Winn')).id;
    const unknown = await changeSeveral(ines, [[first, { assignment: givenTo(ada) }]]).expect(422);
    expect(unknown.body.errors[0].path).toBe('changes.0.set.assignment');
    const never = { ...first.recurrence, rules: [{ kind: 'dates' as const, dates: [] }] };
    await changeSeveral(ines, [[first, { recurrence: never }]]).expect(422);
    await changeSeveral(ines, [[first, {}]]).expect(422);
    expect(await oneSchedule(ines, first.id)).toMatchObject({ version: first.version });
  });

  it('is for managers, and for schedules of their own workspace', async () => {
    const [first] = rounds as [Schedule];
    await changeSeveral(await server.browser('Nadia Orme'), [[first, { assignment: givenTo(null) }]]).expect(403);
    await changeSeveral(await server.browser('Ada Winn'), [[first, { assignment: givenTo(null) }]], '/impact').expect(
      404,
    );
  });
});

describe('a schedule that is deleted', () => {
  it('leaves the table and makes nothing, keeps what shows and its history, and comes back by undo', async () => {
    const [first] = rounds as [Schedule];
    const before = (await openTasks()).filter(({ schedule_id }) => schedule_id === first.id);
    expect(before.length).toBeGreaterThan(1);
    const { changeId } = (await changeSeveral(ines, [[first, { isDeleted: true }]]).expect(200)).body;
    const list = async () => (await allSchedules(ines)).map(({ id }) => id);
    expect(await list()).not.toContain(first.id);
    expect(await oneSchedule(ines, first.id)).toMatchObject({ deletedOn: '2026-11-24', next: null });
    server.clock.set('2026-12-20T06:00');
    await runMaking(await server.scope(), 'daily', silent);
    const left = (await openTasks()).filter(({ schedule_id }) => schedule_id === first.id);
    expect(left.length).toBeLessThan(before.length);
    server.clock.set('2026-11-24T10:40');
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await list()).toContain(first.id);
    const again = (await openTasks()).filter(({ schedule_id }) => schedule_id === first.id);
    expect(again.map(({ work_on }) => work_on)).toEqual(before.map(({ work_on }) => work_on));
  });

  it('keeps its template from being deleted, in words', async () => {
    const { body } = await ines.delete(`/api/templates/${rounds[0]?.template.id}`).expect(409);
    expect(body.detail).toContain('Archive it instead');
  });
});
