import { requireNumber } from "../../kernel/guard";
import { SPRAY } from "../spray/constants";

const R = SPRAY.gasConstant_J_mol_K;

/** Activation energies outside this do not belong to a two-pack clear: a mistyped sheet. */
export const ENERGY_LIMITS_J_MOL = { low: 40e3, high: 120e3 } as const;
/** So far beyond the sheet's own temperatures its law is followed. */
export const CURE_BEYOND_K = 10;
/** A steel or aluminium part follows the air with this lag; plastics and thick parts more slowly. Common practice 100–240 s. */
export const PART_LAG_S = { low: 100, usual: 150, high: 240 } as const;

export interface CurePoint {
  part_K: number;
  time_s: number;
}

/**
 * Activation energy from two schedules of one product for one end point: E = R·ln(t₁/t₂)/(1/T₁ − 1/T₂). Never mix points of two products.
 * @throws RangeError @example cureEnergy({ 20 °C, 16 h }, { 60 °C, 30 min }) // 70356 J/mol
 */
export function cureEnergy(a: CurePoint, b: CurePoint): number {
  for (const [name, p] of [
    ["a", a],
    ["b", b],
  ] as const) {
    requireNumber(`${name}.part_K`, p.part_K, { min: 233, max: 473 });
    requireNumber(`${name}.time_s`, p.time_s, { above: 0 });
  }
  if (Math.abs(a.part_K - b.part_K) < 1) throw new RangeError(`points must differ in temperature, got ${a.part_K} K and ${b.part_K} K`);
  return (R * Math.log(a.time_s / b.time_s)) / (1 / a.part_K - 1 / b.part_K);
}

/** How much faster cure goes at a temperature than at a reference. */
export function cureRate(part_K: number, { reference_K, energy_J_mol }: { reference_K: number; energy_J_mol: number }): number {
  requireNumber("part_K", part_K, { min: 233, max: 473 });
  requireNumber("energy_J_mol", energy_J_mol, { min: 0, max: 300e3 });
  return Math.exp((-energy_J_mol / R) * (1 / part_K - 1 / reference_K));
}

export interface PartSample {
  at_s: number;
  part_K: number;
}

/**
 * Equivalent age at the reference temperature over a log of the part's temperature: ∫exp[−E/R(1/T − 1/T_ref)]dt, the temperature taken as
 * straight between samples, by Simpson in steps of at most `step_s`.
 * @throws RangeError when times do not rise
 */
export function equivalentAge(
  log: readonly PartSample[],
  { reference_K, energy_J_mol, step_s = 60 }: { reference_K: number; energy_J_mol: number; step_s?: number },
): number {
  requireNumber("step_s", step_s, { above: 0 });
  let age = 0;
  for (let i = 1; i < log.length; i++) {
    const [a, b] = [log[i - 1]!, log[i]!];
    const span = requireNumber(`log[${i}].at_s − log[${i - 1}].at_s`, b.at_s - a.at_s, { min: 0 });
    const steps = a.part_K === b.part_K ? 1 : Math.max(1, Math.ceil(span / step_s)); // exact in one where nothing changes
    const rate = (share: number) => cureRate(a.part_K + (b.part_K - a.part_K) * share, { reference_K, energy_J_mol });
    for (let k = 0; k < steps; k++) age += ((span / steps) * (rate(k / steps) + 4 * rate((k + 0.5) / steps) + rate((k + 1) / steps))) / 6;
  }
  return age;
}

/** Temperature of a part that follows the air with a lag: T = T_air − (T_air − T₀)e^{−t/τ}. @throws RangeError */
export function partTemperature({
  air_K,
  start_K,
  time_s,
  lag_s,
}: {
  air_K: number;
  start_K: number;
  time_s: number;
  lag_s: number;
}): number {
  requireNumber("air_K", air_K, { min: 233, max: 473 });
  requireNumber("start_K", start_K, { min: 233, max: 473 });
  requireNumber("time_s", time_s, { min: 0 });
  return air_K - (air_K - start_K) * Math.exp(-time_s / requireNumber("lag_s", lag_s, { above: 0 }));
}
