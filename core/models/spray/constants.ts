import { toSi } from "../../kernel/units/convert";

/**
 * Constants of the deposition model. Calibrated to common practice, none was measured in a laboratory; kept in one table so that a
 * shop's own readings may replace them. Powers and forms: see docs/models.md.
 */
export const SPRAY = {
  temperatureRef_K: 295.15,
  distanceRef_m: 0.175,
  fluidRateRef_m3_s: 230e-6 / 60,
  pressureRef_Pa: toSi("pressure", 28, "psi"),
  fanRef_m: 0.25,
  transferRef: 0.65,
  transferPerDistance_1_m: 1.6,
  transferPressurePower: 0.2,
  transferMin: 0.15,
  transferMax: 0.92,
  dropRef_m: 32e-6,
  dropFluidPower: 0.3,
  dropPressurePower: 0.6,
  dropViscosityPower: 0.45,
  viscosityRef_Pa_s: 0.045,
  freeVolumeB: 5,
  freeVolumeC: 0.3,
  freeVolumeCPerK: 0.01,
  freeVolumeCMin: 0.1,
  backgroundEnergy_J_mol: 14e3,
  flightLoss: 0.33,
  flightDistancePower: 2,
  flightDropPower: 1.25,
  flightEnergy_J_mol: 45e3,
  flightLossCap: 2.5,
  gasConstant_J_mol_K: 8.314462618,
  /** Log-sd of one shop's coat against the model before calibration, and from coat to coat after it. */
  shopLogSd: 0.3,
  coatLogSd: 0.1,
} as const;

/** Evaporation multiplier by hardener and reducer speed. */
export const SPEED_EVAPORATION = { fast: 1.5, medium: 1, slow: 0.7 } as const;
export type ActivatorSpeed = keyof typeof SPEED_EVAPORATION;
