import { type BakePlan, boothAir } from "#core/models/cure/bake-plan";
import { type PartSample, partTemperature } from "#core/models/cure/cure-age";
import { requireNumber } from "#core/kernel/guard";
import { normals, seededRandom } from "#core/kernel/stats/random";

const EVERY_S = 60;
const NOISE_K = 0.4;
const COOLING_S = 3600;

/**
 * A simulated probe clamped to the part through a bake: its hidden lag and an oven that runs a little off its setting, one sample a minute,
 * until an hour after the heat is off.
 */
export function standInOvenProbe({ seed, lag_s = 175, off_K = -2.5 }: { seed: number; lag_s?: number; off_K?: number }) {
  requireNumber("lag_s", lag_s, { min: 10, max: 3600 });
  const normal = normals(seededRandom(seed));
  return {
    name: "Stand-in oven probe",
    simulated: true as const,
    log(plan: BakePlan): PartSample[] {
      const end_s = plan.purge_s + plan.ramp_s + plan.hold_s + COOLING_S;
      let part_K = plan.room_K;
      const samples: PartSample[] = [{ at_s: 0, part_K }];
      for (let at_s = EVERY_S; at_s <= end_s; at_s += EVERY_S) {
        const heated = plan.hold_s > 0 && boothAir(plan, at_s) > plan.room_K ? off_K : 0;
        part_K = partTemperature({ air_K: boothAir(plan, at_s) + heated, start_K: part_K, time_s: EVERY_S, lag_s });
        samples.push({ at_s, part_K: Math.round((part_K + NOISE_K * normal()) * 10) / 10 });
      }
      return samples;
    },
  };
}
