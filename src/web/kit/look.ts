import { useEffect, useState } from 'react';
import { ProblemError } from './api.ts';

/** Typing rests so long before what is typed is looked at. */
const REST_MS = 350;

export interface Looked<T> {
  readonly look: T | null;
  readonly problem: ProblemError | null;
  /** Whether it is of what stands there now. */
  readonly isOfNow: boolean;
}

/**
 * What something that is being written comes to, asked whenever it rests; null asks nothing. Where that is told beside
 * what is saved, the version of that: once it is another, the same words come to something else.
 */
export function useLook<Asked, T>(
  asked: Asked | null,
  lookAt: (asked: Asked) => Promise<T>,
  version: number | null = null,
): Looked<T> {
  const key = asked === null ? null : JSON.stringify([asked, version]);
  const [of, setOf] = useState<{ key: string; look: T | null; problem: ProblemError | null } | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key tells when it is another
  useEffect(() => {
    if (key === null || asked === null) return;
    let isLatest = true;
    const rest = setTimeout(
      () =>
        lookAt(asked).then(
          (look) => {
            if (isLatest) setOf({ key, look, problem: null });
          },
          (error: unknown) => {
            if (!(error instanceof ProblemError)) throw error;
            // What was seen last stays beside what is wrong now.
            if (isLatest) setOf((was) => ({ key, look: was?.look ?? null, problem: error }));
          },
        ),
      of === null ? 0 : REST_MS,
    );
    return () => {
      isLatest = false;
      clearTimeout(rest);
    };
  }, [key]);
  return { look: of?.look ?? null, problem: of?.problem ?? null, isOfNow: of !== null && of.key === key };
}
