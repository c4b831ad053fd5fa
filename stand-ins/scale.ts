import { requireNumber } from "#core/kernel/guard";
import { normals, seededRandom } from "#core/kernel/stats/random";

/** What any scale, real or not, gives: what lies on it less the tare, whether it has settled, or a fault in words. */
export interface ScalePort {
  readonly name: string;
  readonly simulated: boolean;
  read(now_ms: number): { ok: true; mass_kg: number; stable: boolean } | { ok: false; fault: string };
  tare(now_ms: number): void;
}

/** The simulated scale can also be poured on: a can tipped over the pot, and set upright again. */
export interface StandInScale extends ScalePort {
  pour(rate_kg_s: number, now_ms: number): void;
  /** What runs after when the can is set upright is why pours overshoot. */
  stop(now_ms: number): void;
  empty(now_ms: number): void;
}

const TAIL_S = 0.35;
const SETTLE_MS = 700;

/** A simulated bench scale: 0.1 g steps, seeded noise, slow drift, overload. */
export function standInScale({
  seed,
  noise_kg = 4e-5,
  drift_kg_h = 2e-3,
  capacity_kg = 5,
  step_kg = 1e-4,
}: {
  seed: number;
  noise_kg?: number;
  drift_kg_h?: number;
  capacity_kg?: number;
  step_kg?: number;
}): StandInScale {
  requireNumber("noise_kg", noise_kg, { min: 0, max: 0.1 });
  const normal = normals(seededRandom(seed));
  let mass_kg = 0;
  let rate_kg_s = 0;
  let since_ms = 0;
  let moved_ms = -Infinity;
  let tare_kg = 0;
  let tared_ms: number | null = null;
  const settle = (now_ms: number) => {
    if (rate_kg_s > 0) {
      mass_kg += (rate_kg_s * Math.max(0, now_ms - since_ms)) / 1000;
      moved_ms = now_ms;
    }
    since_ms = now_ms;
  };
  const drift = (now_ms: number) => (tared_ms === null ? 0 : (drift_kg_h * (now_ms - tared_ms)) / 3_600_000);
  return {
    name: "Stand-in scale",
    simulated: true,
    read(now_ms) {
      settle(now_ms);
      if (mass_kg > capacity_kg) return { ok: false, fault: `More than ${capacity_kg} kg on the scale. Take something off.` };
      const shown = mass_kg - tare_kg + drift(now_ms) + noise_kg * normal();
      return { ok: true, mass_kg: Math.round(shown / step_kg) * step_kg, stable: rate_kg_s === 0 && now_ms - moved_ms > SETTLE_MS };
    },
    tare(now_ms) {
      settle(now_ms);
      tare_kg = mass_kg;
      tared_ms = now_ms;
    },
    pour(rate, now_ms) {
      settle(now_ms);
      rate_kg_s = requireNumber("rate_kg_s", rate, { min: 0, max: 1 });
    },
    stop(now_ms) {
      settle(now_ms);
      mass_kg += rate_kg_s * TAIL_S;
      rate_kg_s = 0;
    },
    empty(now_ms) {
      settle(now_ms);
      rate_kg_s = 0;
      mass_kg = 0;
      tare_kg = 0;
      tared_ms = now_ms;
      moved_ms = now_ms;
    },
  };
}
