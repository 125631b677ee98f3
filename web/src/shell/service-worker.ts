import { clientsClaim } from 'workbox-core';
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';

/**
 * The service worker: keeps the whole application and the samples in this browser, so that every step, sample and part page opens without the server.
 * `vite.config.ts` builds it by itself and tells it what there is.
 */
declare const PRECACHED: Parameters<typeof precacheAndRoute>[0];

/** The worker, as far as it is used here: a page's types know no service workers. */
const worker = self as unknown as {
  skipWaiting(): Promise<void>;
  addEventListener(type: 'message', hear: (event: { readonly data?: { readonly type?: string } }) => void): void;
};

cleanupOutdatedCaches();
precacheAndRoute(PRECACHED);
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { denylist: [/^\/(api|healthz)/] }));
// A page that was opened before all was kept has it from then on, too.
clientsClaim();
// What is new waits until the person says so.
worker.addEventListener('message', ({ data }) => {
  if (data?.type === 'SKIP_WAITING') void worker.skipWaiting();
});
