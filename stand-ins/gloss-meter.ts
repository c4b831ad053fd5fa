import { type GlossAngle, roughGloss } from "#core/models/gloss/fresnel-gloss";
import { requireNumber } from "#core/kernel/guard";
import { normals, seededRandom } from "#core/kernel/stats/random";

/** What any gloss meter gives: a check on its tile, and one reading at an angle, or a fault in words. */
export interface GlossMeterPort {
  readonly name: string;
  readonly simulated: boolean;
  /** Reads the calibration tile; `offBy_GU` is what it is away from the tile's own figure. */
  checkTile(angle: GlossAngle, tile_GU: number): { ok: true; offBy_GU: number } | { ok: false; fault: string };
  read(angle: GlossAngle, place: number): { ok: true; gloss_GU: number } | { ok: false; fault: string };
}

const CLEAR_INDEX = 1.51;

/** A simulated three-angle meter over a hidden surface: an effective roughness for each angle, patchiness from place to place, noise. */
export function standInGlossMeter(
  hidden: { roughness_m: number; patchiness: number; seed: number },
  {
    visitSeed,
    noise_GU = 0.25,
    gain = 1.004,
    faultEvery = 0,
  }: { visitSeed: number; noise_GU?: number; gain?: number; faultEvery?: number },
): GlossMeterPort {
  requireNumber("hidden.roughness_m", hidden.roughness_m, { min: 0, max: 1e-6 });
  const normal = normals(seededRandom(visitSeed));
  let count = 0;
  return {
    name: "Stand-in gloss meter",
    simulated: true,
    checkTile(_angle, tile_GU) {
      requireNumber("tile_GU", tile_GU, { min: 0, max: 200 });
      return { ok: true, offBy_GU: Math.round((tile_GU * (gain - 1) + noise_GU * normal()) * 10) / 10 };
    },
    read(angle, place) {
      count++;
      if (faultEvery > 0 && count % faultEvery === 0) return { ok: false, fault: "The meter does not lie flat. Set it down again." };
      const local = normals(seededRandom(hidden.seed + 7919 * Math.round(place)))();
      const roughness_m = hidden.roughness_m * (1 + hidden.patchiness * local);
      const gloss = roughGloss({ index: CLEAR_INDEX, roughness_m: Math.max(0, roughness_m), angle }) * gain + noise_GU * normal();
      return { ok: true, gloss_GU: Math.max(0, Math.round(gloss * 10) / 10) };
    },
  };
}
