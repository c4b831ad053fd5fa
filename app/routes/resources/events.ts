import { serverContext } from "#server/context";
import type { Route } from "./+types/events";

const BEAT_MS = 15_000;

/** Server-sent events: "hello" and "beat" carry the server's time, "change" says that something was written. */
export async function loader({ request }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const encoder = new TextEncoder();
  let stop = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (event: string, body: object) =>
        controller.enqueue(encoder.encode(`event: ${event}\ndata: ${JSON.stringify({ now_ms: ctx.now_ms(), ...body })}\n\n`));
      controller.enqueue(encoder.encode("retry: 1000\n\n"));
      send("hello", {});
      const unsubscribe = ctx.bus.subscribe((change) => send("change", change));
      const timer = setInterval(() => send("beat", {}), BEAT_MS);
      stop = () => {
        clearInterval(timer);
        unsubscribe();
      };
      request.signal.addEventListener(
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
  return new Response(stream, {
    headers: { "Content-Type": "text/event-stream", "Cache-Control": "no-cache, no-transform", "X-Accel-Buffering": "no" },
  });
}
