import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { silent, type TestServer, testServer } from '../../testing/test-server.ts';
import { isConnectionLoss, untilDatabaseAnswers } from './outage.ts';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.stop());

describe('the loss of a connection', () => {
  it('is known when it comes between two questions of a transaction, and the work is begun again', async () => {
    const scope = await server.scope();
    const errors: unknown[] = [];
    const answer = await untilDatabaseAnswers(
      () =>
        scope.transaction(async (tx) => {
          const [{ pid = 0 } = {}] = await tx.sql<{ pid: number }>("select pg_backend_pid() as pid where $1 <> ''");
          if (errors.length === 0) {
            await scope.sql("select pg_terminate_backend($2) where $1 <> ''", [pid]);
            // Its end is heard of before the next question is asked.
            await new Promise((resolve) => setTimeout(resolve, 300));
          }
          return tx.sql("select 7 as seven where $1 <> ''").catch((error: unknown) => {
            errors.push(error);
            throw error;
          });
        }),
      silent,
    );
    expect(answer).toEqual([{ seven: 7 }]);
    expect(errors).toHaveLength(1);
    expect(isConnectionLoss(errors[0])).toBe(true);
  });

  it('is not said of a question that was wrong', async () => {
    const scope = await server.scope();
    const error = await scope.sql('select nothing_of_that_name from task').catch((e: unknown) => e);
    expect(error).toBeInstanceOf(Error);
    expect(isConnectionLoss(error)).toBe(false);
  });
});
