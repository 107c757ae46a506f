import { useMemo, useState } from 'react';
import type { Steps } from '../../contract/live.ts';
import { newKey } from './new-key.ts';

/** How far long work is, by the key under which it was asked for. */
const told = new Map<string, Steps>();
const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** What is not followed here is another page's. */
export function tellSteps(steps: Steps): void {
  if (!told.has(steps.key)) return;
  told.set(steps.key, steps);
  for (const listener of listeners) listener();
}

/** In a hundred, as far as it is told; null while nothing is. */
const percentOf = (steps: Steps | undefined) =>
  steps && steps.of > 0 ? Math.floor((steps.done * 100) / steps.of) : null;

/** Does work under a key of its own, and says how far it is as often as that is told. */
export async function followed<T>(work: (key: string) => Promise<T>, onPercent: (percent: number) => void): Promise<T> {
  const key = newKey();
  told.set(key, { key, done: 0, of: 0 });
  const end = subscribe(() => {
    const percent = percentOf(told.get(key));
    if (percent !== null) onPercent(percent);
  });
  try {
    return await work(key);
  } finally {
    end();
    told.delete(key);
  }
}

/** Follows work of this page while it is done: in a hundred, as far as it is told; null while nothing is. */
export function useSteps() {
  const [percent, setPercent] = useState<number | null>(null);
  const follow = useMemo(
    () =>
      <T>(work: (key: string) => Promise<T>): Promise<T> =>
        followed(work, setPercent).finally(() => setPercent(null)),
    [],
  );
  return { follow, percent };
}
