import { byLot } from './lots.ts';

/** A call that somebody else is to make. */
export interface CallToShare {
  readonly callId: string;
  readonly contactId: string;
  /** Who looks after the client; null for nobody. */
  readonly usualPersonId: string | null;
}

/**
 * Who makes each of some calls instead: whoever looks after the client, where that is asked and they are among those who take
 * some; else whoever has the fewest to make by then, ties by lot: so nobody who is given one of those has two more than
 * anybody else. The order of the calls changes nothing; nothing is shared where nobody takes any.
 * @param to how many calls each who takes some has to make already
 */
export function shareCalls(
  calls: readonly CallToShare[],
  to: ReadonlyMap<string, number>,
  { usualFirst, seed }: { readonly usualFirst: boolean; readonly seed: number },
): ReadonlyMap<string, string> {
  const counts = new Map([...to].sort(([a], [b]) => (a < b ? -1 : 1)));
  const shared = new Map<string, string>();
  if (counts.size === 0) return shared;
  const give = ({ callId }: CallToShare, personId: string) => {
    shared.set(callId, personId);
    counts.set(personId, (counts.get(personId) ?? 0) + 1);
  };
  const inOrder = [...calls].sort((a, b) => (a.contactId < b.contactId ? -1 : 1));
  const isUsual = ({ usualPersonId }: CallToShare) => usualFirst && usualPersonId !== null && counts.has(usualPersonId);
  for (const call of inOrder) if (isUsual(call)) give(call, call.usualPersonId as string);
  for (const call of inOrder) {
    if (shared.has(call.callId)) continue;
    const fewest = Math.min(...counts.values());
    const least = [...counts].flatMap(([id, count]) => (count === fewest ? [[id, 1] as const] : []));
    const taker = byLot(call.contactId, seed, least);
    if (taker !== null) give(call, taker);
  }
  return shared;
}
