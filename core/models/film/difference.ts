import { requireNumber } from "../../kernel/guard";
import { DEFAULT_GAUGE, type GaugeModel, gaugeUncertainty } from "./gauge";
import { matern52 } from "./matern";

/** How far the probe may have moved between the two visits, and how the film under it varies. Editable defaults. */
export const RELOCATION = { freehand_m: 0.015, template_m: 0.003, sdBetween_m: 6e-6, length_m: 0.3 } as const;
/** Correlation of the gauge's own error between two visits with the same gauge and set-up. */
export const SAME_GAUGE_CORRELATION = 0.8;
/**
 * The same where one foil check held for both visits: its zero and scale have not moved between them, and what is left of the gauge's own error is
 * nearly all common. Default of ours, found by simulation (docs/validation.md).
 */
export const CHECKED_GAUGE_CORRELATION = 0.95;

export interface DifferenceInput {
  after_m: number;
  before_m: number;
  uA_after_m: number;
  uA_before_m: number;
  /** Share of the gauge error common to both visits: 0.8 same gauge and set-up, 0 otherwise. */
  correlation?: number;
  gauge?: GaugeModel;
  relocation_m?: number;
  sdBetween_m?: number;
  length_m?: number;
  /** Roughness below the scale of the spot, standard deviation. */
  micro_m?: number;
}

/**
 * Clear film as total after minus total before, with its uncertainty: repeatability of both, the gauge error they do not share, and the
 * chance of not hitting the same place twice.
 * @throws RangeError
 * @example clearByDifference({ after_m: 135e-6, before_m: 85e-6, uA_after_m: 1.15e-6, uA_before_m: 1.15e-6 }).u_m // 2.1118e-6
 */
export function clearByDifference(input: DifferenceInput): { clear_m: number; uSystematic_m: number; uRelocation_m: number; u_m: number } {
  const {
    correlation = SAME_GAUGE_CORRELATION,
    gauge = DEFAULT_GAUGE,
    relocation_m = RELOCATION.freehand_m,
    sdBetween_m = RELOCATION.sdBetween_m,
    length_m = RELOCATION.length_m,
    micro_m = 0,
  } = input;
  requireNumber("correlation", correlation, { min: 0, max: 1 });
  requireNumber("relocation_m", relocation_m, { min: 0, max: 1 });
  requireNumber("sdBetween_m", sdBetween_m, { min: 0 });
  requireNumber("length_m", length_m, { above: 0 });
  const uAfter = gaugeUncertainty(requireNumber("after_m", input.after_m, { min: 0 }), gauge);
  const uBefore = gaugeUncertainty(requireNumber("before_m", input.before_m, { min: 0 }), gauge);
  const systematic2 = uAfter ** 2 + uBefore ** 2 - 2 * correlation * uAfter * uBefore;
  const relocation2 =
    2 * sdBetween_m ** 2 * (1 - matern52(relocation_m, length_m)) + 2 * requireNumber("micro_m", micro_m, { min: 0 }) ** 2;
  const repeat2 =
    requireNumber("uA_after_m", input.uA_after_m, { min: 0 }) ** 2 + requireNumber("uA_before_m", input.uA_before_m, { min: 0 }) ** 2;
  return {
    clear_m: input.after_m - input.before_m,
    uSystematic_m: Math.sqrt(Math.max(0, systematic2)),
    uRelocation_m: Math.sqrt(relocation2),
    u_m: Math.sqrt(repeat2 + Math.max(0, systematic2) + relocation2),
  };
}
