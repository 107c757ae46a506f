/** What is not on the first page and may be wanted any moment, with or without a connection: loaded once that page stands. */
export const loadJump = () => import('./jump.tsx');
export const loadKeyCard = () => import('./key-card.tsx');
export const loadCapture = () => import('../../features/tasks/capture/capture-bar.tsx');
export const loadStartNow = () => import('../../features/templates/start-now.tsx');
export const loadTaskSheet = () => import('../../features/tasks/sheet/task-sheet.tsx');

export const loadSignInAgain = () => import('../../features/people/sign-in-again.tsx');

/** Time for the first page to be drawn. */
const PRELOAD_AFTER_MS = 300;

/** Where it fails it is asked for again when it is opened, and told then. */
export function loadSoon(): void {
  window.setTimeout(() => {
    for (const load of [loadCapture, loadTaskSheet, loadJump, loadStartNow, loadKeyCard, loadSignInAgain])
      load().catch(() => undefined);
  }, PRELOAD_AFTER_MS);
}

/** Without a connection the application opens too: its parts are kept by a service worker, which only a build has. */
export function openWithoutNet(): void {
  if (import.meta.hot || !('serviceWorker' in navigator)) return;
  window.setTimeout(() => {
    // A private window may refuse it: then there is a net, or nothing.
    navigator.serviceWorker.register('/sw.js').catch((error: unknown) => console.info('No service worker.', error));
  }, PRELOAD_AFTER_MS);
}
