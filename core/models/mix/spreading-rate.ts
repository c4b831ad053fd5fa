import { requireNumber } from "../../kernel/guard";

/**
 * Area one unit of volume covers at a dry film (theoretical; multiply by the transfer efficiency for practice).
 * 1000·VS/DFT[µm] m²/L is the same volume balance.
 * @throws RangeError @example spreadingRate({ volumeSolids: 0.45, dryFilm_m: 50e-6 }) // 9000 m²/m³ = 9 m²/L
 */
export function spreadingRate({ volumeSolids, dryFilm_m }: { volumeSolids: number; dryFilm_m: number }): number {
  requireNumber("volumeSolids", volumeSolids, { above: 0, max: 1 });
  requireNumber("dryFilm_m", dryFilm_m, { above: 0 });
  return volumeSolids / dryFilm_m;
}

/** Wet film that dries down to a dry film. @throws RangeError */
export function wetFromDry({ volumeSolids, dryFilm_m }: { volumeSolids: number; dryFilm_m: number }): number {
  return 1 / spreadingRate({ volumeSolids, dryFilm_m });
}
