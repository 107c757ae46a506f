import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { root } from './root.mjs';

const SOURCES = ['src', 'demo', 'vite.config.ts', 'package-lock.json', 'scripts/build.mjs'];

/** Builds the browser side, the server and the core into dist/, unless what is there was built from the same sources. */
export async function build({ say = console.log } = {}) {
  const stamp = join(root, 'dist', '.built-from');
  const sources = fingerprint();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === sources) return;
  say('Building …');
  rmSync(stamp, { force: true });
  const [{ build: bundle, stop }, { build: buildWeb }] = await Promise.all([import('esbuild'), import('vite')]);
  const common = {
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    logLevel: 'warning',
    absWorkingDir: root,
  };
  await bundle({
    ...common,
    entryPoints: ['src/server/main.ts'],
    outfile: 'dist/server/main.js',
    packages: 'external',
  });
  await bundle({
    ...common,
    entryPoints: ['src/server/files/picture-maker.ts'],
    outfile: 'dist/server/picture-maker.js',
    packages: 'external',
  });
  await bundle({ ...common, entryPoints: ['src/core/index.ts'], outfile: 'dist/core/index.js' });
  await buildWeb({ configFile: join(root, 'vite.config.ts'), logLevel: 'warn' });
  // Its helper process would outlive us.
  await stop();
  writeFileSync(stamp, sources);
}

function fingerprint() {
  const hash = createHash('sha256');
  for (const source of SOURCES)
    for (const file of filesOf(join(root, source))) hash.update(file).update(readFileSync(file));
  return hash.digest('hex');
}

function filesOf(path) {
  if (!existsSync(path)) return [];
  try {
    return readdirSync(path, { withFileTypes: true, recursive: true })
      .filter((entry) => entry.isFile() && !entry.name.includes('.test.'))
      .map((entry) => join(entry.parentPath ?? entry.path, entry.name))
      .sort();
  } catch (error) {
    if (error.code === 'ENOTDIR') return [path];
    throw error;
  }
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) await build();
