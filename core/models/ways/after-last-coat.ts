import { PURGE_S } from "../cure/bake-plan";
import type { ProductSheet } from "../product/sheet";
import type { Finish, HouseWay } from "./way";

/** A matte part flashes so long after its last coat before any heat: common practice, 15 min. */
const MATTE_FINAL_FLASH_S = 15 * 60;

/** Air after the last coat before heat goes on: as the way has it, else as the finish wants it. */
export const airBeforeHeat_s = ({ way, finish }: { way?: Pick<HouseWay, "airBeforeHeat_s"> | undefined; finish: Finish }): number =>
  way?.airBeforeHeat_s ?? (finish === "matte" ? MATTE_FINAL_FLASH_S : PURGE_S);

/** Until a part may be turned where its sheet has neither a tape nor a dust-free time: an hour at 20 °C, common practice; matte, which keeps every touch, until it is hard. */
const TURN_S = 3600;
export const turnAfter_s = ({
  kind,
  tape_s,
  dustFree_s,
  sandAfter_s,
}: Pick<ProductSheet, "kind" | "tape_s" | "dustFree_s" | "sandAfter_s">): number =>
  tape_s ?? dustFree_s ?? (kind === "matte clear" ? sandAfter_s : TURN_S);

/** Until it bears what comes next, at 20 °C: gloss the paper, and never before the way wants it; matte, which nobody sands, a hand. */
export const bearsAfter_s = (
  sheet: Pick<ProductSheet, "sandAfter_s" | "tape_s" | "dustFree_s">,
  { way, finish }: { way: Pick<HouseWay, "correctAfter_s">; finish: Finish },
): number =>
  finish === "matte" ? (sheet.tape_s ?? sheet.dustFree_s ?? sheet.sandAfter_s) : Math.max(sheet.sandAfter_s, way.correctAfter_s);
