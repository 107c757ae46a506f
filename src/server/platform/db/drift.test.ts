import { expect, it } from 'vitest';
import { testServer } from '../../testing/test-server.ts';

it('entities and migrations say the same of every table', async () => {
  const server = await testServer();
  const { upQueries } = await server.source.driver.createSchemaBuilder().log();
  expect(upQueries.map(({ query }) => query)).toEqual([]);
  await server.stop();
});
