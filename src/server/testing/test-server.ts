import { randomBytes } from 'node:crypto';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { pino } from 'pino';
import supertest from 'supertest';
import type { DataSource } from 'typeorm';
import { inject } from 'vitest';
import { dataSource } from '../data-source.ts';
import { LOOPBACK_ONLY } from '../platform/http/addresses.ts';
import { Person } from '../platform/identity/person.ts';
import { Workspace } from '../platform/identity/workspace.ts';
import { Scope } from '../platform/scope.ts';
import { type ServerOptions, startServer } from '../server.ts';
import { TEST_NOW, type TestClock, testClock } from './clock.ts';

/** Says nothing. */
export const silent = pino({ level: 'silent' });

export type Agent = ReturnType<typeof supertest.agent>;

export interface TestServer {
  readonly address: string;
  readonly databaseUrl: string;
  readonly filesFolder: string;
  readonly source: DataSource;
  readonly clock: TestClock;
  /** A browser of nobody's, or of someone who has stepped in by name. */
  browser(name?: string): Promise<Agent>;
  scope(workspaceName?: string): Promise<Scope>;
  person(name: string): Promise<Person>;
  stop(): Promise<void>;
}

let admins: pg.Pool | null = null;

/** The one connection by which databases come and go, kept for all files of a worker. */
function admin(): pg.Pool {
  admins ??= new pg.Pool({
    connectionString: inject('databaseUrl'),
    ...{ max: 1, idleTimeoutMillis: 0, allowExitOnIdle: true },
  });
  return admins;
}

/** The real server on a copy of the seeded Tern Quay, without the worker unless asked for. */
export async function testServer({
  worker = false,
  log = silent,
  addresses = LOOPBACK_ONLY,
  webFolder = null,
  tellsInside = false,
}: Partial<Pick<ServerOptions, 'log' | 'addresses' | 'webFolder' | 'tellsInside'>> & {
  readonly worker?: boolean;
} = {}): Promise<TestServer> {
  const name = `t_${randomBytes(6).toString('hex')}`;
  await admin().query(`create database ${name} template tern_quay`);
  const url = new URL(inject('databaseUrl'));
  url.pathname = `/${name}`;
  const databaseUrl = url.toString();
  const clock = testClock(TEST_NOW);
  const filesFolder = await mkdtemp(join(tmpdir(), 'jolly-files-'));
  await cp(inject('seedFiles'), filesFolder, { recursive: true });
  const server = await startServer({
    databaseUrl,
    filesFolder,
    port: 0,
    clock,
    log,
    addresses,
    webFolder,
    tellsInside,
    roles: { web: true, worker },
    prepare: async () => undefined,
  });
  const source = await dataSource(databaseUrl).initialize();
  if (worker) await untilIdle(source);
  const address = `http://127.0.0.1:${server.port}`;
  const person = (who: string) => source.getRepository(Person).findOneByOrFail({ name: who });
  return {
    address,
    databaseUrl,
    filesFolder,
    source,
    clock,
    person,
    async browser(who) {
      const agent = supertest.agent(address).set('Origin', address);
      if (who)
        await agent
          .post('/api/session/demo')
          .send({ personId: (await person(who)).id })
          .expect(200);
      return agent;
    },
    async scope(workspaceName = 'Tern Quay') {
      return Scope.on(
        source,
        await source.getRepository(Workspace).findOneByOrFail({ name: workspaceName }),
        null,
        clock,
      );
    },
    async stop() {
      await server.stop();
      // Whatever a test has done, the counts that are kept of ended tasks are those of the tasks.
      await source.query(MISCOUNTED).then(
        (found) => {
          if (found.length > 0) throw new Error(`Kept counts differ from the tasks: ${JSON.stringify(found)}`);
        },
        // A test that took the schema back to before there were any.
        (error: unknown) => {
          if (!String(error).includes('ended_count')) throw error;
        },
      );
      await source.destroy();
      await rm(filesFolder, { recursive: true, force: true });
      await admin().query(`drop database ${name} with (force)`);
    },
  };
}

const MISCOUNTED = `
  select of.workspace_id, of.due_on, of.state, of.on_time, sum(of.n)::int as n from (
    select workspace_id, due_on, state, on_time, -n as n from ended_count
    union all
    select workspace_id, due_on, state, on_time, count(*) from task where state not in ('open', 'underWay') group by 1, 2, 3, 4
  ) of group by 1, 2, 3, 4 having sum(of.n) <> 0 limit 5`;

/** What the start has put into the queue is done: a test that sets the clock is not met by it half way. */
async function untilIdle(source: DataSource): Promise<void> {
  for (let tries = 0; tries < 200; tries++) {
    const [row] = await source.query<{ waiting: number }[]>('select count(*) as waiting from graphile_worker.jobs');
    if (row?.waiting === 0) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('The queue is not done with what the start put into it.');
}
