import { isInclusion } from "../defects/catalogue";
import { cellRisk } from "../film/cell-risk";
import type { StripsByHand } from "../film/panel-grid";
import { CUT_GUARD_M } from "../film/verdict";
import { type GlossTool, TOOL_ROUGHNESS_M, roughGloss, roughnessAfter } from "../gloss/fresnel-gloss";
import { requireNumber } from "../guard";
import type { PlanStep } from "../ledger/bodies";
import { type PanelBrief, type PanelState, measuredRuns } from "../ledger/derive-panel";
import { type Point, edgeDistance, lineLength, polygonArea, polygonPerimeter } from "../panel/geometry";
import { type ClearThere, clearReader } from "./clear-reader";
import { type ClearedStep, DEFAULT_REMOVAL, type ShopRemoval, clearingPlan, skippedSteps } from "./clearing";
import { localWork } from "./local-work";
import { type Removal, type Texture, sumOf } from "./removal-plan";
import { RUN_SCHOOLS, type RunForecast, type RunSchool, forecastRunWork } from "./run-work";
import { type CorrectionSchool, correctionSchool, stepName } from "./schools";
import { type Consumable, cautionsOf, consumablesOf, minutesOf, sectionsOf } from "./zone-needs";
import { HAND_LEVELS, HAND_TASK, LINE_STRIP_M, NIB_TASK, RUN_TASKS, SPOT_RADIUS_M, WORK_MINUTES, type ZoneTask } from "./zone-work";

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
  /** Chance of cutting through at runs and nibs together. */
  localCutChance: number;
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

/** Whether a school goes over the whole panel with paper, only over spots, or only polishes. */
export function reachOf(school: CorrectionSchool): "panel" | "spots" | "polish" {
  const [first] = school.steps;
  if (!first || "polish" in first.use) return "polish";
  return first.use.tool === "pad" ? "spots" : "panel";
}

/** Expected gloss at 60° after each step of a ladder, by the illustration of what tools leave; null before the finest papers count. */
function glossAlong(steps: readonly ClearedStep[]): (number | null)[] {
  const index = 1.51;
  let roughness_m: number = TOOL_ROUGHNESS_M.ultrafine;
  return steps.map(({ use, passes }) => {
    const tool = "polish" in use ? use.polish : use.grit;
    if (!(tool in TOOL_ROUGHNESS_M)) return null;
    roughness_m = roughnessAfter(roughness_m, tool as GlossTool, "polish" in use ? Math.max(2, passes) : Math.max(4, passes));
    return roughGloss({ index, roughness_m, angle: 60 });
  });
}

/** The run schools side by side, each with what its own finish and the panel's ladder take off there. */
export function compareRunSchools(
  brief: PanelBrief,
  state: PanelState,
  floor_m: number,
  finishOf: (school: RunSchool) => Removal | undefined = () => undefined,
  read = clearReader(brief, state),
): RunComparison | null {
  const [run] = measuredRuns(state).sort((a, b) => b.height_m - a.height_m);
  const around = run && read?.([[run.entry.body.at.x_m, run.entry.body.at.y_m]])[0];
  if (!run || !around) return null;
  const size = { height_m: run.height_m, width_m: run.width_m, length_m: run.length_m, ...around };
  const schools = (Object.keys(RUN_SCHOOLS) as RunSchool[]).map((school) => {
    const finish = finishOf(school);
    const forecast = (floor: number) => forecastRunWork(school, { ...size, floor_m: floor, ...(finish ? { finish } : {}) });
    return { school, ...forecast(floor_m), cutChance: forecast(CUT_GUARD_M).chanceBelowFloor };
  });
  return { height_m: run.height_m, ...around, schools };
}

/**
 * The work on a panel by zones: which tool, backing and grit where, how often, what it takes off and leaves, how long, what it uses up; and the
 * order of work. In every zone each step clears the marks of the one before (`unproved` is empty).
 * @throws RangeError for an unknown school or figures outside the models
 */
export function zonePlan(brief: PanelBrief, state: PanelState, choice: ZoneChoice): ZonePlan {
  const { texture, floor_m, edges = "left", lines = "hand", shop = DEFAULT_REMOVAL } = choice;
  const rim_m = requireNumber("tape_m", choice.tape_m, { min: 0, max: 0.5 });
  const school = correctionSchool(choice.schoolId);
  const reach = reachOf(school);
  const uses = school.steps.map((s) => s.use);
  const ladder = clearingPlan(uses, texture, shop);
  const read = clearReader(brief, state);
  const { outline, bodyLines } = brief.shape;
  const area_m2 = polygonArea(outline);
  const onPanel: Removal = reach === "panel" ? ladder.total : reach === "polish" ? ladder.total : { removal_m: 0, u_m: 0 };
  const nibs = state.defects.filter((d) => isInclusion(d.body.kind));
  const runs = measuredRuns(state);

  // A run is finished by the panel's ladder; where that is for spots only, by its polishing steps.
  const after = reach === "spots" ? ladder.steps.filter((s) => "polish" in s.use) : ladder.steps;
  const runWork = (runSchool: RunSchool) => {
    const work = localWork(RUN_TASKS[runSchool], "Run", after, shop);
    return { ...work, finish: sumOf([work.between, reach === "spots" ? work.rest : onPanel]) };
  };
  const comparison = compareRunSchools(brief, state, floor_m, (s) => runWork(s).finish, read);

  const zones: PlanZone[] = [];
  const before: PlanStep[] = [];
  const step = (task: ZoneTask, more: Partial<PlanStep> & Pick<PlanStep, "zone">): PlanStep => ({
    name: task.name,
    use: task.use,
    tool: task.tool,
    wet: task.wet,
    doThis: task.doThis,
    lookFor: task.lookFor,
    removal_m: 0,
    u_m: 0,
    texture_m: 0,
    default_m: 0,
    own: false,
    passes: 1,
    minutes: 0,
    gloss60_GU: null,
    ...more,
  });
  const placed = (d: {
    body: { at: { x_m: number; y_m: number }; trace?: { as: string; at: { x_m: number; y_m: number }[] } | null };
  }): Point[] => (d.body.trace?.as === "points" ? d.body.trace.at.map((p): Point => [p.x_m, p.y_m]) : [[d.body.at.x_m, d.body.at.y_m]]);
  const thinnest = (places: readonly Point[]): ClearThere | null => {
    const there = places.length ? (read?.(places) ?? []) : [];
    return there.length ? there.reduce((a, t) => (t.clear_m - 2 * t.u_clear_m < a.clear_m - 2 * a.u_clear_m ? t : a)) : null;
  };
  const zone = (
    z: Omit<PlanZone, "now" | "left" | "cutChance" | "sections"> & Partial<Pick<PlanZone, "sections">>,
    places: readonly Point[],
  ) => {
    const now = thinnest(places);
    const left = now && { clear_m: now.clear_m - z.removal.removal_m, u_clear_m: Math.hypot(now.u_clear_m, z.removal.u_m) };
    zones.push({
      sections: sectionsOf(z.area_m2),
      ...z,
      now,
      left,
      cutChance: now && z.removal.removal_m > 0 ? chanceAt(now, z.removal) : null,
    });
  };
  const chanceAt = (there: ClearThere, removal: Removal) =>
    cellRisk({
      clear_m: there.clear_m,
      u_clear_m: there.u_clear_m,
      removal_m: removal.removal_m,
      u_removal_m: removal.u_m,
      floor_m: CUT_GUARD_M,
    });

  let spared = 1;
  if (runs.length > 0 && choice.runSchool) {
    const { tasks, chain, finish } = runWork(choice.runSchool);
    const each = runs.map((r) => {
      const at: Point = [r.entry.body.at.x_m, r.entry.body.at.y_m];
      const there = read?.([at])[0];
      const size = { height_m: r.height_m, width_m: r.width_m, length_m: r.length_m, finish };
      const forecast = (floor: number) => there && forecastRunWork(choice.runSchool!, { ...size, ...there, floor_m: floor });
      return { at, there, forecast: forecast(floor_m), cut: forecast(CUT_GUARD_M)?.chanceBelowFloor ?? 0, r };
    });
    spared *= each.reduce((a, e) => a * (1 - e.cut), 1);
    const minutes = each.reduce((a, e) => a + (e.forecast?.minutes ?? RUN_SCHOOLS[choice.runSchool!].minutes.fixed), 0);
    const worst = each.reduce((a, e) => (e.cut > a.cut ? e : a));
    const area = each.reduce((a, { r }) => a + (r.length_m + 2 * SPOT_RADIUS_M) * (r.width_m + 2 * SPOT_RADIUS_M), 0);
    zones.push({
      kind: "run",
      at: each.map((e) => e.at),
      area_m2: area,
      sections: each.length,
      way: "hand",
      removal: { removal_m: worst.forecast?.loss_m ?? finish.removal_m, u_m: finish.u_m },
      now: worst.there ?? null,
      left: worst.forecast ? { clear_m: worst.forecast.left_m, u_clear_m: worst.forecast.u_left_m } : null,
      cutChance: worst.there ? worst.cut : null,
      minutes,
      chain,
    });
    for (const { task, passes } of tasks) before.push(step(task, { zone: "run", passes, minutes: minutes / tasks.length }));
  }

  const nibPlaces = nibs.flatMap(placed);
  const nibCount = nibs.reduce((a, d) => a + d.body.count, 0);
  if (nibCount > 0) {
    const area = nibCount * Math.PI * SPOT_RADIUS_M ** 2;
    const work = reach === "spots" ? null : localWork([NIB_TASK], "Nibs", ladder.steps, shop);
    const tasks = work?.tasks ?? [];
    const removal = work ? sumOf([work.all, onPanel]) : ladder.total;
    const minutes = nibCount * WORK_MINUTES.perSpot * tasks.length + tasks.length * WORK_MINUTES.change;
    const chain = work?.chain ?? ladder.steps;
    zone({ kind: "spot", at: nibPlaces, area_m2: area, sections: nibCount, way: "machine", removal, minutes, chain }, nibPlaces);
    if (work) spared *= (read?.(nibPlaces) ?? []).reduce((a, t) => a * (1 - chanceAt(t, removal)), 1);
    for (const { task, passes, removal, default_m, own } of tasks)
      before.push(step(task, { zone: "spot", ...removal, default_m, own, passes, minutes: minutes / tasks.length }));
  }

  // Rim and body lines: fine paper by hand, or left under tape.
  const sands = reach === "panel";
  const hasLines = sands && bodyLines.length > 0;
  const inEdge = sands ? polygonPerimeter(outline) * rim_m : 0;
  const lineMetres = bodyLines.reduce((a, l) => a + lineLength(l), 0);
  const inLines = hasLines ? lineMetres * 2 * LINE_STRIP_M : 0;
  const handUses = [HAND_TASK.use!, ...uses.filter((u) => "polish" in u || u.backing === "soft")];
  const handTexture: Texture = { ...texture, peakToValley_m: HAND_LEVELS * texture.peakToValley_m, u_m: HAND_LEVELS * texture.u_m };
  const hand = clearingPlan(handUses, { ...handTexture, wanted_m: HAND_LEVELS * (texture.wanted_m ?? 0) }, shop);
  const share = ladder.total.removal_m > 0 ? hand.total.removal_m / ladder.total.removal_m : 1;
  const byHand: StripsByHand = {
    ...(sands && edges === "hand" && rim_m > 0 ? { edge: { within_m: rim_m, share } } : {}),
    ...(hasLines ? { line: { within_m: LINE_STRIP_M, share: lines === "hand" ? share : 0 } } : {}),
  };
  const handArea = (edges === "hand" ? inEdge : 0) + (lines === "hand" ? inLines : 0);
  const flat_m2 = Math.max(0, area_m2 - (sands ? Math.min(area_m2, inEdge + inLines) : 0));

  const worked_m2 = reach === "spots" ? Math.max(nibCount, 1) * Math.PI * SPOT_RADIUS_M ** 2 : flat_m2;
  const gloss = glossAlong(ladder.steps);
  const panelSteps = ladder.steps.map((s, i): PlanStep => {
    const { tool, doThis, lookFor } = school.steps[i]!;
    return step(
      { use: s.use, name: stepName(s.use), tool, doThis, lookFor, wet: "polish" in s.use ? null : true },
      {
        zone: reach === "spots" ? "spot" : "panel",
        removal_m: s.removal_m,
        u_m: s.u_m,
        texture_m: s.texture_m,
        default_m: s.default_m,
        own: s.own,
        passes: s.passes,
        gloss60_GU: gloss[i]!,
        minutes:
          minutesOf(s.use, worked_m2, s.passes) +
          (reach === "spots" ? nibCount * WORK_MINUTES.perSpot : sectionsOf(flat_m2) * WORK_MINUTES.lookPerSection),
      },
    );
  });
  const handStep =
    handArea > 0
      ? [
          step(HAND_TASK, {
            zone: "hand",
            removal_m: hand.steps[0]!.removal_m,
            u_m: hand.steps[0]!.u_m,
            texture_m: hand.steps[0]!.texture_m,
            default_m: hand.steps[0]!.default_m,
            own: hand.steps[0]!.own,
            minutes: minutesOf(HAND_TASK.use, handArea, 1),
          }),
        ]
      : [];
  // By hand after the last paper that the hand does not follow with.
  const coarse = uses.filter((u) => !("polish" in u) && u.backing !== "soft").length;
  const steps = [...before, ...panelSteps.slice(0, coarse), ...handStep, ...panelSteps.slice(coarse)];

  if (reach !== "spots") {
    zone(
      {
        kind: "flat",
        at: [],
        area_m2: flat_m2,
        way: school.id === "hand" ? "hand" : "machine",
        removal: ladder.total,
        minutes: panelSteps.reduce((a, s) => a + s.minutes, 0),
        chain: ladder.steps,
      },
      state.spots.map((s) => s.at),
    );
  }
  const strip = (kind: "line" | "edge", way: "hand" | "left", area: number, places: Point[]) =>
    zone(
      {
        kind,
        at: places,
        area_m2: area,
        way,
        removal: way === "hand" ? hand.total : { removal_m: 0, u_m: 0 },
        minutes: way === "hand" ? minutesOf(HAND_TASK.use, area, 1) : 0,
        chain: way === "hand" ? hand.steps : [],
      },
      places,
    );
  if (hasLines)
    strip(
      "line",
      lines,
      inLines,
      bodyLines.flatMap((l) => [...l]).filter((p) => edgeDistance(p, outline) > LINE_STRIP_M),
    );
  if (sands && rim_m > 0)
    strip(
      "edge",
      edges === "hand" ? "hand" : "left",
      inEdge,
      outline.filter((_, i) => i % 4 === 0),
    );

  const taped_m = (sands && edges === "left" ? polygonPerimeter(outline) : 0) + (hasLines && lines === "left" ? 2 * lineMetres : 0);
  const taping = taped_m * WORK_MINUTES.tapePer_m;
  return {
    zones,
    steps,
    total: ladder.total,
    minutes: taping + steps.reduce((a, s) => a + s.minutes, 0),
    consumables: consumablesOf(steps, { flat_m2: worked_m2, nibCount, taped_m }),
    cautions: cautionsOf(steps),
    localCutChance: 1 - spared,
    byHand,
    judgedFrom_m: sands && edges === "hand" ? 0 : rim_m,
    runs: comparison,
    unproved: zones.flatMap((z) => skippedSteps(z.chain).map((i) => ({ zone: z.kind, step: i }))),
  };
}
