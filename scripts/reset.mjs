import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ownClusters, ownData, portOfCluster } from './own-data.mjs';
import { runScript, Stop } from './say.mjs';

/** npm run reset: empties the demo; the next npm start fills it anew. */
await runScript(async () => {
  if (process.env.DATABASE_URL) {
    throw new Stop(
      'DATABASE_URL is set: reset empties only the database that npm start makes itself. Drop and create your own by hand.',
    );
  }
  const folders = ownClusters();
  if (folders.some((folder) => portOfCluster(folder) !== null))
    throw new Stop('Jolly Rota is still running: stop it with Ctrl-C first, then reset.');
  for (const folder of [...folders, join(ownData(), 'files')]) rmSync(folder, { recursive: true, force: true });
  console.log(folders.length > 0 ? 'Emptied. npm start fills the demo anew.' : 'There was nothing to empty.');
});
