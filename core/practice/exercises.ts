import { type ShapeKind, panelShape } from "../kernel/geometry/shapes";
import { type Polygon, rectangle } from "../kernel/geometry/geometry";
import type { FaceCurve } from "../models/panel-film/panel-film";
import type { ProductSheet } from "../models/product/sheet";
import type { ActivatorSpeed } from "../models/spray/constants";
import type { HouseWay } from "../models/ways/way";
import type { BenchSetting } from "./bench-setting";
import type { Debrief } from "./debrief";
import type { HiddenSlip } from "./job/hidden-hand";
import { JOB_PASSES, type JobJudged } from "./job/judged";
import type { Skill } from "./mended";
import type { RowMade } from "./rows-made";

/** How much of it is seen while it is sprayed: rows and film · light, with the hand's figures · light alone, as in the booth. */
export const LEVELS = ["guided", "figures", "booth"] as const;
export type Level = (typeof LEVELS)[number];

/** What a session must come to. Shares are of the part. */
export interface PassMark {
  /** Shares of the part that may have run and that may lie below three quarters of the film wanted. */
  runShare: number;
  thinShare: number;
  /** Root of the mean square of film over film wanted, less one. */
  uneven: number;
  /** What must have cost nothing worth a word. */
  skills: readonly Skill[];
  /** The second coat's rows lie between those of the first by at least so much: 0 on them, 1 in the middle. */
  between?: number;
}

export interface Exercise {
  name: string;
  /** What it teaches. */
  aim: string;
  part: ShapeKind | "plate";
  size_m: readonly [width_m: number, height_m: number];
  tilt_rad: number;
  air_K: number;
  speed: ActivatorSpeed;
  way: string;
  /** Coats the way lays; so many of them lie there already, laid as the way wants them. */
  coats: number;
  laid: number;
  level: Level;
  pass: PassMark;
  /** A face that curves; `tilt_rad` is then that of its steepest place. */
  curve?: FaceCurve;
  staggered?: boolean;
  matte?: boolean;
  /** The gun was tried by nobody: its pattern may not be even. */
  unsure?: boolean;
  /** Nobody sees it sprayed: it comes hard, with such slips in it, to be read, judged and worked on. */
  hidden?: readonly HiddenSlip[];
}

const CLOSE = { runShare: 0, thinShare: 0.03, uneven: 0.2 } as const;
/** What a session must come to where nobody has set more: no run, hardly a thin place. */
export const FREE_PASS: PassMark = { ...CLOSE, thinShare: 0.08, uneven: 0.28, skills: [] };
export const USUAL = {
  tilt_rad: Math.PI / 2,
  air_K: 294.15,
  speed: "medium",
  way: "two-full",
  coats: 1,
  laid: 0,
  level: "guided",
} as const;

/** Exercises from the first rows to a whole door as in the booth. Our own; parts and days are invented. */
export const EXERCISES = {
  "even-rows": {
    ...USUAL,
    name: "Even rows",
    aim: "Six rows, half of each over the one before",
    part: "plate",
    size_m: [0.8, 0.6],
    pass: { ...CLOSE, skills: ["overlap"] },
  },
  "steady-pace": {
    ...USUAL,
    name: "A steady hand",
    aim: "One speed from edge to edge, no stop",
    part: "plate",
    size_m: [0.8, 0.5],
    pass: { ...CLOSE, skills: ["pace"] },
  },
  "keep-distance": {
    ...USUAL,
    name: "No arc",
    aim: "The gun keeps its distance to the very edge",
    part: "plate",
    size_m: [1.1, 0.5],
    pass: { ...CLOSE, skills: ["distance"] },
  },
  "trigger-edges": {
    ...USUAL,
    name: "Past both edges",
    aim: "Pulled before the part, let go behind it",
    part: "plate",
    size_m: [0.6, 0.5],
    pass: { ...CLOSE, skills: ["trigger", "edges"] },
  },
  "door-edge": {
    ...USUAL,
    name: "Door edge, no run",
    aim: "Film up to every edge of a real outline",
    part: "door",
    size_m: [1.1, 0.7],
    level: "figures",
    pass: { ...CLOSE, thinShare: 0.05, skills: ["edges"] },
  },
  "small-part": {
    ...USUAL,
    name: "A small part",
    aim: "A mirror cap: most flies past, edges come first",
    part: "mirrorCap",
    size_m: [0.22, 0.16],
    level: "figures",
    pass: { runShare: 0, thinShare: 0.45, uneven: 0.35, skills: [] },
  },
  "two-coats": {
    ...USUAL,
    name: "Two coats, one wait",
    aim: "The second goes on when the first bears it",
    part: "door",
    size_m: [1.0, 0.6],
    coats: 2,
    level: "figures",
    pass: { ...CLOSE, thinShare: 0.05, skills: ["wait"] },
  },
  "cold-vertical": {
    ...USUAL,
    name: "Second coat on a cold vertical",
    aim: "A cold booth, a door upright: what is slow today runs",
    part: "door",
    size_m: [1.1, 0.7],
    air_K: 290.15,
    coats: 2,
    laid: 1,
    level: "figures",
    pass: { ...CLOSE, thinShare: 0.05, uneven: 0.25, skills: ["pace"] },
  },
  "wide-bonnet": {
    ...USUAL,
    name: "Reach without a dry edge",
    aim: "A whole bonnet, lying, in one go",
    part: "bonnet",
    size_m: [1.4, 1.1],
    tilt_rad: 0,
    level: "figures",
    pass: { ...CLOSE, thinShare: 0.06, uneven: 0.25, skills: ["overlap"] },
  },
  "hot-day": {
    ...USUAL,
    name: "A hot day",
    aim: "In the heat, with a fast hardener: near enough, and on",
    part: "wing",
    size_m: [0.9, 0.65],
    air_K: 303.15,
    speed: "fast",
    level: "booth",
    pass: { ...CLOSE, thinShare: 0.08, uneven: 0.28, skills: ["distance"] },
  },
  "as-in-the-booth": {
    ...USUAL,
    name: "As in the booth",
    aim: "Two coats by the light alone, with a gun that nobody has tried yet",
    part: "door",
    size_m: [1.1, 0.7],
    coats: 2,
    level: "booth",
    unsure: true,
    pass: { ...CLOSE, thinShare: 0.06, uneven: 0.25, skills: ["overlap", "pace", "wait"] },
  },
  "matte-between": {
    ...USUAL,
    name: "Matte, rows between rows",
    aim: "The second coat's rows lie between those of the first",
    part: "plate",
    size_m: [0.8, 0.5],
    way: "matte-two",
    coats: 2,
    matte: true,
    staggered: true,
    pass: { ...CLOSE, uneven: 0.2, skills: [], between: 0.6 },
  },
  "tank-round": {
    ...USUAL,
    name: "A tank, all round",
    aim: "From flank over the top to flank: both flanks run, the top does not",
    part: "plate",
    size_m: [0.42, 0.56],
    curve: { from_rad: -Math.PI / 2, to_rad: Math.PI / 2 },
    level: "figures",
    pass: { ...CLOSE, thinShare: 0.08, uneven: 0.28, skills: ["edges"] },
  },
  "read-twelve": {
    ...USUAL,
    name: "Twelve spots, one judgement",
    aim: "Nobody saw it sprayed: find where it is thin, how thin, and why",
    part: "door",
    size_m: [1.0, 0.65],
    coats: 2,
    level: "booth",
    hidden: ["thin"],
    pass: { ...CLOSE, skills: [] },
  },
  "run-down": {
    ...USUAL,
    name: "The run down, the clear left",
    aim: "Take the run level and leave the clear beside it",
    part: "door",
    size_m: [0.9, 0.6],
    coats: 2,
    level: "booth",
    hidden: ["ran"],
    pass: { ...CLOSE, skills: [] },
  },
} as const satisfies Record<string, Exercise>;
export type ExerciseId = keyof typeof EXERCISES;
/** What hangs on the bench: an exercise, or what somebody has chosen. */
export type BenchId = ExerciseId | "free";
export const EXERCISE_IDS = Object.keys(EXERCISES) as [ExerciseId, ...ExerciseId[]];
export const exerciseOf = (id: string): Exercise | null => (Object.hasOwn(EXERCISES, id) ? EXERCISES[id as ExerciseId] : null);
/** An exercise with all that any of them may say. */
export const exerciseById = (id: ExerciseId): Exercise => EXERCISES[id];

export const exerciseOutline = ({ part, size_m: [width_m, height_m] }: Pick<Exercise, "part" | "size_m">): Polygon =>
  part === "plate" ? rectangle(width_m, height_m) : panelShape(part, { width_m, height_m }).outline;

/** What hangs on the bench for an exercise, with this clear and this way. */
export const exerciseSetting = (exercise: Exercise, sheet: ProductSheet, way: HouseWay): BenchSetting => ({
  outline: exerciseOutline(exercise),
  tilt_rad: exercise.tilt_rad,
  curve: exercise.curve,
  staggered: exercise.staggered,
  sheet,
  way,
  coats: exercise.coats,
  air_K: exercise.air_K,
});

/** The clear as this exercise wants its hardener. */
export const exerciseSheet = ({ speed }: Exercise, sheet: ProductSheet): ProductSheet => ({ ...sheet, speed });

export interface MarkMet {
  mark: keyof Omit<PassMark, "skills"> | Skill | "judged";
  was: number;
  bound: number;
  met: boolean;
}

/** Each mark of an exercise and whether a session came to it. A skill costs nothing where it is not in the advice. */
export function marksMet({ pass }: Pick<Exercise, "pass">, { loss, advice, rows }: Pick<Debrief, "loss" | "advice" | "rows">): MarkMet[] {
  const film = (["runShare", "thinShare", "uneven"] as const).map((mark) => ({
    mark,
    was: loss[mark],
    bound: pass[mark],
    met: loss[mark] <= pass[mark] + 1e-9,
  }));
  const skills = pass.skills.map((skill): MarkMet => {
    const said = advice.find((a) => a.skill === skill);
    return { mark: skill, was: said?.cost ?? 0, bound: 0, met: said === undefined };
  });
  if (pass.between === undefined) return [...film, ...skills];
  const was = betweenShare(rows);
  return [...film, ...skills, { mark: "between", was, bound: pass.between, met: was >= pass.between }];
}

/** How far the rows of each coat lie between those of the one before it, in the mean: 0 on them, 1 in the middle. One without a coat before it: 0. */
export function betweenShare(coats: readonly (readonly Pick<RowMade, "across_m">[])[]): number {
  const shares = coats.slice(1).flatMap((rows, n) => {
    const before = coats[n]!.map((r) => r.across_m).sort((a, b) => a - b);
    if (before.length < 2) return [];
    const gap_m = (before.at(-1)! - before[0]!) / (before.length - 1);
    return rows.map((r) => Math.min(1, Math.min(...before.map((b) => Math.abs(b - r.across_m))) / (gap_m / 2)));
  });
  return shares.length === 0 ? 0 : shares.reduce((a, b) => a + b, 0) / shares.length;
}

/** A judgement passes where nothing of it, or of the work, cost more than a speck that was overlooked. */
export const judgedMark = ({ cost }: Pick<JobJudged, "cost">): MarkMet => ({
  mark: "judged",
  was: cost,
  bound: JOB_PASSES,
  met: cost <= JOB_PASSES,
});
