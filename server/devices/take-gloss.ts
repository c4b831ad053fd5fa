import { type GlossAngle, roughnessFromGloss } from "#core/models/gloss/fresnel-gloss";
import type { BodyOf } from "#core/record/bodies";
import { standInGlossMeter } from "#stand-ins/gloss-meter";
import { Refusal } from "../commands/refusal";
import { recordEntry } from "../commands/record-entry";
import type { ServerContext } from "../context";
import { seedOf } from "#core/kernel/stats/seed-of";
import { requireStandIns } from "./stand-ins-allowed";

const SEED_START = 11;

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
      seed: seedOf(input.panelId + input.role, SEED_START),
    },
    { visitSeed: seedOf(`${input.panelId} ${ctx.now_ms()}`, SEED_START) },
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

/** Figure printed on the stand-in meter's tile, and how far off it may read before it wants cleaning or service. */
const TILE_GU = 94.6;
const TILE_LIMIT_GU = 1.5;

/** Reads the stand-in meter's tile and says in words whether it may be trusted. */
export async function checkStandInTile(ctx: ServerContext, angle: GlossAngle): Promise<string> {
  await requireStandIns(ctx);
  const meter = standInGlossMeter({ roughness_m: 0, patchiness: 0, seed: 1 }, { visitSeed: seedOf(`tile ${ctx.now_ms()}`, SEED_START) });
  const check = meter.checkTile(angle, TILE_GU);
  if (!check.ok) throw new Refusal(null, check.fault);
  const off = `${check.offBy_GU >= 0 ? "+" : "−"}${Math.abs(check.offBy_GU).toFixed(1)} GU`;
  return Math.abs(check.offBy_GU) <= TILE_LIMIT_GU
    ? `Tile ${TILE_GU} GU read ${off} off: good (simulated)`
    : `Tile ${TILE_GU} GU read ${off} off: clean tile and lens, calibrate again (simulated)`;
}
