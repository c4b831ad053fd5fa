import { requireNumber } from "../../kernel/guard";
import { SPRAY } from "./constants";
import { viscosityAt } from "./viscosity";

/** Fluid through an open needle goes with the viscosity to this power. Default of ours, between a thin edge (0) and a long tube (−1). */
const NEEDLE_POWER = -0.5;
/** A clear of usual solids, where nobody says. */
const USUAL_SOLIDS = 0.5;

/**
 * How much more flows through the same needle at the same pressure when the reducer goes from one share of the mix to another: Q ∝ η^−½, the viscosity
 * by the free-volume law of the mix.
 * @throws RangeError for a share outside 0 … 1 or solids outside 5 … 95 %
 * @example needleFlow(0, 0.1, { volumeSolids: 0.475 }) // 1.28
 */
export function needleFlow(
  from: number,
  to: number,
  { volumeSolids = USUAL_SOLIDS, material_K = SPRAY.temperatureRef_K }: { volumeSolids?: number; material_K?: number } = {},
): number {
  const solids = requireNumber("volumeSolids", volumeSolids, { min: 0.05, max: 0.95 });
  const viscosity = (name: string, reducer: number) =>
    viscosityAt(
      (1 + requireNumber(name, reducer, { min: 0, max: 1 })) / solids - 1,
      requireNumber("material_K", material_K, { min: 273.15, max: 333.15 }),
      {
        viscosity_Pa_s: SPRAY.viscosityRef_Pa_s,
        volumeSolids: solids,
      },
    );
  return thickerFlow(viscosity("to", to) / viscosity("from", from));
}

/** What flows through the same needle of a liquid so many times as thick. @throws RangeError @example thickerFlow(4) // 0.5 */
export const thickerFlow = (times: number): number => requireNumber("times", times, { above: 0, max: 1e4 }) ** NEEDLE_POWER;
