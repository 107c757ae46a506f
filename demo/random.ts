/** A small seeded generator (mulberry32): the demo is the same every time for a given day. */
export class SeededRandom {
  private state: number;

  constructor(seed: string) {
    // FNV-1a, to spread a word over 32 bits.
    let hash = 0x811c9dc5;
    for (let i = 0; i < seed.length; i++) hash = Math.imul(hash ^ seed.charCodeAt(i), 0x01000193);
    this.state = hash >>> 0;
  }

  /** A number in [0, 1). */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) >>> 0;
    let t = this.state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  }

  /** A whole number from `least` to `most`, both included. */
  whole(least: number, most: number): number {
    return least + Math.floor(this.next() * (most - least + 1));
  }

  pick<T>(from: readonly T[]): T {
    return from[this.whole(0, from.length - 1)] as T;
  }

  chance(probability: number): boolean {
    return this.next() < probability;
  }

  bytes(count: number): Uint8Array {
    return Uint8Array.from({ length: count }, () => this.whole(0, 255));
  }
}
