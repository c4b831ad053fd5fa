import type { BoothPanel } from "#server/views/booth-view";
import { firstHold, holdName } from "~/kit/words/hold-name";

/** What comes before its next coat. */
export function beforeWords({ before, holds }: Pick<BoothPanel, "before" | "holds">, now_ms: number): string {
  const hold = firstHold(holds);
  switch (before) {
    case "turn":
      return "turn it over first";
    case "read":
      return "read the film below first";
    case "held":
      return hold ? holdName(hold, now_ms) : "see its course";
    default:
      return "cure, then sand it flat";
  }
}
