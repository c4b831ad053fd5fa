import { useMemo } from "react";
import { PEAK_TO_VALLEY_OF_RMS } from "#core/models/correction/removal-plan";
import { peelSpectrum } from "#core/models/flow/reflection";
import { LightTube } from "~/kit/panel/light-tube";

/** A light tube in a surface of which only the peel's height is known. */
export function SurfaceTube({ peakToValley_m, label }: { peakToValley_m: number; label: string }) {
  const result = useMemo(() => ({ spectrum: peelSpectrum(peakToValley_m / PEAK_TO_VALLEY_OF_RMS.factor) }), [peakToValley_m]);
  return <LightTube result={result} label={label} />;
}
