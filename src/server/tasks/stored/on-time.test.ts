import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Agent, type TestServer, testServer } from '../../testing/test-server.ts';
import { linesOf } from './index.ts';
import { lookOfRow, type TaskRow } from './task-row.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

/** As it is told of each task by the core, against what the database keeps. */
async function expectKept(): Promise<number> {
  const scope = await server.scope();
  const rows = await scope.sql<TaskRow>(linesOf('select id from task where workspace_id = $1'));
  const kept = await scope.sql<{ id: string; on_time: boolean | null }>(
    'select id, on_time from task where workspace_id = $1',
  );
  const byId = new Map(kept.map(({ id, on_time }) => [id, on_time]));
  const told = rows.map((row) => [row.id, row.doneAt === null ? null : !lookOfRow(scope, row).late]);
  expect(Object.fromEntries(told)).toEqual(Object.fromEntries(byId));
  return kept.filter(({ on_time }) => on_time === false).length;
}

describe('whether a task was on time', () => {
  it('stands with it as the core tells it, however it is finished, taken back, moved or deleted', async () => {
    const late = await expectKept();
    expect(late).toBeGreaterThan(100);
    const [[open]] = await server.source.query(
      `update task set due_on = '2026-11-20' where id = (
         select t.id from task t join work_content c on c.id = t.content_id
         where t.state = 'open' and c.demands = '[]' and c.check_lines = '[]' and c.sign_off is null limit 1)
       returning id, version`,
    );
    const deed = (deed: object, version: number) =>
      ines
        .post('/api/tasks/changes')
        .send({ tasks: [{ id: open.id, version }], deed })
        .expect(200);
    const { body } = await deed({ kind: 'finish', note: '' }, open.version);
    expect(await expectKept()).toBe(late + 1);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await expectKept()).toBe(late);
    await server.source.query(`update task set due_on = due_on + 30 where id = $1`, [open.id]);
    await deed({ kind: 'finish', note: '' }, open.version + 2);
    expect(await expectKept()).toBe(late);
    await server.source.query(`update task set due_on = due_on - 30 where id = $1`, [open.id]);
    expect(await expectKept()).toBe(late + 1);
  });

  it('is told anew where the workspace moves to another zone, but for what is meant in a zone of its own', async () => {
    const before = await expectKept();
    await server.source.query(`update workspace set zone = 'Pacific/Kiritimati' where name = 'Tern Quay'`);
    const after = await expectKept();
    expect(after).toBeGreaterThan(before);
    await server.source.query(`update workspace set zone = 'Europe/London' where name = 'Tern Quay'`);
    expect(await expectKept()).toBe(before);
  });
});
