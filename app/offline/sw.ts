/// <reference lib="webworker" />
// The service worker: what pages are made of is kept, so that they open with the network gone; what they show comes from `kept`.
// Built by bin/service-worker.ts after the application, since it lists the files of that build.
import { clientsClaim } from "workbox-core";
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { CacheFirst } from "workbox-strategies";

declare const self: ServiceWorkerGlobalScope;
/** Set at the build: path and revision of everything a page is made of. */
declare const FILES: { url: string; revision: string | null }[];

void self.skipWaiting();
clientsClaim();
cleanupOutdatedCaches();
precacheAndRoute(FILES);

/** So long a page is waited for before the kept one is shown: a bench does not wait longer. */
const PATIENCE = 6_000;

registerRoute(
  new NavigationRoute(
    async ({ request, url }) => {
      try {
        return await fetch(request, { signal: AbortSignal.timeout(PATIENCE) });
      } catch {
        // At its own address, since a page must be drawn at the address it was made for; it then goes where it was meant to.
        if (url.pathname === "/offline") return (await matchPrecache("/offline")) ?? Response.error();
        return Response.redirect(
          `/offline?to=${encodeURIComponent(url.pathname + url.search + url.hash)}`,
          302,
        );
      }
    },
    // Files are not pages.
    { denylist: [/\.(pdf|json|crt|webmanifest)$/, /^\/trust/] },
  ),
);

// A picture of a book is what its name says, for ever: one that was seen is there without the server too.
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith("/pictures/"),
  new CacheFirst({ cacheName: "pictures" }),
);
