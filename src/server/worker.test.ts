import { afterEach, beforeEach, expect, it } from 'vitest';
import { dataSource } from './data-source.ts';
import { type TestServer, testServer } from './testing/test-server.ts';

let server: TestServer;
beforeEach(async () => {
  server = await testServer({ worker: true });
});
afterEach(() => server.stop());

const jobs = async (which = 'true') => {
  const [row] = await server.source.query<{ n: number }[]>(
    `select count(*)::int as n from graphile_worker._private_jobs where ${which}`,
  );
  return row?.n;
};

it('a queue that broke down as it handed a job back is begun again, as soon as it can be', async () => {
  const other = await dataSource(server.databaseUrl).initialize();
  const holder = other.createQueryRunner();
  await holder.startTransaction();
  // The job stands in its middle for as long as nobody may read workspaces.
  await holder.query('lock table workspace in access exclusive mode');
  await server.source.query(`select graphile_worker.add_job('tick', job_key := 'test')`);
  await expect.poll(() => jobs(`key = 'test' and locked_at is not null`), { timeout: 10_000 }).toBe(1);
  await server.source.query(`
    create function refuse() returns trigger language plpgsql as $$ begin raise exception 'refused'; end $$;
    create trigger no_end before delete on graphile_worker._private_jobs for each row when (old.key = 'test')
      execute function refuse();
    create trigger no_beginning before insert on graphile_worker._private_jobs for each row execute function refuse()`);
  await holder.commitTransaction();
  // It can't be begun for a while either.
  await new Promise((resolve) => setTimeout(resolve, 3_000));
  await server.source.query('drop trigger no_beginning on graphile_worker._private_jobs');
  // What was under way stays with the queue that is gone; a new one takes what comes.
  await server.source.query(`select graphile_worker.add_job('tick', job_key := 'after')`);
  await expect.poll(() => jobs(`key = 'after'`), { timeout: 20_000 }).toBe(0);
  expect(await jobs(`key = 'test'`)).toBe(1);
  await holder.release();
  await other.destroy();
});
