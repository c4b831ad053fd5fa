import { EVAPORATION_ENERGY_J_MOL } from "../product/time-at-temperature";

/**
 * Constants of levelling, drying and sag. Forms are published or derived (docs/models.md, "Flow"); the numbers are calibrated to common
 * practice, none was measured in a laboratory. One table, so that a shop's own results may replace them.
 */
export const FLOW = {
  gravity_m_s2: 9.81,
  density_kg_m3: 1000,
  surfaceTension_N_m: 0.028,
  /** Low-shear viscosity of the film against the viscosity at the gun. */
  filmFactor: 3.3,
  /** Motion ends at this viscosity. */
  freeze_Pa_s: 30,
  /** A coat below is mobile by 1/(1 + η/this). */
  lock_Pa_s: 8,
  evaporation_m_s: 0.3e-6,
  evaporationEnergy_J_mol: EVAPORATION_ENERGY_J_MOL,
  airSpeedRef_m_s: 0.3,
  airSpeedPower: 0.5,
  /** Composition (solvent over solids) at which drying slows down. */
  slowComposition: 1,
  leastComposition: 0.03,
  cure_1_s: 5.6e-4,
  cureEnergy_J_mol: 50e3,
  dropLogSd: 0.5,
  dropSpread: 2.5,
  shrinkageShare: 0.002,
  absorbDepth_m: 4e-6,
  absorbCap: 0.3,
  sagRun_m: 0.022,
  sagRisk_m: 0.011,
  drySprayWavelength_m: 2e-3,
  textureUnit_m: 0.12e-6,
  textureStep: 1.7,
} as const;

/** Cure multiplier by hardener speed, beside the evaporation multiplier of the deposition model. */
export const SPEED_CURE = { fast: 2.2, medium: 1, slow: 0.6 } as const;

/** Bands of waviness, wavelength from and to. */
export const BANDS_M = { short: [0.3e-3, 1.2e-3], long: [1.2e-3, 12e-3] } as const;

/** What lies below the clear: rms of its own texture in the two bands. */
export const SUBSTRATE_TEXTURE = {
  basecoat: { name: "base as sprayed", long_m: 0.12e-6, short_m: 0.15e-6 },
  sanded: { name: "sanded flat", long_m: 0.03e-6, short_m: 0.12e-6 },
  /** Where nothing is left but what a finishing compound leaves: a default of ours. */
  polished: { name: "sanded flat and polished", long_m: 0.03e-6, short_m: 0.03e-6 },
  smooth: { name: "perfectly smooth", long_m: 0, short_m: 0 },
} as const;

/** Spread of the model before this shop's own results tune it: sd of the texture figure. A default of ours. */
export const TEXTURE_SD = 0.7;

/** Texture beyond which a finish counts as peeled: defaults of ours on the scale 1 glass … 5 heavy. */
export const TEXTURE_LIMITS = { flat: 3.6, asSprayed: 4, match: 4.2, matte: 4.2 } as const;
