import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { serverContext } from "#server/running";
import { gaugeLine } from "#server/devices/device-hub";
import { eventStream } from "~/kit/http/event-stream.server";
import { stillKnown } from "~/kit/http/still-known.server";
import { jsonLines } from "~/kit/http/json-lines";
import { textBodyOf } from "~/kit/http/body.server";
import type { Route } from "./+types/gauge.do";

const LOOK_EVERY_MS = 100;

/** Readings of a real film gauge from now on, as server-sent events. */
export async function loader({ request, context }: Route.LoaderArgs) {
  const { devices } = await serverContext();
  let seen = devices.lastGaugeSeq();
  return eventStream(
    request,
    (send) => {
      const timer = setInterval(() => {
        for (const reading of devices.gaugeAfter(seen)) {
          send("reading", reading);
          seen = reading.seq;
        }
      }, LOOK_EVERY_MS);
      return () => clearInterval(timer);
    },
    { still: stillKnown(context) },
  );
}

/** A real bridge sends one JSON reading a line (`application/x-ndjson`). */
export const action = acting(async ({ request }: Route.ActionArgs) => {
  const ctx = await serverContext();
  if (!request.headers.get("Content-Type")?.startsWith("application/x-ndjson")) throw data("Send application/x-ndjson", { status: 415 });
  const lines = jsonLines(await textBodyOf(request), gaugeLine, '{"total_m": 0.000131, "device": "Gauge 2"}');
  if (!lines.ok) throw data(lines.message, { status: 400 });
  for (const line of lines.values) ctx.devices.pushGauge(line, ctx.now_ms());
  return { taken: lines.values.length };
});
