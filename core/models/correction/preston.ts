import { requireNumber } from "../../kernel/guard";

export interface Abrasion {
  /** Preston's coefficient, 1/Pa; about 1e-10 within a factor of 3 (default of ours). */
  coefficient_1_Pa: number;
  force_N: number;
  speed_m_s: number;
  area_m2: number;
}

const rate = (a: Abrasion) =>
  (requireNumber("coefficient_1_Pa", a.coefficient_1_Pa, { above: 0 }) *
    requireNumber("force_N", a.force_N, { above: 0 }) *
    requireNumber("speed_m_s", a.speed_m_s, { above: 0 })) /
  requireNumber("area_m2", a.area_m2, { above: 0 });

/** Film taken off in a time (Preston 1927); paper that loads works only τ(1 − e^(−t/τ)). @throws RangeError */
export function prestonRemoval(a: Abrasion & { time_s: number; loading_s?: number }): number {
  const t = requireNumber("time_s", a.time_s, { min: 0 });
  return (
    rate(a) * (a.loading_s === undefined ? t : a.loading_s * (1 - Math.exp(-t / requireNumber("loading_s", a.loading_s, { above: 0 }))))
  );
}

/** Time for a film with fresh paper. @throws RangeError */
export function prestonTime(a: Abrasion & { removal_m: number }): number {
  return requireNumber("removal_m", a.removal_m, { min: 0 }) / rate(a);
}
