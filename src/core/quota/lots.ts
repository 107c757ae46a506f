import type { CivilDay } from '../civil-date/civil-day.ts';

/** The last 32 bits of an id: those of a UUID of version 7 are random (RFC 9562, section 5.7). */
const lastBits = (id: string): number => Number.parseInt(id.slice(-8), 16) >>> 0;

/** A seed for the lists of a day of a quota, 32 bits. */
export const seedOf = (quotaId: string, day: CivilDay): number =>
  Math.imul(lastBits(quotaId) ^ Math.imul(day, 0x9e3779b1), 0x85ebca6b) >>> 0;

/** Odd, so that no two places are the same, and below 2^31, so that the database can multiply it by 32 bits. */
export const SHUFFLE_FACTOR = 0x5bd1e995;

/**
 * The place of an id in a shuffle, 0 to 2^32 - 1: the same seed gives the same shuffle. The database says the same, so that it
 * can put a hundred thousand in order: see `SHUFFLED` of the server.
 */
export function shuffled(id: string, seed: number): number {
  const mixed = Math.imul(lastBits(id) ^ seed, SHUFFLE_FACTOR) >>> 0;
  return (mixed ^ (mixed >>> 16)) >>> 0;
}

/**
 * Somebody by a lot that is the contact's own: whoever else stands on the lists changes it only where no room is left
 * (weighted rendezvous hashing).
 */
export function byLot(contactId: string, seed: number, among: readonly (readonly [string, number])[]): string | null {
  let best: { id: string; score: number } | null = null;
  for (const [id, weight] of among) {
    const lot = (shuffled(contactId, Math.imul(seed ^ lastBits(id), 0x85ebca6b)) + 1) / 2 ** 32;
    const score = -Math.log(lot) / weight;
    if (best === null || score < best.score || (score === best.score && id < best.id)) best = { id, score };
  }
  return best?.id ?? null;
}
