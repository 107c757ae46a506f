import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { build } from './build.mjs';
import { freePort, startPostgres } from './postgres.mjs';
import { CHROMIUM, POSTGRES, requireDebian, requirePackages } from './requirements.mjs';
import { root } from './root.mjs';
import { runScript } from './say.mjs';

/** Files of journeys run beside each other, each worker on a server of its own; what measures or takes pictures runs alone. */
const WORKERS = process.env.ONLY ? 1 : Math.min(2, availableParallelism());

/** Journeys through the real interface: the built server on a fresh, seeded database, at a fixed moment. */
await runScript(async () => {
  requirePackages();
  requireDebian({ ...POSTGRES, ...CHROMIUM });
  await build();
  const folder = join(root, '.cache', 'e2e-postgres');
  rmSync(folder, { recursive: true, force: true });
  for (let index = 0; index < WORKERS; index++)
    rmSync(join(folder, '..', `e2e-files-${index}`), { recursive: true, force: true });
  const postgres = await startPostgres({ folder, fast: true });
  const places = [];
  for (let index = 0; index < WORKERS; index++) places.push(await startServer(postgres, index));
  let code = 1;
  if ((await Promise.all(places.map(({ ready }) => ready))).every(Boolean)) {
    const playwright = spawn(
      process.execPath,
      [
        join(root, 'node_modules', '@playwright', 'test', 'cli.js'),
        'test',
        '--config',
        'e2e/playwright.config.ts',
        ...process.argv.slice(2),
      ],
      {
        cwd: root,
        stdio: 'inherit',
        env: {
          ...process.env,
          BASE_URLS: places.map(({ address }) => address).join(' '),
          DATABASE_URL: places[0].database,
        },
      },
    );
    code = await new Promise((resolve) => playwright.once('exit', resolve));
  }
  for (const { stop } of places) await stop();
  await postgres.stop();
  process.exit(code ?? 1);
});

/** A server with a database of its own, seeded; `ready` is false when it ended before it answered. */
async function startServer(postgres, index) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: postgres.url });
  await client.connect();
  await client.query(`CREATE DATABASE journeys_${index}`);
  await client.end();
  const database = postgres.url.replace(/postgres$/, `journeys_${index}`);
  const port = await freePort();
  const server = spawn(process.execPath, [join(root, 'dist', 'server', 'main.js')], {
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: database,
      JOLLY_FILES: join(postgres.folder, '..', `e2e-files-${index}`),
      PORT: String(port),
      JOLLY_NOW: process.env.JOLLY_NOW ?? '2026-11-24T10:40',
      JOLLY_DEMO: 'with-empty',
    },
  });
  const ended = new Promise((resolve) => server.once('exit', () => resolve(false)));
  const answers = new Promise((resolve) => server.once('message', () => resolve(true)));
  return {
    address: `http://127.0.0.1:${port}`,
    database,
    ready: Promise.race([answers, ended]),
    async stop() {
      server.kill('SIGTERM');
      await ended;
    },
  };
}
