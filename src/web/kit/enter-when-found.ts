import { type KeyboardEvent, type RefObject, useEffect, useRef } from 'react';

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
    // The list sets its items in order after it is drawn.
    const frame = requestAnimationFrame(() => {
      isAsked.current = false;
      ref.current?.querySelector<HTMLElement>('[cmdk-item][data-selected="true"]')?.click();
    });
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
