import { ExpirationPlugin } from 'workbox-expiration';
import { cleanupOutdatedCaches, matchPrecache, type PrecacheEntry, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { NetworkFirst, NetworkOnly } from 'workbox-strategies';
import { PICTURES } from './kit/picture-cache.ts';

/**
 * Opens the application without a net: its own parts, as the build has made them, and pictures that were seen or taken
 * along. With a net everything comes from the server, so that nobody stays on an older version for longer than a page is
 * open; what the server says is kept by the page (see `kit/kept-answers.ts`).
 */

/** Written by the build: every part of the browser side. */
declare const PARTS: PrecacheEntry[];

/** A net that does not answer for so long is none. */
const PATIENCE_SECONDS = 5;
const KEPT_DAYS = 9;
const MOST_PICTURES = 500;

// The page that has brought it goes on with it, and need not be opened once more.
self.addEventListener('activate', (event) =>
  (event as ExtendableEvent).waitUntil((self as unknown as ServiceWorkerGlobalScope).clients.claim()),
);

// A new version waits until no page of the one before is open: none loses its parts under it.
precacheAndRoute(PARTS);
cleanupOutdatedCaches();

const fromServer = new NetworkOnly({ networkTimeoutSeconds: PATIENCE_SECONDS });
registerRoute(
  new NavigationRoute(
    async (asked) => {
      try {
        return await fromServer.handle(asked);
      } catch (error) {
        const page = await matchPrecache('/index.html');
        if (page) return page;
        throw error;
      }
    },
    // What is not a page of ours: files, calendars, exports.
    { denylist: [/^\/api\//] },
  ),
);

registerRoute(
  ({ url, sameOrigin }) => sameOrigin && /^\/api\/files\/[0-9a-f-]{36}(\/small)?$/.test(url.pathname),
  new NetworkFirst({
    cacheName: PICTURES,
    networkTimeoutSeconds: PATIENCE_SECONDS,
    plugins: [
      new ExpirationPlugin({
        maxEntries: MOST_PICTURES,
        maxAgeSeconds: KEPT_DAYS * 24 * 60 * 60,
        purgeOnQuotaError: true,
      }),
    ],
  }),
);

/** What a sign says, as the server sends it. */
interface Sign {
  readonly title: string;
  readonly body: string;
  readonly path: string;
  readonly tag: string;
}

const worker = self as unknown as ServiceWorkerGlobalScope;

worker.addEventListener('push', (event) => {
  const sign = event.data?.json() as Sign | undefined;
  if (sign === undefined) return;
  const { title, body, path, tag } = sign;
  // Under its tag the same sign is shown once, however often it comes.
  event.waitUntil(
    worker.registration.showNotification(title, { body, tag, icon: '/icon-192.png', data: { path }, lang: 'en-GB' }),
  );
});

/** Leads to what it is about: in a page that is open already, or in a new one. */
worker.addEventListener('notificationclick', (event) => {
  event.notification.close();
  const { path = '/' } = (event.notification.data ?? {}) as { readonly path?: string };
  const address = new URL(path, worker.location.origin);
  // Whatever was sent: it leads to pages of ours.
  const goTo = address.origin === worker.location.origin ? address.href : worker.location.origin;
  const open = async () => {
    const [page] = await worker.clients.matchAll({ type: 'window' });
    if (page === undefined) return worker.clients.openWindow(goTo);
    await page.focus();
    return page.navigate(goTo);
  };
  event.waitUntil(open());
});
