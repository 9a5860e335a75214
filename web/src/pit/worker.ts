/// <reference lib="webworker" />
import { registerRoute } from "workbox-routing";
import { CacheFirst, NetworkFirst } from "workbox-strategies";
import { kept } from "./kept";

declare const self: ServiceWorkerGlobalScope;

// The pit side opens without the program, as it was shipped last. Everything else asks the
// program, which may have changed.
registerRoute(
	({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith("/assets/"),
	new CacheFirst({ cacheName: kept.assets }),
);
registerRoute(
	({ request, url }) => request.mode === "navigate" && kept.page.test(url.pathname),
	new NetworkFirst({ cacheName: kept.pages, networkTimeoutSeconds: 4 }),
);

self.addEventListener("install", () => void self.skipWaiting());
self.addEventListener("activate", (e) => e.waitUntil(self.clients.claim()));
