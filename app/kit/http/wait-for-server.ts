/** So often a server that is away is asked again, ms. */
const AGAIN_MS = 1000;

/** What of a request tells what it is: a page's data is asked for with GET at an address that ends so, and what is stored is sent there. */
const isOfPage = (url: URL) => url.pathname.endsWith(".data");
const isLook = (url: URL, method: string) => method === "GET" && isOfPage(url);

/** An answer with all of its body: one that breaks off, or is left, half way does so here, where it is waited for, and not where it is read. */
async function whole(answer: Response): Promise<Response> {
  if (answer.body === null) return answer;
  const { status, statusText, headers } = answer;
  return new Response(await answer.arrayBuffer(), { status, statusText, headers });
}

/**
 * Looks at a page's data that wait for a server which is away, instead of failing: a page whose look failed would be put aside for an error, with
 * what is typed in it. What is sent to be stored fails at once, and its form says so.
 */
export function waitForServer(send: typeof fetch, clock: Pick<typeof globalThis, "setTimeout" | "clearTimeout"> = globalThis) {
  let waiting = 0;
  const listeners = new Set<() => void>();
  const change = (by: number) => {
    waiting += by;
    listeners.forEach((l) => l());
  };
  const rest = (signal: AbortSignal | null | undefined) =>
    new Promise<void>((resolve, reject) => {
      const left = () => {
        clock.clearTimeout(timer);
        reject(signal!.reason as Error);
      };
      const timer = clock.setTimeout(() => {
        signal?.removeEventListener("abort", left);
        resolve();
      }, AGAIN_MS);
      signal?.addEventListener("abort", left, { once: true });
    });
  const asked: typeof fetch = async (input, init) => {
    const request = input instanceof Request ? input : null;
    const url = new URL(input instanceof Request ? input.url : input, globalThis.location?.href);
    if (!isLook(url, init?.method ?? request?.method ?? "GET")) return isOfPage(url) ? whole(await send(input, init)) : send(input, init);
    const signal = init?.signal ?? request?.signal;
    let waits = false;
    try {
      for (;;)
        try {
          return await whole(await send(input, init));
        } catch (error) {
          if (signal?.aborted || !(error instanceof TypeError)) throw error; // left, or no matter of the connection
          if (!waits) change(1);
          waits = true;
          await rest(signal);
        }
    } finally {
      if (waits) change(-1);
    }
  };
  return {
    fetch: asked,
    /** Whether a page waits for the server now. */
    isWaiting: () => waiting > 0,
    subscribe: (listener: () => void) => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
  };
}

/** What answers where the server does not. */
interface InItsPlace {
  fetch: typeof fetch;
  /** Whether it could answer now. */
  ready(): boolean;
  /** The server is there again: it is sent what waits for it. */
  flush(): Promise<unknown>;
  /** Something of the shop has changed. */
  follow(by: "own" | "others"): void;
}
let inItsPlace: InItsPlace | null = null;
/** What answers here where the server does not, once it has been loaded. */
export const deviceHere = (): InItsPlace | null => inItsPlace;
/** @param made given the way to the server */
export const withDevice = <D extends InItsPlace>(made: (send: typeof fetch) => D): D => {
  const device = made(sendAs);
  inItsPlace = device;
  return device;
};

/** Asks the server; where that does not answer, the device, which is loaded for it. */
async function askHere(input: RequestInfo | URL, init?: RequestInit): Promise<Response> {
  if (inItsPlace) return inItsPlace.fetch(input, init);
  try {
    return await sendAs(input, init);
  } catch (error) {
    if (!(error instanceof TypeError) || init?.signal?.aborted) throw error;
    await loadDevice().catch(() => {}); // it is not on this device either
    const device = deviceHere();
    if (!device) throw error;
    return device.fetch(input, init);
  }
}

/** The window's own: what is asked for by the router goes through it from `install` on. */
const own = waitForServer(askHere);
let sendAs: typeof fetch = (input, init) => globalThis.fetch(input, init);
let loadDevice: () => Promise<unknown> = () => Promise.resolve();

/** From here on a look of this window waits for its server. @param device loads what answers in the server's place */
export function install(device: () => Promise<unknown>): void {
  sendAs = globalThis.fetch.bind(globalThis);
  loadDevice = device;
  globalThis.fetch = own.fetch;
}
export const { isWaiting, subscribe } = own;
