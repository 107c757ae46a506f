import { createServer, type Server } from 'node:http';
import { join, resolve } from 'node:path';
import pg from 'pg';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { application } from './application.ts';
import { dataSource, migrated } from './data-source.ts';
import { FileStore } from './files/stored/index.ts';
import type { Clock } from './platform/clock.ts';
import { type Addresses, LOOPBACK_ONLY } from './platform/http/addresses.ts';
import type { HeavyLane } from './platform/http/heavy-lane.ts';
import { sessionSecret } from './platform/http/session.ts';
import { Workspace } from './platform/identity/workspace.ts';
import { Listener } from './platform/listener.ts';
import { LiveStream } from './platform/live.ts';
import { Touched, tellTouched } from './platform/touched.ts';
import type { MailServer } from './post/index.ts';
import { keepWarm } from './warming.ts';
import { type Inbound, startWorker } from './worker.ts';

export interface ServerOptions {
  readonly databaseUrl: string;
  /** Where the bytes of files are kept. */
  readonly filesFolder: string;
  /** Where backups lie; left out, beside the files. */
  readonly backupsFolder?: string | null;
  readonly port: number;
  readonly clock: Clock;
  readonly log: Logger;
  /** Folder of the built browser side; null to serve the API alone. */
  readonly webFolder: string | null;
  readonly roles: { readonly web: boolean; readonly worker: boolean };
  /** Called once the tables are there and before anyone can sign in. */
  readonly prepare: (source: DataSource, files: FileStore) => Promise<void>;
  readonly addresses?: Addresses;
  /** Opens the first page while there is no workspace. */
  readonly setupKey?: string | null;
  /** The mail server outside, and whom mails are from; left out, the stand-in takes them. */
  readonly mail?: Pick<MailServer, 'url' | 'from'> | null;
  /** Whether programs inside our own network are told of what happens; left out, they are not. */
  readonly tellsInside?: boolean;
  /** Where answers come to, where that is not the stand-in's own address. */
  readonly inbound?: Inbound | null;
  /** Whether what lists are told from is told before anybody asks; left out, whoever comes first waits. */
  readonly keepsWarm?: boolean;
  /** Where heavy work is done; left out, it is done here. */
  readonly lane?: HeavyLane;
  /** Where this is a heavy lane: the key that the front shows with each request. */
  readonly laneKey?: string;
}

export interface RunningServer {
  /** The port it listens on; null when it serves no web. */
  readonly port: number | null;
  /** Whether there is no workspace yet. */
  readonly isEmpty: boolean;
  stop(): Promise<void>;
}

/** Two processes that start at once must not migrate at once: the second waits for the first. */
const MIGRATION_LOCK = 7_402_611;

/** Connections to the database, apart from each other by what they are for: none of it waits for what others hold. */
const CONNECTIONS = { reads: 6, writes: 6, sessions: 3, worker: 5 } as const;

/** Migrates, prepares, and starts the web and the worker. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const { databaseUrl, clock, log, roles } = options;
  const writes = await dataSource(databaseUrl, { connections: CONNECTIONS.writes }).initialize();
  const files = await FileStore.at(options.filesFolder);
  await migrate(databaseUrl, (prepared) => options.prepare(prepared, files));
  const pool = poolOf(databaseUrl, CONNECTIONS.worker, log);
  const worker = roles.worker
    ? await startWorker({
        source: writes,
        pool,
        clock,
        log,
        files,
        backups: backupsOf(options),
        tellsInside: options.tellsInside ?? false,
        origin: originOf(options),
        mail: options.mail ?? null,
        inbound: options.inbound ?? null,
      })
    : null;
  const web = roles.web ? await startWeb(options, { writes, pool, files }) : null;
  return {
    port: web?.port ?? null,
    isEmpty: !(await writes.getRepository(Workspace).exists()),
    async stop() {
      await web?.stop();
      await worker?.stop();
      await pool.end();
      await files.close();
      await writes.destroy();
    },
  };
}

/** The sweep of files looks at files alone, so a folder among them is left in peace. */
const backupsOf = ({ backupsFolder, filesFolder }: ServerOptions): string =>
  resolve(backupsFolder ?? join(filesFolder, 'backups'));

/** Under which this server is reached, as far as it knows. */
const originOf = ({ addresses, port }: ServerOptions): string => addresses?.publicOrigin ?? `http://127.0.0.1:${port}`;

function poolOf(connectionString: string, max: number, log: Logger): pg.Pool {
  const pool = new pg.Pool({ connectionString, max });
  const warn = (error: Error) => log.warn({ err: error }, 'a database connection broke');
  pool.on('error', warn);
  pool.on('connect', (client) => client.on('error', warn));
  return pool;
}

async function migrate(databaseUrl: string, prepare: (source: DataSource) => Promise<void>): Promise<void> {
  const source = await dataSource(databaseUrl, { longestMs: 0 }).initialize();
  const runner = source.createQueryRunner();
  try {
    await runner.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    const ran = await migrated(source, databaseUrl);
    await prepare(source);
    // New tables and indexes have no statistics yet, and a plan that is chosen without them can be any.
    if (ran > 0) await source.query('analyze');
  } finally {
    await runner.query('select pg_advisory_unlock($1)', [MIGRATION_LOCK]);
    await runner.release();
    await source.destroy();
  }
}

interface WebParts {
  readonly writes: DataSource;
  readonly pool: pg.Pool;
  readonly files: FileStore;
}

async function startWeb(
  options: ServerOptions,
  { writes, pool, files }: WebParts,
): Promise<{ readonly port: number | null; stop(): Promise<void> }> {
  const {
    databaseUrl,
    port,
    clock,
    log,
    webFolder,
    addresses = LOOPBACK_ONLY,
    setupKey = null,
    mail = null,
    lane,
    laneKey,
  } = options;
  const reads = await dataSource(databaseUrl, { connections: CONNECTIONS.reads }).initialize();
  const sessionPool = poolOf(databaseUrl, CONNECTIONS.sessions, log);
  const listener = new Listener(databaseUrl, log);
  const live = new LiveStream(listener, log);
  tellTouched(reads, new Touched(listener));
  await listener.listen();
  const app = application(
    {
      reads,
      writes,
      pool,
      sessionPool,
      live,
      files,
      clock,
      log,
      addresses,
      lane: lane ?? null,
      setupKey,
      mailEndsHere: mail === null,
      tellsInside: options.tellsInside ?? false,
      backups: backupsOf(options),
      sessionSecret: await sessionSecret(writes),
    },
    { webFolder, laneKey: laneKey ?? null },
  );
  const warming = options.keepsWarm ? keepWarm({ source: reads, clock, log }) : null;
  const server = createServer(app);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  return {
    port: portOf(server),
    async stop() {
      const gone = closed(server);
      live.close();
      warming?.stop();
      await gone;
      await listener.close();
      await sessionPool.end();
      await reads.destroy();
    },
  };
}

/** How long those who are being answered are waited for, and how often it is seen to who still is. */
const LAST_ANSWERS_MS = 5_000;
const LOOKED_AFTER_MS = 50;

/** Nobody else is let in; whoever is being answered gets their answer, unless that takes too long. */
async function closed(server: Server): Promise<void> {
  // A connection that has had its answer would be kept for the next question.
  const idle = setInterval(() => server.closeIdleConnections(), LOOKED_AFTER_MS);
  const last = setTimeout(() => server.closeAllConnections(), LAST_ANSWERS_MS);
  await new Promise((resolve) => server.close(resolve));
  clearInterval(idle);
  clearTimeout(last);
}

function portOf(server: Server): number | null {
  const address = server.address();
  return typeof address === 'object' && address ? address.port : null;
}
