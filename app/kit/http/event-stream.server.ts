/** A response of server-sent events. `start` is given a sender and returns what stops it; it stops when the reader goes away. */
export function eventStream(
  { method, signal }: Pick<Request, "method" | "signal">,
  start: (send: (event: string, body: object) => void) => () => void,
): Response {
  const headers = { "Content-Type": "text/event-stream", "Cache-Control": "no-cache, no-transform", "X-Accel-Buffering": "no" };
  if (method === "HEAD") return new Response(null, { headers }); // nothing to read, and no end to wait for
  const encoder = new TextEncoder();
  let stop = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      controller.enqueue(encoder.encode("retry: 1000\n\n"));
      stop = start((event, body) => controller.enqueue(encoder.encode(`event: ${event}\ndata: ${JSON.stringify(body)}\n\n`)));
      signal.addEventListener(
        "abort",
        () => {
          stop();
          controller.close();
        },
        { once: true },
      );
    },
    cancel: () => stop(),
  });
  return new Response(stream, { headers });
}
