import type { CivilDay } from '../civil-date/civil-day.ts';
import type { Worker } from './availability.ts';

/** What somebody has to do in a week already, and can do. */
export interface WeekLoad {
  readonly minutes: number;
  readonly capacity: number;
  /** The last day up to which they had this work; null where they never had. */
  readonly lastHad: CivilDay | null;
}

/** "21 of 37 h": the one with the least to do, and by how much. */
export interface LeastToDo {
  readonly personId: string;
  readonly minutes: number;
  readonly capacity: number;
}

/**
 * Whoever has the least to do in a week for what they can do in it: the smallest share of their capacity with this work added,
 * then whoever has not had it for longest, then by id, so that the same question always has the same answer. Null where nobody
 * has any hours in that week.
 * @param minutes the estimate of the work
 * @param settledId whoever has it already keeps it, if they are among them
 */
export function leastToDo(
  workers: readonly Pick<Worker, 'id'>[],
  minutes: number,
  loadOf: (id: string) => WeekLoad,
  settledId: string | null = null,
): LeastToDo | null {
  let least: { readonly found: LeastToDo; readonly share: number; readonly lastHad: number } | null = null;
  for (const { id } of workers) {
    const load = loadOf(id);
    if (load.capacity <= 0) continue;
    if (id === settledId) return { personId: id, minutes: load.minutes, capacity: load.capacity };
    const share = (load.minutes + minutes) / load.capacity;
    const lastHad = load.lastHad ?? Number.NEGATIVE_INFINITY;
    const isLess =
      least === null ||
      share < least.share ||
      (share === least.share && (lastHad < least.lastHad || (lastHad === least.lastHad && id < least.found.personId)));
    if (isLess) least = { found: { personId: id, minutes: load.minutes, capacity: load.capacity }, share, lastHad };
  }
  return least?.found ?? null;
}
