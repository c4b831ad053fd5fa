import type { CorrectionStep } from "../models/correction/schools";
import { type BenchHabits, NIB_TOOLS } from "../models/correction/bench-habits";
import type { RunSchool } from "../models/correction/run-work";
import type { RemovalStep } from "../models/correction/removal-plan";

/** A step of the work in one zone; `use` is null where no abrasive of the table is in the hand (blade, file, filler). */
export interface ZoneTask extends Omit<CorrectionStep, "use"> {
  use: RemovalStep | null;
  name: string;
  /** Wet or dry; null where it does not matter. */
  wet: boolean | null;
}

const onRun = (grit: "P320" | "P600" | "P800" | "P1000" | "P1500" | "P2000", wet: boolean, lookFor: string): ZoneTask => ({
  use: { grit, backing: "hard", tool: "hand" },
  name: `Run: ${grit} hard`,
  tool: `hard block the size of the run, ${wet ? "wet" : "dry"}`,
  wet,
  doThis: "Cross-block, on the run only: working round it burns the film beside it",
  lookFor,
});

/** What each run school does with its hands, down to the grit the forecast counts; the guard's filler cut wet or dry. Common practice. */
export const runTasks = (school: RunSchool, { guardCut }: Pick<BenchHabits, "guardCut">): readonly ZoneTask[] =>
  school === "guard" ? guardTasks(guardCut === "wet") : RUN_TASKS[school];

const guardTasks = (wet: boolean): readonly ZoneTask[] => [
  {
    use: null,
    name: "Run: fine filler",
    tool: "filler, a thin skim over and around the run",
    wet: null,
    doThis: "Skim over the run and a hand's breadth around; let it harden. It shields the film beside it",
    lookFor: "Hard to the nail, no pinholes",
  },
  onRun("P320", wet, "Filler cut to the crest, still a skin around it"),
  onRun("P600", wet, "Only a thin rim of filler left"),
  onRun("P800", true, "Filler gone on the run, a trace around it"),
  onRun("P1000", true, "No filler left, flat to the fingertip"),
];
const RUN_TASKS: Readonly<Record<Exclude<RunSchool, "guard">, readonly ZoneTask[]>> = {
  block: [
    onRun("P800", false, "Shiny rim of the run shrinks evenly; stop at nine tenths"),
    onRun("P1000", true, "Flat to the fingertip, no step under a moving light"),
  ],
  blade: [
    {
      use: null,
      name: "Run: blade",
      tool: "blade with its corners dulled on P320",
      wet: null,
      doThis: "Highest spot first, along the contour, down to about 10 µm proud. Cut-resistant glove on the other hand",
      lookFor: "Thin even curls, never a gouge",
    },
    onRun("P1000", true, "The blade's marks are gone"),
    onRun("P1500", true, "No P1000 scratch left"),
    onRun("P2000", true, "No P1500 scratch left"),
  ],
  file: [
    {
      use: null,
      name: "Run: flat file",
      tool: "flat file, on the run only",
      wet: false,
      doThis: "Short flat strokes on the crest only; keep its corners off the panel",
      lookFor: "Filed crest level with the film around",
    },
    onRun("P600", true, "The file's marks are gone"),
  ],
};

/** Nibs before the panel is levelled: by a small pad, or a tool that strokes straight up and down. */
export const nibTask = ({ nibTool }: Pick<BenchHabits, "nibTool">): ZoneTask =>
  nibTool === "pad"
    ? NIB_TASK
    : {
        ...NIB_TASK,
        name: "Nibs: P2000 de-nibber",
        tool: NIB_TOOLS.denibber,
        doThis: "Straight down on the nib, a second at a time, a drop of water; look after each",
      };
const NIB_TASK: ZoneTask = {
  use: { grit: "P2000", backing: "hard", tool: "pad" },
  name: "Nibs: P2000 hard",
  tool: "small hard pad, wet",
  wet: true,
  doThis: "A few light turns on each nib, no wider than a thumbnail",
  lookFor: "Flat to the fingertip; the dull spot is no wider than needed",
};

/** A crater or a pop is filled before it is levelled: clear by the drop, proud of the film, then its own cure. */
export const DROP_TASK: ZoneTask = {
  use: null,
  name: "Drop of clear",
  tool: "needle or fine brush, the panel's own clear, mixed",
  wet: null,
  doThis: "Clean, let one drop run in, a little proud; again when it has sunk. Then it cures as the clear did before paper touches it",
  lookFor: "Proud of the film and hard to the nail",
};

/** Rim and body lines by hand: no block there, fingertips and fine paper. */
export const HAND_TASK: ZoneTask = {
  use: { grit: "P2000", backing: "soft", tool: "hand" },
  name: "By hand: P2000 soft",
  tool: "fingertips, fine paper, wet",
  wet: true,
  doThis: "Along the line, never across it, a few light strokes",
  lookFor: "Evenly dull; film is thin here, leave what does not come at once",
};

/** More nibs than this are not taken down one by one where the panel is levelled anyway. Default of ours. */
export const MOST_NIBS_SINGLY = 12;

/** Minutes of each kind of work. Defaults of ours, not validated. */
export const WORK_MINUTES = {
  machinePer_m2: 5,
  handPer_m2: 14,
  compoundPer_m2: 12,
  polishPer_m2: 10,
  ultrafinePer_m2: 8,
  /** Changing paper or pad, rinsing, and for every step; a look over each section. */
  change: 2,
  lookPerSection: 0.5,
  tapePer_m: 1,
  perSpot: 1,
  /** A de-nibbing tool is on a nib for a moment. */
  perSpotByTool: 0.5,
  /** Cleaning a place and letting the drop in. */
  perDrop: 3,
} as const;

/** What wears and is used up. Defaults of ours. */
export const USED_UP = {
  /** Paper works for about 2τ with τ 90 s of loading. */
  paperLife_s: 180,
  /** Dry, it loads sooner. */
  paperLifeDry_s: 120,
  compound_m3_m2: 20e-6,
  polish_m3_m2: 15e-6,
  padPer_m2: 1.5,
  spotsPerDisc: 8,
} as const;

/** A section is what is worked before the pad is moved on: about 0.6 × 0.6 m. Common practice. */
export const SECTION_M = 0.6;
/** What a spot takes. Common practice. */
export const SPOT_RADIUS_M = 0.015;
