/** The same random numbers on every run (mulberry32). Used by tests and benches only. */
export function seeded(seed: number) {
  let state = seed;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  const whole = (least: number, most: number) => least + Math.floor(next() * (most - least + 1));
  const one = <T>(from: readonly T[]): T => from[whole(0, from.length - 1)] as T;
  /** One or more of them, about so many. */
  const some = <T>(from: readonly T[], about: number): T[] => {
    const chosen = from.filter(() => next() < about / from.length);
    return chosen.length > 0 ? chosen : [one(from)];
  };
  const chance = (percent: number) => next() * 100 < percent;
  return { whole, one, some, chance };
}

export type Seeded = ReturnType<typeof seeded>;
