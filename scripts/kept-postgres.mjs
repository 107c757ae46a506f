import { startPostgres } from './postgres.mjs';

/** A database that ends by itself is begun again, but not for ever: so many times in so long. */
const MOST_RESTARTS = 3;
const RESTARTS_MS = 60_000;
/** What is left of the one that was killed may hold the cluster for a moment more. */
const TRIES = 8;
const PAUSE_MS = 500;

/**
 * A private PostgreSQL that is begun again, on the same port, when it ends by itself.
 *
 * Resolves to { url, folder, lost, stop }; `lost` resolves when it has ended too often, or can't be begun again.
 */
export async function keepPostgres({ folder, fast = false, isStopping, say, withinMs = RESTARTS_MS }) {
  let running = await startPostgres({ folder, fast, say });
  const restarts = [];
  const lost = new Promise((resolve) => {
    const watch = () =>
      running.ended.then(async () => {
        if (isStopping()) return;
        const now = Date.now();
        restarts.push(now);
        if (restarts.filter((at) => now - at < withinMs).length > MOST_RESTARTS) return resolve();
        say('The database ended by itself and is begun again. Nothing that was saved is lost.');
        try {
          running = await begunAgain({ folder, fast, port: running.port, say });
          watch();
          say('The database answers again.');
        } catch (error) {
          say(String(error.message ?? error));
          resolve();
        }
      });
    watch();
  });
  return { url: running.url, folder: running.folder, lost, stop: () => running.stop() };
}

async function begunAgain(options) {
  for (let tries = 1; ; tries++) {
    try {
      return await startPostgres(options);
    } catch (error) {
      if (tries === TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
    }
  }
}
