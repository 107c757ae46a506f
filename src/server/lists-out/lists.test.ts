import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.stop());

/** A list as a spreadsheet would read it: its head, and each line by the names in it. */
async function taken(list: string): Promise<readonly Record<string, string>[]> {
  const ines = await server.browser('Ines Calloway');
  const { text } = await ines.get(`/api/lists/${list}`).expect(200);
  const { data, errors } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: true,
  });
  expect(errors).toEqual([]);
  return data;
}

describe('a list that is taken out', () => {
  it('has every template that is in use, with a line for each step, and how many schedules use it', async () => {
    const lines = await taken('templates');
    const rows = await server.source.query<{ name: string; schedules: string; steps: number }[]>(
      `select t.name, jsonb_array_length(t.steps) as steps,
         (select count(*) from schedule s where s.template_id = t.id and s.deleted_at is null) as schedules
       from template t where archived_at is null`,
    );
    const wanted = rows.map(({ name, schedules, steps }) => `${name}: ${schedules}, ${steps}`);
    const said = rows.map(({ name }) => {
      const own = lines.filter((line) => line['template'] === name);
      return `${name}: ${own[0]?.['schedules'] ?? ''}, ${own.filter(({ step }) => step !== '').length}`;
    });
    expect(said).toEqual(wanted);
    expect(new Set(lines.map((line) => line['template'])).size).toBe(rows.length);
  });

  it('has every task that fits, in the order of its days, as CSV and as JSON', async () => {
    const ines = await server.browser('Ines Calloway');
    const rows = await server.source.query<{ title: string; due: string; who: string | null }[]>(
      `select t.title, t.due_on::text as due, p.name as who from task t join workspace w on w.id = t.workspace_id and w.name = 'Tern Quay'
         left join person p on p.id = t.assignee_id order by t.due_on, t.id`,
    );
    expect(rows.length).toBeGreaterThan(2_500);
    const csv = await taken('tasks');
    expect(csv.map((line) => [line['task'], line['due'], line['who']])).toEqual(
      rows.map(({ title, due, who }) => [title, due, who ?? '']),
    );
    const { body, headers } = await ines.get('/api/lists/tasks?as=json').expect(200);
    expect(headers['content-type']).toContain('application/json');
    expect(body.map((task: Record<string, string | null>) => [task['task'], task['due'], task['who']])).toEqual(
      rows.map(({ title, due, who }) => [title, due, who]),
    );
    const { body: late } = await ines.get('/api/lists/tasks?as=json&are=late').expect(200);
    const { body: sums } = await ines.get('/api/task-list/sums?are=late').expect(200);
    expect([late.length, late.length > 0]).toEqual([sums.count, true]);
    expect((await ines.get('/api/lists/tasks?as=json&find=nothing-like-it').expect(200)).body).toEqual([]);
    await ines.get('/api/lists/tasks?as=xml').expect(422);
    // What looks like a formula is none in a spreadsheet, and is itself for a program.
    await server.source.query(
      `update task set note = '=1+1' where id = (select id from task where state = 'open' limit 1)`,
    );
    expect((await ines.get('/api/lists/tasks').expect(200)).text).toContain("'=1+1");
    expect((await ines.get('/api/lists/tasks?as=json').expect(200)).text).toContain('"=1+1"');
  });

  it('has every schedule, and is nobody’s who may not plan', async () => {
    const [all] = await server.source.query<{ count: number }[]>(
      'select count(*)::int as count from schedule where deleted_at is null',
    );
    expect((await taken('schedules')).length).toBe(all?.count);
    const nadia = await server.browser('Nadia Orme');
    for (const list of ['templates', 'schedules', 'clients', 'people', 'assets'])
      await nadia.get(`/api/lists/${list}`).expect(403);
  });
});
