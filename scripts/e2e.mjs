import { spawn } from 'node:child_process';
import { cpSync, existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { build, buildForDevelopment } from './build.mjs';
import { startJourneyServer } from './journey-server.mjs';
import { memoryFolder } from './memory-folder.mjs';
import { startPostgres } from './postgres.mjs';
import { CHROMIUM, POSTGRES, requireDebian, requirePackages } from './requirements.mjs';
import { root } from './root.mjs';
import { runScript } from './say.mjs';

/** Files of journeys run beside each other, each worker on a server of its own; what measures or takes pictures runs alone. */
const WORKERS = process.env.ONLY ? 1 : Math.min(2, availableParallelism());

/** Where a journey that takes days starts servers of its own. */
const LATER = { build: 'development', index: 'later' };

/** Of the beginning and of the end of what stood on a page, in characters each: a sheet stands after the list beside it. */
const MOST_TOLD = 6_000;

/** What measures and takes pictures does so on the build that people get. */
const BUILDS = process.env.ONLY ? ['production'] : ['development', 'production'];

/**
 * Journeys through the real interface: the built server on a fresh, seeded database, at a fixed moment. They run on
 * React's development build, which tells on the console what is wrong, and some on the build that people get.
 */
await runScript(async () => {
  requirePackages();
  requireDebian({ ...POSTGRES, ...CHROMIUM });
  await build();
  const postgres = await startPostgres({ folder: memoryFolder(join(root, '.cache', 'e2e-postgres')), fast: true });
  const names = BUILDS.flatMap((name) => Array.from({ length: WORKERS }, (_, index) => ({ build: name, index })));
  for (const place of [...names, LATER]) rmSync(filesOf(place), { recursive: true, force: true });
  // The demo is made once, and copied for the others.
  const [seed, ...others] = names;
  const first = await startPlace(postgres, seed);
  let code = 1;
  // While the demo is made, which waits for the database most of the time.
  if (BUILDS.includes('development')) await buildForDevelopment();
  if (await first.ready) {
    await first.stop();
    const later = BUILDS.includes(LATER.build) ? [LATER] : [];
    for (const place of [...others, ...later]) await copyPlace(postgres, seed, place);
    const places = [];
    for (const place of names) places.push(await startPlace(postgres, place, { isMade: true }));
    if ((await Promise.all(places.map(({ ready }) => ready))).every(Boolean)) {
      const addresses = (name) =>
        places
          .filter(({ build: of }) => of === name)
          .map(({ address }) => address)
          .join(' ');
      const playwright = spawn(
        process.execPath,
        [
          join(root, 'node_modules', '@playwright', 'test', 'cli.js'),
          'test',
          '--config',
          'e2e/playwright.config.ts',
          ...process.argv.slice(2),
        ],
        {
          cwd: root,
          stdio: 'inherit',
          env: {
            ...process.env,
            WORKERS: String(WORKERS),
            PRODUCTION_URLS: addresses('production'),
            DEVELOPMENT_URLS: addresses('development'),
            DATABASE_URL: places[0].database,
            LATER_DATABASE: databaseOf(postgres, LATER),
            LATER_FILES: filesOf(LATER),
          },
        },
      );
      code = await new Promise((resolve) => playwright.once('exit', resolve));
      if (code !== 0) tellWhatStood();
    }
    for (const { stop } of places) await stop();
  }
  await postgres.stop();
  process.exit(code ?? 1);
});

/** What stood on the page of each journey that failed: where only the output is kept, the folder is gone. */
function tellWhatStood() {
  const folder = join(root, '.cache', 'playwright');
  for (const journey of existsSync(folder) ? readdirSync(folder) : []) {
    const context = join(folder, journey, 'error-context.md');
    if (existsSync(context)) console.log(`${journey}\n${bothEnds(readFileSync(context, 'utf8'))}\n`);
  }
}

function bothEnds(text) {
  return text.length <= 2 * MOST_TOLD ? text : `${text.slice(0, MOST_TOLD)}\n…\n${text.slice(-MOST_TOLD)}`;
}

function nameOf({ build: of, index }) {
  return `journeys_${of}_${index}`;
}

function filesOf(place) {
  return join(root, '.cache', `e2e-files-${nameOf(place)}`);
}

function databaseOf(postgres, place) {
  return postgres.url.replace(/postgres$/, nameOf(place));
}

async function query(postgres, text) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: postgres.url });
  await client.connect();
  await client.query(text);
  await client.end();
}

async function copyPlace(postgres, from, to) {
  await query(postgres, `CREATE DATABASE ${nameOf(to)} TEMPLATE ${nameOf(from)}`);
  cpSync(filesOf(from), filesOf(to), { recursive: true });
}

/** A server with a database of its own. */
async function startPlace(postgres, place, { isMade = false } = {}) {
  if (!isMade) await query(postgres, `CREATE DATABASE ${nameOf(place)}`);
  const database = databaseOf(postgres, place);
  const server = await startJourneyServer({ build: place.build, database, files: filesOf(place) });
  return { ...server, build: place.build, database };
}
