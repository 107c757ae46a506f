import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './root.mjs';
import { Stop } from './say.mjs';

const OLDEST_NODE = [20, 11];

export function requireNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major > OLDEST_NODE[0] || (major === OLDEST_NODE[0] && minor >= OLDEST_NODE[1])) return;
  throw new Stop(
    `Jolly Rota needs Node ${OLDEST_NODE.join('.')} or later; this is Node ${process.versions.node}. Install a later one and run the command again.`,
  );
}

/** Installs the npm packages of a folder's lock file, or of its exact versions where it has none, unless they are there already. */
export function requirePackages(folder = root) {
  const lockFile = join(folder, 'package-lock.json');
  const hasLock = existsSync(lockFile);
  const lock = createHash('sha256')
    .update(readFileSync(hasLock ? lockFile : join(folder, 'package.json')))
    .digest('hex');
  const stamp = join(folder, 'node_modules', '.jolly-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.log('Installing npm packages …');
  const how = hasLock ? ['ci'] : ['install', '--no-package-lock'];
  const done = spawnSync('npm', [...how, '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: folder,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1' },
  });
  if (done.status !== 0)
    throw new Stop(
      'The npm packages could not be installed: see the lines above. Check the network and the disk, then run the command again.',
    );
  writeFileSync(stamp, lock);
}

/** The newest PostgreSQL's programs on this machine, or null. */
export function postgresPrograms() {
  const folder = '/usr/lib/postgresql';
  const versions = existsSync(folder) ? readdirSync(folder).sort((a, b) => Number(b) - Number(a)) : [];
  for (const version of versions)
    if (existsSync(join(folder, version, 'bin', 'postgres'))) return join(folder, version, 'bin');
  const found = spawnSync('which', ['initdb'], { encoding: 'utf8' });
  return found.status === 0 ? found.stdout.trim().replace(/\/initdb$/, '') : null;
}

/** Debian packages by what tells that they are there; installs those that are missing, or says which. */
export function requireDebian(wanted) {
  const missing = Object.entries(wanted)
    .filter(([, isThere]) => !isThere())
    .map(([name]) => name);
  if (missing.length === 0) return;
  const names = missing.join(' ');
  if (process.getuid?.() !== 0) {
    throw new Stop(
      `Missing on this machine: ${names}. As root, run: apt-get install ${names}\nThen run this command again.`,
    );
  }
  console.log(`Installing ${names} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  try {
    execFileSync('apt-get', ['update', '-qq'], { stdio: 'inherit', env });
    execFileSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env,
    });
  } catch {
    throw new Stop(
      `${names} could not be installed: see the lines above. Install it by hand (apt-get install ${names}) and run the command again.`,
    );
  }
}

export const POSTGRES = { postgresql: () => postgresPrograms() !== null };
/** Debian's Chromium without its window: a third quicker than the whole of it in headless mode. */
export const CHROMIUM = { 'chromium-headless-shell': () => existsSync('/usr/bin/chromium-headless-shell') };

/** Reads our papers back in tests. */
export const PAPER_READER = { 'poppler-utils': () => existsSync('/usr/bin/pdftotext') };

/** A folder that this process may write to. */
export function requireFolder(path) {
  try {
    mkdirSync(path, { recursive: true });
    const probe = join(path, '.writable');
    writeFileSync(probe, '');
    rmSync(probe);
  } catch (error) {
    throw new Stop(
      `${path} can't be written to (${error.code}). Jolly Rota keeps its data there: give this user the right to write, or set JOLLY_DATA to another folder.`,
    );
  }
  return path;
}
