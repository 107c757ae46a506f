import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from './build.mjs';
import { withOwnData } from './own-data.mjs';
import { requireNode, requirePackages } from './requirements.mjs';
import { root } from './root.mjs';
import { runScript } from './say.mjs';

/**
 * npm run backup -- --out FILE [--workspace NAME]: writes a workspace as one archive, also while it is worked with.
 * npm run restore -- FILE: puts it into this installation.
 */
const [deed, ...args] = process.argv.slice(2);
await runScript(async () => {
  requireNode();
  requirePackages();
  await build({ say: () => undefined });
  await withOwnData(
    async ({ url, files }) => {
      const { status } = spawnSync(process.execPath, [join(root, 'dist', 'server', 'archive.js'), deed, ...args], {
        stdio: 'inherit',
        env: { ...process.env, DATABASE_URL: url, JOLLY_FILES: files },
      });
      process.exitCode = status ?? 1;
    },
    { mayRun: deed === 'backup' },
  );
});
