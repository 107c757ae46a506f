import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Impact, impactSchema, type Schedule, type Task } from '../../contract/index.ts';
import { runMaking } from '../runs/making.ts';
import { oneSchedule, scheduleNamed } from '../testing/schedules.ts';
import { type Agent, silent, type TestServer, testServer } from '../testing/test-server.ts';
import { doTo, editOf } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
let schedule: Schedule;
beforeEach(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  schedule = await scheduleNamed(ines, 'Fire points', 'Long Quay');
});
afterEach(() => server.stop());

interface Row {
  id: string;
  version: number;
  title: string;
  work_on: string;
  due_on: string;
  start_time: string | null;
  state: string;
  who: string | null;
  estimate_minutes: number;
  edited: string[];
}
const tasks = () =>
  server.source.query<Row[]>(
    `select t.id, t.version, t.title, t.work_on, t.due_on, t.start_time, t.state, p.name as who, t.estimate_minutes, t.edited
     from task t left join person p on p.id = t.assignee_id
     where schedule_id = $1 and work_on >= '2026-11-24' order by nominal_date`,
    [schedule.id],
  );
const kit = async () => (await server.person('Kit Sorrell')).id;

describe('a round', () => {
  it('gives each of several its time, as it is shown before, and is undone as a whole', async () => {
    const [first, second] = await tasks();
    const seen = [first, second].map((one) => ({ id: one?.id, version: one?.version }));
    const times = [
      { id: seen[0]?.id, startTime: '09:00', dueTime: '09:45' },
      { id: seen[1]?.id, startTime: '09:50', dueTime: '10:20' },
    ];
    const body = { tasks: seen, deed: { kind: 'times', at: times } };
    const told = impactSchema.parse((await ines.post('/api/tasks/changes/impact').send(body).expect(200)).body);
    expect(told.figures.changed).toBe(2);
    const { body: done } = await ines.post('/api/tasks/changes').send(body).expect(200);
    expect((await tasks()).slice(0, 2).map(({ start_time, edited }) => [start_time, edited])).toEqual([
      ['09:00', ['startTime', 'dueTime']],
      ['09:50', ['startTime', 'dueTime']],
    ]);
    await ines.post(`/api/changes/${done.changeId}/undo`).send({}).expect(200);
    expect((await tasks()).slice(0, 2).map(({ start_time }) => start_time)).toEqual([
      first?.start_time,
      second?.start_time,
    ]);
    const [now] = await tasks();
    const backwards = [{ ...times[0], dueTime: '08:00' }];
    const wrong = { tasks: [{ id: now?.id, version: now?.version }], deed: { kind: 'times', at: backwards } };
    expect((await ines.post('/api/tasks/changes').send(wrong).expect(422)).body.detail).toContain(
      'ends after it begins',
    );
  });
});

describe('an edit of one task that goes further', () => {
  const impact = async (id: string, rest: object): Promise<Impact> =>
    impactSchema.parse(
      (
        await ines
          .post(`/api/tasks/${id}/edit-impact`)
          .send(await editOf(ines, id, rest))
          .expect(200)
      ).body,
    );
  const save = async (id: string, rest: object) =>
    (
      await ines
        .put(`/api/tasks/${id}`)
        .send(await editOf(ines, id, rest))
        .expect(200)
    ).body;

  it('to this one and later ones changes those that are made and those to come, not the ones before, and is put back as a whole', async () => {
    const before = await tasks();
    expect(before.map(({ work_on }) => work_on)).toEqual(['2026-11-25', '2026-12-09', '2026-12-23']);
    const second = before[1]?.id ?? '';
    const edit = { assigneeId: await kit(), estimateMinutes: 55, startTime: '09:45', reach: 'later' };
    const told = await impact(second, edit);
    expect(told.figures).toMatchObject({ changed: 2, keptBegun: 0 });
    expect(told.items[0]?.fields.map(({ name, to }) => `${name}: ${to}`)).toEqual([
      'from: 09:45',
      'who: Kit Sorrell',
      'estimate: 55 min',
    ]);
    expect(await tasks()).toEqual(before);
    const { changeId } = await save(second, edit);
    const now = await tasks();
    expect(now.map(({ who, estimate_minutes, start_time }) => [who, estimate_minutes, start_time])).toEqual([
      [before[0]?.who, before[0]?.estimate_minutes, before[0]?.start_time],
      ['Kit Sorrell', 55, '09:45'],
      ['Kit Sorrell', 55, '09:45'],
    ]);
    // It is the schedule's word now, not something that was changed by hand.
    expect(now.map(({ edited }) => edited)).toEqual([[], [], []]);
    const revised = await oneSchedule(ines, schedule.id);
    expect(revised.revisions).toMatchObject([{ from: '2026-12-09', timing: { startTime: '09:45' } }]);
    server.clock.set('2027-01-10T06:00');
    await runMaking(await server.scope(), 'daily', silent);
    const later = (await tasks()).slice(3);
    expect(later.length).toBeGreaterThan(1);
    for (const task of later)
      expect(task).toMatchObject({ who: 'Kit Sorrell', estimate_minutes: 55, start_time: '09:45' });
    server.clock.set('2026-11-24T10:40');
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect((await tasks()).slice(0, 3).map(({ who, estimate_minutes }) => [who, estimate_minutes])).toEqual(
      before.map(({ who, estimate_minutes }) => [who, estimate_minutes]),
    );
    expect((await oneSchedule(ines, schedule.id)).revisions).toEqual([]);
  });

  it('to all open ones leaves the schedule, moves their days by as much, and keeps what is under way', async () => {
    const [first, second, third] = (await tasks()) as [Row, Row, Row];
    await ines.post(`/api/tasks/${third.id}/start`).expect(200);
    const told = await impact(first.id, { workOn: '2026-11-26', dueOn: '2026-11-27', reach: 'open' });
    expect(told.figures).toMatchObject({ changed: 2, keptBegun: 1 });
    const { changeId } = await save(first.id, { workOn: '2026-11-26', dueOn: '2026-11-27', reach: 'open' });
    expect((await tasks()).map(({ work_on, due_on }) => [work_on, due_on])).toEqual([
      ['2026-11-26', '2026-11-27'],
      ['2026-12-10', '2026-12-11'],
      [third.work_on, third.due_on],
    ]);
    expect((await oneSchedule(ines, schedule.id)).revisions).toEqual([]);
    await runMaking(await server.scope(), 'byHand', silent);
    expect((await tasks()).map(({ work_on }) => work_on)).toEqual(['2026-11-26', '2026-12-10', third.work_on]);
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect((await tasks()).map(({ work_on }) => work_on)).toEqual([first.work_on, second.work_on, third.work_on]);
  });

  it('gives later ones a new title in their own words, and their instructions cleaned', async () => {
    const [, second, third] = (await tasks()) as [Row, Row, Row];
    const task: Task = (await ines.get(`/api/tasks/${second.id}`)).body;
    await save(second.id, {
      title: `Walk the ${task.title}`,
      instructions: '<p>Look at both ends.</p><script>alert(1)</script>',
      reach: 'later',
    });
    const now = await tasks();
    expect(now[2]?.title).toBe(`Walk the ${third.title}`);
    const later: Task = (await ines.get(`/api/tasks/${third.id}`)).body;
    expect(later.instructions).toBe('<p>Look at both ends.</p>');
    const { revisions } = await oneSchedule(ines, schedule.id);
    expect(revisions[0]?.own?.['']?.instructions).toBe('<p>Look at both ends.</p>');
    // What the template says from now on does not touch the schedule's own words.
    await save(now[0]?.id ?? '', { instructions: '<p>As everywhere.</p>' });
    await ines
      .post(`/api/tasks/${now[0]?.id}/into-template`)
      .send({ fields: ['instructions'] })
      .expect(200);
    expect((await ines.get(`/api/tasks/${third.id}`)).body.instructions).toBe('<p>Look at both ends.</p>');
  });

  it('is for managers; others change only theirs', async () => {
    const nadia = await server.browser('Nadia Orme');
    const [first] = (await tasks()) as [Row];
    expect(first.who).toBe('Nadia Orme');
    const edit = await editOf(ines, first.id, { estimateMinutes: 20, reach: 'later' });
    const { body } = await nadia.put(`/api/tasks/${first.id}`).send(edit).expect(403);
    expect(body.detail).toContain('Only a planner or a manager');
    await nadia.post(`/api/tasks/${first.id}/edit-impact`).send(edit).expect(403);
    await nadia
      .put(`/api/tasks/${first.id}`)
      .send({ ...edit, reach: 'one' })
      .expect(200);
  });
});

describe('many tasks at once', () => {
  const deed = (by: Agent, rows: readonly Pick<Row, 'id' | 'version'>[], what: object, path = '') =>
    by.post(`/api/tasks/changes${path}`).send({ tasks: rows.map(({ id, version }) => ({ id, version })), deed: what });

  it('are given to somebody, moved, and put back by one undo; what is under way stays', async () => {
    const [first] = (await tasks()) as [Row];
    await ines.post(`/api/tasks/${first.id}/start`).expect(200);
    const before = await tasks();
    const move = { kind: 'move', by: { amount: 2, unit: 'workingDay' } };
    const told = impactSchema.parse((await deed(ines, before, move, '/impact').expect(200)).body);
    expect(told.figures).toMatchObject({ changed: 2, keptBegun: 1 });
    expect(await tasks()).toEqual(before);
    const { changed, changeId } = (await deed(ines, before, move).expect(200)).body;
    expect(changed).toBe(2);
    expect((await tasks()).map(({ work_on }) => work_on)).toEqual(['2026-11-25', '2026-12-11', '2026-12-29']);
    const given = (await deed(ines, await tasks(), { kind: 'give', personId: await kit() }).expect(200)).body;
    expect((await tasks()).map(({ who }) => who)).toEqual(['Nadia Orme', 'Kit Sorrell', 'Kit Sorrell']);
    await ines.post(`/api/changes/${given.changeId}/undo`).expect(200);
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect((await tasks()).map(({ work_on, who }) => [work_on, who])).toEqual(
      before.map(({ work_on, who }) => [work_on, who]),
    );
  });

  it('are put on one day with their times as far apart as before, and given a priority', async () => {
    const before = await tasks();
    const [first, second, third] = before as [Row, Row, Row];
    const to = { kind: 'moveTo', on: second.work_on };
    const { changed, changeId } = (await deed(ines, before, to).expect(200)).body;
    expect(changed).toBe(2);
    const apart = ({ work_on, due_on }: Row) => Date.parse(due_on) - Date.parse(work_on);
    const now = await tasks();
    expect(now.map(({ work_on }) => work_on)).toEqual([second.work_on, second.work_on, second.work_on]);
    expect(now.map(apart)).toEqual(before.map(apart));
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect((await tasks()).map(({ work_on }) => work_on)).toEqual([first.work_on, second.work_on, third.work_on]);
    const far = { kind: 'moveTo', on: '2199-01-01' };
    expect((await deed(ines, await tasks(), far).expect(422)).body.errors[0].path).toBe('deed.on');
    const priority = async () => (await ines.get(`/api/tasks/${first.id}`)).body.priority;
    const was = await priority();
    const urgent = { kind: 'prioritise', priority: 'urgent' };
    const made = (await deed(ines, [(await tasks())[0] as Row], urgent).expect(200)).body;
    expect(await priority()).toBe('urgent');
    expect((await deed(ines, [(await tasks())[0] as Row], urgent).expect(422)).body.errors[0].message).toContain(
      'already',
    );
    await ines.post(`/api/changes/${made.changeId}/undo`).expect(200);
    expect(await priority()).toBe(was);
    const nadia = await server.browser('Nadia Orme');
    await deed(nadia, [(await tasks())[0] as Row], urgent).expect(403);
    await deed(nadia, [(await tasks())[0] as Row], to).expect(403);
  });

  it('are deleted, do not come back by a run, and come back by undo', async () => {
    const before = await tasks();
    const { changeId } = (await deed(ines, before, { kind: 'delete' }).expect(200)).body;
    await runMaking(await server.scope(), 'byHand', silent);
    expect(await tasks()).toEqual([]);
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect((await tasks()).map(({ id }) => id)).toEqual(before.map(({ id }) => id));
  });

  it('are refused where nothing would change by it, and told of only where something does', async () => {
    const before = await tasks();
    const nadiaId = (await server.person('Nadia Orme')).id;
    for (const what of [
      { kind: 'give', personId: nadiaId },
      { kind: 'move', by: { amount: 0, unit: 'day' } },
    ]) {
      expect((await deed(ines, before, what).expect(422)).body.detail).toContain('Nothing would change');
      await deed(ines, before, what, '/impact').expect(422);
    }
    expect(await tasks()).toEqual(before);
    // Far off is a slip of the fingers.
    const far = { kind: 'move', by: { amount: -366, unit: 'day' } };
    const { changeId } = (await deed(ines, before, far).expect(200)).body;
    const moved = before.map(({ id, version }) => ({ id, version: version + 1 }));
    expect((await deed(ines, moved, far).expect(422)).body.detail).toContain('too far off');
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
  });

  it('are skipped with the reason in their notes', async () => {
    const before = await tasks();
    await deed(ines, before, { kind: 'skip', reason: '' }).expect(422);
    await deed(ines, before, { kind: 'skip', reason: 'The quay is closed.' }).expect(200);
    expect((await tasks()).map(({ state }) => state)).toEqual(['skipped', 'skipped', 'skipped']);
    expect((await ines.get(`/api/tasks/${before[0]?.id}`)).body.note).toBe('The quay is closed.');
  });

  it('are skipped by whoever has them, of whom none can do more; alone also under way', async () => {
    const [first, second] = (await tasks()) as [Row, Row];
    const nadia = await server.browser('Nadia Orme');
    await nadia.post(`/api/tasks/${first.id}/start`).expect(200);
    const skip = { kind: 'skip', reason: 'The quay is closed.' };
    const told = impactSchema.parse(await doTo(nadia, first.id, skip, 200, '/impact'));
    expect(told.items).toMatchObject([{ kind: 'removed', title: first.title, state: 'underWay' }]);
    await doTo(nadia, first.id, skip);
    expect((await doTo(nadia, first.id, skip, 409)).detail).toContain('stays on record');
    expect((await doTo(nadia, second.id, { kind: 'give', personId: null }, 403)).detail).toContain(
      'Only a planner or a manager',
    );
    await doTo(ines, second.id, { kind: 'give', personId: await kit() });
    expect((await doTo(nadia, second.id, skip, 403)).detail).toContain('Only the person who has it');
  });

  it('that somebody else has changed meanwhile are refused as a whole; staff and strangers may not', async () => {
    const before = await tasks();
    await doTo(ines, before[1]?.id, { kind: 'skip', reason: 'No' });
    const { body } = await deed(ines, before, { kind: 'delete' }).expect(409);
    expect(body.detail).toContain('1 task was changed by someone else meanwhile');
    expect(await tasks()).toHaveLength(3);
    await deed(await server.browser('Nadia Orme'), before, { kind: 'delete' }).expect(403);
    await deed(await server.browser('Ada Winn'), before, { kind: 'delete' }).expect(404);
  });
});
