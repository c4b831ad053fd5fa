import { recordEntry } from "../commands/record-entry";
import type { ServerContext } from "../context";

/** Logs what the climate probe says now: a real one's last line where a bridge has sent any lately, else the stand-in's, marked simulated. */
export async function takeClimate(ctx: ServerContext, { panelId, by }: { panelId: string; by: string }): Promise<string> {
  const { simulated, reading } = ctx.devices.climateReading(ctx.now_ms());
  return recordEntry(ctx, { panelId, kind: "climate", body: reading, by, simulated });
}
