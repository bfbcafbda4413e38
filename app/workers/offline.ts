import {
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  precacheAndRoute,
  type PrecacheEntry,
} from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';

/*
 * The service worker: keeps the built application, so that it opens without a network after the
 * first visit. The build puts in the list of its files. A new version waits until the page says so:
 * a page that is open never loses the files that it was opened with.
 */

declare const self: ServiceWorkerGlobalScope;
declare const builtFiles: readonly PrecacheEntry[];

cleanupOutdatedCaches();
precacheAndRoute([...builtFiles]);
registerRoute(new NavigationRoute(createHandlerBoundToURL('index.html'), { denylist: [/\/api\//] }));
self.addEventListener('message', ({ data }) => {
  if (data === 'take over') void self.skipWaiting();
});
