import { type KeyboardEvent, type RefObject, useEffect, useRef } from 'react';

/** Frames that the list may take for that; where nothing was found, it never points to anything. */
const MOST_FRAMES = 30;

/**
 * For a list (cmdk) whose items are looked up as it is typed: Enter that comes before they are found is kept, and takes
 * the first of them once they are, as if they had been there.
 * @param wasAsked Enter came before the list was there itself
 */
export function useEnterWhenFound(
  isLooking: boolean,
  wasAsked = false,
): {
  readonly ref: RefObject<HTMLDivElement | null>;
  readonly onKeyDown: (event: KeyboardEvent) => void;
} {
  const ref = useRef<HTMLDivElement>(null);
  const isAsked = useRef(wasAsked);
  useEffect(() => {
    if (isLooking || !isAsked.current) return;
    // The list sets its items in order after it is drawn, and points to the first of them once that is done.
    let frames = 0;
    const take = () => {
      const first = ref.current?.querySelector<HTMLElement>('[cmdk-item][data-selected="true"]');
      if (!first && ++frames < MOST_FRAMES) {
        frame = requestAnimationFrame(take);
        return;
      }
      isAsked.current = false;
      first?.click();
    };
    let frame = requestAnimationFrame(take);
    return () => cancelAnimationFrame(frame);
  }, [isLooking]);
  return {
    ref,
    onKeyDown: (event) => {
      isAsked.current = event.key === 'Enter' && isLooking;
      if (isAsked.current) event.preventDefault();
    },
  };
}
