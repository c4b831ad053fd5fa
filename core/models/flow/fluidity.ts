import { SPRAY } from "../spray/constants";
import { FLOW } from "./constants";
import { freeVolumeOffset } from "../spray/viscosity";

/** Panels of the integrals, even in 1/(u + c) where ln η is linear. */
export const PANELS = 32;
const EXPONENT_LEAST = -200;
const NEARLY_EQUAL = 1e-4;

export interface Fluidity {
  /** Cumulative from the landing on, PANELS + 1 nodes each: ∫dt/η, ∫h²dt/η, ∫h³dt/η, and solids share at the nodes. */
  F: Float64Array;
  G2: Float64Array;
  G3: Float64Array;
  phi: Float64Array;
}

/** A fluidity to write into, so that a sweep makes no garbage. */
export const emptyFluidity = (): Fluidity => ({
  F: new Float64Array(PANELS + 1),
  G2: new Float64Array(PANELS + 1),
  G3: new Float64Array(PANELS + 1),
  phi: new Float64Array(PANELS + 1),
});

/**
 * The three shared integrals of a drying film (docs/models.md, "Flow"). Writes into `out`. Each panel is taken as exponential
 * ((b − a)/ln(b/a)), exact where viscosity is.
 * @param film.solids_m solids film; composition goes from u0 down to u1
 */
export function fluidityInto(
  out: Fluidity,
  film: {
    solids_m: number;
    u0: number;
    u1: number;
    viscosity0_Pa_s: number;
    cure_1_s: number;
    evaporation_m_s: number;
    temperature_K: number;
  },
): Fluidity {
  const { solids_m: L, u0, u1, viscosity0_Pa_s: eta0, cure_1_s: kc, evaporation_m_s } = film;
  const c = freeVolumeOffset(film.temperature_K);
  const uc = FLOW.slowComposition;
  const B = SPRAY.freeVolumeB;
  const z0 = 1 / (u0 + c);
  const dz = (1 / (u1 + c) - z0) / PANELS;
  const tau = L / evaporation_m_s;
  let f = 0;
  let f2 = 0;
  let f3 = 0;
  for (let i = 0; i <= PANELS; i++) {
    const z = z0 + i * dz;
    const u = i === 0 ? u0 : i === PANELS ? u1 : 1 / z - c;
    const t = tau * (u0 - u + 2 * uc * Math.log(u0 / u) + uc * uc * (1 / u - 1 / u0));
    const h = L * (1 + u);
    const g = (((tau * (u + uc) ** 2) / (u * u * z * z)) * Math.exp(Math.max(EXPONENT_LEAST, -B * (z - z0) - kc * t))) / eta0;
    const g2 = g * h * h;
    const g3 = g2 * h;
    out.phi[i] = 1 / (1 + u);
    if (i === 0) out.F[0] = out.G2[0] = out.G3[0] = 0;
    else {
      out.F[i] = out.F[i - 1]! + panel(f, g) * dz;
      out.G2[i] = out.G2[i - 1]! + panel(f2, g2) * dz;
      out.G3[i] = out.G3[i - 1]! + panel(f3, g3) * dz;
    }
    f = g;
    f2 = g2;
    f3 = g3;
  }
  return out;
}

/** Mean of an exponential between a and b; plain mean when they are nearly equal. */
function panel(a: number, b: number): number {
  const r = Math.log(b / a);
  return Math.abs(r) < NEARLY_EQUAL ? 0.5 * (a + b) : (b - a) / r;
}
