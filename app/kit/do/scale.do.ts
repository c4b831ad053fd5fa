import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { z } from "zod";
import { serverContext } from "#server/running";
import { scaleLine } from "#server/devices/device-hub";
import { jsonLines, jsonOf } from "~/kit/http/json-lines";
import { eventStream } from "~/kit/http/event-stream.server";
import { stillKnown } from "~/kit/http/still-known.server";
import { textBodyOf } from "~/kit/http/body.server";
import type { Route } from "./+types/scale.do";

const READ_EVERY_MS = 200;
const command = z.discriminatedUnion("command", [
  z.object({ command: z.literal("tare") }),
  z.object({ command: z.literal("pour"), rate_kg_s: z.number().positive().max(0.2) }),
  z.object({ command: z.literal("stop") }),
  z.object({ command: z.literal("empty") }),
]);

/** The scale's readings as server-sent events, five a second. */
export async function loader({ request, context }: Route.LoaderArgs) {
  const ctx = await serverContext();
  return eventStream(
    request,
    (send) => {
      const timer = setInterval(() => send("reading", ctx.devices.scaleReading(ctx.now_ms())), READ_EVERY_MS);
      return () => clearInterval(timer);
    },
    { still: stillKnown(context) },
  );
}

/** A real bridge sends one JSON reading a line (`application/x-ndjson`); the page sends commands (`application/json`). */
export const action = acting(async ({ request }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const { devices } = ctx;
  const now_ms = ctx.now_ms();
  const text = await textBodyOf(request);
  if (request.headers.get("Content-Type")?.startsWith("application/x-ndjson")) {
    const lines = jsonLines(text, scaleLine, '{"mass_kg": 0.1234, "stable": true}');
    if (!lines.ok) throw data(lines.message, { status: 400 });
    for (const line of lines.values) devices.pushScale(line, now_ms);
    return { taken: lines.values.length };
  }
  const parsed = command.safeParse(jsonOf(text));
  if (!parsed.success) throw data("Not understood", { status: 400 });
  const c = parsed.data;
  if (c.command === "tare") devices.tareScale(now_ms);
  else if (c.command === "pour") devices.scale.pour(c.rate_kg_s, now_ms);
  else if (c.command === "stop") devices.scale.stop(now_ms);
  else devices.scale.empty(now_ms);
  return devices.scaleReading(now_ms);
});
