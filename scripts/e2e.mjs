import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './build.mjs';
import { freePort, startPostgres } from './postgres.mjs';
import { CHROMIUM, POSTGRES, requireDebian, requirePackages } from './requirements.mjs';
import { root } from './root.mjs';
import { runScript } from './say.mjs';

/** Journeys through the real interface: the built server on a fresh, seeded database, at a fixed moment. */
await runScript(async () => {
  requirePackages();
  requireDebian({ ...POSTGRES, ...CHROMIUM });
  await build();
  const folder = join(root, '.cache', 'e2e-postgres');
  rmSync(folder, { recursive: true, force: true });
  rmSync(join(folder, '..', 'e2e-files'), { recursive: true, force: true });
  const postgres = await startPostgres({ folder, fast: true });
  const port = await freePort();
  const server = spawn(process.execPath, [join(root, 'dist', 'server', 'main.js')], {
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: postgres.url,
      JOLLY_FILES: join(folder, '..', 'e2e-files'),
      PORT: String(port),
      JOLLY_NOW: process.env.JOLLY_NOW ?? '2026-11-24T10:40',
      JOLLY_DEMO: 'with-empty',
    },
  });
  const ready = new Promise((resolve) => server.once('message', () => resolve(true)));
  const ended = new Promise((resolve) => server.once('exit', () => resolve(false)));
  let code = 1;
  if (await Promise.race([ready, ended])) {
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
        env: { ...process.env, BASE_URL: `http://127.0.0.1:${port}`, DATABASE_URL: postgres.url },
      },
    );
    code = await new Promise((resolve) => playwright.once('exit', resolve));
  }
  server.kill('SIGTERM');
  await ended;
  await postgres.stop();
  process.exit(code ?? 1);
});
