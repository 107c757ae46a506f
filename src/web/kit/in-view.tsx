import { type ReactNode, useLayoutEffect, useRef, useState } from 'react';
import { flushSync } from 'react-dom';

interface InViewProps {
  /** In pixels: what is not drawn takes its room all the same. */
  readonly height: number;
  readonly children: ReactNode;
}

/** Drawn before it comes into view, so that nobody sees it come. */
const NEAR = '300px';

/** Draws what takes long to draw only while it stands in view or near it, and on paper. */
export function InView({ height, children }: InViewProps) {
  const element = useRef<HTMLDivElement>(null);
  const [isNear, setNear] = useState(false);
  useLayoutEffect(() => {
    if (element.current === null) return;
    // The page moves within the window: what lies near is told by a margin of whatever moves it.
    const near = { rootMargin: NEAR, scrollMargin: NEAR };
    const observer = new IntersectionObserver((entries) => setNear(entries.at(-1)?.isIntersecting ?? false), near);
    observer.observe(element.current);
    const drawAll = () => flushSync(() => setNear(true));
    window.addEventListener('beforeprint', drawAll);
    return () => {
      observer.disconnect();
      window.removeEventListener('beforeprint', drawAll);
    };
  }, []);
  return (
    <div ref={element} style={{ height }}>
      {isNear && children}
    </div>
  );
}
