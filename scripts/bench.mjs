import { spawnSync } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { build as buildAll } from './build.mjs';
import { requireNode, requirePackages } from './requirements.mjs';
import { root } from './root.mjs';
import { runScript, Stop } from './say.mjs';

/** Files of the folder that are parts of benches. */
const PARTS = [
  'hostile-rules.ts',
  'built-server.ts',
  'lists-database.ts',
  'measure.ts',
  'references.ts',
  'workload.ts',
];

/** npm run bench: every bench, or the one named. */
await runScript(async () => {
  requireNode();
  requirePackages();
  const folder = join(root, 'bench');
  // What is compared with stays out of the application's own packages; by exact versions, as a lock file would need
  // builds for other machines that not every registry has.
  requirePackages(folder);
  const all = readdirSync(folder)
    .filter((file) => file.endsWith('.ts') && !PARTS.includes(file))
    .map((file) => file.replace(/\.ts$/, ''));
  // Some measure the built server.
  await buildAll();
  const wanted = process.argv[2];
  if (wanted && !all.includes(wanted)) throw new Stop(`There is no bench “${wanted}”: there are ${all.join(', ')}.`);
  for (const name of wanted ? [wanted] : all) {
    // Bundled as the application is: what runs in place of it is measured, not a loader's wrapping of each function.
    const outfile = join(folder, 'dist', `${name}.js`);
    const { build, stop } = await import('esbuild');
    await build({
      entryPoints: [join(folder, `${name}.ts`)],
      outfile,
      bundle: true,
      platform: 'node',
      format: 'esm',
      target: 'node20',
      packages: 'external',
      logLevel: 'warning',
    });
    await stop();
    const { status } = spawnSync(process.execPath, ['--expose-gc', outfile], { cwd: root, stdio: 'inherit' });
    if (status !== 0) process.exit(status ?? 1);
  }
});
