import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { seedWhenEmpty } from '../../demo/seed.ts';
import { clockFrom } from './clock.ts';
import { startServer } from './server.ts';

/** The process: reads its settings from the environment, starts, and stops on a signal. */
const {
  DATABASE_URL,
  JOLLY_FILES,
  PORT = '4180',
  JOLLY_NOW,
  JOLLY_DEMO = 'yes',
  JOLLY_ROLES = 'web,worker',
  LOG_LEVEL = 'warn',
} = process.env;

async function main(): Promise<void> {
  if (!DATABASE_URL)
    throw new Error('DATABASE_URL is not set: it should name a PostgreSQL database. `npm start` brings its own.');
  if (!JOLLY_FILES)
    throw new Error(
      'JOLLY_FILES is not set: it should name a folder for pictures and PDFs. `npm start` brings its own.',
    );
  const port = Number(PORT);
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new Error(`PORT is “${PORT}”: it should be a number from 1 to 65535.`);
  const clock = clockFrom(JOLLY_NOW);
  const log = pino({ level: LOG_LEVEL }, pino.destination(2));
  const roles = new Set(JOLLY_ROLES.split(','));
  const server = await startServer({
    databaseUrl: DATABASE_URL,
    filesFolder: JOLLY_FILES,
    port,
    clock,
    log,
    webFolder: resolve(dirname(fileURLToPath(import.meta.url)), '../web'),
    roles: { web: roles.has('web'), worker: roles.has('worker') },
    prepare: (source, files) =>
      JOLLY_DEMO === 'no'
        ? Promise.resolve()
        : seedWhenEmpty(source, files, clock, { withEmptyWorkspace: JOLLY_DEMO === 'with-empty' }),
  });
  const stop = () => {
    server.stop().then(
      () => process.exit(0),
      (error: unknown) => {
        log.error({ err: error }, 'could not stop cleanly');
        process.exit(1);
      },
    );
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  // Started by scripts/start.mjs: when that is gone, so are we.
  process.once('disconnect', stop);
  // Whoever started us (scripts/start.mjs) waits for this message, to say where to look.
  process.send?.({ ready: true, port: server.port });
}

main().catch((error: unknown) => {
  const code = error instanceof Error && 'code' in error ? error.code : null;
  const message = error instanceof Error ? error.message : String(error);
  console.error(
    code === 'EADDRINUSE'
      ? `Port ${PORT} is taken by another program. Choose one with PORT=4181 npm start.`
      : `Jolly Rota could not start: ${message}`,
  );
  process.exit(1);
});
