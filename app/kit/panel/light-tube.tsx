import { memo, useMemo } from "react";
import { tubeReflection } from "#core/models/flow/reflection";
import type { FlowResult } from "#core/models/flow/simulate-coats";
import { waveNumbers } from "#core/models/flow/wave-numbers";
import { seededRandom } from "#core/kernel/stats/random";

const W = 330;
const H = 84;
const SAMPLES = 330;
const LENGTH_M = 0.16;
const TUBE_M = 0.026;
const DISTANCE_M = 0.5;
const SEED = 12;
const WEIGHTS = waveNumbers(16).weight;

/** A straight light tube as this surface would reflect it: one example with the predicted texture. */
export const LightTube = memo(function LightTube({ result, label }: { result: Pick<FlowResult, "spectrum">; label: string }) {
  const { top, bottom } = useMemo(() => {
    const { upper_m, lower_m } = tubeReflection(
      result.spectrum,
      WEIGHTS,
      { length_m: LENGTH_M, samples: SAMPLES, distance_m: DISTANCE_M, apart_m: TUBE_M },
      seededRandom(SEED),
    );
    const scale = (H * 0.34) / TUBE_M;
    const points = (d: Float64Array, y0: number) =>
      Array.from(d, (v, i) => `${((i / (SAMPLES - 1)) * W).toFixed(1)},${(y0 + v * scale).toFixed(2)}`);
    return { top: points(upper_m, H * 0.33), bottom: points(lower_m, H * 0.67) };
  }, [result]);
  return (
    <figure>
      <svg viewBox={`0 0 ${W} ${H}`} className="h-auto w-full" role="img" aria-label={`A light tube in this surface: ${label}`}>
        <rect width={W} height={H} fill="oklch(0.27 0.03 200)" />
        <polygon points={[...top, ...bottom.toReversed()].join(" ")} fill="oklch(0.97 0.02 190)" />
      </svg>
      <figcaption className="mt-1 text-[14px] font-medium">{label}</figcaption>
    </figure>
  );
});
