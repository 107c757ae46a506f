import { useCallback, useLayoutEffect, useRef } from 'react';

/**
 * A function that stays the same, and does what it was last drawn with: handed to a part that is dear to draw and is drawn anew
 * only when what it shows has changed. To be called by what somebody does, not while drawing.
 */
export function useNewest<Args extends readonly unknown[]>(run: (...args: Args) => void): (...args: Args) => void {
  const newest = useRef(run);
  useLayoutEffect(() => {
    newest.current = run;
  });
  return useCallback((...args: Args) => newest.current(...args), []);
}
