import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import type { Clock } from './platform/clock.ts';
import { Workspace } from './platform/identity/workspace.ts';
import { Scope } from './platform/scope.ts';
import { keptLines, keptPlans } from './schedules/index.ts';

/** What is told from all schedules of a workspace and kept: while nothing is touched, asking for it again costs next to nothing. */
type Kept = (scope: Scope) => Promise<ReadonlyMap<string, unknown>>;

interface WarmingParts {
  /** The one that answers requests: each has things kept of its own. */
  readonly source: DataSource;
  readonly clock: Clock;
  readonly log: Logger;
  readonly kept?: readonly Kept[];
  /** Between the end of one round and the next. */
  readonly againMs?: number;
  readonly most?: number;
}

const AGAIN_MS = 60_000;
/** Workspaces that are looked after; of others whoever comes first waits. */
const MOST_WORKSPACES = 20;
/** Schedules that are, of all of them: fewer than are kept, so that no workspace drives another out. */
const MOST_SCHEDULES = 20_000;

/**
 * Tells what lists and the morning page are told from before anybody asks: after a start, once another day has begun, after
 * a night's run. Of 10,000 schedules it takes seconds, which somebody would wait for each morning.
 */
export function keepWarm({
  source,
  clock,
  log,
  kept = [keptPlans, keptLines],
  againMs = AGAIN_MS,
  most = MOST_SCHEDULES,
}: WarmingParts): { stop(): void } {
  let isEnded = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  /** A failure that goes on is told once. */
  let hasFailed = false;

  async function round(): Promise<void> {
    let count = 0;
    const failures: unknown[] = [];
    for (const workspace of await lastUsed(source)) {
      if (isEnded || count >= most) break;
      // What is wrong in one workspace keeps no other waiting.
      await tell(workspace).then(
        (size) => {
          count += size;
        },
        (error: unknown) => failures.push(error),
      );
    }
    if (failures.length > 0) throw failures[0];
  }

  /** Gives of how many schedules. */
  async function tell(workspace: Workspace): Promise<number> {
    const scope = Scope.on(source, workspace, null, clock);
    let size = 0;
    for (const one of kept) if (!isEnded) size = Math.max(size, (await one(scope)).size);
    return size;
  }

  async function go(): Promise<void> {
    try {
      await round();
      hasFailed = false;
    } catch (error) {
      // Whoever asks is told what is wrong with it; here nobody waits.
      if (!hasFailed && !isEnded) log.warn({ err: error }, 'what lists are told from could not be told beforehand');
      hasFailed = true;
    }
    if (!isEnded) timer = setTimeout(go, againMs);
  }

  void go();
  return {
    // Not waited for: what it is in the middle of ends with its connection, and nobody is told of that.
    stop() {
      isEnded = true;
      clearTimeout(timer);
    },
  };
}

/** Those in which somebody was last. */
async function lastUsed(source: DataSource): Promise<Workspace[]> {
  const rows = await source.query<{ id: string }[]>(
    `select w.id from workspace w
     left join (select sess->>'workspaceId' as id, max(expire) as until from session group by 1) s on s.id = w.id::text
     order by s.until desc nulls last, w.id limit ${MOST_WORKSPACES}`,
  );
  const workspaces: Workspace[] = [];
  for (const { id } of rows) {
    const workspace = await source.getRepository(Workspace).findOneBy({ id });
    if (workspace) workspaces.push(workspace);
  }
  return workspaces;
}
