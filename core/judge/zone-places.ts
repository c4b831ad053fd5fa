import { isFold, isInclusion } from "../models/defects/kinds";
import { leftShare } from "../models/defects/remedies";
import type { Point, Polygon } from "../kernel/geometry/geometry";
import { type Region, halfOf } from "../kernel/geometry/region";
import { type Removal, sumOf } from "../models/correction/removal-plan";
import { RUN_SCHOOLS, type RunForecast, type RunSchool, forecastRunWork } from "../models/correction/run-work";
import { correctionSchool, reachOf } from "../models/correction/schools";
import { regionOfPlan } from "../panel/builds";
import type { PlanStep } from "../record/bodies";
import { type EntryOf, pointsOf } from "../record/entry";
import type { PanelPart } from "../record/kinds";
import { type PanelFacts, measuredRuns } from "../panel/derive-panel";
import type { ClearThere } from "./film-judge";
import { type LocalWork, localWork } from "./local-work";
import { filledSince, liesIn, placesOf } from "../panel/mark-places";
import { workedSince } from "../panel/worked-since";
import { type PlanPart, type Setting, atOf, removalOf, stepOf, zoneOf } from "./zone-setting";
import { DROP_TASK, SPOT_RADIUS_M, WORK_MINUTES, nibTask, runTasks } from "./zone-work";

/** What a plan is worked out from. */
export type NotedPanel = Pick<PanelFacts, "defects" | "spots" | "localWork"> &
  Partial<Pick<PanelFacts, "plan" | "stepsDone" | "coloured" | "flakes">>;
/** The run schools for the panel's worst run, side by side. */
export interface RunComparison extends ClearThere {
  height_m: number;
  at: Point;
  schools: (Omit<RunForecast, "chanceBelowFloor"> & { school: RunSchool })[];
}

export type MeasuredRun = ReturnType<typeof measuredRuns>[number];

/** Runs, and nibs, that have not been worked since they were noted. */
export const openRuns = (panel: NotedPanel): MeasuredRun[] =>
  measuredRuns(panel).filter(({ entry }) => !workedSince(panel.localWork, "run", placesOf(entry), entry.seq));
export const openNibs = (panel: NotedPanel): EntryOf<"defect">[] =>
  panel.defects.filter(
    (d) => isInclusion(d.body.kind) && !workedSince(panel.localWork, "spot", placesOf(d), d.seq) && !levelledSince(panel, d),
  );

/** Whether a plan that levels the panel where something is marked was carried through since. */
function levelledSince({ plan = null, stepsDone = [] }: NotedPanel, mark: EntryOf<"defect">): boolean {
  if (!plan || plan.seq < mark.seq || stepsDone.length < plan.body.steps.length) return false;
  return reachOf(correctionSchool(plan.body.schoolId)) === "panel" && liesIn(mark, regionOfPlan(plan.body));
}

/** Nibs, and what else is taken out at its own place by a school for spots. */
export const openSpots = (panel: NotedPanel): EntryOf<"defect">[] =>
  panel.defects.filter(
    (d) =>
      (isInclusion(d.body.kind) || (!isFold(d.body.kind) && leftShare(d.body.kind, "spot") < 1)) &&
      !workedSince(panel.localWork, "spot", placesOf(d), d.seq) &&
      !levelledSince(panel, d),
  );

/** What is filled with a drop of clear and levelled; the drop alone is not the end of it. */
export const openFills = (panel: NotedPanel): EntryOf<"defect">[] =>
  panel.defects.filter((d) => leftShare(d.body.kind, "dropFill") < 1 && !filledSince(panel, d));

/** A way that leaves no more than this of a fault is done where that is marked. */
const LEVELLED = 0.5;

/** What was drawn on the panel and is levelled over its area: peel and the like. */
export const markedRegion = (panel: Pick<NotedPanel, "defects">): Region =>
  panel.defects.flatMap(({ body: { kind, trace } }) =>
    trace?.as === "area" && trace.at.length > 2 && leftShare(kind, "full") <= LEVELLED ? [pointsOf(trace.at)] : [],
  );

/** The part of a panel by its name: a half as it lies on the drawing, or the areas that were marked. */
export const partOf = (outline: Polygon, part: PanelPart, panel: NotedPanel): Region =>
  part === "marked" ? markedRegion(panel) : halfOf(outline, part);

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
export function compareRunSchools(runs: readonly MeasuredRun[], setting: Setting): RunComparison | null {
  const [run] = [...runs].sort((a, b) => b.height_m - a.height_m);
  const at = run && placesOf(run.entry)[0]!;
  const around = at && setting.read?.([at])[0];
  if (!run || !around) return null;
  const schools = (Object.keys(RUN_SCHOOLS) as RunSchool[]).map((school) => {
    const { finish } = runWorkOf(school, setting);
    const { floor_m } = setting;
    return { school, ...forecastRunWork(school, { ...sizeOf(run), clear_m: around.clear_m, u_clear_m: around.u_m, floor_m, finish }) };
  });
  return { height_m: run.height_m, at, ...around, schools };
}

/** The runs: their school's own tasks, with the loss beside the worst of them. */
export function runPart(runs: readonly MeasuredRun[], school: RunSchool | null, setting: Setting): PlanPart {
  if (runs.length === 0 || !school) return { zones: [], steps: [] };
  const { tasks, chain, finish } = runWorkOf(school, setting);
  const { read, floor_m } = setting;
  const each = runs.map((run) => {
    const at = placesOf(run.entry)[0]!;
    const there = read?.([at])[0] ?? null;
    const clear = { clear_m: there?.clear_m ?? 0, u_clear_m: there?.u_m ?? 1e-6 };
    return { at, there, run, forecast: forecastRunWork(school, { ...sizeOf(run), ...clear, floor_m, finish }) };
  });
  const left = ({ forecast: { left_m, u_left_m } }: (typeof each)[number]) => left_m - 2 * u_left_m;
  const worst = each.reduce((a, e) => (e.forecast.loss_m > a.forecast.loss_m || (e.there && left(e) < left(a)) ? e : a));
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
export function nibPart(nibs: readonly EntryOf<"defect">[], { reach, ladder, onPanel, shop, habits, read }: Setting): PlanPart {
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

/** A drop of clear in each place that is filled, before anything is levelled there. */
export const dropSteps = (fills: readonly EntryOf<"defect">[]): PlanStep[] =>
  fills.length === 0
    ? []
    : [
        stepOf(DROP_TASK, {
          zone: "spot",
          at: atOf(fills.flatMap(placesOf)),
          minutes: WORK_MINUTES.change + WORK_MINUTES.perDrop * fills.reduce((a, d) => a + d.body.count, 0),
        }),
      ];
