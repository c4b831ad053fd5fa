import { FLOW } from "../models/flow/constants";
import { requireNumber } from "../kernel/guard";
import { type Texture, peakToValleyFromRms } from "../models/correction/removal-plan";
import type { Finish } from "../models/ways/terms";
import { neighbourOf } from "../panel/neighbour";
import type { PanelFacts } from "../panel/derive-panel";

/** Texture of a sprayed panel nobody has measured: 3 ± 0.4 µm peak to valley, judged. Default of ours. */
export const JUDGED_TEXTURE = { peakToValley_m: 3e-6, u_m: 0.4e-6 } as const;

type Peel = PanelFacts["defects"][number];

/** The worst peel that was sized among those that count. */
const worstPeel = (state: Pick<PanelFacts, "defects">, counts: (mark: Peel) => boolean = () => true): Peel | undefined =>
  state.defects
    .filter((d) => d.body.kind === "peel" && d.body.height_m !== null && counts(d))
    .sort((a, b) => b.body.height_m! - a.body.height_m!)[0];

/** Peel outside what was drawn as an area: what is noted there, else the usual. */
export const textureElsewhere = (state: Pick<PanelFacts, "defects">): number =>
  worstPeel(state, (d) => d.body.trace?.as !== "area")?.body.height_m ?? JUDGED_TEXTURE.peakToValley_m;

/** Peel measured or judged on the panel, the worst of it; otherwise the usual texture. */
export function textureOf(state: PanelFacts): { texture: Texture; from: "measured" | "judged" | "usual" } {
  const peel = worstPeel(state);
  if (!peel) return { texture: { ...JUDGED_TEXTURE }, from: "usual" };
  const peakToValley_m = peel.body.height_m!;
  return {
    texture: { peakToValley_m, u_m: peakToValley_m * (peel.body.measured ? 0.12 : 0.25) },
    from: peel.body.measured ? "measured" : "judged",
  };
}

/** Peak to valley that a rating by eye on the scale 1 … 5 stands for. @throws RangeError outside 1 … 5 */
export function peakToValleyOfRating(rating: number): number {
  const r = requireNumber("rating", rating, { min: 1, max: 5 });
  return peakToValleyFromRms(FLOW.textureUnit_m * FLOW.textureStep ** (r - 1)).peakToValley_m;
}

/** Texture that the finish asks for: none for show flat, the neighbour's as rated where it has to match, else a usual one. */
export function wantedTexture(
  state: Pick<PanelFacts, "texture" | "neighbours">,
  finish: Finish,
): { peakToValley_m: number; from: "flat" | "rated" | "usual" } {
  if (finish === "flat") return { peakToValley_m: 0, from: "flat" };
  const rating = finish === "match" ? (neighbourOf(state)?.rating ?? null) : null;
  return rating !== null
    ? { peakToValley_m: peakToValleyOfRating(rating), from: "rated" }
    : { peakToValley_m: JUDGED_TEXTURE.peakToValley_m, from: "usual" };
}

/** Peak to valley that work leaves: what the finish asks for; in matte all of it, which nobody may level. */
export const leftTexture = (
  state: Pick<PanelFacts, "texture" | "neighbours">,
  finish: Finish,
  texture: Pick<Texture, "peakToValley_m">,
): number => (finish === "matte" ? texture.peakToValley_m : wantedTexture(state, finish).peakToValley_m);
