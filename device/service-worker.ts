import cold from "virtual:cold";
import { type PrecacheEntry, cleanupOutdatedCaches, precacheAndRoute } from "workbox-precaching";
import { registerRoute } from "workbox-routing";
import { PREPARED } from "~/kit/away/device-names";

declare const self: { __WB_MANIFEST: (PrecacheEntry | string)[]; skipWaiting(): Promise<void> } & typeof globalThis;

interface ExtendableEvent extends Event {
  waitUntil(work: Promise<unknown>): void;
}
interface ServiceWorkerScope {
  clients: { claim(): Promise<void> };
}

/** Every file of the program as it was built; a newer one waits until it is taken. */
precacheAndRoute(self.__WB_MANIFEST);
cleanupOutdatedCaches();

/** So long a page is waited for before the device opens it by itself. */
const PAGE_MS = 8000;

const POLICY = "default-src 'self'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'";
const opener = () =>
  new Response(
    `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>Yakamoz</title><main><p id="said" role="status">Opening on this device…</p></main><script src="${cold}"></script></html>`,
    { headers: { "Content-Type": "text/html; charset=utf-8", "Content-Security-Policy": POLICY } },
  );

registerRoute(
  ({ request }) => request.mode === "navigate" && !/^\/(do\/|authority\.crt)/.test(new URL(request.url).pathname),
  async ({ request }) => {
    const prepared = await caches.open(PREPARED);
    const laid = await prepared.match(request.url);
    if (laid) {
      await prepared.delete(request.url);
      return laid;
    }
    try {
      return await fetch(request, { signal: AbortSignal.timeout(PAGE_MS) });
    } catch {
      return opener();
    }
  },
);

// The first one serves the windows that are open already; a newer one waits until it is told to.
addEventListener("activate", (event) => (event as ExtendableEvent).waitUntil((self as unknown as ServiceWorkerScope).clients.claim()));
addEventListener("message", ({ data }: MessageEvent) => {
  if (data === "take over") void self.skipWaiting();
});
