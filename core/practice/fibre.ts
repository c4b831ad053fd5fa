import type { Polygon } from "../kernel/geometry/geometry";
import { requireNumber } from "../kernel/guard";
import { seededRandom } from "../kernel/stats/random";
import { placeByChance } from "./place-by-chance";
import { FLOW } from "../models/flow/constants";
import { orchardFactor } from "../models/flow/orchard";
import { type FilmOnPart, type PlaceOnPanel, cellAt } from "../models/panel-film/over-part";
import { PANEL_FILM } from "../models/panel-film/constants";
import { filmViscosity } from "../models/panel-film/panel-film";

/** A fibre that has fallen on an open coat: it may be lifted out, or left. */
export interface Fibre extends PlaceOnPanel {
  /** So long after the coat was on. */
  falls_s: number;
  length_m: number;
  angle_rad: number;
  /** So far it stands out of the film in the end, if it stays. */
  height_m: number;
}

/** A fibre falls on every second coat or so, within its first minutes; its size. Defaults of ours, for practice alone. */
export const FIBRE = { share: 0.5, falls_s: [15, 180], length_m: [4e-3, 12e-3], height_m: [25e-6, 70e-6] } as const;

/** What falls on a coat, by chance of a seed; null: nothing. @throws RangeError */
export function fibreOn(outline: Polygon, seed: number): Fibre | null {
  const random = seededRandom(requireNumber("seed", seed));
  const from = ([low, high]: readonly [number, number]) => low + (high - low) * random();
  if (random() >= FIBRE.share) return null;
  const place = placeByChance(outline, random);
  const [length_m, height_m] = [from(FIBRE.length_m), from(FIBRE.height_m)];
  return { ...place, falls_s: from(FIBRE.falls_s), length_m, height_m, angle_rad: Math.PI * random() };
}

/** A pair of tweezers opens the film along the fibre in a groove of this width, and takes so much of the film that moves with it. Defaults of ours. */
const GROOVE_M = 4e-3;
const TAKEN = 0.5;
const STEP_S = 2;
const LONGEST_S = 2 * 3600;

/**
 * What is left of the groove where a fibre is lifted now: the film closes over it as a wave of its width levels (Orchard), thinning and thickening as the
 * bench's own film does, until it no longer moves. What has set already does not come back. Dry film, m.
 */
export function pitWhereLifted(on: FilmOnPart, at: PlaceOnPanel): number {
  const { film } = on;
  const c = cellAt(on, at);
  const solids_m = film.solids_m[c]!;
  if (solids_m < PANEL_FILM.leastFilm_m) return 0;
  const { rates } = film;
  const wave_1_m = (2 * Math.PI) / GROOVE_M;
  const uc = FLOW.slowComposition;
  let solvent_m = film.solvent_m[c]!;
  let closed = 0;
  for (let t_s = 0; t_s < LONGEST_S && film.still[c] !== 1; t_s += STEP_S) {
    const depth_m = solids_m + solvent_m;
    const viscosity_Pa_s = filmViscosity(rates, solvent_m / solids_m, film.age_s[c]! + t_s);
    if (viscosity_Pa_s >= FLOW.freeze_Pa_s) break;
    closed += (FLOW.surfaceTension_N_m * wave_1_m * orchardFactor(wave_1_m * depth_m) * STEP_S) / (2 * viscosity_Pa_s);
    const share = solvent_m / (solvent_m + uc * solids_m);
    solvent_m = Math.max(PANEL_FILM.leastComposition * solids_m, solvent_m - rates.evaporation_m_s * STEP_S * share * share);
  }
  return TAKEN * solids_m * Math.exp(-closed);
}
