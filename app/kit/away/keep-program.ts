/** After this the page has settled, and what the device keeps for later may be fetched. */
const SETTLED_MS = 6000;
/** So many files at a time: nothing that somebody waits for is held up. */
const AT_A_TIME = 3;
const KEPT_FILES = "/kept-files.json";
const WARMED = "yakamoz-kept-program";

/** Every file of the program in the browser's own cache: over plain http there is no service worker to keep them. Once for each program. */
async function warm(send: typeof fetch): Promise<void> {
  const files = (await (await send(KEPT_FILES)).json()) as string[];
  const of = files.join();
  if (localStorage.getItem(WARMED) === of) return;
  const next = files.values();
  await Promise.all(
    Array.from({ length: AT_A_TIME }, async () => {
      for (const file of next) await (await send(file)).arrayBuffer();
    }),
  );
  localStorage.setItem(WARMED, of);
}

/**
 * Has the device keep the program itself, so that it opens, and goes on, without the server.
 * @param newer told, with what takes it, when a newer program lies ready: it waits for a press
 */
export function keepProgram(send: typeof fetch, newer: (take: () => void) => void): () => void {
  const timer = setTimeout(() => {
    const workers = navigator.serviceWorker as ServiceWorkerContainer | undefined;
    const kept = workers ? register(workers, newer) : warm(send);
    kept.catch(() => {}); // the server is away, or the browser keeps nothing: tried again with the next page
  }, SETTLED_MS);
  return () => clearTimeout(timer);
}

async function register(workers: ServiceWorkerContainer, newer: (take: () => void) => void): Promise<void> {
  const had = workers.controller !== null;
  const registration = await workers.register("/service-worker.js");
  const tell = (waiting: ServiceWorker) =>
    newer(() => {
      workers.addEventListener("controllerchange", () => location.reload(), { once: true });
      waiting.postMessage("take over");
    });
  if (registration.waiting && had) tell(registration.waiting);
  registration.addEventListener("updatefound", () => {
    const coming = registration.installing;
    coming?.addEventListener("statechange", () => {
      if (coming.state === "installed" && workers.controller) tell(coming);
    });
  });
}
