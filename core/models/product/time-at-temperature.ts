import { requireNumber } from "../../kernel/guard";

export interface TimePoint {
  temperature_K: number;
  time_s: number;
}
export interface TimeAtTemperature {
  time_s: number;
  /** How the figure came about: on a point, between two, beyond them by at most the limit, or from the only point there is. */
  how: "sheet" | "between" | "beyond" | "only point" | "by evaporation" | "by halving" | "outside";
}

/** How solvent leaves with temperature: set to common practice, as in the flow model, which takes it from here. */
export const EVAPORATION_ENERGY_J_MOL = 42e3;

/** So far beyond the sheet's points the straight line is still followed. */
export const BEYOND_LIMIT_K = 10;

/**
 * A sheet's time (pot life, flash) at another temperature: ln t is a straight line in 1/T between two of the product's own points
 * (Arrhenius form); at most 10 K beyond them, further out the time at that limit is given and called "outside".
 * With one point the time does not follow temperature at all, and `how` says so.
 * @throws RangeError for no points, times that are not above zero, or two points at one temperature.
 */
export function timeAtTemperature(points: readonly TimePoint[], temperature_K: number): TimeAtTemperature {
  requireNumber("temperature_K", temperature_K, { min: 233, max: 473 });
  if (points.length === 0) throw new RangeError("points must have at least 1 member, got 0");
  const sorted = [...points].sort((a, b) => a.temperature_K - b.temperature_K);
  sorted.forEach((p, i) => {
    requireNumber(`points[${i}].time_s`, p.time_s, { above: 0 });
    requireNumber(`points[${i}].temperature_K`, p.temperature_K, { min: 233, max: 473 });
    if (i > 0 && p.temperature_K === sorted[i - 1]!.temperature_K)
      throw new RangeError(`points must differ in temperature, got ${p.temperature_K} K twice`);
  });
  const on = sorted.find((p) => Math.abs(p.temperature_K - temperature_K) < 0.05);
  if (on) return { time_s: on.time_s, how: "sheet" };
  if (sorted.length === 1) return { time_s: sorted[0]!.time_s, how: "only point" };
  const low = sorted[0]!.temperature_K;
  const high = sorted.at(-1)!.temperature_K;
  const T = Math.min(high + BEYOND_LIMIT_K, Math.max(low - BEYOND_LIMIT_K, temperature_K));
  const next = Math.max(
    1,
    Math.min(
      sorted.length - 1,
      sorted.findIndex((p) => p.temperature_K > T) < 0 ? sorted.length - 1 : sorted.findIndex((p) => p.temperature_K > T),
    ),
  );
  const [a, b] = [sorted[next - 1]!, sorted[next]!];
  const w = (1 / T - 1 / a.temperature_K) / (1 / b.temperature_K - 1 / a.temperature_K);
  const time_s = Math.exp(Math.log(a.time_s) * (1 - w) + Math.log(b.time_s) * w);
  return { time_s, how: T !== temperature_K ? "outside" : T < low || T > high ? "beyond" : "between" };
}
