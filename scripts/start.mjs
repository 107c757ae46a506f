import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { POSTGRES, requireDebian, requireFolder, requireNode, requirePackages } from './requirements.mjs';
import { root } from './root.mjs';
import { runScript, Stop } from './say.mjs';

const port = process.env.PORT ?? '4180';

/** npm start: all set-up, then the application with the demo data, on loopback. */
await runScript(async () => {
  requireNode();
  await requireFreePort();
  requireFolder(root);
  requirePackages();
  const { build } = await import('./build.mjs');
  await build();
  const data = requireFolder(process.env.JOLLY_DATA ?? join(root, '.data'));
  const database = process.env.DATABASE_URL ? null : await ownDatabase(data);
  const server = spawn(process.execPath, [join(root, 'dist', 'server', 'main.js')], {
    // Its own process group: Ctrl-C comes to us, and we stop both in order.
    detached: true,
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    env: {
      ...process.env,
      PORT: port,
      DATABASE_URL: process.env.DATABASE_URL ?? database.url,
      JOLLY_FILES: process.env.JOLLY_FILES ?? requireFolder(join(data, 'files')),
      NODE_ENV: 'production',
    },
  });
  let stopping = false;
  const stop = () => {
    stopping = true;
    server.kill('SIGTERM');
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  server.on('message', ({ port: at }) => announce(at));
  const code = await new Promise((resolve) => server.once('exit', resolve));
  await database?.stop();
  if (stopping) console.log('Stopped. Everything is kept; npm start goes on from here.');
  process.exit(stopping ? 0 : (code ?? 1));
});

async function ownDatabase(folder) {
  requireDebian(POSTGRES);
  const { startPostgres } = await import('./postgres.mjs');
  return startPostgres({ folder: join(folder, 'postgres'), say: console.log });
}

function requireFreePort() {
  if (!/^\d{1,5}$/.test(port) || Number(port) > 65_535)
    throw new Stop(`PORT is “${port}”: it should be a number from 1 to 65535.`);
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', (error) => {
      const why =
        error.code === 'EADDRINUSE' ? 'is taken: is Jolly Rota running already?' : `can't be used (${error.code}).`;
      reject(new Stop(`Port ${port} ${why} Choose another with PORT=${Number(port) + 1} npm start.`));
    });
    probe.listen(Number(port), '127.0.0.1', () => probe.close(resolve));
  });
}

function announce(at) {
  console.log(`
Jolly Rota is running.

  Open       http://127.0.0.1:${at}
  Sign in    as a manager, ines@ternquay.example, or a member of staff, nadia@ternquay.example;
             everyone's password is ternquay. The first page also lists them for one click.
  Stop       Ctrl-C. All data are kept; npm run reset empties the demo.
`);
}
