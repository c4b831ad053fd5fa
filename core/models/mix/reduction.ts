import { requireNumber } from "../../kernel/guard";
import type { SourceKey } from "../../kernel/sources";

/** The three schools of reducing, named by us; practitioners disagree and the figures show what each costs. */
export const REDUCTION_SCHOOLS = [
  {
    id: "sheet",
    name: "By the sheet",
    how: "Never beyond the sheet: solids, UV protection, hardness and gloss go with every drop; peel is polished out",
    beyond: 0,
    source: "common-practice",
  },
  {
    id: "little-over",
    name: "A little over",
    how: "5 to 10 % more, in the last coat only, so that it flows",
    beyond: 0.075,
    source: "common-practice",
  },
  {
    id: "under",
    name: "A little under",
    how: "Slightly less than the sheet, for body and gloss that lasts",
    beyond: -0.03,
    source: "common-practice",
  },
] as const satisfies readonly { id: string; name: string; how: string; beyond: number; source: SourceKey }[];

export interface ReductionCost {
  volumeSolids: number;
  /** Dry film of a coat laid with the same wet film. */
  dryPerCoat_m: number;
  /** Coats of that wet film for the film wanted, not rounded. */
  coats: number;
  /** Share of dry film a coat loses against the sheet's own most reduction. */
  lossAgainstSheet: number;
  beyondSheet: boolean;
}

/**
 * What a reduction does at the same wet film: solids fall by 1/(1 + r), and dry film with them.
 * @throws RangeError
 */
export function reductionCost(input: {
  volumeSolids: number;
  wetPerCoat_m: number;
  dryWanted_m: number;
  /** Shares of the activated mix. */
  reducer: number;
  sheetMost: number;
}): ReductionCost {
  const solids = requireNumber("volumeSolids", input.volumeSolids, { above: 0, max: 1 });
  const wet = requireNumber("wetPerCoat_m", input.wetPerCoat_m, { above: 0 });
  const wanted = requireNumber("dryWanted_m", input.dryWanted_m, { above: 0 });
  const reducer = requireNumber("reducer", input.reducer, { min: 0, max: 1 });
  const most = requireNumber("sheetMost", input.sheetMost, { min: 0, max: 1 });
  const dryPerCoat_m = (wet * solids) / (1 + reducer);
  return {
    volumeSolids: solids / (1 + reducer),
    dryPerCoat_m,
    coats: wanted / dryPerCoat_m,
    lossAgainstSheet: 1 - (1 + most) / (1 + reducer),
    beyondSheet: reducer > most + 1e-9,
  };
}
