import { type KeyboardEvent, type RefObject, useCallback, useEffect, useRef } from 'react';

/** Frames that the list may take to point to one of what was found; then the first that it shows is taken. */
const MOST_FRAMES = 12;

/**
 * For a list (cmdk) whose items are looked up as it is typed: Enter that comes before they are found, or before the list
 * points to one of them, is kept, and takes the first of them once it does, as if it had been there.
 * @param wasAsked Enter came before the list was there itself
 */
export function useEnterWhenFound(
  isLooking: boolean,
  wasAsked = false,
): {
  /** Spread on the list. */
  readonly list: { readonly ref: RefObject<HTMLDivElement | null>; readonly onKeyDown: (event: KeyboardEvent) => void };
  /** An Enter waits: whoever goes on elsewhere meanwhile has chosen all the same. */
  readonly isAwaited: () => boolean;
} {
  const ref = useRef<HTMLDivElement>(null);
  const isAsked = useRef(wasAsked);
  const frame = useRef(0);
  const pointed = useCallback(() => ref.current?.querySelector<HTMLElement>('[cmdk-item][data-selected="true"]'), []);
  const takeFirst = useCallback(() => {
    // The list sets its items in order after it is drawn, and points to the first of them once that is done.
    let frames = 0;
    const take = () => {
      const first = pointed();
      if (!first && ++frames < MOST_FRAMES) {
        frame.current = requestAnimationFrame(take);
        return;
      }
      isAsked.current = false;
      (first ?? ref.current?.querySelector<HTMLElement>('[cmdk-item]'))?.click();
    };
    cancelAnimationFrame(frame.current);
    frame.current = requestAnimationFrame(take);
  }, [pointed]);
  useEffect(() => {
    if (!isLooking && isAsked.current) takeFirst();
    return () => cancelAnimationFrame(frame.current);
  }, [isLooking, takeFirst]);
  return {
    list: {
      ref,
      onKeyDown: (event) => {
        // Whoever goes on to the next blank means what was asked; any other key asks anew.
        if (event.key === 'Tab' || event.key === 'Shift') return;
        cancelAnimationFrame(frame.current);
        isAsked.current = event.key === 'Enter' && (isLooking || !pointed());
        if (!isAsked.current) return;
        event.preventDefault();
        if (!isLooking) takeFirst();
      },
    },
    isAwaited: () => isAsked.current,
  };
}
