import type { PartHeld, Side } from "../record/kinds";
import type { PanelBrief } from "./brief";
import type { CoatState } from "./builds";
import type { PanelFacts } from "./derive-panel";
import { newestCoat } from "./coats-on";

/** The same every time, so that what is worked out from it is not worked out again. */
const NONE: readonly CoatState[] = [];

/** The coats of a face that lie wet on wet below the next one: none where it was sanded flat since. */
export function wetBuild({ builds, backCoats }: Pick<PanelFacts, "builds" | "backCoats">, side: Side): readonly CoatState[] {
  if (side === "back") return backCoats;
  const newest = builds.at(-1);
  return newest && newest.thinning.length === 0 ? newest.coats : NONE;
}

/** The part was turned over since its newest coat. */
export const isTurned = (facts: Pick<PanelFacts, "turned" | "coats" | "backCoats">): boolean =>
  facts.turned !== null && facts.turned.seq > (newestCoat(facts)?.entry.seq ?? Infinity);

/** How a part lies that is held so: laid flat, upright, or as it is planned where a hand or a wire holds it. */
export const tiltHeld = (how: PartHeld, brief: Pick<PanelBrief, "tilt_rad">): number =>
  how === "laid" ? 0 : how === "held" ? brief.tilt_rad : Math.PI / 2;
