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
