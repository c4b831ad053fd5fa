import { requireNumber } from "../../kernel/guard";
import type { SourceKey } from "../../kernel/sources";

interface Cup {
  name: string;
  /** ν[mm²/s] = a·t − b/t, or a·(t − c). */
  a: number;
  b: number;
  c: number;
  /** Efflux times for which the formula is meant. */
  from_s: number;
  to_s: number;
  source: SourceKey;
}

/** Standard flow cups. Coefficients from memory; times outside `from_s`…`to_s` are refused, as the formulas bend away there. */
export const FLOW_CUPS = {
  iso3: { name: "ISO 3 mm", a: 0.443, b: 200, c: 0, from_s: 30, to_s: 100, source: "iso-2431" },
  iso4: { name: "ISO 4 mm", a: 1.37, b: 200, c: 0, from_s: 30, to_s: 100, source: "iso-2431" },
  iso5: { name: "ISO 5 mm", a: 3.28, b: 220, c: 0, from_s: 30, to_s: 100, source: "iso-2431" },
  iso6: { name: "ISO 6 mm", a: 6.9, b: 570, c: 0, from_s: 30, to_s: 100, source: "iso-2431" },
  ford1: { name: "Ford 1", a: 0.49, b: 0, c: 35, from_s: 55, to_s: 100, source: "astm-d1200" },
  ford2: { name: "Ford 2", a: 1.44, b: 0, c: 18, from_s: 40, to_s: 100, source: "astm-d1200" },
  ford3: { name: "Ford 3", a: 2.31, b: 0, c: 6.58, from_s: 20, to_s: 100, source: "astm-d1200" },
  ford4: { name: "Ford 4", a: 3.85, b: 0, c: 4.49, from_s: 20, to_s: 100, source: "astm-d1200" },
  ford5: { name: "Ford 5", a: 12.1, b: 0, c: 2, from_s: 20, to_s: 100, source: "astm-d1200" },
  din4: { name: "DIN 4 mm", a: 4.57, b: 452, c: 0, from_s: 25, to_s: 150, source: "din-53211" },
} as const satisfies Record<string, Cup>;
export type FlowCup = keyof typeof FLOW_CUPS;
export const FLOW_CUP_IDS = Object.keys(FLOW_CUPS) as [FlowCup, ...FlowCup[]];

const MM2 = 1e-6;

/** Kinematic viscosity, m²/s, from the efflux time of a cup. @throws RangeError outside the cup's own range. */
export function viscosityFromCup(cup: FlowCup, efflux_s: number): number {
  const { a, b, c, from_s, to_s } = FLOW_CUPS[cup];
  const t = requireNumber("efflux_s", efflux_s, { min: from_s, max: to_s });
  return (a * (t - c) - b / t) * MM2;
}

/** Thinner than this, or thicker, nothing that is sprayed is. */
const SPRAYED_M2_S = { min: 5e-6, max: 600e-6 } as const;

/**
 * What a cup time says, also a little outside the range that its formula is meant for, as shops measure a clear in 16 to 20 s of a cup that is
 * specified from 25; null where the formula gives nothing that is sprayed.
 */
export function cupReading({ cup, efflux_s }: { cup: FlowCup; efflux_s: number }): { nu_m2_s: number; meant: boolean } | null {
  const { a, b, c, from_s, to_s } = FLOW_CUPS[cup];
  const nu_m2_s = (a * (efflux_s - c) - b / efflux_s) * MM2;
  if (!(nu_m2_s >= SPRAYED_M2_S.min && nu_m2_s <= SPRAYED_M2_S.max)) return null;
  return { nu_m2_s, meant: efflux_s >= from_s && efflux_s <= to_s };
}

/** Efflux time of a cup for a kinematic viscosity: the inverse of {@link viscosityFromCup}. @throws RangeError outside its range. */
export function cupFromViscosity(cup: FlowCup, viscosity_m2_s: number): number {
  const { a, b, c, from_s, to_s } = FLOW_CUPS[cup];
  const nu = requireNumber("viscosity_m2_s", viscosity_m2_s, { above: 0 }) / MM2;
  // a·t² − (a·c + ν)·t − b = 0, the positive root.
  const p = a * c + nu;
  const t = (p + Math.sqrt(p * p + 4 * a * b)) / (2 * a);
  return requireNumber("efflux_s", t, { min: from_s * (1 - 1e-9), max: to_s * (1 + 1e-9) });
}
