import { requireNumber } from "../../kernel/guard";
import { SPRAY } from "../spray/constants";
import { arrhenius, freeVolumeExponent } from "../spray/viscosity";
import { FLOW } from "./constants";
import { compositionAfter } from "./drying";
import { type FlowConditions, type LaidFilm, filmRates } from "./simulate-coats";

/** Viscosity, as the gun shears it, at which a grip coat pulls no strings any more, takes a print best, and takes none: it is lost. Set to common practice. */
export const GRIP_PA_S = { noStrings: 1e2, best: 1e3, lost: 1e4 } as const;
export interface GripTimes {
  noStrings_s: number;
  best_s: number;
  lost_s: number;
}

const REFERENCE_K = 293.15;
const LONGEST_S = 48 * 3600;
const STEPS = 60;
const LEAST = 1e-3;

/**
 * When a coat that lies there holds the next one. Until motion ends it dries as it does in the flow model. What comes after is worked out at 20 °C and
 * shifted in time as evaporation is with temperature: time–temperature superposition (Ferry 1980, ch. 11, form), its shift set to common practice
 * (a factor of 1.3 to 2 for 10 K). By the model's own viscosity alone a warm film, thinner at every composition, would set later than a cold one.
 * @throws RangeError
 */
export function gripTimes(film: LaidFilm, conditions: Pick<FlowConditions, "air_K" | "speed" | "airSpeed_m_s">): GripTimes {
  const { air_K } = conditions;
  requireNumber("solids_m", film.solids_m, { above: 0 });
  const here = timeTo(film, conditions, air_K);
  const there = timeTo(film, { ...conditions, air_K: REFERENCE_K }, air_K);
  const [still_s, still20_s] = [here(FLOW.freeze_Pa_s), there(FLOW.freeze_Pa_s)];
  const shift = arrhenius(FLOW.evaporationEnergy_J_mol, air_K) / arrhenius(FLOW.evaporationEnergy_J_mol, REFERENCE_K);
  const at = (viscosity_Pa_s: number) => still_s + (there(FLOW.filmFactor * viscosity_Pa_s) - still20_s) / shift;
  return { noStrings_s: at(GRIP_PA_S.noStrings), best_s: at(GRIP_PA_S.best), lost_s: at(GRIP_PA_S.lost) };
}

/** Time until the film is as thick as that, by halving: viscosity only rises. @param landed_K where its viscosity as it landed is known */
function timeTo({ solids_m, u0, viscosity0_Pa_s }: LaidFilm, conditions: Parameters<typeof filmRates>[0], landed_K: number) {
  const { air_K } = conditions;
  const { evaporation_m_s, cure_1_s } = filmRates(conditions);
  const from = freeVolumeExponent(u0, landed_K);
  const viscosity = (at_s: number): number => {
    const u = Math.max(LEAST, compositionAfter((at_s * evaporation_m_s) / solids_m, u0));
    return viscosity0_Pa_s * Math.exp(SPRAY.freeVolumeB * (freeVolumeExponent(Math.min(u, u0), air_K) - from) + cure_1_s * at_s);
  };
  return (viscosity_Pa_s: number): number => {
    let [low, high] = [0, LONGEST_S];
    for (let i = 0; i < STEPS; i++) {
      const middle = (low + high) / 2;
      if (viscosity(middle) < viscosity_Pa_s) low = middle;
      else high = middle;
    }
    return high;
  };
}
