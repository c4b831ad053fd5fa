import { lengthWithin } from "../kernel/geometry/region";
import { clearingPlan } from "../models/correction/clearing";
import type { Texture } from "../models/correction/removal-plan";
import type { PanelBrief } from "../panel/brief";
import type { StripsByHand } from "./judge-cells";
import type { Setting, ZoneChoice } from "./zone-setting";
import { HAND_LEVELS, LINE_STRIP_M } from "./limits";
import { HAND_TASK } from "./zone-work";

/** Rim and body lines: how much there is of them, what fine paper by hand takes off there, and how the film's grid sees them. */
export function strips(brief: PanelBrief, choice: ZoneChoice, setting: Setting) {
  const { outline, bodyLines } = brief.shape;
  const { edges = "left", lines = "hand", texture } = choice;
  const { reach, school, ladder, shop, region } = setting;
  const sands = reach === "panel";
  const lineMetres = bodyLines.reduce((a, l) => a + lengthWithin(l, region), 0);
  const rim_m = lengthWithin([...outline, outline[0]!], region);
  const hasLines = sands && lineMetres > 0;
  const edge_m2 = sands ? rim_m * choice.tape_m : 0;
  const line_m2 = hasLines ? lineMetres * 2 * LINE_STRIP_M : 0;
  const uses = [HAND_TASK.use!, ...school.steps.map((s) => s.use).filter((u) => "polish" in u || u.backing === "soft")];
  const levelled: Texture = {
    peakToValley_m: HAND_LEVELS * texture.peakToValley_m,
    u_m: HAND_LEVELS * texture.u_m,
    wanted_m: HAND_LEVELS * (texture.wanted_m ?? 0),
  };
  const hand = clearingPlan(uses, levelled, shop);
  const share = ladder.total.removal_m > 0 ? hand.total.removal_m / ladder.total.removal_m : 1;
  const byHand: StripsByHand = {
    ...(sands && edges === "hand" && choice.tape_m > 0 ? { edge: { within_m: choice.tape_m, share } } : {}),
    ...(hasLines ? { line: { within_m: LINE_STRIP_M, share: lines === "hand" ? share : 0 } } : {}),
  };
  return {
    sands,
    hasLines,
    hand,
    byHand,
    edge_m2,
    line_m2,
    hand_m2: (edges === "hand" ? edge_m2 : 0) + (lines === "hand" ? line_m2 : 0),
    taped_m: (sands && edges === "left" ? rim_m : 0) + (hasLines && lines === "left" ? 2 * lineMetres : 0),
  };
}
