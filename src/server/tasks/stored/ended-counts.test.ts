import { expect, it } from 'vitest';
import { Workspace } from '../../platform/identity/workspace.ts';
import { testServer } from '../../testing/test-server.ts';

it('a workspace goes with its tasks, and with what is counted of them', async () => {
  const server = await testServer();
  const { id } = await server.source.getRepository(Workspace).findOneByOrFail({ name: 'Tern Quay' });
  const left = async (table: string) =>
    (
      await server.source.query<{ n: number }[]>(`select count(*)::int as n from ${table} where workspace_id = $1`, [
        id,
      ])
    )[0]?.n;
  expect(await left('task')).toBeGreaterThan(1000);
  expect(await left('ended_count')).toBeGreaterThan(0);
  await server.source.query('delete from workspace where id = $1', [id]);
  expect([await left('task'), await left('ended_count')]).toEqual([0, 0]);
  await server.stop();
});
