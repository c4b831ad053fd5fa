import { viscosityAt } from "../spray/viscosity";
import { cupReading } from "./flow-cup";
import type { ProductSheet } from "./sheet";

/** What a sheet's cup time is known from. */
export type CupSheet = Pick<ProductSheet, "volumeSolids"> & Partial<Pick<ProductSheet, "viscosity" | "density_kg_m3" | "reducerMin">>;

/** Of a mix whose density nobody says: common practice, near water. */
const USUAL_DENSITY_KG_M3 = 1000;
/** What the spray model tells apart. */
const TOLD_PA_S = { min: 0.01, max: 0.5 } as const;

/**
 * Viscosity of the activated mix at 22 °C before reducer, by the cup time of its sheet: ready to spray, with the sheet's least reducer, at the
 * temperature of the cup; by the free-volume law of the mix. Undefined where the sheet has no cup time that can be meant: the model's own.
 */
export function mixViscosity22C({ viscosity, density_kg_m3, volumeSolids, reducerMin = 0 }: CupSheet): number | undefined {
  const reading = viscosity && cupReading(viscosity);
  if (!reading) return undefined;
  const ready_Pa_s = reading.nu_m2_s * (density_kg_m3 ?? USUAL_DENSITY_KG_M3);
  const thinned = viscosityAt((1 + reducerMin) / volumeSolids - 1, viscosity.temperature_K, { viscosity_Pa_s: 1, volumeSolids });
  return Math.min(TOLD_PA_S.max, Math.max(TOLD_PA_S.min, ready_Pa_s / thinned));
}
