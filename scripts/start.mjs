import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { codeOf, ownAccount } from './account.mjs';
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
  const files = process.env.JOLLY_FILES ?? requireFolder(join(data, 'files'));
  let stopping = false;
  // Without the demo the first page is opened by a key that only whoever starts the server sees.
  const setupKey =
    process.env.JOLLY_DEMO === 'no' ? process.env.JOLLY_SETUP_KEY || randomBytes(16).toString('hex') : null;
  const postgres = process.env.DATABASE_URL ? null : await ownPostgres(data, () => stopping);
  const [command, ...args] = [
    ...ownAccount({ files, code: codeOf(root), say: console.log }),
    process.execPath,
    join(root, 'dist', 'server', 'main.js'),
  ];
  const server = spawn(command, args, {
    // Its own process group: Ctrl-C comes to us, and we stop both in order.
    detached: true,
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    env: {
      ...process.env,
      PORT: port,
      DATABASE_URL: process.env.DATABASE_URL ?? postgres.url,
      JOLLY_FILES: files,
      NODE_ENV: 'production',
      ...(setupKey ? { JOLLY_SETUP_KEY: setupKey } : {}),
    },
  });
  const stop = () => {
    stopping = true;
    server.kill('SIGTERM');
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  server.on('message', ({ port: at, isEmpty }) => announce(at, isEmpty ? setupKey : null));
  const lost = postgres?.lost.then(() => {
    server.kill('SIGTERM');
    return 'database';
  });
  const exited = new Promise((resolve) => server.once('exit', resolve));
  const first = await Promise.race([exited, ...(lost ? [lost] : [])]);
  const code = await exited;
  await postgres?.stop();
  if (first === 'database')
    throw new Stop(
      'The database ended by itself several times in a minute, so Jolly Rota has stopped. Nothing that was saved is lost; look at the lines above and at the disk, then run npm start again.',
    );
  if (stopping) console.log('Stopped. Everything is kept; npm start goes on from here.');
  process.exit(stopping ? 0 : (code ?? 1));
});

async function ownPostgres(data, isStopping) {
  requireDebian(POSTGRES);
  const { keepPostgres } = await import('./kept-postgres.mjs');
  const { ownDatabase } = await import('./database.mjs');
  const kept = await keepPostgres({ folder: join(data, 'postgres'), isStopping, say: console.log });
  return { ...kept, url: await ownDatabase(kept) };
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

function announce(at, setupKey) {
  const address = `http://127.0.0.1:${at}`;
  const way = setupKey
    ? `  Begin      ${address}/set-up?key=${setupKey}
             sets up the workspace and its first manager. The key works until there is one.`
    : process.env.JOLLY_DEMO === 'no'
      ? `  Open       ${address}`
      : `  Open       ${address}
  Sign in    as a manager, ines@ternquay.example, or a member of staff, nadia@ternquay.example;
             everyone's password is ternquay. The first page also lists them for one click.`;
  console.log(`
Jolly Rota is running.

${way}
  Stop       Ctrl-C. All data are kept; npm run reset empties the demo.
`);
}
