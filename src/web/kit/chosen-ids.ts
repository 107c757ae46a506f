import { useRef, useState } from 'react';

interface OfList {
  /** How many there are, whether they are here or not. */
  readonly count: number;
  /** The id at a place; undefined for one that is not here yet. */
  readonly idAt: (index: number) => string | undefined;
  /** The ids of all, in their order: asked for where some that are chosen are not here. */
  readonly all: () => Promise<readonly string[]>;
}

/** The chosen ones of a list of which only a part is here; a range goes on from the last one that was chosen by itself. */
export function useChosenIds({ count, idAt, all }: OfList) {
  const [ids, setIds] = useState<ReadonlySet<string>>(new Set());
  const pivot = useRef(0);
  const between = async (from: number, to: number): Promise<readonly string[]> => {
    const here = Array.from({ length: to - from + 1 }, (_, i) => idAt(from + i));
    const known = here.flatMap((id) => id ?? []);
    return known.length === here.length ? known : (await all()).slice(from, to + 1);
  };
  return {
    ids,
    isAll: count > 0 && ids.size >= count,
    chooseOne(index: number) {
      const id = idAt(index);
      if (id === undefined) return;
      pivot.current = index;
      setIds((was) => {
        const next = new Set(was);
        if (!next.delete(id)) next.add(id);
        return next;
      });
    },
    /** @throws ProblemError where the ids of those that are not here can't be had */
    async chooseTo(index: number) {
      const more = await between(Math.min(pivot.current, index), Math.max(pivot.current, index));
      setIds((was) => new Set([...was, ...more]));
    },
    /** @throws ProblemError where the ids of those that are not here can't be had */
    async chooseAll() {
      setIds(new Set(await between(0, count - 1)));
    },
    clear: () => setIds(new Set()),
  };
}
