import { spawnSync } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { requireNode, requirePackages } from './requirements.mjs';
import { root } from './root.mjs';
import { runScript, Stop } from './say.mjs';

/** npm run bench: every bench, or the one named. */
await runScript(async () => {
  requireNode();
  requirePackages();
  const folder = join(root, 'bench');
  const all = readdirSync(folder)
    .filter((file) => file.endsWith('.ts') && file !== 'measure.ts')
    .map((file) => file.replace(/\.ts$/, ''));
  const wanted = process.argv[2];
  if (wanted && !all.includes(wanted)) throw new Stop(`There is no bench “${wanted}”: there are ${all.join(', ')}.`);
  for (const name of wanted ? [wanted] : all) {
    const { status } = spawnSync(process.execPath, ['--import', 'tsx', join(folder, `${name}.ts`)], {
      cwd: root,
      stdio: 'inherit',
    });
    if (status !== 0) process.exit(status ?? 1);
  }
});
