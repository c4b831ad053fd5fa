import { requireNumber } from "../../kernel/guard";
import { TURNS_DEFAULT, fluidFromTurns } from "./fluid-from-turns";

/** A timed cup: what ran out with the needle at so many turns from closed. */
export interface CupPoint {
  turns: number;
  volume_m3: number;
  time_s: number;
}
export interface GunCurve {
  /** Flow with the needle far out, and the turns over which it gets there: Q(N) = full·(1 − e^{−N/rise}). */
  full_m3_s: number;
  rise_turns: number;
  /** How well the curve is known, as a share of the flow: scatter about it, or the cup's own where points are too few to show it. */
  relativeU: number;
  points: number;
}

/** Reading a cup and a watch by hand: 5 % of the flow. Common practice. */
export const CUP_U = 0.05;
const RISE = { low: 0.4, high: 12, steps: 240 } as const;
/** Rise of a usual needle, by the default of 102 ml/min a turn up to four turns. */
const USUAL_RISE = 3.2;

const rateOf = (p: CupPoint, i: number) =>
  requireNumber(`points[${i}].volume_m3`, p.volume_m3, { above: 0, max: 2e-3 }) /
  requireNumber(`points[${i}].time_s`, p.time_s, { min: 1, max: 600 });

/**
 * Fluid rate against the needle's turns from timed cups: a saturating curve through zero, least squares in the logarithm of the flow, its
 * rise searched on a grid and closed in on (two figures, so any two turns fix it; one point scales a usual needle).
 * @throws RangeError for no points, or points outside 0.1–10 turns
 */
export function fitGunCurve(points: readonly CupPoint[]): GunCurve {
  if (points.length === 0) throw new RangeError("points must have at least 1 member, got 0");
  const data = points.map((p, i) => ({ turns: requireNumber(`points[${i}].turns`, p.turns, { min: 0.1, max: 10 }), rate: rateOf(p, i) }));
  const shape = (turns: number, rise: number) => 1 - Math.exp(-turns / rise);
  const fit = (rise: number) => {
    const logs = data.map((d) => Math.log(d.rate / shape(d.turns, rise)));
    const mean = logs.reduce((a, b) => a + b, 0) / logs.length;
    return { rise, full: Math.exp(mean), squares: logs.reduce((a, b) => a + (b - mean) ** 2, 0) };
  };
  const turns = new Set(data.map((d) => d.turns));
  if (turns.size === 1) {
    const only = fit(USUAL_RISE);
    const scatter = data.length > 1 ? Math.sqrt(only.squares / (data.length - 1) / data.length) : 0;
    return { full_m3_s: only.full, rise_turns: USUAL_RISE, relativeU: Math.hypot(CUP_U, scatter), points: data.length };
  }
  let best = fit(USUAL_RISE);
  for (let i = 0; i <= RISE.steps; i++) {
    const next = fit(RISE.low * (RISE.high / RISE.low) ** (i / RISE.steps));
    if (next.squares < best.squares) best = next;
  }
  // Between the grid's neighbours the squares have one lowest place: thirds close in on it.
  const step = (RISE.high / RISE.low) ** (1 / RISE.steps);
  let [low, high] = [best.rise / step, best.rise * step];
  for (let i = 0; i < 60; i++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (fit(a).squares < fit(b).squares) high = b;
    else low = a;
  }
  best = fit((low + high) / 2);
  const free = data.length - 2;
  const scatter = free > 0 ? Math.sqrt(best.squares / free) : 0;
  return { full_m3_s: best.full, rise_turns: best.rise, relativeU: Math.max(CUP_U, scatter), points: data.length };
}

/**
 * Flow at some turns by the gun's own curve, or by the usual needle without one; the uncertainty doubles outside the turns measured.
 * @throws RangeError
 */
export function gunFlow(
  curve: GunCurve | null,
  turns: number,
  measured: readonly CupPoint[] = [],
): { fluidRate_m3_s: number; u_m3_s: number; from: "measured" | "turns" } {
  requireNumber("turns", turns, { min: 0.1, max: 10 });
  if (!curve) return { ...fluidFromTurns(turns), from: "turns" };
  const fluidRate_m3_s = curve.full_m3_s * (1 - Math.exp(-turns / curve.rise_turns));
  const list = measured.map((p) => p.turns);
  const outside = list.length > 0 && (turns < Math.min(...list) - 0.25 || turns > Math.max(...list) + 0.25);
  return { fluidRate_m3_s, u_m3_s: fluidRate_m3_s * curve.relativeU * (outside ? 2 : 1), from: "measured" };
}

/** Where the schools of the trade put the needle. Common practice. */
export const SETUP_SCHOOLS = {
  closed: { name: "From closed", how: "2 to 2½ turns out", turns: () => 2.25 },
  "closed-wide": { name: "From closed, wide", how: "3 to 4 turns out, fan open less a quarter turn", turns: () => 3.5 },
  open: { name: "From open", how: "wide open, then one turn in", turns: (all: number) => all - 1 },
  full: { name: "Full open", how: "fluid and fan full, speed does the rest", turns: (all: number) => all },
} as const satisfies Record<string, { name: string; how: string; turns: (all: number) => number }>;
export type SetupSchool = keyof typeof SETUP_SCHOOLS;

/** Turns a school comes to on a needle that has so many in all. @throws RangeError @example setupTurns("open", 5) // 4 */
export function setupTurns(school: SetupSchool, allTurns: number): number {
  const all = requireNumber("allTurns", allTurns, { min: 1.5, max: 10 });
  return Math.min(all, SETUP_SCHOOLS[school].turns(all));
}

/** Hand speed to a metronome: one stroke of a length each beat. @throws RangeError @example metronomeSpeed({ beats_1_min: 40, stroke_m: 0.5 }) // 0.333 */
export function metronomeSpeed({ beats_1_min, stroke_m }: { beats_1_min: number; stroke_m: number }): number {
  return (
    (requireNumber("stroke_m", stroke_m, { min: 0.05, max: 5 }) * requireNumber("beats_1_min", beats_1_min, { min: 5, max: 240 })) / 60
  );
}
/** Beats a minute that give a speed over a stroke. @throws RangeError */
export const beatsFor = ({ speed_m_s, stroke_m }: { speed_m_s: number; stroke_m: number }): number =>
  (60 * requireNumber("speed_m_s", speed_m_s, { min: 0.05, max: 3 })) / requireNumber("stroke_m", stroke_m, { min: 0.05, max: 5 });

/** A thumb on a button at both ends of a timed pass: 0.1 s each, independent. Common practice. */
const THUMB_S = 0.1;

/** Hand speed from passes over a known length, timed by hand. @throws RangeError */
export function timedSpeed({ length_m, passes, time_s }: { length_m: number; passes: number; time_s: number }): {
  speed_m_s: number;
  u_m_s: number;
} {
  const way = requireNumber("length_m", length_m, { min: 0.05, max: 20 }) * requireNumber("passes", passes, { min: 1, max: 50 });
  const time = requireNumber("time_s", time_s, { min: 0.2, max: 600 });
  const speed_m_s = way / time;
  return { speed_m_s, u_m_s: (speed_m_s * Math.SQRT2 * THUMB_S) / time };
}

/** Film across the panel over its mean for overlapping passes, for the picture: `count` places over `width_fans` fans. @throws RangeError */
export function rippleProfile(
  overlap: number,
  { count, width_fans }: { count: number; width_fans: number },
): { at_fans: number; film: number; pass: number }[] {
  const index = 1 - requireNumber("overlap", overlap, { min: 0, max: 0.9 });
  requireNumber("count", count, { min: 2, max: 2000 });
  const beta = (y: number) => (y > 0 && y < 1 ? 6 * y * (1 - y) : 0);
  return Array.from({ length: count }, (_, i) => {
    const at_fans = (requireNumber("width_fans", width_fans, { above: 0, max: 20 }) * i) / (count - 1);
    let film = 0;
    // Passes lie at whole numbers of the index, before the picture and behind it too.
    for (let k = Math.ceil((at_fans - 1) / index) - 1; k * index <= at_fans; k++) film += beta(at_fans - k * index);
    return { at_fans, film: film * index, pass: beta(at_fans % 1) };
  });
}

export const USUAL_NEEDLE_TURNS = TURNS_DEFAULT.saturation_turns + 1;

/** What a pattern on paper must look like before the job. Common practice. */
export const PATTERN_CHECKS = [
  { id: "ellipse", what: "An even, tight ellipse", why: "one heavy end or a split middle shows as stripes on the panel" },
  { id: "fan", what: "Fan as wide as planned, at the distance planned", why: "a narrower fan lays more: film goes as one over the width" },
  { id: "trigger", what: "Pressure read with the trigger pulled", why: "at rest it reads higher than what breaks up the paint" },
  { id: "spit", what: "No spitting, even from the first second", why: "a loose nozzle or dry packing throws drops" },
  { id: "strained", what: "Material strained, gun clean, cup vent open", why: "a blocked vent starves the gun half-way through a coat" },
] as const;
export const PATTERN_CHECK_IDS = PATTERN_CHECKS.map((c) => c.id) as [string, ...string[]];
