import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { silent, type TestServer, testServer } from '../testing/test-server.ts';
import { Listener } from './listener.ts';
import { Touched } from './touched.ts';

let server: TestServer;
let listener: Listener;
let touched: Touched;
let workspace: string;
let schedules: string[];
beforeAll(async () => {
  server = await testServer();
  listener = new Listener(server.databaseUrl, silent);
  touched = new Touched(listener);
  await listener.listen();
  workspace = (await server.scope()).workspace.id;
  schedules = (
    await ask<{ id: string }>('select id from schedule where workspace_id = $1 order by id limit 120', [workspace])
  ).map(({ id }) => id);
});
afterAll(async () => {
  await listener.close();
  await server.stop();
});

const ask = <Row>(text: string, params: unknown[] = []) => server.source.query<Row[]>(text, params);
const now = async () => (await touched.since(workspace, 1)).moment;
const touchedBy = async (deed: () => Promise<unknown>) => {
  const moment = await now();
  await deed();
  const since = await touched.since(workspace, moment);
  return since.schedules && [...since.schedules].sort();
};

describe('what was touched', () => {
  it('is nothing while nothing is, and any schedule for who asks for the first time', async () => {
    expect(await touchedBy(async () => undefined)).toEqual([]);
    expect((await touched.since(workspace, 0)).schedules).toBe(null);
  });

  it.each([
    ['a schedule', 'update schedule set settled_to = settled_to where id = $1'],
    [
      'a task of it',
      'update task set due_on = due_on + 1 where id = (select min(id::text)::uuid from task where schedule_id = $1)',
    ],
    [
      'a task of it that goes',
      'delete from task where id = (select max(id::text)::uuid from task where schedule_id = $1)',
    ],
  ])('is the schedule by %s, known to whoever asks right after it', async (_, sql) => {
    for (const id of schedules.slice(0, 20)) expect(await touchedBy(() => ask(sql, [id]))).toEqual([id]);
  });

  it('is several at once, and any of them where they are many', async () => {
    const touch = (ids: readonly string[]) =>
      touchedBy(() => ask('update schedule set settled_to = settled_to where id = any($1::uuid[])', [ids]));
    expect(await touch(schedules.slice(0, 30))).toEqual(schedules.slice(0, 30).sort());
    expect(await touchedBy(() => ask('update task set due_on = due_on + 1'))).not.toEqual([]);
    expect(await touchedBy(() => ask(`update task set note = 'seen', assignee_id = null`))).toEqual([]);
    expect(await touchedBy(() => ask(`insert into holiday select id, '2027-01-07', 'Regatta' from workspace`))).toBe(
      null,
    );
  });

  it.each(['template', 'client', 'asset', 'person'])('is any of them by a %s', async (table) => {
    expect(
      await touchedBy(() =>
        ask(`update ${table} set name = name where id = (select min(id::text)::uuid from ${table})`),
      ),
    ).toBe(null);
  });

  it('is nothing by what a workspace keeps besides its week and zone, and by what is given up', async () => {
    expect(await touchedBy(() => ask('update workspace set made_on = made_on'))).toEqual([]);
    expect(await touchedBy(() => ask('update workspace set working_weekdays = working_weekdays'))).toBe(null);
    const client = new pg.Client({ connectionString: server.databaseUrl });
    await client.connect();
    const given = await touchedBy(async () => {
      await client.query('begin');
      await client.query('update schedule set settled_to = settled_to where id = $1', [schedules[0]]);
      await client.query('rollback');
    });
    await client.end();
    expect(given).toEqual([]);
  });

  it('is any of them after the connection was lost', async () => {
    const moment = await now();
    await ask(
      `select pg_terminate_backend(pid) from pg_stat_activity where query like '%pg_notify%' and pid <> pg_backend_pid()`,
    );
    await vi.waitFor(() => expect(listener.isListening).toBe(false));
    expect((await touched.since(workspace, moment)).schedules).toBe(null);
    await vi.waitFor(() => expect(listener.isListening).toBe(true), { timeout: 5000 });
    expect((await touched.since(workspace, moment)).schedules).toBe(null);
    expect(await touchedBy(async () => undefined)).toEqual([]);
  });
});
