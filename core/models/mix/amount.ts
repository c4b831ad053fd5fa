import { requireInteger, requireNumber } from "../../kernel/guard";
import { wetFromDry } from "./spreading-rate";

export interface SprayedPart {
  area_m2: number;
  /** Both sides are sprayed. */
  bothSides: boolean;
}

export interface AmountInput {
  parts: readonly SprayedPart[];
  coats: number;
  /** Dry film of one coat. */
  dryFilm_m: number;
  u_dryFilm_m?: number;
  /** Solids by volume of the activated mix before reducer. */
  volumeSolids: number;
  /** Reducer as a share of the activated mix. */
  reducer: number;
  /** Share of the liquid that lands. */
  transfer: number;
  u_transfer?: number;
  /** What stays in cup, hose and strainer. */
  dead_m3?: number;
  /** Further share on top. */
  waste?: number;
}

/** One-sided 95 % of a normal doubt. */
const NINETEEN_OF_TWENTY = 1.645;
/** What is kept at hand beyond the amount so that it lasts 19 times of 20; a normal doubt of the amount. */
export const reserveOf = ({ u_ready_m3 }: Pick<Amount, "u_ready_m3">): number => NINETEEN_OF_TWENTY * u_ready_m3;

export interface Amount {
  area_m2: number;
  /** Activated mix before reducer, ready-to-spray volume with its standard uncertainty, and per coat. */
  activated_m3: number;
  ready_m3: number;
  u_ready_m3: number;
  perCoat_m3: number;
  wetPerCoat_m: number;
  dryTotal_m: number;
}

/**
 * How much ready-to-spray mix a job needs: area × coats × dry film ÷ solids ÷ transfer, plus waste (volume balance, docs/models.md "Mix").
 * `wetPerCoat_m` is the film of ready-to-spray liquid that one coat is, before any solvent leaves.
 * @throws RangeError @example three panels of 3.22 m², 2 × 28 µm, 48 %, 65 %, 10 % on top: ready 635.7 ml
 */
export function mixAmount(input: AmountInput): Amount {
  if (input.parts.length === 0) throw new RangeError("parts must have at least 1 member, got 0");
  const area_m2 = input.parts.reduce(
    (a, p, i) => a + requireNumber(`parts[${i}].area_m2`, p.area_m2, { above: 0 }) * (p.bothSides ? 2 : 1),
    0,
  );
  const coats = requireInteger("coats", input.coats, { min: 1, max: 20 });
  const dry = requireNumber("dryFilm_m", input.dryFilm_m, { above: 0, max: 1e-3 });
  const transfer = requireNumber("transfer", input.transfer, { above: 0, max: 1 });
  const reducer = requireNumber("reducer", input.reducer, { min: 0, max: 1 });
  const waste = requireNumber("waste", input.waste ?? 0, { min: 0, max: 2 });
  const dead_m3 = requireNumber("dead_m3", input.dead_m3 ?? 0, { min: 0, max: 0.01 });
  const relative = Math.hypot(
    requireNumber("u_dryFilm_m", input.u_dryFilm_m ?? 0, { min: 0 }) / dry,
    requireNumber("u_transfer", input.u_transfer ?? 0, { min: 0 }) / transfer,
  );
  const solids = requireNumber("volumeSolids", input.volumeSolids, { above: 0, max: 1 });
  const wetPerCoat_m = wetFromDry({ volumeSolids: solids / (1 + reducer), dryFilm_m: dry });
  const perCoat_m3 = ((area_m2 * wetPerCoat_m) / transfer) * (1 + waste);
  const ready_m3 = perCoat_m3 * coats + dead_m3;
  return {
    area_m2,
    activated_m3: ready_m3 / (1 + reducer),
    ready_m3,
    u_ready_m3: perCoat_m3 * coats * relative,
    perCoat_m3,
    wetPerCoat_m,
    dryTotal_m: dry * coats,
  };
}
