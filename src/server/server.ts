import { createServer, type Server } from 'node:http';
import pg from 'pg';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import type { Clock } from './clock.ts';
import { dataSource } from './db/data-source.ts';
import { FileStore } from './files/store.ts';
import type { ServerParts } from './http/api.ts';
import { application } from './http/application.ts';
import { LiveStream } from './http/live.ts';
import { sessionSecret } from './http/session.ts';
import { startWorker } from './jobs/worker.ts';

export interface ServerOptions {
  readonly databaseUrl: string;
  /** Where the bytes of files are kept. */
  readonly filesFolder: string;
  readonly port: number;
  readonly clock: Clock;
  readonly log: Logger;
  /** Folder of the built browser side; null to serve the API alone. */
  readonly webFolder: string | null;
  readonly roles: { readonly web: boolean; readonly worker: boolean };
  /** Called once the tables are there and before anyone can sign in. */
  readonly prepare: (source: DataSource, files: FileStore) => Promise<void>;
}

export interface RunningServer {
  /** The port it listens on; null when it serves no web. */
  readonly port: number | null;
  stop(): Promise<void>;
}

/** Two processes that start at once must not migrate at once: the second waits for the first. */
const MIGRATION_LOCK = 7_402_611;

/** Migrates, prepares, and starts the web and the worker. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const { databaseUrl, clock, log, roles } = options;
  const source = await dataSource(databaseUrl).initialize();
  const files = await FileStore.at(options.filesFolder);
  await migrate(source, (prepared) => options.prepare(prepared, files));
  const pool = new pg.Pool({ connectionString: databaseUrl, max: 8 });
  const warn = (error: Error) => log.warn({ err: error }, 'a database connection broke');
  pool.on('error', warn);
  pool.on('connect', (client) => client.on('error', warn));
  const live = new LiveStream(databaseUrl, log);
  const worker = roles.worker ? await startWorker({ source, pool, clock, log, files }) : null;
  const web = roles.web ? await startWeb(options, { source, pool, live, files }) : null;
  return {
    port: web && portOf(web),
    async stop() {
      await live.close();
      if (web) {
        web.closeAllConnections();
        await new Promise((resolve) => web.close(resolve));
      }
      await worker?.stop();
      await pool.end();
      await source.destroy();
    },
  };
}

async function migrate(source: DataSource, prepare: (source: DataSource) => Promise<void>): Promise<void> {
  const runner = source.createQueryRunner();
  try {
    await runner.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    await source.runMigrations({ transaction: 'each' });
    await prepare(source);
  } finally {
    await runner.query('select pg_advisory_unlock($1)', [MIGRATION_LOCK]);
    await runner.release();
  }
}

async function startWeb(
  { port, clock, log, webFolder }: ServerOptions,
  parts: Pick<ServerParts, 'source' | 'pool' | 'live' | 'files'>,
): Promise<Server> {
  await parts.live.listen();
  const app = application({ ...parts, clock, log, sessionSecret: await sessionSecret(parts.source) }, webFolder);
  const server = createServer(app);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  return server;
}

function portOf(server: Server): number | null {
  const address = server.address();
  return typeof address === 'object' && address ? address.port : null;
}
