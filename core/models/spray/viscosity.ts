import { SPRAY } from "./constants";

/** Rises with heat: exp[E/R·(1/T_ref − 1/T)]. */
export const arrhenius = (energy_J_mol: number, temperature_K: number) =>
  Math.exp((energy_J_mol / SPRAY.gasConstant_J_mol_K) * (1 / SPRAY.temperatureRef_K - 1 / temperature_K));

/** Free-volume offset at a temperature. */
export const freeVolumeOffset = (temperature_K: number) =>
  Math.max(SPRAY.freeVolumeCMin, SPRAY.freeVolumeC + SPRAY.freeVolumeCPerK * (temperature_K - SPRAY.temperatureRef_K));

/** Doolittle/Fujita–Kishimoto exponent: ln η = constant + B·fv. `u` is solvent volume per solids volume. */
export function freeVolumeExponent(u: number, temperature_K: number): number {
  const background = (SPRAY.backgroundEnergy_J_mol / SPRAY.gasConstant_J_mol_K) * (1 / temperature_K - 1 / SPRAY.temperatureRef_K);
  return 1 / (u + freeVolumeOffset(temperature_K)) + background / SPRAY.freeVolumeB;
}

/** Viscosity at a composition and temperature against the viscosity of the activated mix at 22 °C (η is low-shear or gun's, as η_ref is). */
export function viscosityAt(u: number, temperature_K: number, reference: { viscosity_Pa_s: number; volumeSolids: number }): number {
  const start = freeVolumeExponent(1 / reference.volumeSolids - 1, SPRAY.temperatureRef_K);
  return reference.viscosity_Pa_s * Math.exp(SPRAY.freeVolumeB * (freeVolumeExponent(u, temperature_K) - start));
}
