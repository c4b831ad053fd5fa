import { type GlossAngle, roughnessFromGloss } from "#core/gloss/fresnel-gloss";
import type { BodyOf } from "#core/ledger/bodies";
import { standInGlossMeter } from "#stand-ins/gloss-meter";
import { Refusal } from "../commands/refusal";
import { recordEntry } from "../commands/record-entry";
import type { ServerContext } from "../context";

const seedOf = (text: string) => [...text].reduce((a, c) => (Math.imul(a, 31) + c.charCodeAt(0)) | 0, 11) >>> 0;
/** Surfaces the stand-in meter finds: the vehicle's own finish, and the part as sprayed. */
const HIDDEN_60_GU = { matte: { target: 12.6, part: 13.4 }, gloss: { target: 88, part: 89 } } as const;
const CLEAR_INDEX = 1.51;

/** Reads gloss with the stand-in meter at several places of a panel and records it, marked simulated. */
export async function takeStandInGloss(
  ctx: ServerContext,
  input: { panelId: string; role: BodyOf<"gloss">["role"]; angle: GlossAngle; place: string; matte: boolean; count: number; by: string },
): Promise<string> {
  const gloss_GU = HIDDEN_60_GU[input.matte ? "matte" : "gloss"][input.role];
  const meter = standInGlossMeter(
    {
      roughness_m: roughnessFromGloss({ index: CLEAR_INDEX, gloss_GU, angle: 60 }),
      patchiness: 0.012,
      seed: seedOf(input.panelId + input.role),
    },
    { visitSeed: seedOf(`${input.panelId} ${ctx.now_ms()}`) },
  );
  const readings = Array.from({ length: input.count }, (_, place) => {
    const r = meter.read(input.angle, place);
    if (!r.ok) throw new Refusal(null, r.fault);
    return { gloss_GU: r.gloss_GU, entered: r.gloss_GU.toFixed(1) };
  });
  return recordEntry(ctx, {
    panelId: input.panelId,
    kind: "gloss",
    by: input.by,
    simulated: meter.simulated,
    body: { role: input.role, angle: input.angle, place: input.place, meter: meter.name, readings },
  });
}
