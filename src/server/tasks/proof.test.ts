import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { taskSchema } from '../../contract/index.ts';
import { type Demand, givenTo } from '../../core/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { checkLine, newTemplate, ownTask, startedTasks } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
let nadia: Agent;
let kit: Agent;
let nadiaId: string;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  nadia = await server.browser('Nadia Orme');
  kit = await server.browser('Kit Sorrell');
  nadiaId = (await server.person('Nadia Orme')).id;
});
afterAll(() => server.stop());

const LOOP: Demand = { key: 'loop', label: 'Earth loop', kind: 'number', unit: 'Ω', least: 0.05, most: 0.8 };
const task = async (id: string) => taskSchema.parse((await ines.get(`/api/tasks/${id}`).expect(200)).body);
const answer = (agent: Agent, id: string, demand: string, value: unknown, remark = '') =>
  agent.put(`/api/tasks/${id}/answers`).send({ demand, value, remark });
const one = async (rest: object) => {
  const [id = ''] = await startedTasks(ines, await newTemplate(ines, rest), nadiaId);
  return id;
};

describe('proof', () => {
  it('is asked for before the finish, by name, and ticks its line', async () => {
    const id = await one({
      steps: [checkLine('gates'), checkLine('socket', [LOOP])],
      demands: [{ key: 'n', label: '', kind: 'note' }],
    });
    const early = await nadia.put(`/api/tasks/${id}/ticks`).send({ key: 'socket', ticked: true }).expect(422);
    expect(early.body.detail).toBe('Still missing for this step: Earth loop.');
    const refused = await nadia.post(`/api/tasks/${id}/finish`).expect(422);
    expect(refused.body.detail).toBe('Still missing: Line gates, Earth loop and a note.');
    await answer(nadia, id, 'loop', 0.41).expect(200);
    expect(await task(id)).toMatchObject({
      state: 'underWay',
      stepsDone: 1,
      answers: { loop: { value: 0.41, by: 'Nadia Orme' } },
    });
    await answer(nadia, id, 'loop', null).expect(200);
    expect(await task(id)).toMatchObject({ stepsDone: 0, answers: {} });
    await answer(nadia, id, 'loop', 0.41).expect(200);
    await nadia.put(`/api/tasks/${id}/ticks`).send({ key: 'gates', ticked: true }).expect(200);
    await nadia.put(`/api/tasks/${id}/note`).send({ note: 'All well.', was: '' }).expect(200);
    expect((await nadia.post(`/api/tasks/${id}/finish`).expect(200)).body.task.state).toBe('done');
    await answer(nadia, id, 'loop', 0.5).expect(409);
  });

  it('outside its limits needs a remark', async () => {
    const id = await one({ steps: [checkLine('socket', [LOOP])] });
    await answer(nadia, id, 'loop', 1.12).expect(200);
    expect(await task(id)).toMatchObject({ stepsDone: 0, proofMissing: ['the remark on Earth loop'] });
    const { body } = await nadia.post(`/api/tasks/${id}/finish`).expect(422);
    expect(body.detail).toBe('Still missing: the remark on Earth loop.');
    await answer(nadia, id, 'loop', 1.12, 'Post 12 shut off.').expect(200);
    await nadia.post(`/api/tasks/${id}/finish`).expect(200);
    expect((await task(id)).answers['loop']).toMatchObject({ value: 1.12, remark: 'Post 12 shut off.' });
  });

  it.each([
    [LOOP, 'high', 'Give a number.'],
    [{ key: 'q', label: '', kind: 'choice', options: ['post', 'mail'] }, 'pigeon', 'Choose one of post, mail.'],
    [{ key: 'q', label: '', kind: 'yesNo' }, 'yes', 'Answer yes or no.'],
    [{ key: 'q', label: '', kind: 'date' }, '2026-02-30', 'Give a date.'],
    [{ key: 'q', label: '', kind: 'file' }, 'x', 'shown by a file or a note'],
    [{ key: 'q', label: '', kind: 'text' }, 'x'.repeat(2001), '2000 characters at most'],
  ] as [Demand, unknown, string][])('that asks for %j is not %j', async (demand, value, words) => {
    const id = await one({ demands: [demand] });
    const { body } = await answer(nadia, id, demand.key, value).expect(422);
    expect(body.detail).toContain(words);
    await answer(nadia, id, 'nothing-asked', 1).expect(404);
    await answer(kit, id, demand.key, null).expect(403);
  });

  /** A task about a crane, that asks for this. */
  const ofCrane = async (rest: object) => {
    const templateId = await newTemplate(ines, rest);
    const [crane] = await server.source.query<{ id: string }[]>(`select id from asset where name = 'Crane 1'`);
    const { body } = await ines
      .post(`/api/templates/${templateId}/start`)
      .send({
        on: '2026-11-24',
        clientId: null,
        assetId: crane?.id,
        assigneeId: nadiaId,
        parts: [{ step: '', on: '2026-11-24', startTime: null, dueTime: null, assigneeId: nadiaId }],
      })
      .expect(200);
    return body.tasks[0].id as string;
  };

  it('by the tag of the asset takes only that', async () => {
    const id = await ofCrane({ demands: [{ key: 'tag', label: '', kind: 'tag' }] });
    const refusal = async (tag: string) => (await answer(nadia, id, 'tag', tag).expect(422)).body.errors[0].message;
    expect(await refusal('pa 1')).toBe('“pa 1” is the tag of Pontoon A, Lee Quay. This task is about Crane 1.');
    expect(await refusal('ZZ-99')).toBe('“ZZ-99” is no tag that is known here. This task is about Crane 1.');
    await answer(nadia, id, 'tag', 'cr 1').expect(200);
    await nadia.post(`/api/tasks/${id}/finish`).expect(200);
  });

  it('by the tag that starts it lets nothing be done before, and is put back as a start', async () => {
    const tag: Demand = { key: 'tag', label: '', kind: 'tag', atStart: true };
    const id = await ofCrane({
      steps: [checkLine('a', [LOOP]), checkLine('b')],
      demands: [tag, { key: 'photo', label: '', kind: 'file' }],
    });
    const FIRST = 'Read the tag of Crane 1 first: that starts it.';
    const photo = () =>
      nadia
        .post('/api/files')
        .field('key', crypto.randomUUID())
        .field('taskId', id)
        .attach('file', Buffer.from('%PDF-1.4\n%%EOF\n'), 'before.pdf');
    expect((await task(id)).startsByTag).toBe(true);
    for (const asked of [
      nadia.post(`/api/tasks/${id}/start`),
      nadia.put(`/api/tasks/${id}/ticks`).send({ key: 'b', ticked: true }),
      answer(nadia, id, 'loop', 0.4),
      photo().field('demand', 'photo'),
    ])
      expect((await asked.expect(422)).body.detail).toContain(FIRST);
    expect((await nadia.post(`/api/tasks/${id}/finish`).expect(422)).body.detail).toContain('tag reading');
    await answer(nadia, id, 'tag', 'PA-1').expect(422);
    // A picture beside it is no start.
    await photo().expect(200);
    expect((await task(id)).state).toBe('open');
    const { body } = await answer(nadia, id, 'tag', 'cr 1').expect(200);
    expect(body.task).toMatchObject({ state: 'underWay', startsByTag: false, answers: { tag: { value: 'cr 1' } } });
    const { body: history } = await ines.get(`/api/tasks/${id}/history`).expect(200);
    expect(JSON.stringify(history)).toContain('started');
    await nadia.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await task(id)).toMatchObject({ state: 'open', startedAt: null, startsByTag: true, answers: {} });
    // What has no tag is begun as anything else is, and the reading is proof of it.
    const other = await one({ demands: [tag] });
    expect((await nadia.post(`/api/tasks/${other}/start`).expect(200)).body.task.state).toBe('underWay');
    expect((await nadia.post(`/api/tasks/${other}/finish`).expect(422)).body.detail).toContain('tag reading');
    const onLine = {
      ...{ name: 'Test', titlePattern: 'Test', category: null, instructions: '', estimateMinutes: 30 },
      steps: [checkLine('a', [tag])],
    };
    const { body: refused } = await ines.post('/api/templates').send({ template: onLine, like: null }).expect(422);
    expect(refused.errors[0].message).toContain('not one of its lines');
  });

  it('with the last of it finishes the task where the template says so, and undoing takes both back', async () => {
    const id = await one({ finishWithLast: true, steps: [checkLine('a'), checkLine('b', [LOOP])] });
    await nadia.put(`/api/tasks/${id}/ticks`).send({ key: 'a', ticked: true }).expect(200);
    const { body } = await answer(nadia, id, 'loop', 0.4).expect(200);
    expect(body.task.state).toBe('done');
    await nadia.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await task(id)).toMatchObject({ state: 'underWay', stepsDone: 1, answers: {} });
  });
});

describe('what was finished today', () => {
  it('takes a note and a file from whoever did it, until the day is over', async () => {
    const id = await one({});
    const note = (by: Agent, text: string, was: string) => by.put(`/api/tasks/${id}/note`).send({ note: text, was });
    const file = (by: Agent) =>
      by
        .post('/api/files')
        .field('key', crypto.randomUUID())
        .field('taskId', id)
        .attach('file', Buffer.from('%PDF-1.4\n%%EOF\n'), 'later.pdf');
    await nadia.post(`/api/tasks/${id}/finish`).expect(200);
    expect((await nadia.get(`/api/tasks/${id}`)).body).toMatchObject({ state: 'done', mayAddTo: true });
    const { body } = await note(nadia, 'The valve is stiff.', '').expect(200);
    expect(body.task).toMatchObject({ state: 'done', note: 'The valve is stiff.' });
    await note(nadia, ' ', 'The valve is stiff.').expect(409);
    await file(nadia).expect(200);
    expect((await task(id)).files.map(({ name }) => name)).toEqual(['later.pdf']);
    // Nobody else, and nothing else.
    expect((await ines.get(`/api/tasks/${id}`)).body.mayAddTo).toBe(false);
    await note(ines, 'Mine.', 'The valve is stiff.').expect(409);
    await file(ines).expect(409);
    await nadia.put(`/api/tasks/${id}/ticks`).send({ key: 'x', ticked: true }).expect(409);
    server.clock.set('2026-11-25T00:01');
    try {
      expect((await nadia.get(`/api/tasks/${id}`)).body.mayAddTo).toBe(false);
      await note(nadia, 'Too late.', 'The valve is stiff.').expect(409);
      await file(nadia).expect(409);
    } finally {
      server.clock.set('2026-11-24T10:40');
    }
  });
});

describe('sign-off', () => {
  it('waits for somebody else, who signs or sends back with a reason', async () => {
    const id = await one({ signOff: { by: 'person', personId: (await server.person('Bram Hollis')).id } });
    const bram = await server.browser('Bram Hollis');
    const finished = (await nadia.post(`/api/tasks/${id}/finish`).expect(200)).body;
    expect(finished.task).toMatchObject({
      state: 'toCheck',
      doneBy: 'Nadia Orme',
      maySign: false,
      signsOff: 'Bram Hollis',
    });
    expect((await nadia.post(`/api/tasks/${id}/sign`).expect(403)).body.detail).toContain('You did this yourself');
    await kit.post(`/api/tasks/${id}/sign`).expect(403);
    const bramId = (await server.person('Bram Hollis')).id;
    const sheet = (await bram.get(`/api/people/${bramId}/day-sheet`).expect(200)).body;
    expect(sheet.toCheck.map((line: { id: string }) => line.id)).toContain(id);
    await bram.post(`/api/tasks/${id}/send-back`).send({ reason: ' ' }).expect(422);
    const sendBack = () => bram.post(`/api/tasks/${id}/send-back`).send({ reason: 'Stamp not readable.' }).expect(200);
    // Who sent it back may take that back, though it is not theirs.
    const { changeId } = (await sendBack()).body;
    await bram.post(`/api/changes/${changeId}/undo`).expect(200);
    expect((await task(id)).state).toBe('toCheck');
    await sendBack();
    expect(await task(id)).toMatchObject({
      state: 'underWay',
      doneBy: null,
      sentBack: { by: 'Bram Hollis', reason: 'Stamp not readable.' },
    });
    await bram.post(`/api/tasks/${id}/sign`).expect(409);
    await nadia.post(`/api/tasks/${id}/finish`).expect(200);
    const { body } = await bram.post(`/api/tasks/${id}/sign`).expect(200);
    expect(body.task).toMatchObject({ state: 'done', signed: { by: 'Bram Hollis' }, doneBy: 'Nadia Orme' });
    await bram.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect((await task(id)).state).toBe('toCheck');
  });

  it('of a manager’s own work is another manager’s, of a role anyone’s who has it', async () => {
    const own = await newTemplate(ines, { signOff: { by: 'manager' } });
    const [mine = ''] = await startedTasks(ines, own, (await server.person('Ines Calloway')).id);
    await ines.post(`/api/tasks/${mine}/finish`).expect(200);
    await ines.post(`/api/tasks/${mine}/sign`).expect(403);
    const id = await one({ signOff: { by: 'role', role: 'dock crew' } });
    await nadia.post(`/api/tasks/${id}/finish`).expect(200);
    await nadia.post(`/api/tasks/${id}/sign`).expect(403);
    await kit.post(`/api/tasks/${id}/sign`).expect(200);
  });
});

describe('a set', () => {
  it('is one occurrence of several tasks, each on its day and with its person', async () => {
    const oskar = (await server.person('Oskar Tindle')).id;
    const templateId = await newTemplate(ines, {
      name: 'Set of three',
      titlePattern: 'Main {day} no {number}',
      steps: [
        checkLine('m1'),
        ownTask('notice', -7, { titlePattern: 'Notice {day}', dueTime: '16:00' }),
        checkLine('n1'),
        ownTask('file', 2, { offset: { amount: 2, unit: 'workingDay' }, assignee: { by: 'person', personId: oskar } }),
      ],
    });
    const { body } = await ines
      .post('/api/schedules')
      .send({
        templateId,
        clientId: null,
        assetId: null,
        assignment: givenTo(nadiaId),
        recurrence: {
          start: '2026-12-03',
          rules: [{ kind: 'weeks', every: 2, on: [4] }],
          end: { kind: 'never' },
          dayOff: 'none',
        },
        timing: {
          appears: { amount: -1, unit: 'day' },
          starts: { amount: 0, unit: 'day' },
          due: { amount: 0, unit: 'day' },
          startTime: '09:00',
          dueTime: null,
          zone: null,
          reminders: [],
        },
      })
      .expect(200);
    const rows = await server.source.query<
      { id: string; title: string; work_on: string; step_key: string; set_id: string; assignee: string }[]
    >(
      `select t.id, t.title, t.work_on, t.step_key, t.set_id, p.name as assignee from task t left join person p on p.id = t.assignee_id
       where schedule_id = $1 order by set_on, set_index`,
      [body.schedule.id],
    );
    expect(rows.slice(0, 3).map(({ title, work_on, assignee }) => [title, work_on, assignee])).toEqual([
      ['Main 3 Dec no 1', '2026-12-03', 'Nadia Orme'],
      ['Notice 3 Dec', '2026-11-26', 'Nadia Orme'],
      ['Task file', '2026-12-07', 'Oskar Tindle'],
    ]);
    expect(new Set(rows.slice(0, 3).map(({ set_id }) => set_id)).size).toBe(1);
    expect(rows[3]?.title).toBe('Main 17 Dec no 2');
    const notice = await task(rows[1]?.id ?? '');
    expect(notice.steps.map(({ key }) => key)).toEqual(['n1']);
    expect(notice.set.map(({ title }) => title)).toEqual(['Notice 3 Dec', 'Main 3 Dec no 1', 'Task file']);
    expect(notice.schedule?.nominalOn).toBe('2026-12-03');

    // Another step by now: unseen sets follow, what was touched stays, and nothing is doubled.
    await nadia.put(`/api/tasks/${rows[1]?.id}/note`).send({ note: 'Rang them.', was: '' }).expect(200);
    const template = (await ines.get(`/api/templates/${templateId}`)).body;
    const saved = await ines
      .put(`/api/templates/${templateId}`)
      .send({ ...template, titlePattern: 'Main {date}', steps: [checkLine('m1'), checkLine('m2')] })
      .expect(200);
    const after = await server.source.query<{ title: string; step_key: string; check_lines: unknown[] }[]>(
      `select title, step_key, said.check_lines from task join work_content said on said.id = task.content_id
       where schedule_id = $1 order by set_on, set_index`,
      [body.schedule.id],
    );
    expect(after.map(({ title, step_key }) => [title, step_key])).toEqual([
      ['Main 3 Dec 2026', ''],
      ['Notice 3 Dec', 'notice'],
      ['Main 17 Dec 2026', ''],
      ...after.slice(3).map(({ title }) => [title, '']),
    ]);
    expect(after[0]?.check_lines).toHaveLength(2);
    expect((await task(rows[1]?.id ?? '')).template).toMatchObject({ changedSince: '2026-11-24' });
    await ines.post(`/api/changes/${saved.body.changeId}/undo`).expect(200);
    const back = await server.source.query<{ count: number }[]>(
      'select count(*) as count from task where schedule_id = $1',
      [body.schedule.id],
    );
    expect(back[0]?.count).toBe(rows.length);
  });
});

describe('earlier ones of a series', () => {
  it('are shown with notes, readings, and what was pinned or kept', async () => {
    const templateId = await newTemplate(ines, { name: 'Measured', steps: [checkLine('socket', [LOOP])] });
    const ids: string[] = [];
    for (const on of ['2026-11-20', '2026-11-21', '2026-11-24'])
      ids.push(...(await startedTasks(ines, templateId, nadiaId, [{ step: '', on }])));
    const [first = '', second = '', third = ''] = ids;
    await answer(nadia, first, 'loop', 0.4).expect(200);
    await answer(nadia, second, 'loop', 0.5).expect(200);
    await nadia.put(`/api/tasks/${first}/note`).send({ note: 'Key hangs in the office.', was: '' }).expect(200);
    await nadia.put(`/api/tasks/${first}/pin`).send({ pinned: true }).expect(200);
    await nadia.put(`/api/tasks/${third}/pin`).send({ pinned: true }).expect(409);
    const { series } = await task(third);
    expect(series.earlier.map(({ on, readings, isPinned }) => [on, readings['loop'], isPinned])).toEqual([
      ['2026-11-21', 0.5, false],
      ['2026-11-20', 0.4, true],
    ]);
    expect(series.count).toBe(2);
  });
});

describe('one task changed by hand', () => {
  it('leaves later ones and the template as they are, until it is put in there', async () => {
    const templateId = await newTemplate(ines, { titlePattern: 'Edited', instructions: '<p>Old</p>' });
    const [id = ''] = await startedTasks(ines, templateId, nadiaId);
    const before = await task(id);
    const edit = {
      title: 'Edited, this time',
      instructions: '<p>New<script>alert(1)</script></p>',
      workOn: '2026-11-25',
      dueOn: '2026-11-26',
      startTime: null,
      dueTime: '12:00',
      assigneeId: nadiaId,
      estimateMinutes: 45,
      priority: 'high',
    };
    await kit
      .put(`/api/tasks/${id}`)
      .send({ ...edit, version: before.version })
      .expect(403);
    await nadia
      .put(`/api/tasks/${id}`)
      .send({ ...edit, dueOn: '2026-11-24', version: before.version })
      .expect(422);
    // What it says is for whoever has it; its day, its person and its priority are for managers.
    const { on, dueOn, priority } = before;
    const words = { ...edit, workOn: on, dueOn, priority, version: before.version };
    const kitId = (await server.person('Kit Sorrell')).id;
    for (const one of [{ workOn: '2026-11-25', dueOn: '2026-11-26' }, { assigneeId: kitId }, { priority: 'high' }]) {
      const { body: refused } = await nadia
        .put(`/api/tasks/${id}`)
        .send({ ...words, ...one })
        .expect(403);
      expect(refused.detail).toContain('Only a planner or a manager can');
    }
    await ines
      .put(`/api/tasks/${id}`)
      .send({ ...edit, workOn: '1999-01-04', dueOn: '1999-01-04', version: before.version })
      .expect(422);
    const { body } = await ines
      .put(`/api/tasks/${id}`)
      .send({ ...edit, version: before.version })
      .expect(200);
    expect(body.task).toMatchObject({
      title: 'Edited, this time',
      instructions: '<p>New</p>',
      on: '2026-11-25',
      priority: 'high',
    });
    await nadia
      .put(`/api/tasks/${id}`)
      .send({ ...edit, version: before.version })
      .expect(409);
    const template = async () => (await ines.get(`/api/templates/${templateId}`)).body;
    expect(await template()).toMatchObject({ instructions: '<p>Old</p>', estimateMinutes: 30 });
    await nadia
      .post(`/api/tasks/${id}/into-template`)
      .send({ fields: ['instructions'] })
      .expect(403);
    const put = await ines
      .post(`/api/tasks/${id}/into-template`)
      .send({ fields: ['instructions', 'estimateMinutes'] })
      .expect(200);
    expect(await template()).toMatchObject({ instructions: '<p>New</p>', estimateMinutes: 45, version: 2 });
    await ines.post(`/api/changes/${put.body.changeId}/undo`).expect(200);
    expect(await template()).toMatchObject({ instructions: '<p>Old</p>', estimateMinutes: 30 });
    await nadia.post(`/api/changes/${body.changeId}/undo`).expect(403);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await task(id)).toMatchObject({ title: 'Edited', on: '2026-11-24', estimateMinutes: 30 });
  });
});
