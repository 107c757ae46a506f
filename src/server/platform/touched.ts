import { z } from 'zod';
import { Latest } from './latest.ts';
import type { Listener } from './listener.ts';
import type { Scope } from './scope.ts';

const TOUCHED_CHANNEL = 'jolly_touched';
const FENCE = 'fence ';
/** Schedules remembered of a workspace, each with when it was touched last; of more, any may have been. */
const MOST_IDS = 5000;
/** How long what was told before is waited for: then it is not known. */
const LONGEST_FENCE_MS = 2000;

const touchedSchema = z.object({ workspace: z.string(), schedules: z.array(z.string()).nullable() });

/** What was touched since a moment; any schedule where `schedules` is null. */
export interface Since {
  /** The moment to ask from the next time. */
  readonly moment: number;
  readonly schedules: ReadonlySet<string> | null;
}

/**
 * Which schedules were touched, as the database tells it with each commit (triggers of the migration `told-of-touched`).
 * Messages come in the order of the commits, and whoever asks sends one of their own first: when that has come, so has
 * everything that stood before the question.
 */
export class Touched {
  private moment = 1;
  /** Since when nothing was missed. */
  private whole = 1;
  private readonly workspaces = new Map<string, { any: number; readonly schedules: Map<string, number> }>();
  private readonly fences = new Map<string, () => void>();
  private readonly asked = new Latest<boolean>();

  constructor(private readonly listener: Listener) {
    listener.on(TOUCHED_CHANNEL, {
      onNews: (payload) => this.hear(payload),
      onGap: () => {
        this.whole = ++this.moment;
      },
    });
  }

  /** @param moment as an answer before gave it; 0 for the first time */
  async since(workspaceId: string, moment: number): Promise<Since> {
    const isHeard = await this.asked.of('', () => this.fence());
    const now = this.moment;
    const of = this.workspaces.get(workspaceId);
    if (!isHeard || moment < this.whole || (of && moment < of.any)) return { moment: now, schedules: null };
    const schedules = new Set<string>();
    for (const [id, at] of of?.schedules ?? []) if (at > moment) schedules.add(id);
    return { moment: now, schedules };
  }

  /** Whether everything has come that was told before; false where that can't be known. */
  private async fence(): Promise<boolean> {
    if (!this.listener.isListening) return false;
    const id = crypto.randomUUID();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const come = new Promise<boolean>((resolve) => {
      this.fences.set(id, () => resolve(true));
      timer = setTimeout(() => resolve(false), LONGEST_FENCE_MS);
    });
    try {
      if ((await this.listener.query('select pg_notify($1, $2)', [TOUCHED_CHANNEL, FENCE + id])) === null) return false;
      return await come;
    } catch {
      // The connection has gone: what was told is not known until it listens again, which it logs.
      return false;
    } finally {
      clearTimeout(timer);
      this.fences.delete(id);
    }
  }

  private hear(payload: string): void {
    if (payload.startsWith(FENCE)) {
      this.fences.get(payload.slice(FENCE.length))?.();
      return;
    }
    const { workspace, schedules } = touchedSchema.parse(JSON.parse(payload));
    const moment = ++this.moment;
    const of = this.workspaces.get(workspace) ?? { any: 0, schedules: new Map<string, number>() };
    this.workspaces.set(workspace, of);
    if (schedules === null || of.schedules.size + schedules.length > MOST_IDS) {
      of.any = moment;
      of.schedules.clear();
    } else for (const id of schedules) of.schedules.set(id, moment);
  }
}

const touchedOf = new WeakMap<object, Touched>();

/** Whoever reads by this database may ask what was touched. */
export function tellTouched(database: object, touched: Touched): void {
  touchedOf.set(database, touched);
}

/** Any of the schedules where nobody listens, as in a process that reads only once. */
export async function touchedSince({ database, workspace }: Scope, moment: number): Promise<Since> {
  return (await touchedOf.get(database)?.since(workspace.id, moment)) ?? { moment: 0, schedules: null };
}
