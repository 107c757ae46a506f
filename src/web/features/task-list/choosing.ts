import { useCallback, useRef, useState } from 'react';
import type { TaskLine } from '../../../contract/index.ts';
import type { Choosable } from './api.ts';

const NONE: ReadonlySet<string> = new Set();

/**
 * Chosen tasks of a list of which only a part is here, in the order in which it stands on the page. As they stand now: what
 * others change meanwhile is known by the lines that come anew.
 */
export function useChoosing() {
  const [ids, setIds] = useState(NONE);
  const known = useRef(new Map<string, Choosable>());
  const pivot = useRef<string | null>(null);
  const remember = useCallback((lines: readonly TaskLine[]) => {
    for (const { id, version, estimateMinutes } of lines)
      known.current.set(id, { id, version, minutes: estimateMinutes });
  }, []);
  const chooseOne = (id: string) => {
    pivot.current = id;
    setIds((was) => {
      const next = new Set(was);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  };
  return {
    ids,
    chosen: [...ids].flatMap((id) => known.current.get(id) ?? []),
    remember,
    chooseOne,
    /** From the one that was chosen last by itself to this one, in the order of the list. */
    chooseTo(id: string, order: readonly string[]) {
      const [one, other] = [order.indexOf(pivot.current ?? id), order.indexOf(id)];
      if (one < 0 || other < 0) return chooseOne(id);
      setIds((was) => new Set([...was, ...order.slice(Math.min(one, other), Math.max(one, other) + 1)]));
    },
    chooseThese(tasks: readonly Choosable[]) {
      for (const task of tasks) known.current.set(task.id, task);
      setIds(new Set(tasks.map(({ id }) => id)));
    },
    clear: () => setIds(NONE),
  };
}
export type Choosing = ReturnType<typeof useChoosing>;
