import { turnAfter_s } from "../models/ways/after-last-coat";
import { LAYERS } from "../models/prep/layers";
import { isColoured } from "../models/product/kinds";
import { colourBelow } from "../panel/layer-coats";
import { airNow } from "./next-wait";
import type { CoatsAsked } from "./coats-ahead";

/** Until a panel's colour bears tape. */
export interface BearsTape {
  /** In the air that it is in, from its last coat. */
  time_s: number;
  /** Whether its sheet has a tape or dust-free time of its own. */
  fromSheet: boolean;
  /** Whether the colour is its own clear. */
  single: boolean;
}

/** Until a panel's colour bears tape: its base, a usual one where none is planned below the clear, or the single stage. @throws RangeError */
export function bearsTape(asked: CoatsAsked): BearsTape {
  const sheet = colourBelow(asked.facts.below)?.sheet ?? (isColoured(asked.sheet) ? asked.sheet : LAYERS.base.sheet);
  return {
    time_s: turnAfter_s(sheet, airNow(asked)),
    fromSheet: sheet.tape_s !== null || sheet.dustFree_s !== null,
    single: isColoured(sheet),
  };
}
