import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TestServer, testServer } from '../../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.stop());

describe('the migration that joins changes', () => {
  it('is taken back and done again with nothing lost: what was changed together stays together', async () => {
    const ines = await server.browser('Ines Calloway');
    const tasks = await server.source.query<{ id: string; version: number }[]>(
      `select id, version from task where state = 'open' and work_on > '2026-12-01' order by id limit 3`,
    );
    const deed = { kind: 'skip', reason: 'Closed.' };
    const { body } = await ines.post('/api/tasks/changes').send({ tasks, deed }).expect(200);
    const joined = () =>
      server.source.query<{ id: string }[]>('select id from change where joined_id = $1 order by id', [body.changeId]);
    const before = await joined();
    expect(before).toHaveLength(3);
    // Every one that came after it, and then itself.
    for (let last = ''; last !== 'JoinedChanges1764600000000'; ) {
      const [{ name = '' } = {}] = await server.source.query<{ name: string }[]>(
        'select name from migrations order by id desc limit 1',
      );
      await server.source.undoLastMigration({ transaction: 'each' });
      last = name;
    }
    const [whole] = await server.source.query<{ fields: { changes: { from: string[] } } }[]>(
      'select fields from change where id = $1',
      [body.changeId],
    );
    expect(whole?.fields.changes.from).toEqual(before.map(({ id }) => id));
    await server.source.runMigrations({ transaction: 'each' });
    expect(await joined()).toEqual(before);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    const states = await server.source.query<{ state: string }[]>(
      'select distinct state from task where id = any($1::uuid[])',
      [tasks.map(({ id }) => id)],
    );
    expect(states).toEqual([{ state: 'open' }]);
  });
});
