import { data } from "react-router";

/** So many streams at most are open at once: far more than a shop has screens. */
export const MOST_STREAMS = 200;
/** What waits for a reader at most; one that takes it no faster is let go, and its browser comes back by itself. */
const MOST_WAITING_BYTES = 128 * 1024;

/** Whoever is not let in any more reads on no longer than this. */
const ASK_EVERY_MS = 2000;

const encoder = new TextEncoder();
const events = new WeakMap<object, Uint8Array>();

/** An event as it goes over the wire. Of a body that is told to many readers it is made once. */
export function encoded(event: string, body: object): Uint8Array {
  const known = events.get(body);
  if (known) return known;
  const bytes = encoder.encode(`event: ${event}\ndata: ${JSON.stringify(body)}\n\n`);
  events.set(body, bytes);
  return bytes;
}

export interface StreamCount {
  open: number;
}
const everywhere: StreamCount = { open: 0 };

/**
 * A response of server-sent events. `start` is given a sender and returns what stops it; it stops when the reader goes away, or takes no more.
 * @param still whether the reader may still read: asked every few seconds
 * @throws 503 in words when there are too many already
 */
export function eventStream(
  { method, signal }: Pick<Request, "method" | "signal">,
  start: (send: (event: string, body: object) => void) => () => void,
  { count = everywhere, still = null }: { count?: StreamCount; still?: (() => Promise<boolean>) | null } = {},
): Response {
  const headers = { "Content-Type": "text/event-stream", "Cache-Control": "no-cache, no-transform", "X-Accel-Buffering": "no" };
  if (method === "HEAD") return new Response(null, { headers }); // nothing to read, and no end to wait for
  if (count.open >= MOST_STREAMS)
    throw data("Too many screens are open at once; close some.", { status: 503, headers: { "Retry-After": "10" } });
  count.open++;
  let stopSending = () => {};
  let stopped = false;
  let asking: ReturnType<typeof setInterval> | undefined;
  const stop = () => {
    if (stopped) return;
    stopped = true;
    clearInterval(asking);
    count.open--;
    stopSending();
  };
  const stream = new ReadableStream<Uint8Array>(
    {
      start(controller) {
        const end = () => {
          if (stopped) return;
          stop();
          controller.close();
        };
        controller.enqueue(encoder.encode("retry: 1000\n\n"));
        stopSending = start((event, body) => {
          if (stopped) return;
          if ((controller.desiredSize ?? 0) < -MOST_WAITING_BYTES) return end();
          controller.enqueue(encoded(event, body));
        });
        signal.addEventListener("abort", end, { once: true });
        if (still) asking = setInterval(() => void still().then((may) => may || end(), end), ASK_EVERY_MS);
      },
      cancel: stop,
    },
    new ByteLengthQueuingStrategy({ highWaterMark: 0 }),
  );
  return new Response(stream, { headers });
}
