import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const ask = <Row>(sql: string, params: unknown[] = []): Promise<Row[]> => server.source.query(sql, params);

/** Every place of the database in which a word stands, whichever table and column it is. */
async function placesOf(word: string): Promise<string[]> {
  const columns = await ask<{ table: string; column: string }>(
    `select c.table_name as table, c.column_name as column from information_schema.columns c
     join information_schema.tables t using (table_schema, table_name)
     where c.table_schema = 'public' and t.table_type = 'BASE TABLE' and c.data_type in ('text', 'jsonb', 'ARRAY', 'character varying')
       and c.is_generated = 'NEVER' order by 1, 2`,
  );
  expect(columns.length).toBeGreaterThan(150);
  const found: string[] = [];
  for (const { table, column } of columns) {
    const [row] = await ask<{ n: number }>(
      `select count(*)::int as n from "${table}" where "${column}"::text ilike '%' || $1 || '%'`,
      [word],
    );
    if (row && row.n > 0) found.push(`${table}.${column}`);
  }
  return found;
}

describe('a client who is erased', () => {
  it('is nowhere any more, and what was done for them stands with its dates', async () => {
    const { body: added } = await ines
      .post('/api/clients')
      .send({
        ...{
          name: 'Quillfeather Marsh',
          address: 'Marshlight Row 3',
          usualPersonId: null,
          notes: 'Quillfeather likes tea',
          fields: {},
        },
        contacts: [
          {
            id: randomUUID(),
            name: 'Osric Quillfeather',
            role: 'owner',
            email: 'osric@quillfeather.example',
            telephone: '01632 960 555',
            prefers: 'mail',
          },
          {
            id: randomUUID(),
            name: 'The office',
            role: '',
            email: 'Office@shared.example',
            telephone: '',
            prefers: null,
          },
        ],
      })
      .expect(200);
    const { id } = added.client;
    // Somebody else has the same office: what went there about them is theirs.
    const { body: teal } = await ines
      .post('/api/clients')
      .send({
        ...{ name: 'Teal Reach', address: '', usualPersonId: null, notes: '', fields: {} },
        contacts: [
          { id: randomUUID(), name: 'Office', role: '', email: 'office@shared.example', telephone: '', prefers: null },
        ],
      })
      .expect(200);
    const { body: boat } = await ines
      .post('/api/assets')
      .send({
        clientId: id,
        siteId: null,
        isSite: false,
        name: 'Quillfeather Gull',
        tag: 'QF-1',
        place: 'Q 1',
        fields: {},
        servesFrom: null,
        servesUntil: null,
      })
      .expect(200);
    // A year of work as the demo's other clients have it: made theirs, with all that hangs on it.
    const [other] = await ask<{ id: string }>(
      `select client_id as id from task where client_id in (select client_id from notice) and client_id in (select client_id from mail) group by 1 order by count(*) desc limit 1`,
    );
    for (const table of ['task', 'mail', 'notice', 'answer', 'call', 'client_link'])
      await ask(`update ${table} set client_id = $1 where client_id = $2`, [id, other?.id]);
    await ask(
      `update task set title = title || ' for Quillfeather Marsh', note = 'Osric Quillfeather was there', held_reason = null where client_id = $1`,
      [id],
    );
    const [task] = await ask<{ id: string; workspaceId: string }>(
      `select id, workspace_id as "workspaceId" from task where client_id = $1 and state = 'open' order by due_on desc limit 1`,
      [id],
    );
    await ines
      .post(`/api/tasks/${task?.id}/start`)
      .send({})
      .expect((answer) => void expect([200, 404, 409, 422]).toContain(answer.status));
    await ask(
      `update mail set to_name = 'Osric Quillfeather', to_email = 'osric@quillfeather.example', text = 'Dear Quillfeather', html = 'Dear Quillfeather' where client_id = $1`,
      [id],
    );
    await ask(
      `update message set title = 'Quillfeather Marsh', text = 'opened by Osric Quillfeather' where id in (select id from message limit 3)`,
    );
    // Also where it never found its way to the client's page: a mail to somebody here, a list on its way in.
    await ask(
      `update mail set text = 'Osric Quillfeather opened it' where client_id is null and id in (select id from mail where client_id is null limit 2)`,
    );
    await ines
      .post('/api/bring-ins')
      .field('kind', 'tasks')
      .attach('file', Buffer.from('task,due,client\nSee to it,2026-12-04,Quillfeather Marsh'), 'tasks.csv')
      .expect(200);
    const [shared] = await ask<{ id: string }>(
      `update mail set client_id = $1, to_email = 'office@shared.example', text = 'Dear Teal Reach' where id = (select id from mail where client_id is null and state = 'sent' order by id desc limit 1) returning id`,
      [teal.client.id],
    );
    expect(shared).toBeDefined();
    const before = await placesOf('Quillfeather');
    expect(before.length).toBeGreaterThan(6);
    const facts = () =>
      ask(
        `select id, state, due_on, done_at, done_by, estimate_minutes, on_time from task where client_id = $1 order by id`,
        [id],
      );
    const standing = await facts();

    await ines.post(`/api/clients/${id}/erase`).send({ name: 'Quillfeather Marsh' }).expect(409);
    await ines.put(`/api/clients/${id}/archived`).send({ archived: true }).expect(200);
    const { body: look } = await ines.get(`/api/clients/${id}/erasing`).expect(200);
    expect(look).toMatchObject({
      name: 'Quillfeather Marsh',
      whyNot: null,
      contacts: 2,
      shared: ['Office@shared.example'],
      assets: 1,
      tasks: standing.length,
    });
    expect(look.mails + look.letters).toBeGreaterThan(0);
    const { body: wrong } = await ines.post(`/api/clients/${id}/erase`).send({ name: 'Quillfeather' }).expect(422);
    expect(wrong.errors[0].message).toBe('Write the name as it stands: Quillfeather Marsh.');
    const maud = await server.browser('Maud Ferrier');
    await maud.post(`/api/clients/${id}/erase`).send({ name: 'Quillfeather Marsh' }).expect(403);

    await ines.post(`/api/clients/${id}/erase`).send({ name: 'Quillfeather Marsh' }).expect(200);
    expect(await placesOf('Quillfeather')).toEqual([]);
    expect(await placesOf('Marshlight')).toEqual([]);
    expect(await placesOf('QF-1')).toEqual([]);
    const left = await ask(`select text, to_email as "to" from mail where to_email ilike 'office@shared.example'`);
    expect(left).toEqual([{ text: 'Dear Teal Reach', to: 'office@shared.example' }]);
    // As many as was told before.
    const [gone] = await ask<{ n: number }>(
      `select (select count(*)::int from mail where to_name = 'erased') + (select count(*)::int from answer where from_name = 'erased') as n`,
    );
    expect(gone?.n).toBe(look.mails);
    expect(await facts()).toEqual(standing);
    const { body: history } = await ines.get(`/api/clients/${id}/history`).expect(200);
    expect(history.entries[0]).toMatchObject({
      said: 'erased: name, contacts, notes and pictures, for good',
      by: 'Ines Calloway',
      undo: null,
    });
    await ines.get(`/api/clients/${id}`).expect(200);
    expect(await ask('select name from asset where id = $1', [boat.asset.id])).toEqual([{ name: 'Asset 1, erased' }]);
    expect(await ask(`select 1 from mail where client_id = $1 and state = 'waiting'`, [id])).toEqual([]);
  });
});

describe('a person who is erased', () => {
  it('is nowhere any more once they have left, and what they did stands with its dates', async () => {
    const [person] = await ask<{ id: string }>(
      `select p.id from person p join task t on t.done_by = p.id where p.name not in ('Ines Calloway', 'Maud Ferrier') group by p.id order by count(*) desc limit 1`,
    );
    const id = person?.id ?? '';
    await ask(`update person set name = 'Wilmot Sandpiper', telephone = '01632 999 444' where id = $1`, [id]);
    await ask(
      `update account set email = 'wilmot@sandpiper.example' where id = (select account_id from person where id = $1)`,
      [id],
    );
    await ask(
      `update task set note = 'Sandpiper wrote this', title = title || ', Wilmot Sandpiper' where done_by = $1`,
      [id],
    );
    await ask(`update task_comment set text = 'says Sandpiper' where by = $1`, [id]);
    await ask(
      `update task set answers = jsonb_set(answers, array[key, 'value'], '"Sandpiper has seen it"')
       from (select t.id as of, a.key from task t join work_content w on w.workspace_id = t.workspace_id and w.id = t.content_id,
         jsonb_each(t.answers) a where a.value->>'by' = $1::text and exists (select from jsonb_path_query(
           jsonb_build_array(w.demands, w.check_lines), '$.** ? (@.kind == "text" || @.kind == "note" || @.kind == "longText")') d where d->>'key' = a.key)) one
       where task.id = one.of`,
      [id],
    );
    await ask(`update message set text = 'Wilmot Sandpiper did it' where id in (select id from message limit 3)`);
    await ask(`update mail set text = 'Wilmot Sandpiper did it' where id in (select id from mail limit 3)`);
    const facts = () =>
      ask(`select id, state, due_on, done_at, done_by, assignee_id, on_time from task where done_by = $1 order by id`, [
        id,
      ]);
    const standing = await facts();
    expect(standing.length).toBeGreaterThan(20);
    const { body: refused } = await ines.post(`/api/people/${id}/erase`).send({ name: 'Wilmot Sandpiper' }).expect(409);
    expect(refused.detail ?? refused.title).toContain('They still work here');
    await ask(`update person set works_until = '2026-11-01' where id = $1`, [id]);
    const { body: look } = await ines.get(`/api/people/${id}/erasing`).expect(200);
    expect(look).toMatchObject({ name: 'Wilmot Sandpiper', whyNot: null, shared: [], contacts: 0 });
    expect(look.notes).toBeGreaterThan(20);
    await ines.post(`/api/people/${id}/erase`).send({ name: 'Wilmot Sandpiper' }).expect(200);
    expect(await placesOf('Sandpiper')).toEqual([]);
    expect(await facts()).toEqual(standing);
    const { body: history } = await ines.get(`/api/people/${id}/history`).expect(200);
    expect(history.entries[0]).toMatchObject({
      said: 'erased: name, contact, notes and pictures, for good',
      undo: null,
    });
    const [me] = await ask<{ id: string }>(`select id from person where name = 'Ines Calloway'`);
    await ines.post(`/api/people/${me?.id}/erase`).send({ name: 'Ines Calloway' }).expect(409);
  });
});
