import { type RefObject, useLayoutEffect, useRef, useState } from 'react';

/** The width of an element in CSS pixels, followed as it changes; 0 before it is drawn. */
export function useWidth<E extends HTMLElement>(): [RefObject<E | null>, number] {
  const element = useRef<E>(null);
  const [width, setWidth] = useState(0);
  useLayoutEffect(() => {
    if (!element.current) return;
    setWidth(element.current.clientWidth);
    const observer = new ResizeObserver(([entry]) => setWidth(Math.floor(entry?.contentRect.width ?? 0)));
    observer.observe(element.current);
    return () => observer.disconnect();
  }, []);
  return [element, width];
}
