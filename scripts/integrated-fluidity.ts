import ode45 from "ode45-cash-karp";
import { FLOW } from "#core/models/flow/constants";
import { dryingTime } from "#core/models/flow/drying";
import type { fluidityInto } from "#core/models/flow/fluidity";
import { freeVolumeExponent } from "#core/models/spray/viscosity";
import { SPRAY } from "#core/models/spray/constants";

const SCALE = 1e-6;

/**
 * The shared integrals as ordinary differential equations in time, by a general-purpose integrator: for the tests and the bench, to hold the
 * model's own quadrature against. State: composition, ∫dt/η, ∫h²dt/η, ∫h³dt/η with h in µm.
 */
export function integratedFluidity(film: Parameters<typeof fluidityInto>[1], tol = 1e-9): { u: number; F: number; G2: number; G3: number } {
  const { solids_m, u0, u1, viscosity0_Pa_s, cure_1_s, evaporation_m_s, temperature_K } = film;
  const tau_s = solids_m / evaporation_m_s;
  const start = freeVolumeExponent(u0, temperature_K);
  const run = ode45(
    Float64Array.of(u0, 1, 1, 1),
    (d, [u], t) => {
      const viscosity = viscosity0_Pa_s * Math.exp(SPRAY.freeVolumeB * (freeVolumeExponent(u!, temperature_K) - start) + cure_1_s * t);
      const h_um = (solids_m * (1 + u!)) / SCALE;
      d[0] = -((u! / (u! + FLOW.slowComposition)) ** 2) / tau_s;
      d[1] = 1 / viscosity;
      d[2] = h_um ** 2 / viscosity;
      d[3] = h_um ** 3 / viscosity;
    },
    0,
    0.1,
    { tol, verbose: false },
  );
  run.steps(Infinity, tau_s * dryingTime(u1, u0));
  const [u, F, G2, G3] = run.y as unknown as [number, number, number, number];
  return { u, F: F - 1, G2: (G2 - 1) * SCALE ** 2, G3: (G3 - 1) * SCALE ** 3 };
}
