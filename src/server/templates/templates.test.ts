import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Schedule, type Template, type TemplateLine, templateSchema } from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { runMaking } from '../runs/making.ts';
import { allSchedules } from '../testing/schedules.ts';
import { type Agent, silent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const input = {
  name: 'Ladder check',
  titlePattern: 'Ladders, {month}',
  category: 'inspection',
  instructions: '<p>Look at every ladder.</p>',
  steps: [{ kind: 'check', key: 'line-1', text: 'All rungs there', note: '', demands: [] }],
  estimateMinutes: 20,
};
const line = (key: string, text: string) => ({ kind: 'check', key, text, note: '', demands: [] });
const limits = (least: number, most: number) => ({ key: 'n', label: '', kind: 'number', unit: 'm', least, most });
const create = (agent: Agent, template: object, like: object | null = null) =>
  agent.post('/api/templates').send({ template, like });
const templates = async (agent: Agent): Promise<TemplateLine[]> =>
  (await agent.get('/api/templates').expect(200)).body.templates;

describe('a template', () => {
  it('is written, read back and listed by name', async () => {
    const { body } = await create(ines, input).expect(200);
    expect(templateSchema.parse(body.template)).toMatchObject({
      ...input,
      version: 1,
      scheduleCount: 0,
      nextOn: null,
      changedBy: 'Ines Calloway',
    });
    expect((await ines.get(`/api/templates/${body.template.id}`).expect(200)).body).toEqual(body.template);
    const names = (await templates(ines)).map(({ name }) => name);
    expect(names).toContain('Ladder check');
    expect(names).toEqual([...names].sort((a, b) => a.toLowerCase().localeCompare(b.toLowerCase())));
  });

  it.each([
    [{ estimateMinutes: 0 }, 'estimateMinutes', 'An estimate is 1 minute or more'],
    [{ estimateMinutes: 1.5 }, 'estimateMinutes', 'Whole minutes only'],
    [{ name: '   ' }, 'name', 'The name is missing'],
    [{ titlePattern: 'x'.repeat(100_000) }, 'titlePattern', '200 characters at most'],
    [{ titlePattern: 'Payroll {mounth}' }, 'titlePattern', 'Did you mean {month}?'],
    [{ name: 'a\u0000b' }, 'name', 'cannot be printed'],
    [{ instructions: 'a\u0000b' }, 'instructions', 'cannot be kept'],
    [{ category: 'nonsense' }, 'category', 'is not a category here'],
    [{ workType: 'nonsense' }, 'workType', 'is not a type of work here'],
    [{ steps: [line('a', '')] }, 'steps.0.text', 'The check line is missing'],
    [{ steps: [line('a', 'x'), line('a', 'y')] }, 'steps', 'the same key'],
    [{ steps: [{ ...line('a', 'x'), demands: [limits(3, 2)] }] }, 'steps.0.demands.0.most', 'lies below the lower one'],
    [{ links: [{ title: 'x', url: 'javascript:alert(1)' }] }, 'links.0.url', 'This is not an address'],
    [{ assignment: givenTo('00000000-0000-4000-8000-000000000000') }, 'assignment', 'no such person'],
    [{ assignment: { v: 1, kind: 'anyOf', group: { of: 'role', role: 'crane pool' } } }, 'assignment', 'no such role'],
    [{ signOff: { by: 'role', role: 'diver' } }, 'signOff', 'Nobody here is diver'],
  ])('with %j is refused in words', async (wrong, path, words) => {
    const { body } = await create(ines, { ...input, ...wrong }).expect(422);
    expect(body.errors[0].path.replace(/^template\./, '')).toBe(path);
    expect(body.errors[0].message).toContain(words);
  });

  it('is not written over when someone else changed it meanwhile', async () => {
    const [template] = await templates(ines);
    if (!template) throw new Error('the demo has no template');
    const change = { ...input, name: 'First', version: template.version };
    await ines.put(`/api/templates/${template.id}`).send(change).expect(200);
    const late = await ines
      .put(`/api/templates/${template.id}`)
      .send({ ...change, name: 'Second' })
      .expect(409);
    expect(late.body.detail).toContain('Someone else changed this template');
    expect((await ines.get(`/api/templates/${template.id}`)).body.name).toBe('First');
  });

  it('is read by staff and written by managers', async () => {
    const nadia = await server.browser('Nadia Orme');
    const [template] = await templates(nadia);
    await create(nadia, input).expect(403);
    await nadia
      .put(`/api/templates/${template?.id}`)
      .send({ ...input, version: 1 })
      .expect(403);
  });

  it('of another workspace is not there', async () => {
    const ada = await server.browser('Ada Winn');
    expect(await templates(ada)).toEqual([]);
    const [template] = await templates(ines);
    const answer = await ada.get(`/api/templates/${template?.id}`).expect(404);
    expect(answer.body.detail).toContain('no such template');
    await ada
      .put(`/api/templates/${template?.id}`)
      .send({ ...input, version: 1 })
      .expect(404);
    await ada.get('/api/templates/not-an-id').expect(404);
  });

  it('is listed page by page', async () => {
    await server.source.query(
      `insert into template (workspace_id, id, version, name, summary, title_pattern, instructions, links, priority, finish_with_last,
         numbered, demands, estimate_minutes, assignment, tickets, steps, changed_at)
       select id, gen_random_uuid(), 1, 'Bulk ' || lpad(n::text, 4, '0'), '', 'x', '', '[]', 'normal', false,
         false, '[]', 5, '{"v": 1, "kind": "nobody"}', '[]', '[]', now() from workspace, generate_series(1, 300) n where name = 'Tern Quay'`,
    );
    const first = (await ines.get('/api/templates').expect(200)).body;
    const second = (await ines.get('/api/templates').query({ after: first.more }).expect(200)).body;
    expect(first.templates).toHaveLength(200);
    expect(second.more).toBeNull();
    const ids = [...first.templates, ...second.templates].map(({ id }: Template) => id);
    expect(new Set(ids).size).toBe(ids.length);
    await ines.get('/api/templates').query({ after: 'nonsense' }).expect(422);
  });
});

describe('a template in use', () => {
  const used = async () => {
    const [row] = await server.source.query<{ id: string }[]>(`select id from template where name = 'Fire points'`);
    return row?.id ?? '';
  };

  it('can’t be deleted, and says what uses it', async () => {
    const id = await used();
    const uses = (await ines.get(`/api/templates/${id}/uses`).expect(200)).body;
    expect(uses.schedules).toHaveLength(3);
    expect(uses.tasks).toBeGreaterThan(10);
    const { body } = await ines.delete(`/api/templates/${id}`).expect(409);
    expect(body.detail).toContain('3 schedules: Fire points · ');
    expect(body.detail).toContain('Archive it instead');
  });

  it('is archived: its schedules make nothing, what nobody has seen is taken back, and all of it can be undone', async () => {
    const id = await used();
    const count = async (where: string) => {
      const [row] = await server.source.query<{ count: number }[]>(
        `select count(*) as count from task where template_id = $1 and ${where}`,
        [id],
      );
      return row?.count ?? 0;
    };
    const unseen = `state = 'open' and appears_on > '2026-11-24'`;
    const before = await count('true');
    const { unseen: said } = (await ines.get(`/api/templates/${id}/uses`)).body;
    expect(said).toBe(await count(unseen));
    const { body } = await ines.put(`/api/templates/${id}/archived`).send({ archived: true }).expect(200);
    expect(body.template).toMatchObject({ archivedOn: '2026-11-24', nextOn: null });
    expect(await count(unseen)).toBe(0);
    await runMaking(await server.scope(), 'daily', silent);
    expect(await count(unseen)).toBe(0);
    const schedules = await allSchedules(ines, { templateId: id });
    expect(schedules.map(({ state, next }: Schedule) => [state, next])).toEqual([
      ['paused', null],
      ['paused', null],
      ['paused', null],
    ]);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await count('true')).toBe(before);
  });

  it('is a favourite of those who say so', async () => {
    const id = await used();
    const isFavourite = async (agent: Agent) => (await agent.get(`/api/templates/${id}`)).body.isFavourite;
    const nadia = await server.browser('Nadia Orme');
    await nadia.put(`/api/templates/${id}/favourite`).send({ favourite: true }).expect(200);
    await nadia.put(`/api/templates/${id}/favourite`).send({ favourite: true }).expect(200);
    expect([await isFavourite(nadia), await isFavourite(ines)]).toEqual([true, false]);
    await nadia.put(`/api/templates/${id}/favourite`).send({ favourite: false }).expect(200);
    expect(await isFavourite(nadia)).toBe(false);
  });
});

describe('a template that nothing uses', () => {
  it('is deleted, and comes back whole with the undo', async () => {
    const { body } = await create(ines, { ...input, name: 'Short-lived' }).expect(200);
    const { id } = body.template;
    const deletedNow = async () => (await ines.get('/api/templates/deleted').expect(200)).body.deleted;
    const { body: removed } = await ines.delete(`/api/templates/${id}`).expect(200);
    expect(await deletedNow()).toMatchObject([{ changeId: removed.changeId, by: 'Ines Calloway' }]);
    await (await server.browser('Nadia Orme')).get('/api/templates/deleted').expect(403);
    await ines.get(`/api/templates/${id}`).expect(404);
    await ines.post(`/api/changes/${removed.changeId}/undo/impact`).expect(200);
    await ines.post(`/api/changes/${removed.changeId}/undo`).expect(200);
    expect(await deletedNow()).toEqual([]);
    expect((await ines.get(`/api/templates/${id}`).expect(200)).body).toEqual(body.template);
  });

  it('tells its changes, and a change can be undone', async () => {
    const { body } = await create(ines, { ...input, name: 'Changing' }).expect(200);
    const { id, ...template } = body.template;
    const changed = await ines
      .put(`/api/templates/${id}`)
      .send({ ...template, instructions: '<p>Otherwise<script>alert(1)</script></p>', estimateMinutes: 25 })
      .expect(200);
    expect(changed.body.template).toMatchObject({ instructions: '<p>Otherwise</p>', version: 2 });
    const said = async () =>
      (await ines.get(`/api/templates/${id}/history`)).body.entries.map(({ said: words }: { said: string }) => words);
    expect(await said()).toEqual(['instructions and estimate changed', 'made']);
    await ines.post(`/api/changes/${changed.body.changeId}/undo`).expect(200);
    expect((await ines.get(`/api/templates/${id}`)).body).toMatchObject({ estimateMinutes: 20, version: 3 });
    expect((await said())[0]).toContain('put back');
  });
});

describe('the lists of a workspace', () => {
  it('change, but keep what templates carry', async () => {
    const { categories, workTypes } = (await ines.get('/api/workspace')).body;
    const lists = (body: object) => ines.put('/api/workspace/lists').send({ categories, workTypes, ...body });
    const refused = await lists({ categories: categories.slice(1) }).expect(422);
    expect(refused.body.detail).toMatch(/“inspection” is in use by \d+ templates/);
    await lists({ workTypes: [...workTypes, 'Routine'] }).expect(422);
    const { body } = await lists({ workTypes: [...workTypes, 'survey'] }).expect(200);
    expect(body.workTypes).toContain('survey');
    expect((await ines.get('/api/workspace')).body.workTypes).toContain('survey');
    const nadia = await server.browser('Nadia Orme');
    await nadia.put('/api/workspace/lists').send({ categories, workTypes }).expect(403);
  });
});
