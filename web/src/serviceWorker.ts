/**
 * Keeps the program itself on a device that goes to a fair: its files, and the page it begins with where the server
 * cannot be reached. What the server says is never kept here.
 */
import { matchPrecache, precacheAndRoute, type PrecacheEntry } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { NetworkOnly } from 'workbox-strategies';

declare global {
  interface Window {
    /** the built files, written in here when the program is built */
    __WB_MANIFEST: (string | PrecacheEntry)[];
  }
}

const PAGE = '/index.html';
/** A page that takes longer is a page that does not come: a hall full of phones has a signal and no connection. */
const PATIENCE_SECONDS = 4;

precacheAndRoute(self.__WB_MANIFEST, { directoryIndex: '', cleanURLs: false });
registerRoute(
  new NavigationRoute(
    new NetworkOnly({
      networkTimeoutSeconds: PATIENCE_SECONDS,
      plugins: [{ handlerDidError: () => matchPrecache(PAGE) }],
    }),
    { denylist: [/^\/api\//] },
  ),
);
