import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";

/** What a service worker has of the browser; the types of a page and of a worker can't both be loaded. */
interface Scope {
  addEventListener: (type: "activate" | "message", listener: (event: LifeEvent) => void) => void;
  skipWaiting: () => Promise<void>;
  clients: { claim: () => Promise<void> };
}

interface LifeEvent {
  data?: unknown;
  waitUntil: (work: Promise<unknown>) => void;
}

/** Every file of the application with the hash of what is in it, where its name has none: written in by the build. */
declare const FILES: { url: string; revision: string | null }[];

const scope = self as unknown as Scope;

// The files of one build are kept together: a page goes on with the parts that it was built with, whatever the server has by now.
precacheAndRoute(FILES);
cleanupOutdatedCaches();

// The list of projects, and the views of one. Any other address (a prototype left for a phone, an open file) is the server's.
registerRoute(new NavigationRoute(createHandlerBoundToURL("/index.html"), { allowlist: [/^\/(p\/[^/?]+(\/[^/?]*)?\/?)?(\?|$)/] }));

scope.addEventListener("activate", (event) => event.waitUntil(scope.clients.claim()));
// A new version waits until somebody asks for it: pages that are open would lose the parts they have not loaded yet.
scope.addEventListener("message", (event) => {
  if ((event.data as { type?: unknown } | null)?.type === "SKIP_WAITING") event.waitUntil(scope.skipWaiting());
});
