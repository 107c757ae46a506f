import { useMemo, useRef, useState } from 'react';

interface OfList {
  /** What list it is: in another one nothing is chosen yet. */
  readonly of: string;
  /** How many there are, whether they are here or not. */
  readonly count: number;
  /** The id at a place; undefined for one that is not here yet. */
  readonly idAt: (index: number) => string | undefined;
  /** The ids of all, in their order: asked for where some that are chosen are not here. */
  readonly all: () => Promise<readonly string[]>;
}

const NONE: ReadonlySet<string> = new Set();

/** The chosen ones of a list of which only a part may be here; a range goes on from the last one that was chosen by itself. */
export function useChosenIds({ of, count, idAt, all }: OfList) {
  const [kept, setKept] = useState({ of, ids: NONE });
  const ids = kept.of === of ? kept.ids : NONE;
  const change = (next: (was: ReadonlySet<string>) => ReadonlySet<string>) =>
    setKept((was) => ({ of, ids: next(was.of === of ? was.ids : NONE) }));
  const pivot = useRef(0);
  const between = async (one: number, other: number): Promise<readonly string[]> => {
    const [from, to] = [Math.max(0, Math.min(one, other)), Math.min(count - 1, Math.max(one, other))];
    const known = Array.from({ length: to - from + 1 }, (_, i) => idAt(from + i)).flatMap((id) => id ?? []);
    return known.length === to - from + 1 ? known : (await all()).slice(from, to + 1);
  };
  return {
    ids,
    isAll: count > 0 && ids.size >= count,
    chooseOne(index: number) {
      const id = idAt(index);
      if (id === undefined) return;
      pivot.current = index;
      change((was) => {
        const next = new Set(was);
        if (!next.delete(id)) next.add(id);
        return next;
      });
    },
    /** @throws ProblemError where the ids of those that are not here can't be had */
    async chooseTo(index: number) {
      const more = await between(pivot.current, index);
      change((was) => new Set([...was, ...more]));
    },
    /** @throws ProblemError where the ids of those that are not here can't be had */
    async chooseAll() {
      const every = await between(0, count - 1);
      change(() => new Set(every));
    },
    clear: () => change(() => NONE),
  };
}

/** The same of rows that are all here. */
export function useChosen<T extends { readonly id: string }>(rows: readonly T[]) {
  const { ids, chooseOne, chooseTo, clear } = useChosenIds({
    of: '',
    count: rows.length,
    idAt: (index) => rows[index]?.id,
    all: async () => rows.map(({ id }) => id),
  });
  const chosen = useMemo(() => rows.filter(({ id }) => ids.has(id)), [rows, ids]);
  return {
    chosen,
    choose(index: number, how: 'one' | 'range') {
      if (how === 'one') chooseOne(index);
      else void chooseTo(index);
    },
    clear,
  };
}
