import type { Scope } from './scope.ts';

/**
 * Answers that are the same for many, worked out once: whoever asks while one is being worked out shares the next one,
 * which begins after they have asked, so that nobody is given an answer from before what made them ask.
 */
export class Latest<T> {
  private readonly running = new Map<string, Promise<unknown>>();
  private readonly next = new Map<string, Promise<T>>();

  /** @param work works the answer out; of several that wait for the same, that of the first */
  of(key: string, work: () => Promise<T>): Promise<T> {
    const waiting = this.next.get(key);
    if (waiting) return waiting;
    const before = this.running.get(key);
    if (!before) return this.begin(key, work);
    const shared = before.then(() => {
      this.next.delete(key);
      return this.begin(key, work);
    });
    this.next.set(key, shared);
    return shared;
  }

  private begin(key: string, work: () => Promise<T>): Promise<T> {
    const answer = work();
    const over = answer
      .then(
        () => undefined,
        () => undefined,
      )
      .then(() => {
        if (this.running.get(key) === over) this.running.delete(key);
      });
    this.running.set(key, over);
    return answer;
  }
}

/** What is told from something that does not change, told once for as long as that is kept. */
export function oncePer<From extends object, To>(tell: (from: From) => To): (from: From) => To {
  const all = new WeakMap<From, { readonly to: To }>();
  return (from) => {
    const known = all.get(from) ?? { to: tell(from) };
    all.set(from, known);
    return known.to;
  };
}

/** Something of its own for each database, as servers beside each other in one process have; made when it is first wanted. */
export function ofEachDatabase<T extends object>(make: () => T): (scope: Pick<Scope, 'database'>) => T {
  const all = new WeakMap<object, T>();
  return ({ database }) => {
    const known = all.get(database) ?? make();
    all.set(database, known);
    return known;
  };
}
