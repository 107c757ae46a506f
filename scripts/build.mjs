import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { pathToFileURL } from 'node:url';
import { gzipSync } from 'node:zlib';
import { root } from './root.mjs';
import { Stop } from './say.mjs';

const SOURCES = ['src', 'demo', 'vite.config.ts', 'package.json', 'package-lock.json', 'scripts/build.mjs'];
/** What a browser loads before the first page can be drawn, packed as a server sends it. */
const MOST_FIRST_JAVASCRIPT = 150_000;

/** Builds the browser side, the server and the core into dist/, unless what is there was built from the same sources. */
export async function build({ say = console.log } = {}) {
  await unlessBuilt('.built-from', async () => {
    say('Building …');
    await buildAll();
  });
}

/**
 * Builds the browser side once more with React's development build, which says on the console what is wrong with a page,
 * into dist/web-development.
 */
export async function buildForDevelopment({ say = console.log } = {}) {
  await unlessBuilt('.built-for-development', async () => {
    say('Building with React’s development build …');
    const { build: buildWeb } = await import('vite');
    const before = process.env.NODE_ENV;
    process.env.NODE_ENV = 'development';
    try {
      await buildWeb({
        configFile: join(root, 'vite.config.ts'),
        logLevel: 'warn',
        mode: 'development',
        plugins: [withoutOwnerStacks()],
        build: { outDir: join(root, 'dist', 'web-development'), minify: false },
      });
      await buildServiceWorker(join(root, 'dist', 'web-development'));
      packParts(join(root, 'dist', 'web-development', 'assets'));
    } finally {
      if (before === undefined) delete process.env.NODE_ENV;
      else process.env.NODE_ENV = before;
    }
  });
}

/**
 * For each element React's development build notes a stack of who made it, which is a fifth of what the browser does in a
 * journey. A warning loses that stack alone: its words, and the component it names, stay.
 */
function withoutOwnerStacks() {
  const noted = '1e4 > ReactSharedInternals.recentlyCreatedOwnerStacks++';
  let places = 0;
  return {
    name: 'without-owner-stacks',
    transform(code, id) {
      if (!/\/node_modules\/react\/.*\.development\.js/.test(id)) return null;
      const parts = code.split(noted);
      places += parts.length - 1;
      return parts.length > 1 ? { code: parts.join('false'), map: null } : null;
    },
    buildEnd(error) {
      if (!error && places === 0) this.error('React notes stacks of owners in another way: see withoutOwnerStacks.');
    },
  };
}

async function unlessBuilt(name, work) {
  const stamp = join(root, 'dist', name);
  const sources = fingerprint();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === sources) return;
  rmSync(stamp, { force: true });
  await work();
  writeFileSync(stamp, sources);
}

async function buildAll() {
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
    entryPoints: ['src/server/archive.ts'],
    outfile: 'dist/server/archive.js',
    packages: 'external',
  });
  await bundle({
    ...common,
    entryPoints: ['src/server/files/stored/picture-maker.ts'],
    outfile: 'dist/server/picture-maker.js',
    packages: 'external',
  });
  await bundle({ ...common, entryPoints: ['src/core/index.ts'], outfile: 'dist/core/index.js' });
  await buildWeb({ configFile: join(root, 'vite.config.ts'), logLevel: 'warn' });
  await buildServiceWorker(join(root, 'dist', 'web'));
  packParts(join(root, 'dist', 'web', 'assets'));
  const first = firstJavaScript(join(root, 'dist', 'web'));
  if (first > MOST_FIRST_JAVASCRIPT)
    throw new Stop(
      `A browser loads ${first} bytes of JavaScript before the first page, packed: ${MOST_FIRST_JAVASCRIPT} at most. Load what that page does not need later (src/web/app/shell/soon.ts).`,
    );
  // Its helper process would outlive us.
  await stop();
}

/** The service worker, with a list of all parts of the browser side: it keeps them for when there is no net. */
async function buildServiceWorker(folder) {
  const { build: bundle } = await import('esbuild');
  const parts = filesOf(folder)
    .map((path) => relative(folder, path))
    .filter((name) => !/\.(gz|map)$/.test(name) && name !== 'sw.js')
    // What stands in `assets` is named for what is in it.
    .map((name) => ({
      url: `/${name}`,
      revision: name.startsWith('assets/')
        ? null
        : createHash('sha256')
            .update(readFileSync(join(folder, name)))
            .digest('hex'),
    }));
  await bundle({
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2023',
    logLevel: 'warning',
    absWorkingDir: root,
    entryPoints: ['src/web/service-worker.ts'],
    outfile: join(folder, 'sw.js'),
    define: { PARTS: JSON.stringify(parts), 'process.env.NODE_ENV': '"production"' },
  });
}

/** Packs what is text once, beside it: nobody packs it again at each request. */
function packParts(folder) {
  for (const name of readdirSync(folder).filter((name) => /\.(js|css)$/.test(name))) {
    const path = join(folder, name);
    writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }));
  }
}

/** Bytes, packed, of what the page names and of all that it imports at once. */
export function firstJavaScript(folder) {
  const files = new Set();
  const add = (file) => {
    if (files.has(file)) return;
    files.add(file);
    const text = readFileSync(join(folder, 'assets', file), 'utf8');
    for (const [, named] of text.matchAll(/(?:from|import)\s*["']\.\/([^"']+\.js)["']/g)) add(named);
  };
  const page = readFileSync(join(folder, 'index.html'), 'utf8');
  for (const [, named] of page.matchAll(/assets\/([^"']+\.js)/g)) add(named);
  return [...files].reduce((sum, file) => sum + gzipSync(readFileSync(join(folder, 'assets', file))).length, 0);
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
