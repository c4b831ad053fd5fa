import { serverContext } from "#server/running";
import { eventStream } from "~/kit/http/event-stream.server";
import { stillKnown } from "~/kit/http/still-known.server";
import type { Route } from "./+types/events.do";

const BEAT_MS = 15_000;

/** Server-sent events: "hello" and "beat" carry the server's time, "change" says that something was written. */
export async function loader({ request, context }: Route.LoaderArgs) {
  const ctx = await serverContext();
  return eventStream(
    request,
    (sendRaw) => {
      const send = (event: string, body: object) => sendRaw(event, { now_ms: ctx.now_ms(), ...body });
      send("hello", { published: ctx.bus.published() });
      // As it is told to all: every reader gets the same bytes. The time comes with the beats.
      const unsubscribe = ctx.bus.subscribeCalmly((change) => sendRaw("change", change));
      const timer = setInterval(() => send("beat", {}), BEAT_MS);
      return () => {
        clearInterval(timer);
        unsubscribe();
      };
    },
    { still: stillKnown(context) },
  );
}
