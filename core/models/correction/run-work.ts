import { requireNumber } from "../../kernel/guard";
import { normalCdf } from "../../kernel/stats/normal";
import { type Grit, scratchDepth } from "./abrasives";
import type { Removal } from "./removal-plan";

/** Schools of taking a run down. Every figure is a default of ours, not validated; shown side by side, none is declared best. */
export const RUN_SCHOOLS = {
  block: {
    name: "Block",
    how: "P800 dry on a hard block, cross-block near flat, at nine tenths P1000 wet till flat",
    compliance_m: 8e-6,
    bladeTo_m: null,
    guard_m: 0,
    gougeChance: 0.003,
    gouge_m: [8e-6, 4e-6],
    grit: "P1000",
    minutes: { fixed: 6, per_mm3: 0.22 },
  },
  blade: {
    name: "Shave",
    how: "Blade with dulled corners to about 10 µm proud, highest spot first, then block P1000 → P1500 → P2000",
    compliance_m: 8e-6,
    bladeTo_m: 10e-6,
    guard_m: 0,
    gougeChance: 0.03,
    gouge_m: [15e-6, 8e-6],
    grit: "P1500",
    minutes: { fixed: 6, per_mm3: 0.08 },
  },
  guard: {
    name: "Guard",
    how: "Thin fine filler over and around the run, P320 → P600 → P800; the filler shields the film beside it",
    compliance_m: 8e-6,
    bladeTo_m: null,
    guard_m: 20e-6,
    gougeChance: 0.002,
    gouge_m: [8e-6, 4e-6],
    grit: "P1000",
    minutes: { fixed: 22, per_mm3: 0.25 },
  },
  file: {
    name: "Flat file",
    how: "Flat file on the run only, then paper on a hard block",
    compliance_m: 2e-6,
    bladeTo_m: null,
    guard_m: 0,
    gougeChance: 0.03,
    gouge_m: [12e-6, 6e-6],
    grit: "P600",
    minutes: { fixed: 5, per_mm3: 0.1 },
  },
} as const satisfies Record<
  string,
  {
    name: string;
    how: string;
    compliance_m: number;
    bladeTo_m: number | null;
    guard_m: number;
    gougeChance: number;
    gouge_m: readonly [number, number];
    grit: Grit;
    minutes: { fixed: number; per_mm3: number };
  }
>;
export type RunSchool = keyof typeof RUN_SCHOOLS;

/** Finishing after the run is level, and how flat it is taken. */
const TAIL_M = [3e-6, 1e-6] as const;
const RESIDUAL_M = 1.5e-6;

export interface Run {
  height_m: number;
  width_m: number;
  length_m: number;
}

/** Volume of a run with a parabolic section and rounded ends, m³. @throws RangeError when it is wider than twice its length. */
export function runVolume({ height_m, width_m, length_m }: Run): number {
  requireNumber("height_m", height_m, { above: 0, max: 5e-3 });
  requireNumber("width_m", width_m, { above: 0 });
  requireNumber("length_m", length_m, { above: width_m / 2 });
  return (2 / 3) * height_m * width_m * (length_m - width_m / 2);
}

/**
 * Film lost beside a run while it is sanded level: δ·ln(h₁/ε) − (h₁ − ε), h₁ = min(h₀, δ). A soft backing bends round the run and bites
 * beside it, hence no soft pad on a run. @throws RangeError @example δ 8, ε 1.5, h 80 µm: 6.8918 µm
 */
export function lossBesideRun({
  height_m,
  compliance_m,
  residual_m,
}: {
  height_m: number;
  compliance_m: number;
  residual_m: number;
}): number {
  requireNumber("height_m", height_m, { min: 0 });
  requireNumber("compliance_m", compliance_m, { above: 0 });
  requireNumber("residual_m", residual_m, { above: 0 });
  const start = Math.min(height_m, compliance_m);
  return residual_m >= start ? 0 : compliance_m * Math.log(start / residual_m) - (start - residual_m);
}

export interface RunForecast {
  volume_m3: number;
  /** Loss beside the run from levelling alone, and with scratches and finishing. */
  beside_m: number;
  loss_m: number;
  /** Standard uncertainty of the loss without its finish. */
  uBeside_m: number;
  left_m: number;
  u_left_m: number;
  chanceBelowFloor: number;
  minutes: number;
  crest_m: number;
}

/**
 * What one school does to the film beside a run.
 * @param clear_m clear around the run (the run itself is extra film), with its standard uncertainty
 * @param depletedArea_m2 area the run drained, if known: its film is missing there
 * @param finish what the ladder after it takes off there; a usual finish where it is not known
 * @throws RangeError
 */
export function forecastRunWork(
  school: RunSchool,
  input: Run & { clear_m: number; u_clear_m: number; floor_m: number; depletedArea_m2?: number; finish?: Removal },
): RunForecast {
  const s = RUN_SCHOOLS[school];
  const volume_m3 = runVolume(input);
  const start = s.bladeTo_m === null ? input.height_m : Math.min(input.height_m, s.bladeTo_m);
  const beside = Math.max(0, lossBesideRun({ height_m: start, compliance_m: s.compliance_m, residual_m: RESIDUAL_M }) - s.guard_m);
  const scratch = scratchDepth(s.grit, "hard");
  const { removal_m: tail_m, u_m: uTail_m } = input.finish ?? { removal_m: TAIL_M[0], u_m: TAIL_M[1] };
  const loss_m = beside + 1.25 * (s.guard_m > 0 ? 0.5 : 1) * scratch.depth_m + requireNumber("finish.removal_m", tail_m, { min: 0 });
  const uBeside_m = Math.hypot(0.5 * beside, 1.25 * scratch.u_m);
  const u_left_m = Math.hypot(
    requireNumber("u_clear_m", input.u_clear_m, { above: 0 }),
    uBeside_m,
    requireNumber("finish.u_m", uTail_m, { min: 0 }),
  );
  const depleted = input.depletedArea_m2 ? volume_m3 / requireNumber("depletedArea_m2", input.depletedArea_m2, { above: 0 }) : 0;
  const left_m = requireNumber("clear_m", input.clear_m) - loss_m - depleted;
  const short = requireNumber("floor_m", input.floor_m, { min: 0 }) - left_m;
  const plain = normalCdf(short / u_left_m);
  const gouged = normalCdf((short + s.gouge_m[0]) / Math.hypot(u_left_m, s.gouge_m[1]));
  return {
    volume_m3,
    beside_m: beside,
    loss_m,
    uBeside_m,
    left_m,
    u_left_m,
    chanceBelowFloor: (1 - s.gougeChance) * plain + s.gougeChance * gouged,
    minutes: s.minutes.fixed + s.minutes.per_mm3 * volume_m3 * 1e9,
    crest_m: input.clear_m + input.height_m,
  };
}
