import { isInclusion } from "../models/defects/kinds";
import type { PanelBrief } from "../panel/brief";
import { type GlossTool, TOOL_ROUGHNESS_M, roughGloss, roughnessAfter } from "../models/gloss/fresnel-gloss";
import { requireNumber } from "../kernel/guard";
import { type Point, edgeDistance, lineLength, polygonArea, polygonPerimeter } from "../kernel/geometry/geometry";
import { type ClearedStep, DEFAULT_REMOVAL, type ShopRemoval, clearingPlan, skippedSteps } from "../models/correction/clearing";
import { type Removal, type RemovalStep, type Texture, sumOf } from "../models/correction/removal-plan";
import { type BenchHabits, USUAL_HABITS, schoolWith } from "../models/correction/bench-habits";
import { RUN_SCHOOLS, type RunForecast, type RunSchool, forecastRunWork } from "../models/correction/run-work";
import { type CorrectionSchool, correctionSchool, reachOf, stepName } from "../models/correction/schools";
import type { PlanStep } from "../record/bodies";
import type { EntryOf } from "../record/entry";
import { type PanelFacts, measuredRuns } from "../panel/derive-panel";
import { cellRisk } from "./cell-risk";
import type { ClearThere } from "./film-judge";
import type { StripsByHand } from "./judge-cells";
import { CUT_GUARD_M } from "./limits";
import { type LocalWork, localWork } from "./local-work";
import { workedSince } from "./work";
import { type Consumable, cautionsOf, consumablesOf, minutesOf, sectionsOf } from "./zone-needs";
import { HAND_LEVELS, HAND_TASK, LINE_STRIP_M, SPOT_RADIUS_M, WORK_MINUTES, type ZoneTask, nibTask, runTasks } from "./zone-work";

/** Clear at places, as the judge has it; null where nothing is read. */
export type ClearReader = ((places: readonly Point[]) => ClearThere[]) | null;

export interface ZoneChoice {
  schoolId: string;
  runSchool: RunSchool | null;
  texture: Texture;
  /** Width of the rim. */
  tape_m: number;
  floor_m: number;
  /** The rim is left under tape, or worked by hand; body lines are worked by hand, or left under tape. */
  edges?: "left" | "hand";
  lines?: "hand" | "left";
  /** How the shop polishes, wets its discs, cuts a guard, takes nibs off: usual where nobody says. */
  habits?: BenchHabits;
  /** This shop's own removal, where it has been taken over. */
  shop?: ShopRemoval;
}

export const ZONE_KINDS = ["run", "spot", "flat", "line", "edge"] as const;
export type ZoneKind = (typeof ZONE_KINDS)[number];

/** A part of the panel that is worked in its own way. */
export interface PlanZone {
  kind: ZoneKind;
  /** Where it lies; empty for the flat. */
  at: Point[];
  area_m2: number;
  /** So many pads' breadths of work. */
  sections: number;
  way: "machine" | "hand" | "left";
  removal: Removal;
  /** Clear there now and after the work, the thinnest of its places; null when no spot tells it. */
  now: ClearThere | null;
  left: ClearThere | null;
  /** Chance of cutting through in the zone; null where it is not known or nothing comes off. */
  cutChance: number | null;
  minutes: number;
  /** Marks of each step against what the next takes off: the proof that none is left behind. */
  chain: ClearedStep[];
}

export interface ZonePlan {
  zones: PlanZone[];
  /** The order of work: runs, nibs, then the panel, rim and body lines by hand between. */
  steps: PlanStep[];
  /** What comes off the flat; under a school for spots only, off the spots. */
  total: Removal;
  minutes: number;
  consumables: Consumable[];
  cautions: string[];
  /** What is wrong with the choice on this panel; null where it can be done. */
  problem: "no place" | null;
  /** Strips apart from the flat, as the film's grid takes them, and the rim that is not judged. */
  byHand: StripsByHand;
  judgedFrom_m: number;
  runs: RunComparison | null;
  /** Steps, by zone, whose marks the next one does not clear; empty in a sound plan. */
  unproved: { zone: ZoneKind; step: number }[];
}

/** The run schools for the panel's worst run, side by side. */
export interface RunComparison extends ClearThere {
  height_m: number;
  schools: (RunForecast & { school: RunSchool; cutChance: number })[];
}

/** Expected gloss at 60° after each step of a ladder, by the illustration of what tools leave; null before the finest papers count. */
function glossAlong(steps: readonly ClearedStep[]): (number | null)[] {
  const index = 1.51;
  let roughness_m: number = TOOL_ROUGHNESS_M.ultrafine;
  return steps.map(({ use, passes }) => {
    const tool = "polish" in use ? use.polish : use.grit;
    if (!Object.hasOwn(TOOL_ROUGHNESS_M, tool)) return null;
    roughness_m = roughnessAfter(roughness_m, tool as GlossTool, "polish" in use ? Math.max(2, passes) : Math.max(4, passes));
    return roughGloss({ index, roughness_m, angle: 60 });
  });
}

/** What a plan is worked out from. */
type Panel = Pick<PanelFacts, "defects" | "spots" | "localWork">;
type MeasuredRun = ReturnType<typeof measuredRuns>[number];

/** A run or a nib that has not been worked since it was noted. */
const placesOf = ({ body: { at, trace } }: EntryOf<"defect">): Point[] =>
  trace?.as === "points" ? trace.at.map((p): Point => [p.x_m, p.y_m]) : [[at.x_m, at.y_m]];
export const openRuns = (panel: Panel): MeasuredRun[] =>
  measuredRuns(panel).filter(({ entry }) => !workedSince(panel.localWork, "run", placesOf(entry), entry.seq));
export const openNibs = (panel: Panel): EntryOf<"defect">[] =>
  panel.defects.filter((d) => isInclusion(d.body.kind) && !workedSince(panel.localWork, "spot", placesOf(d), d.seq));

/** Everything the parts of a plan share. */
interface Setting {
  reach: "panel" | "spots" | "polish";
  school: CorrectionSchool;
  ladder: ReturnType<typeof clearingPlan>;
  /** What the school takes off over the whole panel. */
  onPanel: Removal;
  shop: ShopRemoval;
  habits: BenchHabits;
  floor_m: number;
  read: ClearReader;
}
const NO_REMOVAL: Removal = { removal_m: 0, u_m: 0 };

/** Work at the runs of one school: its tasks with what each takes off beside a run. */
interface RunWork extends LocalWork {
  school: RunSchool;
  /** All that comes off beside a run after it is level. */
  finish: Removal;
}

function runWorkOf(school: RunSchool, { reach, ladder, onPanel, shop, habits }: Setting): RunWork {
  // A run is finished by the panel's ladder; where that is for spots only, by its polishing steps.
  const after = reach === "spots" ? ladder.steps.filter((s) => "polish" in s.use) : ladder.steps;
  const work = localWork(runTasks(school, habits), "Run", after, shop);
  return { ...work, school, finish: sumOf([work.between, reach === "spots" ? work.rest : onPanel]) };
}

const sizeOf = ({ height_m, width_m, length_m }: MeasuredRun) => ({ height_m, width_m, length_m });

/** The run schools side by side for the worst run, each with what its own finish and the panel's ladder take off there. */
function compareRunSchools(runs: readonly MeasuredRun[], setting: Setting): RunComparison | null {
  const [run] = [...runs].sort((a, b) => b.height_m - a.height_m);
  const around = run && setting.read?.([placesOf(run.entry)[0]!])[0];
  if (!run || !around) return null;
  const schools = (Object.keys(RUN_SCHOOLS) as RunSchool[]).map((school) => {
    const { finish } = runWorkOf(school, setting);
    const forecast = (floor_m: number) =>
      forecastRunWork(school, { ...sizeOf(run), clear_m: around.clear_m, u_clear_m: around.u_m, floor_m, finish });
    return { school, ...forecast(setting.floor_m), cutChance: forecast(CUT_GUARD_M).chanceBelowFloor };
  });
  return { height_m: run.height_m, ...around, schools };
}

type ZoneStep = Partial<PlanStep> & Pick<PlanStep, "zone">;
const stepOf = (task: ZoneTask, more: ZoneStep): PlanStep => ({
  name: task.name,
  use: task.use,
  tool: task.tool,
  wet: task.wet,
  doThis: task.doThis,
  lookFor: task.lookFor,
  removal_m: 0,
  u_m: 0,
  common_m: {},
  at: [],
  texture_m: 0,
  default_m: 0,
  own: false,
  passes: 1,
  minutes: 0,
  gloss60_GU: null,
  ...more,
});
const removalOf = ({ removal_m, u_m, common_m }: Removal) => ({ removal_m, u_m, common_m: { ...common_m } });
const atOf = (places: readonly Point[]) => places.map(([x_m, y_m]) => ({ x_m, y_m }));

const chanceThere = (there: ClearThere, removal: Removal) =>
  cellRisk({ clear_m: there.clear_m, u_clear_m: there.u_m, removal_m: removal.removal_m, u_removal_m: removal.u_m, floor_m: CUT_GUARD_M });

/** A zone with the clear at its thinnest place, now and after the work. */
function zoneOf(
  z: Omit<PlanZone, "now" | "left" | "cutChance" | "sections"> & Partial<Pick<PlanZone, "sections">>,
  places: readonly Point[],
  read: ClearReader,
): PlanZone {
  const there = places.length ? (read?.(places) ?? []) : [];
  const now = there.length ? there.reduce((a, t) => (t.clear_m - 2 * t.u_m < a.clear_m - 2 * a.u_m ? t : a)) : null;
  return {
    sections: sectionsOf(z.area_m2),
    ...z,
    now,
    left: now && { clear_m: now.clear_m - z.removal.removal_m, u_m: Math.hypot(now.u_m, z.removal.u_m) },
    cutChance: now && z.removal.removal_m > 0 ? chanceThere(now, z.removal) : null,
  };
}

interface PlanPart {
  zones: PlanZone[];
  steps: PlanStep[];
}

/** The runs: their school's own tasks, with the loss beside the worst of them. */
function runPart(runs: readonly MeasuredRun[], school: RunSchool | null, setting: Setting): PlanPart {
  if (runs.length === 0 || !school) return { zones: [], steps: [] };
  const { tasks, chain, finish } = runWorkOf(school, setting);
  const { read, floor_m } = setting;
  const each = runs.map((run) => {
    const at = placesOf(run.entry)[0]!;
    const there = read?.([at])[0] ?? null;
    const forecast = (floor: number) =>
      forecastRunWork(school, { ...sizeOf(run), clear_m: there?.clear_m ?? 0, u_clear_m: there?.u_m ?? 1e-6, floor_m: floor, finish });
    return { at, there, run, forecast: forecast(floor_m), cut: forecast(CUT_GUARD_M).chanceBelowFloor };
  });
  const worst = each.reduce((a, e) => (e.forecast.loss_m > a.forecast.loss_m || (e.there && e.cut > a.cut) ? e : a));
  const minutes = each.reduce((a, e) => a + e.forecast.minutes, 0);
  // Beside the run: what its own paper bites, shared among the tasks that are not the finish's.
  const own = tasks.filter((t) => !t.between).length;
  const beside: Removal = {
    removal_m: (worst.forecast.loss_m - finish.removal_m) / own,
    u_m: worst.forecast.uBeside_m / Math.sqrt(own),
  };
  const places = each.map((e) => e.at);
  return {
    zones: [
      {
        kind: "run",
        at: places,
        area_m2: each.reduce((a, { run }) => a + (run.length_m + 2 * SPOT_RADIUS_M) * (run.width_m + 2 * SPOT_RADIUS_M), 0),
        sections: each.length,
        way: "hand",
        removal: { removal_m: worst.forecast.loss_m, u_m: Math.hypot(worst.forecast.uBeside_m, finish.u_m) },
        now: worst.there,
        left: worst.there ? { clear_m: worst.forecast.left_m, u_m: worst.forecast.u_left_m } : null,
        cutChance: worst.there ? worst.cut : null,
        minutes,
        chain,
      },
    ],
    steps: tasks.map(({ task, passes, removal, between }) =>
      stepOf(task, { zone: "run", at: atOf(places), ...removalOf(between ? removal : beside), passes, minutes: minutes / tasks.length }),
    ),
  };
}

/** The nibs: a small hard pad on each before the panel is levelled, or the whole of a school for spots only. */
function nibPart(nibs: readonly EntryOf<"defect">[], { reach, ladder, onPanel, shop, habits, read }: Setting): PlanPart {
  const count = nibs.reduce((a, d) => a + d.body.count, 0);
  if (count === 0) return { zones: [], steps: [] };
  const places = nibs.flatMap(placesOf);
  const work = reach === "spots" ? null : localWork([nibTask(habits)], "Nibs", ladder.steps, shop);
  const tasks = work?.tasks ?? [];
  const removal = work ? sumOf([work.all, onPanel]) : ladder.total;
  const steps = work ? tasks.length : ladder.steps.length;
  const first = work && habits.nibTool === "denibber" ? WORK_MINUTES.perSpotByTool : WORK_MINUTES.perSpot;
  const minutes = count * (first + WORK_MINUTES.perSpot * (steps - 1)) + steps * WORK_MINUTES.change;
  return {
    zones: [
      zoneOf(
        {
          kind: "spot",
          at: places,
          area_m2: count * Math.PI * SPOT_RADIUS_M ** 2,
          sections: count,
          way: "machine",
          removal,
          minutes,
          chain: work?.chain ?? ladder.steps,
        },
        places,
        read,
      ),
    ],
    steps: tasks.map(({ task, passes, removal: own_m, default_m, own }) =>
      stepOf(task, { zone: "spot", at: atOf(places), ...removalOf(own_m), default_m, own, passes, minutes: minutes / tasks.length }),
    ),
  };
}

/** Rim and body lines: how much there is of them, what fine paper by hand takes off there, and how the film's grid sees them. */
function strips(brief: PanelBrief, choice: ZoneChoice, setting: Setting) {
  const { outline, bodyLines } = brief.shape;
  const { edges = "left", lines = "hand", texture } = choice;
  const { reach, school, ladder, shop } = setting;
  const sands = reach === "panel";
  const hasLines = sands && bodyLines.length > 0;
  const lineMetres = bodyLines.reduce((a, l) => a + lineLength(l), 0);
  const edge_m2 = sands ? polygonPerimeter(outline) * choice.tape_m : 0;
  const line_m2 = hasLines ? lineMetres * 2 * LINE_STRIP_M : 0;
  const uses = [HAND_TASK.use!, ...school.steps.map((s) => s.use).filter((u) => "polish" in u || u.backing === "soft")];
  const levelled: Texture = {
    peakToValley_m: HAND_LEVELS * texture.peakToValley_m,
    u_m: HAND_LEVELS * texture.u_m,
    wanted_m: HAND_LEVELS * (texture.wanted_m ?? 0),
  };
  const hand = clearingPlan(uses, levelled, shop);
  const share = ladder.total.removal_m > 0 ? hand.total.removal_m / ladder.total.removal_m : 1;
  const byHand: StripsByHand = {
    ...(sands && edges === "hand" && choice.tape_m > 0 ? { edge: { within_m: choice.tape_m, share } } : {}),
    ...(hasLines ? { line: { within_m: LINE_STRIP_M, share: lines === "hand" ? share : 0 } } : {}),
  };
  return {
    sands,
    hasLines,
    hand,
    byHand,
    edge_m2,
    line_m2,
    hand_m2: (edges === "hand" ? edge_m2 : 0) + (lines === "hand" ? line_m2 : 0),
    taped_m: (sands && edges === "left" ? polygonPerimeter(outline) : 0) + (hasLines && lines === "left" ? 2 * lineMetres : 0),
  };
}

/** The school's own steps: over the flat, or only at the places. */
function ladderSteps(
  { reach, school, ladder, habits }: Setting,
  { worked_m2, count, nibPlaces, runPlaces }: { worked_m2: number; count: number; nibPlaces: Point[]; runPlaces: Point[] },
): PlanStep[] {
  const gloss = glossAlong(ladder.steps);
  const spots = reach === "spots";
  return ladder.steps.flatMap((s, i): PlanStep[] => {
    const polishes = "polish" in s.use;
    // Spots only: paper at the nibs; the polish also where a run was taken down.
    const at = spots ? [...nibPlaces, ...(polishes ? runPlaces : [])] : [];
    if (spots && at.length === 0) return [];
    const { tool, doThis, lookFor } = school.steps[i]!;
    // Hand and small pads are always wet; only machine discs may run dry.
    const wet = "polish" in s.use ? null : (s.use.tool ?? "machine") !== "machine" || habits.discs === "wet";
    return [
      stepOf(
        { use: s.use, name: stepName(s.use), tool, doThis, lookFor, wet },
        {
          zone: spots ? "spot" : "panel",
          at: atOf(at),
          ...removalOf(s),
          texture_m: s.texture_m,
          default_m: s.default_m,
          own: s.own,
          passes: s.passes,
          gloss60_GU: gloss[i]!,
          minutes:
            minutesOf(s.use, worked_m2, s.passes, habits) +
            (spots ? Math.max(count, at.length) * WORK_MINUTES.perSpot : sectionsOf(worked_m2) * WORK_MINUTES.lookPerSection),
        },
      ),
    ];
  });
}

/** Zones of the flat, the body lines and the rim. */
function panelZones(
  brief: PanelBrief,
  panel: Panel,
  choice: ZoneChoice,
  { setting, strip, flat_m2, minutes }: { setting: Setting; strip: ReturnType<typeof strips>; flat_m2: number; minutes: number },
): PlanZone[] {
  const { outline, bodyLines } = brief.shape;
  const { edges = "left", lines = "hand" } = choice;
  const { read, reach, ladder, school } = setting;
  const along = (kind: "line" | "edge", way: "hand" | "left", area_m2: number, places: Point[]): PlanZone =>
    zoneOf(
      {
        kind,
        at: places,
        area_m2,
        way,
        removal: way === "hand" ? strip.hand.total : NO_REMOVAL,
        minutes: way === "hand" ? minutesOf(HAND_TASK.use, area_m2, 1) : 0,
        chain: way === "hand" ? strip.hand.steps : [],
      },
      places,
      read,
    );
  const onLines = bodyLines.flatMap((l) => [...l]).filter((p) => edgeDistance(p, outline) > LINE_STRIP_M);
  return [
    ...(reach === "spots"
      ? []
      : [
          zoneOf(
            {
              kind: "flat",
              at: [],
              area_m2: flat_m2,
              way: school.id === "hand" ? "hand" : "machine",
              removal: ladder.total,
              minutes,
              chain: ladder.steps,
            },
            panel.spots.map((s) => s.at),
            read,
          ),
        ]),
    ...(strip.hasLines ? [along("line", lines, strip.line_m2, onLines)] : []),
    ...(strip.sands && choice.tape_m > 0
      ? [
          along(
            "edge",
            edges === "hand" ? "hand" : "left",
            strip.edge_m2,
            outline.filter((_, i) => i % 4 === 0),
          ),
        ]
      : []),
  ];
}

/**
 * The work on a panel by zones: which tool, backing and grit where, how often, what it takes off and leaves, how long, what it uses up; and the
 * order of work. In every zone each step clears the marks of the one before (`unproved` is empty). Work at single places is charged there alone:
 * a school for spots takes no texture off, a run's loss stays at the run, and what has been worked since it was noted is not worked again.
 * @param read clear at places, as the judge has it @throws RangeError for an unknown school or figures outside the models
 */
export function zonePlan(brief: PanelBrief, panel: Panel, choice: ZoneChoice, read: ClearReader): ZonePlan {
  const { texture, floor_m, shop = DEFAULT_REMOVAL, edges = "left", habits = USUAL_HABITS } = choice;
  const rim_m = requireNumber("tape_m", choice.tape_m, { min: 0, max: 0.5 });
  const school = schoolWith(correctionSchool(choice.schoolId), habits);
  const reach = reachOf(school);
  const uses: RemovalStep[] = school.steps.map((s) => s.use);
  const ladder = clearingPlan(uses, reach === "panel" ? texture : undefined, shop);
  const setting: Setting = { reach, school, ladder, onPanel: reach === "spots" ? NO_REMOVAL : ladder.total, shop, habits, floor_m, read };

  const nibs = openNibs(panel);
  const runs = openRuns(panel);
  const run = runPart(runs, choice.runSchool, setting);
  const nib = nibPart(nibs, setting);
  const strip = strips(brief, choice, setting);
  const area_m2 = polygonArea(brief.shape.outline);
  const flat_m2 = Math.max(0, area_m2 - (strip.sands ? Math.min(area_m2, strip.edge_m2 + strip.line_m2) : 0));
  const count = nibs.reduce((a, d) => a + d.body.count, 0);
  const nibPlaces = nibs.flatMap(placesOf);
  const runPlaces = choice.runSchool ? runs.map((r) => placesOf(r.entry)[0]!) : [];
  const places = Math.max(count, nibPlaces.length) + runPlaces.length;
  const worked_m2 = reach === "spots" ? places * Math.PI * SPOT_RADIUS_M ** 2 : flat_m2;
  const onLadder = ladderSteps(setting, { worked_m2, count: places, nibPlaces, runPlaces });
  const handStep =
    strip.hand_m2 > 0
      ? [
          stepOf(HAND_TASK, {
            zone: "hand",
            ...removalOf(strip.hand.steps[0]!),
            texture_m: strip.hand.steps[0]!.texture_m,
            default_m: strip.hand.steps[0]!.default_m,
            own: strip.hand.steps[0]!.own,
            minutes: minutesOf(HAND_TASK.use, strip.hand_m2, 1),
          }),
        ]
      : [];
  // By hand after the last paper that the hand does not follow with.
  const coarse = onLadder.filter((s) => s.use && !("polish" in s.use) && s.use.backing !== "soft").length;
  const steps = [...run.steps, ...nib.steps, ...onLadder.slice(0, coarse), ...handStep, ...onLadder.slice(coarse)];
  const zones = [
    ...run.zones,
    ...nib.zones,
    ...panelZones(brief, panel, choice, { setting, strip, flat_m2, minutes: onLadder.reduce((a, s) => a + s.minutes, 0) }),
  ];
  return {
    zones,
    steps,
    total: ladder.total,
    minutes: strip.taped_m * WORK_MINUTES.tapePer_m + steps.reduce((a, s) => a + s.minutes, 0),
    consumables: consumablesOf(steps, { flat_m2: worked_m2, nibCount: count, taped_m: strip.taped_m }),
    cautions: cautionsOf(steps),
    problem: reach === "spots" && places === 0 ? "no place" : null,
    byHand: strip.byHand,
    judgedFrom_m: strip.sands && edges === "hand" ? 0 : rim_m,
    runs: compareRunSchools(runs, setting),
    unproved: zones.flatMap((z) => skippedSteps(z.chain).map((i) => ({ zone: z.kind, step: i }))),
  };
}
