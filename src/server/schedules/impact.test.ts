import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Impact, impactSchema, type Schedule, type Template, type Tideline } from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { runMaking } from '../runs/making.ts';
import { scheduleNamed } from '../testing/schedules.ts';
import { type Agent, silent, type TestServer, testServer } from '../testing/test-server.ts';
import { doTo } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
let schedule: Schedule;
beforeEach(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  schedule = await scheduleNamed(ines, 'Fire points', 'Long Quay');
});
afterEach(() => server.stop());

const inputOf = (rest: object = {}) => ({
  templateId: schedule.template.id,
  clientId: null,
  assetId: schedule.asset?.id ?? null,
  assignment: schedule.assignment,
  recurrence: schedule.recurrence,
  timing: schedule.timing,
  pauses: schedule.pauses,
  exceptions: schedule.exceptions,
  revisions: schedule.revisions,
  version: schedule.version,
  ...rest,
});
const impact = async (rest: object): Promise<Impact> =>
  impactSchema.parse((await ines.post(`/api/schedules/${schedule.id}/impact`).send(inputOf(rest)).expect(200)).body);
const save = async (rest: object) =>
  (await ines.put(`/api/schedules/${schedule.id}`).send(inputOf(rest)).expect(200)).body;
interface Row {
  id: string;
  title: string;
  work_on: string;
  appears_on: string;
  state: string;
  assignee: string | null;
  estimate_minutes: number;
}
const tasks = () =>
  server.source.query<Row[]>(
    `select t.id, t.title, t.work_on, t.appears_on, t.state, p.name as assignee, t.estimate_minutes from task t
     left join person p on p.id = t.assignee_id where schedule_id = $1 and work_on >= '2026-11-24' order by nominal_date`,
    [schedule.id],
  );
const kit = async () => (await server.person('Kit Sorrell')).id;

describe('the impact of a schedule’s change', () => {
  it('is told field by field before it is saved, changes nothing, and is what saving then does', async () => {
    const before = await tasks();
    expect(before.map(({ work_on }) => work_on)).toEqual(['2026-11-25', '2026-12-09', '2026-12-23']);
    const told = await impact({ assignment: givenTo(await kit()) });
    // The one of tomorrow shows already.
    expect(told.figures).toEqual({
      added: 0,
      changed: 2,
      removed: 0,
      keptByHand: 0,
      keptShowing: 1,
      keptBegun: 0,
      keptLacking: 0,
    });
    expect(told.items.find(({ kind }) => kind === 'changed')).toMatchObject({
      on: '2026-12-09',
      about: 'Long Quay',
      fields: [{ name: 'who', from: 'Nadia Orme', to: 'Kit Sorrell' }],
    });
    expect(told.datesBefore).toBe(told.datesAfter);
    expect(await tasks()).toEqual(before);
    const { tasks: done, changeId } = await save({ assignment: givenTo(await kit()) });
    expect(done).toEqual({ made: 0, changed: 2, removed: 0, kept: 1 });
    expect((await tasks()).map(({ assignee }) => assignee)).toEqual(['Nadia Orme', 'Kit Sorrell', 'Kit Sorrell']);
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await tasks()).toEqual(before);
  });

  it('tells what is added and removed, and the year before and after', async () => {
    const rules = [{ kind: 'weeks' as const, every: 4, on: [4 as const] }];
    const told = await impact({ recurrence: { ...schedule.recurrence, rules } });
    expect(told.figures.removed + told.figures.added).toBeGreaterThan(1);
    expect(told.years).toHaveLength(1);
    expect(told.years[0]?.before.length).toBeGreaterThan(20);
    expect(told.years[0]?.after.length).toBeLessThan(20);
  });

  it('goes on to all open ones where it is told to, and all of it can be undone', async () => {
    const before = await tasks();
    const reach = { open: true, also: [] };
    const told = await impact({ assignment: givenTo(await kit()), reach });
    expect(told.figures).toMatchObject({ changed: 3, keptShowing: 0 });
    const { changeId } = await save({ assignment: givenTo(await kit()), reach });
    expect((await tasks()).map(({ assignee }) => assignee)).toEqual(['Kit Sorrell', 'Kit Sorrell', 'Kit Sorrell']);
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await tasks()).toEqual(before);
  });

  it('keeps what was changed by hand, field by field, unless it is named', async () => {
    const [, second] = await tasks();
    const task = (await ines.get(`/api/tasks/${second?.id}`)).body;
    const edit = {
      title: task.title,
      instructions: task.instructions,
      workOn: task.on,
      dueOn: task.dueOn,
      startTime: task.startTime,
      dueTime: task.dueTime,
      assigneeId: (await server.person('Joss Penhale')).id,
      estimateMinutes: 55,
      priority: 'normal',
      version: task.version,
    };
    await ines.put(`/api/tasks/${task.id}`).send(edit).expect(200);
    const timing = { ...schedule.timing, dueTime: '15:00' };
    const told = await impact({ assignment: givenTo(await kit()), timing });
    expect(told.items.find(({ taskId }) => taskId === task.id)).toMatchObject({
      kind: 'changed',
      fields: [{ name: 'by', from: '10:00', to: '15:00' }],
    });
    await save({ assignment: givenTo(await kit()), timing });
    const state = async () => (await ines.get(`/api/tasks/${task.id}`)).body;
    expect(await state()).toMatchObject({ assignee: { name: 'Joss Penhale' }, estimateMinutes: 55, dueTime: '15:00' });
    schedule = (await ines.get(`/api/schedules/${schedule.id}`)).body;
    const reach = { open: false, also: [task.id] };
    const { changeId } = await save({ assignment: givenTo(await kit()), reach });
    expect(await state()).toMatchObject({ assignee: { name: 'Kit Sorrell' }, estimateMinutes: 40 });
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await state()).toMatchObject({ assignee: { name: 'Joss Penhale' }, estimateMinutes: 55 });
  });

  it('never touches what is under way, and is refused where someone else saved meanwhile', async () => {
    const [first] = await tasks();
    await ines.post(`/api/tasks/${first?.id}/start`).expect(200);
    const told = await impact({ assignment: givenTo(await kit()), reach: { open: true, also: [first?.id] } });
    expect(told.figures).toMatchObject({ changed: 2, keptBegun: 1 });
    expect(told.items.find(({ taskId }) => taskId === first?.id)).toMatchObject({ because: 'under way' });
    await save({ assignment: givenTo(await kit()) });
    await ines.post(`/api/schedules/${schedule.id}/impact`).send(inputOf()).expect(409);
    const nadia = await server.browser('Nadia Orme');
    await nadia.post(`/api/schedules/${schedule.id}/impact`).send(inputOf()).expect(403);
    const ada = await server.browser('Ada Winn');
    await ada.post(`/api/schedules/${schedule.id}/impact`).send(inputOf()).expect(404);
  });
});

describe('the impact of a template’s change', () => {
  it('counts the tasks of all its schedules, added, changed and kept', async () => {
    const template: Template = (await ines.get(`/api/templates/${schedule.template.id}`)).body;
    const step = {
      kind: 'task',
      key: 'tell',
      titlePattern: 'Tell the quay',
      offset: { amount: -1, unit: 'day' },
      startTime: null,
      dueTime: null,
      assignee: { by: 'set' },
      estimateMinutes: 5,
      signOff: null,
    };
    const body = { ...template, steps: [...template.steps, step], estimateMinutes: 50 };
    const told: Impact = (await ines.post(`/api/templates/${template.id}/impact`).send(body).expect(200)).body;
    expect(told.figures.changed).toBeGreaterThan(3);
    expect(told.figures.added).toBeGreaterThan(told.figures.changed);
    expect(told.items.find(({ kind }) => kind === 'changed')?.fields).toContainEqual({
      name: 'estimate',
      from: '40 min',
      to: '50 min',
    });
    expect(told.datesAfter).toBeGreaterThan(told.datesBefore);
    expect((await ines.get(`/api/templates/${template.id}`)).body.version).toBe(template.version);
  });
});

describe('a deleted task', () => {
  it('does not come back by itself, and is brought back by hand', async () => {
    const before = await tasks();
    const [, second] = before;
    const { changeId } = await doTo(ines, second?.id, { kind: 'delete' });
    await runMaking(await server.scope(), 'daily', silent);
    await save({ timing: { ...schedule.timing, dueTime: '16:00' } });
    expect((await tasks()).map(({ work_on }) => work_on)).toEqual(['2026-11-25', '2026-12-23']);
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect((await tasks()).map(({ id }) => id)).toEqual(before.map(({ id }) => id));
    await ines.post(`/api/changes/${changeId}/undo`).expect(409);
  });

  it('is foreseen nowhere any more: not as the next, nor as work to come; the run log says why', async () => {
    const [first, second] = await tasks();
    await doTo(ines, first?.id, { kind: 'delete' });
    const now: Schedule = (await ines.get(`/api/schedules/${schedule.id}`)).body;
    expect([now.deleted, now.next]).toEqual([[first?.work_on], second?.work_on]);
    // But for what quotas of calls ask of the day.
    await server.source.query(`update call_quota set ends_on = '2026-11-24'`);
    const tide: Tideline = (await ines.get('/api/tideline').expect(200)).body;
    expect(tide.days.find(({ date }) => date === first?.work_on)?.projected).toBe(0);
    const { leftOut } = await runMaking(await server.scope(), 'byHand', silent);
    expect(leftOut).toContainEqual({ scheduleId: schedule.id, because: 'deleted', dates: 1 });
  });

  it('was not finished, has no files, and is a manager’s to delete', async () => {
    const [first] = await tasks();
    const nadia = await server.browser('Nadia Orme');
    await doTo(nadia, first?.id, { kind: 'delete' }, 403);
    const { changeId } = await doTo(nadia, first?.id, { kind: 'skip', reason: 'Quay closed.' });
    expect((await nadia.get(`/api/tasks/${first?.id}`)).body).toMatchObject({ state: 'skipped', note: 'Quay closed.' });
    await doTo(ines, first?.id, { kind: 'delete' }, 409);
    await nadia.post(`/api/changes/${changeId}/undo`).expect(200);
    await doTo(nadia, first?.id, { kind: 'skip', reason: '' }, 422);
    const ada = await server.browser('Ada Winn');
    await doTo(ada, first?.id, { kind: 'delete' }, 404);
  });
});
