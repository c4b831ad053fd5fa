import { LAYERS } from "../models/prep/layers";
import type { PanelFacts } from "./derive-panel";

/** When the newest base was laid, told in all or coat by coat; null where neither was logged. */
export function baseLaid_ms({ under, colourCoats }: Pick<PanelFacts, "under" | "colourCoats">): number | null {
  const laid_ms = [...under.filter((u) => u.body.step === "base"), ...colourCoats.filter((c) => LAYERS[c.body.coat].layer === "base")].map(
    (e) => e.at_ms,
  );
  return laid_ms.length > 0 ? Math.max(...laid_ms) : null;
}
