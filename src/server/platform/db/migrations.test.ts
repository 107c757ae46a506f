import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { templateInputSchema } from '../../../contract/index.ts';
import { givenTo } from '../../../core/index.ts';
import { type TestServer, testServer } from '../../testing/test-server.ts';

let server: TestServer;
let ines: Awaited<ReturnType<TestServer['browser']>>;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const ask = <Row>(text: string, params: unknown[] = []) => server.source.query<Row[]>(text, params);

/** Takes back every migration that came after one, and that one as well. */
async function takeBack(name: RegExp): Promise<void> {
  for (let last = ''; !name.test(last); ) {
    [{ name: last = '' } = {}] = await ask<{ name: string }>('select name from migrations order by id desc limit 1');
    await server.source.undoLastMigration({ transaction: 'each' });
  }
}
const doAgain = () => server.source.runMigrations({ transaction: 'each' });

/** Some tasks changed together, and what their change is undone by. */
async function skipThree(): Promise<{ ids: string[]; changeId: string }> {
  const tasks = await ask<{ id: string; version: number }>(
    `select id, version from task where state = 'open' and work_on > '2026-12-01' order by id limit 3`,
  );
  const deed = { kind: 'skip', reason: 'Closed.' };
  const { body } = await ines.post('/api/tasks/changes').send({ tasks, deed }).expect(200);
  return { ids: tasks.map(({ id }) => id), changeId: body.changeId };
}

describe('the migration that joins changes', () => {
  it('is taken back and done again with nothing lost: what was changed together stays together', async () => {
    const { ids, changeId } = await skipThree();
    const joined = () => ask<{ id: string }>('select id from change where joined_id = $1 order by id', [changeId]);
    const before = await joined();
    expect(before).toHaveLength(3);
    await takeBack(/^JoinedChanges/);
    const [whole] = await ask<{ fields: { changes: { from: string[] } } }>('select fields from change where id = $1', [
      changeId,
    ]);
    expect(whole?.fields.changes.from).toEqual(before.map(({ id }) => id));
    await doAgain();
    expect(await joined()).toEqual(before);
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await ask('select distinct state from task where id = any($1::uuid[])', [ids])).toEqual([{ state: 'open' }]);
  });
});

describe('the migration that says by a rule who does it', () => {
  it('leaves every schedule with the person it had, there and back, and a change of that is undone after it', async () => {
    const who = () => ask(`select id, assignment->>'personId' as person from schedule order by id`);
    const [schedule] = await ask<{ id: string; version: number }>(
      `select id, version from schedule where assignment->>'kind' = 'person' order by id limit 1`,
    );
    const before = await who();
    const set = { assignment: givenTo(null) };
    const { body } = await ines
      .post('/api/schedules/changes')
      .send({ changes: [{ ...schedule, set }], reach: { open: false, also: [] } })
      .expect(200);
    const after = await who();
    await takeBack(/^Assignment/);
    expect(await ask('select id, assignee_id as person from schedule order by id')).toEqual(after);
    await doAgain();
    expect(await who()).toEqual(after);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await who()).toEqual(before);
  });
});

describe('the migration that says by a rule who does the work of a template', () => {
  it('leaves every template with the person it had, there and back, and a change of that is undone after it', async () => {
    const person = `assignment->>'personId'`;
    const who = () => ask(`select id, ${person} as person from template order by id`);
    const [kit] = await ask<{ id: string }>(`select id from person where name = 'Kit Sorrell'`);
    const given = givenTo(kit?.id ?? '');
    const [{ id = '' } = {}] = await ask<{ id: string }>(
      `select id from template where assignment->>'kind' = 'nobody' limit 1`,
    );
    const { body: template } = await ines.get(`/api/templates/${id}`).expect(200);
    const before = await who();
    const fields = Object.fromEntries(Object.keys(templateInputSchema.shape).map((field) => [field, template[field]]));
    const { body } = await ines
      .put(`/api/templates/${id}`)
      .send({
        ...fields,
        fileIds: template.files.map((file: { id: string }) => file.id),
        assignment: given,
        version: template.version,
        reach: { open: false, also: [] },
      })
      .expect(200);
    const after = await who();
    await takeBack(/^TemplateRule/);
    expect(await ask('select id, assignee_id as person from template order by id')).toEqual(after);
    await doAgain();
    expect(await who()).toEqual(after);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await who()).toEqual(before);
  });
});

describe('the migration that stores what tasks say once', () => {
  const SAID = 'instructions, brief, links, work_type, sign_off, finish_with_last, numbered, check_lines, demands';
  const LATER =
    'content_id, offered_to, why, held_until, held_reason, held_at, held_by, nudged_at, nudged_by, on_time, done_by_contact';
  const OTHERWISE = `select to_jsonb(t) - '{${LATER}}'::text[] - '{${SAID}}'::text[] as row from task t order by id`;

  it('has no task say anything else, there and back, and what was changed before it is undone after it', async () => {
    // Of each kind of what is kept for an undo: a change of a template with its tasks, and a deletion.
    const [used] = await ask<{ id: string; version: number }>(
      `select t.id, t.version from template t where exists (
         select 1 from task k where k.template_id = t.id and k.appears_on > '2026-11-24' and k.state = 'open') order by id limit 1`,
    );
    const template = (await ines.get(`/api/templates/${used?.id}`).expect(200)).body;
    const changed = await ines
      .put(`/api/templates/${used?.id}`)
      .send({ ...template, instructions: '<p>Twice.</p>', reach: { open: true, also: [] } })
      .expect(200);
    const [gone] = await ask<{ id: string; version: number }>(
      `select id, version from task where state = 'open' and work_on > '2026-12-03' and template_id <> $1 order by id limit 1`,
      [used?.id],
    );
    const deleted = await ines
      .post('/api/tasks/changes')
      .send({ tasks: [gone], deed: { kind: 'delete' } })
      .expect(200);

    const pointed = `select t.id, c.instructions, c.brief, c.links, c.work_type, c.sign_off, c.finish_with_last, c.numbered, c.check_lines, c.demands
      from task t join work_content c on c.workspace_id = t.workspace_id and c.id = t.content_id order by t.id`;
    const [said, otherwise] = [await ask(pointed), await ask(OTHERWISE)];
    expect(said.length).toBeGreaterThan(3000);
    expect(said.length).toBe(otherwise.length);

    await takeBack(/^ContentOnce/);
    expect(await ask(`select id, ${SAID} from task order by id`)).toEqual(said);
    expect(await ask(OTHERWISE)).toEqual(otherwise);

    await doAgain();
    expect(await ask(pointed)).toEqual(said);
    expect(await ask(OTHERWISE)).toEqual(otherwise);

    const isThere = async () => (await ask('select 1 from task where id = $1', [gone?.id])).length === 1;
    expect(await isThere()).toBe(false);
    await ines.post(`/api/changes/${deleted.body.changeId}/undo`).expect(200);
    expect(await isThere()).toBe(true);
    const undone = await ines.post(`/api/changes/${changed.body.changeId}/undo`).expect(200);
    expect(undone.body.said).not.toContain('somebody has changed since');
    expect(
      await ask(
        `select distinct c.instructions from task t join work_content c on c.id = t.content_id
         where t.template_id = $1 and t.state = 'open' and t.appears_on > '2026-11-24'`,
        [used?.id],
      ),
    ).toEqual([{ instructions: template.instructions }]);
  });

  it('keeps a content once, under an id that nothing else can have, and never changed', async () => {
    const [counts] = await ask<{ tasks: number; contents: number }>(
      'select (select count(*)::int from task) as tasks, (select count(*)::int from work_content) as contents',
    );
    expect(counts?.contents).toBeLessThan((counts?.tasks ?? 0) / 30);
    await expect(ask(`update work_content set brief = 'Another.'`)).rejects.toThrow(/check constraint/);
    await expect(ask('delete from work_content')).rejects.toThrow(/foreign key/);
  });
});

describe('all migrations', () => {
  it('are taken back to nothing and done again, whichever is the last', async () => {
    const tables = () =>
      ask<{ name: string }>(
        `select table_name || '.' || column_name || ' ' || data_type || ' ' || is_nullable as name
         from information_schema.columns where table_schema = 'public' order by 1`,
      );
    const before = await tables();
    while (server.source.migrations.length > 0) {
      const left = await ask('select 1 from migrations');
      if (left.length === 0) break;
      await server.source.undoLastMigration({ transaction: 'each' });
    }
    expect((await tables()).filter(({ name }) => name.startsWith('task'))).toEqual([]);
    await doAgain();
    expect(await tables()).toEqual(before);
  });
});
