import { createHash } from 'node:crypto';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './root.mjs';
import { runScript, Stop } from './say.mjs';

/** npm run reset: empties the demo; the next npm start fills it anew. */
await runScript(async () => {
  if (process.env.DATABASE_URL) {
    throw new Stop(
      'DATABASE_URL is set: reset empties only the database that npm start makes itself. Drop and create your own by hand.',
    );
  }
  const data = process.env.JOLLY_DATA ?? join(root, '.data');
  const wanted = join(data, 'postgres');
  const elsewhere = `/var/lib/postgresql/jolly-rota-${createHash('sha256').update(wanted).digest('hex').slice(0, 12)}`;
  const folders = [wanted, elsewhere].filter((folder) => existsSync(folder));
  for (const folder of folders) {
    const pidFile = join(folder, 'cluster', 'postmaster.pid');
    if (existsSync(pidFile) && existsSync(`/proc/${readFileSync(pidFile, 'utf8').split('\n')[0]}`)) {
      throw new Stop('Jolly Rota is still running: stop it with Ctrl-C first, then reset.');
    }
  }
  for (const folder of [...folders, join(data, 'files')]) rmSync(folder, { recursive: true, force: true });
  console.log(folders.length > 0 ? 'Emptied. npm start fills the demo anew.' : 'There was nothing to empty.');
});
