import type { BakePlan } from "#core/models/cure/bake-plan";
import { standInOvenProbe } from "#stand-ins/oven-probe";
import { recordEntry } from "../commands/record-entry";
import type { ServerContext } from "../context";

/** Logs a bake as the stand-in probe on the part saw it, marked simulated. */
export async function takeOvenLog(ctx: ServerContext, input: { panelId: string; plan: BakePlan; by: string }): Promise<string> {
  const probe = standInOvenProbe({ seed: ctx.now_ms() % 100_000 });
  return recordEntry(ctx, {
    panelId: input.panelId,
    kind: "oven",
    by: input.by,
    simulated: probe.simulated,
    body: { probe: probe.name, samples: probe.log(input.plan) },
  });
}
