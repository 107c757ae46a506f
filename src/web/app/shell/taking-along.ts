import { useEffect } from 'react';
import { useWorkspace } from './workspace.tsx';

/** Once what somebody waits for is there; and again after so long, while the page is looked at. */
const FIRST_MS = 5000;
const AGAIN_MS = 30 * 60 * 1000;

/** On what is carried about: a phone, or what was put on a home screen. */
const CARRIED = window.matchMedia('(max-width: 720px), (display-mode: standalone)');

/** Takes one's own coming week along, on what is carried about. */
export function useTakingAlong(): void {
  const { me, today } = useWorkspace();
  useEffect(() => {
    if (!CARRIED.matches || !('indexedDB' in window)) return;
    const ended = new AbortController();
    const take = async () => {
      if (document.visibilityState !== 'visible' || !navigator.onLine || ended.signal.aborted) return;
      const { takeAlong } = await import('../../features/tasks/take-along.ts');
      await takeAlong(me.id, today, ended.signal);
    };
    // One after the other, not beside each other.
    let line = Promise.resolve();
    const go = () => {
      line = line.then(take).catch((error: unknown) => reportError(error));
    };
    const first = setTimeout(go, FIRST_MS);
    const again = setInterval(go, AGAIN_MS);
    window.addEventListener('online', go);
    // Only then can pictures be kept.
    navigator.serviceWorker?.addEventListener('controllerchange', go);
    return () => {
      ended.abort();
      clearTimeout(first);
      clearInterval(again);
      window.removeEventListener('online', go);
      navigator.serviceWorker?.removeEventListener('controllerchange', go);
    };
  }, [me.id, today]);
}
