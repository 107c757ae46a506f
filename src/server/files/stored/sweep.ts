import type { FileStore } from './store.ts';

/** A file that was sent for a template which was never saved is let go after this many days, a removed one after a month. */
const LOOSE_DAYS = 2;
const REMOVED_DAYS = 31;

/** Bytes younger than this may belong to an upload whose row is not written yet. */
const SETTLED_DAYS = 1;
const SWEPT_AT_ONCE = 500;

/**
 * Lets go of what nobody can reach any more, rows first, then bytes: only those that are older than a day and that no row
 * names in that moment. Uploads that ended half way leave theirs in the folder of what comes in.
 * @param now by the clock of the workspaces, for the rows; bytes are as old as their folder says
 */
export async function sweepFiles(
  source: { query<T>(sql: string, params?: unknown[]): Promise<T> },
  store: FileStore,
  now: Date,
): Promise<number> {
  await source.query(
    `delete from file where (template_id is null and task_id is null and uploaded_at < $1::timestamptz - interval '${LOOSE_DAYS} days')
       or removed_at < $1::timestamptz - interval '${REMOVED_DAYS} days'`,
    [now],
  );
  const settledBefore = new Date(Date.now() - SETTLED_DAYS * 86_400_000);
  let gone = await store.sweepIncoming(settledBefore);
  for await (const candidates of store.olderThan(settledBefore, SWEPT_AT_ONCE)) {
    const rows = await source.query<{ stored: string }[]>(
      'select distinct stored from file where stored = any($1::text[])',
      [candidates],
    );
    const named = new Set(rows.map(({ stored }) => stored));
    const unnamed = candidates.filter((stored) => !named.has(stored));
    for (const stored of unnamed) await store.letGo(stored);
    gone += unnamed.length;
  }
  return gone;
}
