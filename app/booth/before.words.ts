import { LAYER_NAMES } from "#core/models/prep/layer-names";
import type { BoothPanel } from "#server/views/booth-view";
import { firstHold, holdName } from "~/kit/words/hold-name";

/** What comes before its next coat. */
export function beforeWords(
  { before, holds, below = null }: Pick<BoothPanel, "before" | "holds"> & Partial<Pick<BoothPanel, "below">>,
  now_ms: number,
): string {
  const hold = firstHold(holds);
  switch (before) {
    case "below":
      return below ? `${LAYER_NAMES[below.layer]} ${below.number} of ${below.of} first` : "a coat below the clear first";
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
