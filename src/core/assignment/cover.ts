import type { Unavailable, Worker } from './availability.ts';
import type { Cover, CoverChoice } from './cover-choice.ts';

export interface CoverContext {
  readonly workers: ReadonlyMap<string, Worker>;
  /** Somebody who can't be given this work on this day, with why; null for whoever can. */
  readonly passedOver: (id: string) => PassedOver | null;
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
export function coverFor(
  order: readonly string[],
  at: number,
  cover: Cover | CoverChoice,
  context: CoverContext,
): Covered {
  const personId = order[at];
  if (personId === undefined)
    throw new RangeError(`The roster has ${order.length} places: there is no place ${at + 1}.`);
  const passedOver: PassedOver[] = [];
  /** Whether somebody can; whoever can't is kept as passed over. */
  const can = (id: string): boolean => {
    const why = context.passedOver(id);
    if (why !== null) passedOver.push(why);
    return why === null;
  };
  if (can(personId)) return { personId, passedOver };
  /** The first who can of somebody, their deputy, that one's deputy, and so on. */
  const alongDeputies = (first: string | null): Covered => {
    const asked = new Set([personId]);
    let id = first;
    while (id !== null && !asked.has(id)) {
      asked.add(id);
      if (can(id)) return { personId: id, passedOver };
      id = context.workers.get(id)?.deputyId ?? null;
    }
    return { personId: null, passedOver };
  };
  if (typeof cover !== 'string') return alongDeputies(cover.personId);
  switch (cover) {
    case 'next': {
      // Each is asked once, however often they stand in the roster.
      const isAgain = standsTwice(order) ? new Set([personId]) : null;
      for (let step = 1; step < order.length; step++) {
        const next = order[(at + step) % order.length] as string;
        if (isAgain?.has(next)) continue;
        isAgain?.add(next);
        if (can(next)) return { personId: next, passedOver };
      }
      return { personId: null, passedOver };
    }
    case 'deputy':
      return alongDeputies(context.workers.get(personId)?.deputyId ?? null);
    case 'leastToDo':
      return {
        personId: context.leastToDo([...new Set(order)].filter((id) => id !== personId && can(id))),
        passedOver,
      };
    case 'nobody':
      return { personId: null, passedOver };
  }
}

/** Told once for each order: orders are taken to stay as they are. */
const knownTwice = new WeakMap<readonly string[], boolean>();

/** Whether somebody stands in an order more than once. */
function standsTwice(order: readonly string[]): boolean {
  const known = knownTwice.get(order);
  if (known !== undefined) return known;
  const is = new Set(order).size < order.length;
  knownTwice.set(order, is);
  return is;
}
