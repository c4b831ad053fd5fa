import { requireNumber } from "../kernel/guard";
import { type Point, edgeDistance, polygonArea } from "../kernel/geometry/geometry";
import { inRegion, pointsAlong, regionShare } from "../kernel/geometry/region";
import { type GlossTool, TOOL_ROUGHNESS_M, roughGloss, roughnessAfter } from "../models/gloss/fresnel-gloss";
import { type ClearedStep, DEFAULT_REMOVAL, clearingPlan, skippedSteps } from "../models/correction/clearing";
import type { Removal, RemovalStep } from "../models/correction/removal-plan";
import { USUAL_HABITS, schoolWith } from "../models/correction/bench-habits";
import type { RunSchool } from "../models/correction/run-work";
import { SPOT_SCHOOL, correctionSchool, reachOf, stepName } from "../models/correction/schools";
import type { PanelBrief } from "../panel/brief";
import type { BodyOf, PlanStep } from "../record/bodies";
import type { EntryOf } from "../record/entry";
import type { StripsByHand } from "./judge-cells";
import {
  type MeasuredRun,
  type NotedPanel,
  type RunComparison,
  compareRunSchools,
  dropSteps,
  nibPart,
  openFills,
  openNibs,
  openSpots,
  openRuns,
  partOf,
  runPart,
} from "./zone-places";
import { liesIn, placesOf } from "../panel/mark-places";
import {
  type ClearReader,
  NO_REMOVAL,
  type PlanZone,
  type Setting,
  type ZoneChoice,
  type ZoneKind,
  atOf,
  removalOf,
  stepOf,
  zoneOf,
} from "./zone-setting";
import { strips } from "./zone-strips";
import { type Consumable, cautionsOf, consumablesOf, minutesOf, sectionsOf } from "./zone-needs";
import { LINE_STRIP_M } from "./limits";
import { HAND_TASK, MOST_NIBS_SINGLY, SPOT_RADIUS_M, WORK_MINUTES } from "./zone-work";

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
  problem: "no place" | "nothing marked" | null;
  /** Strips apart from the flat, as the film's grid takes them, and the rim that is not judged. */
  byHand: StripsByHand;
  judgedFrom_m: number;
  /** The part that is levelled; null: the whole panel. */
  part: BodyOf<"plan">["part"];
  runs: RunComparison | null;
  /** Steps, by zone, whose marks the next one does not clear; empty in a sound plan. */
  unproved: { zone: ZoneKind; step: number }[];
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

/** So near to each other a line is looked at within a part. */
const POINTS_APART_M = 0.05;

/** Zones of the flat, the body lines and the rim. */
function panelZones(
  brief: PanelBrief,
  panel: NotedPanel,
  choice: ZoneChoice,
  { setting, strip, flat_m2, minutes }: { setting: Setting; strip: ReturnType<typeof strips>; flat_m2: number; minutes: number },
): PlanZone[] {
  const { outline, bodyLines } = brief.shape;
  const { edges = "left", lines = "hand" } = choice;
  const { read, reach, ladder, school, region } = setting;
  const zoneAlong = (kind: "line" | "edge", way: "hand" | "left", area_m2: number, places: Point[]): PlanZone =>
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
  // Where only a part is worked, its piece of a line may hold none of the line's own points.
  const onLines = bodyLines
    .flatMap((l) => (region ? pointsAlong(l, POINTS_APART_M) : [...l]))
    .filter((p) => edgeDistance(p, outline) > LINE_STRIP_M && inRegion(p, region));
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
            panel.spots.map((s) => s.at).filter((at) => inRegion(at, region)),
            read,
          ),
        ]),
    ...(strip.hasLines ? [zoneAlong("line", lines, strip.line_m2, onLines)] : []),
    ...(strip.edge_m2 > 0
      ? [
          zoneAlong(
            "edge",
            edges === "hand" ? "hand" : "left",
            strip.edge_m2,
            outline.filter((p, i) => i % 4 === 0 && inRegion(p, region)),
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
export function zonePlan(brief: PanelBrief, panel: NotedPanel, choice: ZoneChoice, read: ClearReader): ZonePlan {
  const { texture, floor_m, shop = DEFAULT_REMOVAL, edges = "left", habits = USUAL_HABITS, fill = false } = choice;
  const rim_m = requireNumber("tape_m", choice.tape_m, { min: 0, max: 0.5 });
  const school = schoolWith(correctionSchool(choice.schoolId), habits);
  const reach = reachOf(school);
  const uses: RemovalStep[] = school.steps.map((s) => s.use);
  const ladder = clearingPlan(uses, reach === "panel" ? texture : undefined, shop);
  // Work at the spot knows no part.
  const part = reach === "spots" ? null : (choice.part ?? null);
  const region = part && partOf(brief.shape.outline, part, panel);
  const share = regionShare(brief.shape.outline, region);
  const onPanel = reach === "spots" ? NO_REMOVAL : ladder.total;
  const setting: Setting = { reach, school, ladder, onPanel, shop, habits, floor_m, read, region };

  const runs = openRuns(panel);
  const fills = fill ? openFills(panel) : [];
  const within = (d: EntryOf<"defect">): boolean => liesIn(d, region);
  const spots = [...openSpots(panel), ...fills];
  // Where the panel is levelled only what stands proud is taken down before, and of many nibs none singly: its first paper has them all.
  const nibs = openNibs(panel).filter(within);
  const levels = reach === "panel";
  const spotsHere = levels ? [...(countOf(nibs) > MOST_NIBS_SINGLY ? [] : nibs), ...fills.filter(within)] : spots.filter(within);
  const here = atPlaces({ runs: runs.filter((r) => within(r.entry)), spots: spotsHere }, choice.runSchool, setting);
  const there = elsewhere(
    { runs: runs.filter((r) => !within(r.entry)), spots: spots.filter((d) => !within(d)) },
    choice.runSchool,
    setting,
  );
  const strip = strips(brief, choice, setting);
  const area_m2 = share * polygonArea(brief.shape.outline);
  const flat_m2 = Math.max(0, area_m2 - (strip.sands ? Math.min(area_m2, strip.edge_m2 + strip.line_m2) : 0));
  const worked_m2 = reach === "spots" ? here.spotted_m2 : flat_m2;
  const onLadder = ladderSteps(setting, { worked_m2, ...here });
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
  const nothing = reach === "spots" ? here.count === 0 : share === 0;
  const steps = nothing
    ? []
    : [
        ...dropSteps(fills),
        ...here.steps,
        ...there.sanding,
        ...onLadder.slice(0, coarse),
        ...handStep,
        ...onLadder.slice(coarse),
        ...there.polishing,
      ];
  const zones = [
    ...[...here.zones, ...there.zones].map((z): PlanZone => (z.kind === "spot" && fills.length > 0 ? { ...z, filled: true } : z)),
    ...panelZones(brief, panel, choice, { setting, strip, flat_m2, minutes: onLadder.reduce((a, s) => a + s.minutes, 0) }),
  ];
  return {
    zones,
    steps,
    total: ladder.total,
    minutes: strip.taped_m * WORK_MINUTES.tapePer_m + steps.reduce((a, s) => a + s.minutes, 0),
    consumables: consumablesOf(steps, { flat_m2: worked_m2, nibCount: countOf(spots), taped_m: strip.taped_m }),
    cautions: cautionsOf(steps, panel),
    problem: !nothing ? null : part === "marked" ? "nothing marked" : "no place",
    byHand: strip.byHand,
    judgedFrom_m: strip.sands && edges === "hand" ? 0 : rim_m,
    part: part && region && { name: part, outlines: region.map((outline) => atOf(outline)), share },
    runs: compareRunSchools(runs, setting),
    unproved: zones.flatMap((z) => skippedSteps(z.chain).map((i) => ({ zone: z.kind, step: i }))),
  };
}

/** What is worked at its own place. */
interface Places {
  runs: readonly MeasuredRun[];
  spots: readonly EntryOf<"defect">[];
}
const countOf = (spots: readonly EntryOf<"defect">[]) => spots.reduce((a, d) => a + d.body.count, 0);

/** Runs, then nibs, of one part of the panel. */
function atPlaces({ runs, spots }: Places, runSchool: RunSchool | null, setting: Setting) {
  const run = runPart(runs, runSchool, setting);
  const spot = nibPart(spots, setting);
  const nibPlaces = spots.flatMap(placesOf);
  const runPlaces = runSchool ? runs.map((r) => placesOf(r.entry)[0]!) : [];
  const count = Math.max(countOf(spots), nibPlaces.length) + runPlaces.length;
  return {
    zones: [...run.zones, ...spot.zones],
    steps: [...run.steps, ...spot.steps],
    nibPlaces,
    runPlaces,
    count,
    spotted_m2: count * Math.PI * SPOT_RADIUS_M ** 2,
  };
}

/** Places outside the part that is levelled: as a school for spots works them, the polish at the end with the panel's own. */
function elsewhere(places: Places, runSchool: RunSchool | null, { shop, habits, ...setting }: Setting) {
  const school = schoolWith(correctionSchool(SPOT_SCHOOL), habits);
  const ladder = clearingPlan(
    school.steps.map((s) => s.use),
    undefined,
    shop,
  );
  const own: Setting = { ...setting, reach: "spots", school, ladder, onPanel: NO_REMOVAL, shop, habits, region: null };
  const { zones, steps, ...here } = atPlaces(places, runSchool, own);
  const onLadder = ladderSteps(own, { worked_m2: here.spotted_m2, ...here });
  const polishes = (s: PlanStep) => s.use !== null && "polish" in s.use;
  return {
    zones: zones.map((z): PlanZone => ({ ...z, elsewhere: true })),
    sanding: [...steps, ...onLadder.filter((s) => !polishes(s))],
    polishing: onLadder.filter(polishes),
  };
}
