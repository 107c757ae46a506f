/** What two people have made of the same thing since one of them began. */
export interface Meanwhile<T> {
  /** Fields that somebody else has changed. */
  readonly theirs: readonly (keyof T)[];
  /** Those of them that were changed here as well, to something else. */
  readonly both: readonly (keyof T)[];
}

const isSame = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/**
 * What has happened meanwhile, or null when nothing has.
 * @param base as it was when the writing began
 */
export function meanwhileOf<T extends { readonly version: number }>(base: T, mine: T, now: T): Meanwhile<T> | null {
  if (base.version === now.version) return null;
  const fields = (Object.keys(now) as (keyof T)[]).filter((field) => field !== 'version');
  const theirs = fields.filter((field) => !isSame(base[field], now[field]));
  return {
    theirs,
    both: theirs.filter((field) => !isSame(base[field], mine[field]) && !isSame(mine[field], now[field])),
  };
}

/** Both together: what only one has changed is as they changed it; where both did, as is wished. */
export function merged<T extends { readonly version: number }>(base: T, mine: T, now: T, wish: 'mine' | 'theirs'): T {
  const { both } = meanwhileOf(base, mine, now) ?? { both: [] as readonly (keyof T)[] };
  const fields = (Object.keys(now) as (keyof T)[]).filter((field) => field !== 'version');
  const kept = fields.filter(
    (field) => !isSame(base[field], mine[field]) && (wish === 'mine' || !both.includes(field)),
  );
  return { ...now, ...Object.fromEntries(kept.map((field) => [field, mine[field]])) };
}
