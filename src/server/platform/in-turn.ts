import { setImmediate } from 'node:timers/promises';

/** How long many things are worked on before others get their turn. */
const STRETCH_MS = 8;

/** Tells something of each of many, so that others who wait for this process are never kept waiting for all of them. */
export async function eachInTurn<From, To>(all: readonly From[], tell: (one: From) => To): Promise<To[]> {
  const told: To[] = [];
  let since = performance.now();
  for (const one of all) {
    if (performance.now() - since > STRETCH_MS) {
      await setImmediate();
      since = performance.now();
    }
    told.push(tell(one));
  }
  return told;
}

/** So many are put in order at once; a few milliseconds' work. */
const SORTED_AT_ONCE = 1_000;

/** In order, likewise: a part at a time, and then the parts together, which sorting notices are in order already. */
export async function sortedInTurn<One>(all: readonly One[], compare: (a: One, b: One) => number): Promise<One[]> {
  const parts: One[][] = [];
  for (let at = 0; at < all.length; at += SORTED_AT_ONCE) {
    if (at > 0) await setImmediate();
    parts.push(all.slice(at, at + SORTED_AT_ONCE).sort(compare));
  }
  if (parts.length === 1) return parts[0] ?? [];
  await setImmediate();
  return parts.flat().sort(compare);
}
