import { requireNumber } from "../../kernel/guard";

const A = 17.62;
const B_C = 243.12;
const ZERO_C_K = 273.15;
/** ISO 8502-4 (from memory): the surface is to be at least 3 K above the dew point. */
export const DEW_POINT_MARGIN_K = 3;

/**
 * Dew point by the Magnus formula over water, valid −45…60 °C.
 * @param relativeHumidity share, 0 < rh ≤ 1
 * @throws RangeError @example dewPoint({ air_K: 298.15, relativeHumidity: 0.6 }) // 289.843
 */
export function dewPoint({ air_K, relativeHumidity }: { air_K: number; relativeHumidity: number }): number {
  requireNumber("air_K", air_K, { min: 228.15, max: 333.15 });
  requireNumber("relativeHumidity", relativeHumidity, { above: 0, max: 1 });
  const t = air_K - ZERO_C_K;
  const gamma = Math.log(relativeHumidity) + (A * t) / (B_C + t);
  return (B_C * gamma) / (A - gamma) + ZERO_C_K;
}

/** How far the part lies above the lowest temperature at which it may be painted (negative: too cold). */
export function dewPointMargin(input: { air_K: number; part_K: number; relativeHumidity: number }): {
  dewPoint_K: number;
  lowestPart_K: number;
  margin_K: number;
} {
  const dewPoint_K = dewPoint(input);
  const lowestPart_K = dewPoint_K + DEW_POINT_MARGIN_K;
  return { dewPoint_K, lowestPart_K, margin_K: requireNumber("part_K", input.part_K, { min: 200, max: 420 }) - lowestPart_K };
}
