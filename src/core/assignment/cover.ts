import type { Unavailable, Worker } from './availability.ts';

/** Who takes over where somebody can't: the next in the roster, their deputy, whoever of all has the least to do, or nobody. */
export const COVERS = ['next', 'deputy', 'leastToDo', 'nobody'] as const;
export type Cover = (typeof COVERS)[number];

export interface CoverContext {
  readonly workers: ReadonlyMap<string, Worker>;
  /** Why somebody can't be given this work on this day; null where they can. */
  readonly unavailable: (worker: Worker) => Unavailable | null;
  /** Whoever of some has the least to do; null where there is none. */
  readonly leastToDo: (ids: readonly string[]) => string | null;
}

/** Somebody who was passed over, and why. */
export interface PassedOver {
  readonly personId: string;
  readonly why: Unavailable | { readonly because: 'not known' };
}

export interface Covered {
  /** Null where nobody can. */
  readonly personId: string | null;
  /** In the order in which they were asked, whoever's turn it is first; empty where that one can. */
  readonly passedOver: readonly PassedOver[];
}

/**
 * Who does it where it is somebody's turn: that one, or whoever covers. Nobody who is away is ever given it, and a chain of
 * deputies that comes back to itself ends.
 * @param order the roster @param at the place in it whose turn it is, from 0
 * @throws RangeError where the roster has no such place
 */
export function coverFor(order: readonly string[], at: number, cover: Cover, context: CoverContext): Covered {
  const personId = order[at];
  if (personId === undefined)
    throw new RangeError(`The roster has ${order.length} places: there is no place ${at + 1}.`);
  const passedOver: PassedOver[] = [];
  const asked = new Set<string>();
  /** Each is asked once, however often they stand in the roster. */
  const can = (id: string): boolean => {
    if (asked.has(id)) return false;
    asked.add(id);
    const why = whyNot(id, context);
    if (why !== null) passedOver.push({ personId: id, why });
    return why === null;
  };
  if (can(personId)) return { personId, passedOver };
  switch (cover) {
    case 'next': {
      for (let step = 1; step < order.length; step++) {
        const next = order[(at + step) % order.length] as string;
        if (can(next)) return { personId: next, passedOver };
      }
      return { personId: null, passedOver };
    }
    case 'deputy': {
      let id = context.workers.get(personId)?.deputyId ?? null;
      while (id !== null && !asked.has(id)) {
        if (can(id)) return { personId: id, passedOver };
        id = context.workers.get(id)?.deputyId ?? null;
      }
      return { personId: null, passedOver };
    }
    case 'leastToDo':
      return { personId: context.leastToDo(order.filter(can)), passedOver };
    case 'nobody':
      return { personId: null, passedOver };
  }
}

function whyNot(id: string, { workers, unavailable }: CoverContext): PassedOver['why'] | null {
  const worker = workers.get(id);
  return worker ? unavailable(worker) : { because: 'not known' };
}
