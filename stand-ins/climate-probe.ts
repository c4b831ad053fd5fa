import { requireNumber } from "#core/kernel/guard";
import { normals, seededRandom } from "#core/kernel/stats/random";

/** What any climate probe, real or not, gives. */
export interface ClimateReading {
  air_K: number;
  part_K: number;
  material_K: number;
  relativeHumidity: number;
}

const SWING_K = 1.2;
const SWING_MS = 3 * 3_600_000;
const STEP_K = 0.1;
const STEP_RH = 0.01;

/** A simulated probe: a booth that swings slowly about its mean, a part that lags behind, seeded noise, steps of 0.1 K and 1 %. */
export function standInClimateProbe({ seed, mean_K = 295.15, humidity = 0.52 }: { seed: number; mean_K?: number; humidity?: number }) {
  requireNumber("mean_K", mean_K, { min: 263, max: 323 });
  requireNumber("humidity", humidity, { above: 0, max: 1 });
  const normal = normals(seededRandom(seed));
  const step = (x: number, by: number) => Math.round(x / by) * by;
  return {
    name: "Stand-in climate probe",
    simulated: true as const,
    read(now_ms: number): ClimateReading {
      const phase = (2 * Math.PI * requireNumber("now_ms", now_ms)) / SWING_MS;
      const air_K = mean_K + SWING_K * Math.sin(phase);
      return {
        air_K: step(air_K + 0.05 * normal(), STEP_K),
        part_K: step(mean_K - 0.8 + 0.7 * SWING_K * Math.sin(phase - 0.6) + 0.05 * normal(), STEP_K),
        material_K: step(mean_K - 1.1 + 0.05 * normal(), STEP_K),
        relativeHumidity: Math.min(1, Math.max(STEP_RH, step(humidity - 0.012 * (air_K - mean_K) + 0.004 * normal(), STEP_RH))),
      };
    },
  };
}
