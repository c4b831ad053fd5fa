import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { serverContext } from "#server/running";
import { climateLine } from "#server/devices/device-hub";
import { jsonLines } from "~/kit/http/json-lines";
import { textBodyOf } from "~/kit/http/body.server";
import type { Route } from "./+types/climate.do";

/** What the climate probe says now. */
export async function loader() {
  const ctx = await serverContext();
  return ctx.devices.climateReading(ctx.now_ms());
}

/** A real bridge sends one JSON reading a line (`application/x-ndjson`). */
export const action = acting(async ({ request }: Route.ActionArgs) => {
  const ctx = await serverContext();
  if (!request.headers.get("Content-Type")?.startsWith("application/x-ndjson")) throw data("Send application/x-ndjson", { status: 415 });
  const lines = jsonLines(
    await textBodyOf(request),
    climateLine,
    '{"air_K": 295.2, "part_K": 294.5, "material_K": null, "relativeHumidity": 0.52}',
  );
  if (!lines.ok) throw data(lines.message, { status: 400 });
  for (const line of lines.values) ctx.devices.pushClimate(line, ctx.now_ms());
  return { taken: lines.values.length };
});
