import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Template, templateSchema } from '../../contract/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

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
  instructions: 'Look at every ladder.',
  checkLines: [{ key: 'line-1', text: 'All rungs there' }],
  estimateMinutes: 20,
};
const templates = async (agent: Agent): Promise<Template[]> =>
  (await agent.get('/api/templates').expect(200)).body.templates;

describe('a template', () => {
  it('is written, read back and listed by name', async () => {
    const { body } = await ines.post('/api/templates').send(input).expect(200);
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
    [{ checkLines: [{ key: 'a', text: '' }] }, 'checkLines.0.text', 'The check line is missing'],
    [
      {
        checkLines: [
          { key: 'a', text: 'x' },
          { key: 'a', text: 'y' },
        ],
      },
      'checkLines',
      'the same key',
    ],
  ])('with %j is refused in words', async (wrong, path, words) => {
    const { body } = await ines
      .post('/api/templates')
      .send({ ...input, ...wrong })
      .expect(422);
    expect(body.errors[0].path).toBe(path);
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
    await nadia.post('/api/templates').send(input).expect(403);
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
      `insert into template (workspace_id, id, version, name, title_pattern, instructions, check_lines, estimate_minutes, changed_at)
       select id, gen_random_uuid(), 1, 'Bulk ' || lpad(n::text, 4, '0'), 'x', '', '[]', 5, now() from workspace, generate_series(1, 700) n where name = 'Tern Quay'`,
    );
    const first = (await ines.get('/api/templates').expect(200)).body;
    const second = (await ines.get('/api/templates').query({ after: first.more }).expect(200)).body;
    expect(first.templates).toHaveLength(500);
    expect(second.more).toBeNull();
    const ids = [...first.templates, ...second.templates].map(({ id }: Template) => id);
    expect(new Set(ids).size).toBe(ids.length);
    await ines.get('/api/templates').query({ after: 'nonsense' }).expect(422);
  });
});
