import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { freePort } from './postgres.mjs';
import { root } from './root.mjs';

/** When journeys take place. */
const MOMENT = process.env.JOLLY_NOW ?? '2026-11-24T10:40';

/** The built server as journeys use it, at a moment that stands; `ready` is false when it ended before it answered. */
export async function startJourneyServer({ build, database, files, now = MOMENT }) {
  const port = await freePort();
  const server = spawn(process.execPath, [join(root, 'dist', 'server', 'main.js')], {
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: database,
      JOLLY_FILES: files,
      PORT: String(port),
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'error',
      JOLLY_NOW: now,
      JOLLY_DEMO: 'with-empty',
      ...(build === 'development' ? { JOLLY_WEB: '../web-development' } : {}),
    },
  });
  const ended = new Promise((resolve) => server.once('exit', () => resolve(false)));
  const answers = new Promise((resolve) => server.once('message', () => resolve(true)));
  return {
    address: `http://127.0.0.1:${port}`,
    ready: Promise.race([answers, ended]),
    async stop() {
      server.kill('SIGTERM');
      await ended;
    },
  };
}
