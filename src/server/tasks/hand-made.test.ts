import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { givenTo } from '../../core/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { checkLine, newTemplate, ownTask } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
let wilf: Agent;
let wilfId: string;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  wilf = await server.browser('Wilf Ardley');
  wilfId = (await server.person('Wilf Ardley')).id;
});
afterAll(() => server.stop());

const captured = (rest: object = {}) => ({
  title: 'Grit on the steps',
  on: '2026-11-27',
  dueOn: '2026-11-27',
  startTime: '10:00',
  dueTime: null,
  assigneeId: wilfId,
  clientId: null,
  assetId: null,
  estimateMinutes: 15,
  ...rest,
});

describe('a captured task', () => {
  it('stands on its person’s day, and is gone with its undo while nobody has touched it', async () => {
    const { body } = await wilf.post('/api/tasks').send(captured()).expect(200);
    const [line] = body.tasks;
    const sheet = (await wilf.get(`/api/people/${wilfId}/day-sheet`)).body;
    expect(sheet.coming.map(({ id }: { id: string }) => id)).toContain(line.id);
    expect((await wilf.get(`/api/tasks/${line.id}`)).body).toMatchObject({
      template: null,
      schedule: null,
      mayWork: true,
    });
    const undone = await wilf.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(undone.body.said).toBe('“Grit on the steps” is gone again.');
    await wilf.get(`/api/tasks/${line.id}`).expect(404);
  });

  it('stays once somebody has worked on it', async () => {
    const { body } = await wilf.post('/api/tasks').send(captured()).expect(200);
    await wilf.post(`/api/tasks/${body.tasks[0].id}/start`).expect(200);
    const refused = await wilf.post(`/api/changes/${body.changeId}/undo`).expect(409);
    expect(refused.body.detail).toContain('it stays');
    await wilf.post(`/api/tasks/${body.tasks[0].id}/finish`).expect(200);
  });

  it.each([
    [{ title: ' ' }, 'What is to be done is missing'],
    [{ estimateMinutes: 0 }, '1 minute or more'],
    [{ on: '2026-02-30' }, 'date'],
    [{ dueOn: '2026-11-20' }, 'due before its day'],
  ])('with %j is refused in words', async (wrong, words) => {
    const { body } = await wilf.post('/api/tasks').send(captured(wrong)).expect(422);
    expect(body.detail).toContain(words);
  });

  it('names nobody and nothing of another workspace', async () => {
    const ada = await server.browser('Ada Winn');
    await ada.post('/api/tasks').send(captured()).expect(404);
    const [crane] = await server.source.query<{ id: string }[]>(`select id from asset where name = 'Crane 1'`);
    await ada
      .post('/api/tasks')
      .send(captured({ assigneeId: null, assetId: crane?.id }))
      .expect(404);
  });
});

describe('a template started by hand', () => {
  const start = (templateId: string, rest: object = {}) =>
    wilf.post(`/api/templates/${templateId}/start`).send({
      on: '2026-12-01',
      clientId: null,
      assetId: null,
      assigneeId: wilfId,
      special: 'Arrives by road.',
      parts: [
        { step: '', on: '2026-12-01', startTime: null, dueTime: null, assigneeId: wilfId },
        { step: 'pack', on: '2026-11-30', startTime: null, dueTime: '12:00', assigneeId: null },
      ],
      ...rest,
    });

  it('makes its set, filled in for the client, with what is special this time on each', async () => {
    const templateId = await newTemplate(ines, {
      name: 'Arrival',
      titlePattern: 'Arrival of {asset}, {client}, no {number}',
      steps: [
        checkLine('key'),
        ownTask('pack', -1, { titlePattern: 'Pack for {client}', note: 'In the red bag.' }),
        ownTask('rack', 0),
      ],
    });
    const [vessel] = await server.source.query<{ id: string; client: string; owner: string; name: string }[]>(
      'select a.id, a.client_id as client, c.name as owner, a.name from asset a join client c on c.id = a.client_id limit 1',
    );
    const { body } = await start(templateId, { assetId: vessel?.id }).expect(200);
    expect(body.tasks.map(({ title, on }: { title: string; on: string }) => [title, on])).toEqual([
      [`Pack for ${vessel?.owner}`, '2026-11-30'],
      [`Arrival of ${vessel?.name}, ${vessel?.owner}, no 1`, '2026-12-01'],
    ]);
    const pack = (await wilf.get(`/api/tasks/${body.tasks[0].id}`)).body;
    expect(pack).toMatchObject({
      brief: 'In the red bag.\nArrives by road.',
      assignee: null,
      dueTime: '12:00',
      setSize: 2,
    });
    const again = (await start(templateId, { assetId: vessel?.id }).expect(200)).body;
    expect(again.tasks[1].title).toContain('no 2');
    await wilf.post(`/api/tasks/${again.tasks[1].id}/start`).expect(200);
    const { body: undone } = await wilf.post(`/api/changes/${again.changeId}/undo`).expect(200);
    expect(undone.said).toContain('1 task');
    await wilf.get(`/api/tasks/${again.tasks[0].id}`).expect(404);
    await wilf.get(`/api/tasks/${again.tasks[1].id}`).expect(200);
  });

  it('is offered to any one of whom its template is for, and its steps with it, where nobody is named', async () => {
    const group = { of: 'role', role: 'yard' } as const;
    const templateId = await newTemplate(ines, {
      name: 'Sling check',
      assignment: { v: 1, kind: 'anyOf', group },
      steps: [ownTask('pack', -1), ownTask('hang', 0)],
    });
    const part = (step: string, assigneeId: string | null) => ({
      ...{ step, on: '2026-12-01', startTime: null, dueTime: null, assigneeId },
    });
    const parts = [part('', null), part('pack', null), part('hang', wilfId)];
    const { body } = await start(templateId, { assigneeId: null, parts }).expect(200);
    const rows = await server.source.query(
      `select step_key as step, offered_to as "offeredTo", assignee_id as "assigneeId" from task where id = any($1::uuid[]) order by set_index`,
      [body.tasks.map(({ id }: { id: string }) => id)],
    );
    expect(rows).toEqual([
      { step: '', offeredTo: group, assigneeId: null },
      { step: 'pack', offeredTo: group, assigneeId: null },
      { step: 'hang', offeredTo: null, assigneeId: wilfId },
    ]);
    const { body: draft } = await ines.get(`/api/tasks/${body.tasks[0].id}/as-template`).expect(200);
    expect(draft.assignment).toEqual({ v: 1, kind: 'anyOf', group });
  });

  it('is refused when it names a step that is gone, nobody of here, or is archived', async () => {
    const templateId = await newTemplate(ines, { name: 'Plain' });
    expect((await start(templateId).expect(422)).body.detail).toContain('no such step any more');
    const parts = [{ step: '', on: '2026-12-01', startTime: null, dueTime: null, assigneeId: templateId }];
    expect((await start(templateId, { parts }).expect(422)).body.detail).toContain('no such person');
    await start(templateId, { parts: [] }).expect(422);
    await ines.put(`/api/templates/${templateId}/archived`).send({ archived: true }).expect(200);
    await start(templateId).expect(409);
    const ada = await server.browser('Ada Winn');
    await ada.post(`/api/templates/${templateId}/start`).send({ on: '2026-12-01' }).expect(422);
  });
});

describe('a task as a template', () => {
  it('takes over its text, steps and settings, and its set with the days between', async () => {
    const templateId = await newTemplate(ines, {
      name: 'Source',
      titlePattern: 'Source {month}',
      instructions: '<p>How</p>',
      priority: 'high',
      signOff: { by: 'manager' },
      steps: [checkLine('a'), ownTask('before', -7)],
    });
    const { body } = await ines
      .post(`/api/templates/${templateId}/start`)
      .send({
        on: '2026-12-01',
        clientId: null,
        assetId: null,
        assigneeId: wilfId,
        parts: [
          { step: '', on: '2026-12-01', startTime: null, dueTime: null, assigneeId: wilfId },
          { step: 'before', on: '2026-11-25', startTime: null, dueTime: '09:00', assigneeId: null },
        ],
      })
      .expect(200);
    const { body: draft } = await ines.get(`/api/tasks/${body.tasks[0].id}/as-template`).expect(200);
    expect(draft).toMatchObject({
      titlePattern: 'Source {month}',
      instructions: '<p>How</p>',
      priority: 'high',
      signOff: { by: 'manager' },
      assignment: givenTo(wilfId),
      steps: [
        { kind: 'check', key: 'a' },
        {
          kind: 'task',
          key: 'before',
          offset: { amount: -6, unit: 'day' },
          dueTime: '09:00',
          assignee: { by: 'nobody' },
        },
      ],
    });
    const made = await ines
      .post('/api/templates')
      .send({ template: draft, like: { taskId: body.tasks[0].id } })
      .expect(200);
    expect(made.body.template).toMatchObject({ makes: 2, checkLines: 1 });
    await wilf.get(`/api/tasks/${body.tasks[0].id}/as-template`).expect(403);
  });
});
