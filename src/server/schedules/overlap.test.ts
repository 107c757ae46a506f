import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { impactSchema, type Schedule } from '../../contract/index.ts';
import { givenTo, PLAIN_TIMING, parsePhrase } from '../../core/index.ts';
import { runMaking } from '../runs/making.ts';
import { type Agent, silent, type TestServer, testServer } from '../testing/test-server.ts';
import { doTo, newTemplate, ownTask } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
beforeEach(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterEach(() => server.stop());

async function scheduled(overlap: object, steps: object[] = [], phrase = 'every week on Tue'): Promise<Schedule> {
  const templateId = await newTemplate(ines, { name: 'Round', titlePattern: 'Round {day}', steps });
  const { body } = await ines
    .post('/api/schedules')
    .send({
      templateId,
      clientId: null,
      assetId: null,
      assignment: givenTo((await server.person('Ines Calloway')).id),
      recurrence: parsePhrase(phrase, { start: '2026-11-24' }),
      timing: PLAIN_TIMING,
      overlap,
    })
    .expect(200);
  return body.schedule;
}
const tasks = ({ id }: Schedule) =>
  server.source.query<{ id: string; work_on: string; state: string; step_key: string }[]>(
    'select id, work_on, state, step_key from task where schedule_id = $1 order by work_on, step_key',
    [id],
  );
const days = async (schedule: Schedule) => (await tasks(schedule)).map(({ work_on }) => work_on);
const run = async () => runMaking(await server.scope(), 'daily', silent);
const at = (moment: string) => server.clock.set(moment);

describe('a schedule whose next waits', () => {
  it('has one task at a time, and the next as soon as that is over', async () => {
    const schedule = await scheduled({ kind: 'wait', limitDays: 5 });
    expect(await days(schedule)).toEqual(['2026-11-24']);
    await run();
    expect(await days(schedule)).toEqual(['2026-11-24']);
    const [first] = await tasks(schedule);
    const { body } = await ines.post(`/api/tasks/${first?.id}/finish`).expect(200);
    expect(await days(schedule)).toEqual(['2026-11-24', '2026-12-01']);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await days(schedule)).toEqual(['2026-11-24']);
    await doTo(ines, first?.id, { kind: 'skip', reason: 'Closed.' });
    expect((await tasks(schedule))[0]?.state).toBe('skipped');
    expect(await days(schedule)).toEqual(['2026-11-24', '2026-12-01']);
  });

  it('goes on from one that was deleted, told before, and goes back to it when that is undone', async () => {
    const schedule = await scheduled({ kind: 'wait', limitDays: 5 });
    const [first] = await tasks(schedule);
    const told = impactSchema.parse(await doTo(ines, first?.id, { kind: 'delete' }, 200, '/impact'));
    expect(told.figures).toMatchObject({ removed: 1, added: 1 });
    expect(told.items.map(({ kind, on, taskId }) => [kind, on, taskId])).toEqual([
      ['removed', '2026-11-24', first?.id],
      ['added', '2026-12-01', null],
    ]);
    expect(await days(schedule)).toEqual(['2026-11-24']);
    const { changeId } = await doTo(ines, first?.id, { kind: 'delete' });
    expect(await days(schedule)).toEqual(['2026-12-01']);
    await run();
    expect(await days(schedule)).toEqual(['2026-12-01']);
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await tasks(schedule)).toEqual([first]);
  });

  it('by its rule goes on from one that was deleted as from one that was skipped', async () => {
    const dates = async (kind: string) => {
      const schedule = await scheduled({ kind: 'add' }, [], 'every 3 days after completion');
      const [first] = await tasks(schedule);
      const { changeId } = await doTo(ines, first?.id, { kind, reason: 'Closed.' });
      const left = (await tasks(schedule)).filter(({ state }) => state === 'open').map(({ work_on }) => work_on);
      await ines.post(`/api/changes/${changeId}/undo`).expect(200);
      expect(await tasks(schedule)).toEqual([first]);
      return left;
    };
    expect(await dates('skip')).toEqual(['2026-11-27']);
    expect(await dates('delete')).toEqual(['2026-11-27']);
  });

  it('says that it waits, and in the run log once that is too long', async () => {
    const schedule = await scheduled({ kind: 'wait', limitDays: 5 });
    const waits = async () => (await ines.get(`/api/schedules/${schedule.id}`)).body.waits;
    expect(await waits()).toBeNull();
    at('2026-12-03T04:00');
    const waitsOf = async () => (await ines.get(`/api/runs/${(await run()).id}`)).body.details.waits;
    expect(await waitsOf()).toEqual([]);
    expect(await waits()).toEqual({ forOn: '2026-11-24', days: 2, isTooLong: false });
    at('2026-12-08T04:00');
    expect(await waitsOf()).toEqual([{ scheduleId: schedule.id, days: 7 }]);
    expect(await waits()).toMatchObject({ days: 7, isTooLong: true });
    expect(await days(schedule)).toEqual(['2026-11-24']);
    // None is lost by the wait: they come one after the other.
    const [first] = await tasks(schedule);
    await ines.post(`/api/tasks/${first?.id}/finish`).expect(200);
    expect(await days(schedule)).toEqual(['2026-11-24', '2026-12-01']);
    const [, second] = await tasks(schedule);
    await ines.post(`/api/tasks/${second?.id}/finish`).expect(200);
    expect(await days(schedule)).toEqual(['2026-11-24', '2026-12-01', '2026-12-08']);
  });

  it('takes back what nobody has seen when it is told to wait from now on', async () => {
    const schedule = await scheduled({ kind: 'add' });
    expect(await days(schedule)).toEqual(['2026-11-24', '2026-12-01', '2026-12-08', '2026-12-15', '2026-12-22']);
    const { template, client, asset, ...rest } = schedule;
    const body = {
      ...rest,
      templateId: template.id,
      clientId: client?.id ?? null,
      assetId: asset?.id ?? null,
      overlap: { kind: 'wait', limitDays: 3 },
    };
    const told = (await ines.post(`/api/schedules/${schedule.id}/impact`).send(body).expect(200)).body;
    expect(told.figures).toMatchObject({ removed: 4, added: 0 });
    await ines.put(`/api/schedules/${schedule.id}`).send(body).expect(200);
    expect(await days(schedule)).toEqual(['2026-11-24']);
  });
});

describe('a schedule whose old ones lapse', () => {
  it('closes what was not begun, with its set, on the day of the next', async () => {
    const schedule = await scheduled({ kind: 'lapse' }, [ownTask('after', 1)]);
    at('2026-11-30T04:00');
    await run();
    const states = async () =>
      (await tasks(schedule))
        .filter(({ work_on }) => work_on < '2026-12-03')
        .map(({ work_on, state }) => [work_on, state]);
    expect(await states()).toEqual([
      ['2026-11-24', 'open'],
      ['2026-11-25', 'open'],
      ['2026-12-01', 'open'],
      ['2026-12-02', 'open'],
    ]);
    const [, after] = await tasks(schedule);
    await ines.post(`/api/tasks/${after?.id}/start`).expect(200);
    at('2026-12-01T04:00');
    await run();
    expect(await states()).toEqual([
      ['2026-11-24', 'lapsed'],
      ['2026-11-25', 'underWay'],
      ['2026-12-01', 'open'],
      ['2026-12-02', 'open'],
    ]);
  });
});
