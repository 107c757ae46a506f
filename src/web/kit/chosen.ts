import { useMemo, useRef, useState } from 'react';

/** The chosen ones of the rows that are shown; a range goes on from the last one that was chosen by itself. */
export function useChosen<T extends { readonly id: string }>(rows: readonly T[]) {
  const [ids, setIds] = useState<ReadonlySet<string>>(new Set());
  const pivot = useRef(0);
  const chosen = useMemo(() => rows.filter(({ id }) => ids.has(id)), [rows, ids]);
  return {
    chosen,
    choose(index: number, how: 'one' | 'range') {
      const next = new Set(ids);
      const id = rows[index]?.id;
      if (id === undefined) return;
      if (how === 'one') {
        if (!next.delete(id)) next.add(id);
        pivot.current = index;
      } else {
        const [from, to] = [Math.min(pivot.current, index), Math.max(pivot.current, index)];
        for (const one of rows.slice(from, to + 1)) next.add(one.id);
      }
      setIds(next);
    },
    chooseAll: () => setIds(new Set(rows.map(({ id }) => id))),
    clear: () => setIds(new Set()),
  };
}
