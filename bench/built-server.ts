import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { freePort } from '../scripts/postgres.mjs';

interface BuiltOptions {
  readonly databaseUrl: string;
  readonly filesFolder: string;
  readonly demo?: 'no';
}

/** The built server on a free port, on Tuesday 24 November 2026 at 10:40, as it runs in use. */
export async function builtServer({ databaseUrl, filesFolder, demo }: BuiltOptions) {
  const port = await freePort();
  const server = spawn(process.execPath, [join(process.cwd(), 'dist', 'server', 'main.js')], {
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      LOG_LEVEL: 'error',
      DATABASE_URL: databaseUrl,
      JOLLY_FILES: filesFolder,
      PORT: String(port),
      JOLLY_NOW: '2026-11-24T10:40',
      ...(demo ? { JOLLY_DEMO: demo } : {}),
    },
  });
  const ended = new Promise((resolve) => server.once('exit', resolve));
  await new Promise((resolve, reject) => {
    server.once('message', resolve);
    server.once('exit', (code) => reject(new Error(`The server ended (${code}).`)));
  });
  return {
    address: `http://127.0.0.1:${port}`,
    async stop() {
      server.kill('SIGTERM');
      await ended;
    },
  };
}
