import { requireNumber } from "../../kernel/guard";
import { FLOW } from "../flow/constants";
import { compositionAfter } from "../flow/drying";
import type { ShopFactors } from "../flow/simulate-coats";
import { type GunSettings, deposit } from "../spray/deposit";
import { PANEL_FILM } from "./constants";
import { type FilmConditions, filmRatesOf, filmViscosity } from "./panel-film";

/** A border takes the overrun of its neighbour in while so much of it can still move; below that the drops lie on it as dry spray. Default of ours [D]. */
export const OPEN_SHARE = 0.5;
const LONGEST_S = 6 * 3600;
const STEPS = 40;

/**
 * How long a border of one coat stays open: until its mobile share 1/(1 + η/8 Pa·s) falls to a half; by halving. None where it lands drier than that.
 * @param u0 solvent over solids as it lands @throws RangeError
 */
export function filmStaysOpen_s(solids_m: number, u0: number, conditions: FilmConditions, shop?: ShopFactors): number {
  requireNumber("solids_m", solids_m, { above: 0, max: 1e-3 });
  requireNumber("u0", u0, { min: 0, max: 50 });
  const rates = filmRatesOf(conditions, shop);
  const open = (at_s: number) => {
    const u = at_s === 0 ? u0 : Math.max(PANEL_FILM.leastComposition, compositionAfter((at_s * rates.evaporation_m_s) / solids_m, u0));
    return 1 / (1 + filmViscosity(rates, u, at_s) / FLOW.lock_Pa_s) >= OPEN_SHARE;
  };
  if (!open(0)) return 0;
  let [low, high] = [0, LONGEST_S];
  for (let i = 0; i < STEPS; i++) {
    const middle = (low + high) / 2;
    if (open(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** The same of a coat of this gun, in the mean of its film. @throws RangeError */
export function coatStaysOpen_s(gun: GunSettings, conditions: FilmConditions, shop?: ShopFactors): number {
  const { dry_m, wet_m } = deposit(gun, conditions);
  return filmStaysOpen_s(dry_m, wet_m / dry_m - 1, conditions, shop);
}
