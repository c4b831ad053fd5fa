import { requireInteger, requireNumber } from "../kernel/guard";
import { normalCdf } from "../kernel/stats/normal";
import { type Removal, type RemovalStep, type Texture, planRemoval } from "../models/correction/removal-plan";
import { RUN_SCHOOLS, type Run, type RunSchool, forecastRunWork } from "../models/correction/run-work";
import {
  type Fault,
  type CurePhase,
  REMEDIES,
  type RemedyId,
  hasOwnFormula,
  leftOf,
  leftShare,
  measureFirst,
} from "../models/defects/remedies";
import { rejectionByFault, rejectionByNibs, rejectionByPeel, rejectionByRun } from "./rejection";
import { type BeforeBase, STRIPPED_FIRST, holdOf } from "../models/defects/holds";
import { DEFECT_KINDS, type DefectKind } from "../models/defects/kinds";
import type { Finish } from "../models/ways/terms";
import { CUT_GUARD_M, DEFAULT_FLOOR_M, VERDICT_LIMITS } from "./limits";
import {
  DEFAULT_RATES,
  FLOW_STEPS,
  FULL_STEPS,
  OPTION_FIGURES,
  OPTION_LIMITS,
  POLISH_STEPS,
  SPOT_STEPS,
  type ShopRates,
  flatVerdict,
} from "./option-figures";

/** What the plan of a way comes to, by the judge. */
export interface JudgedWork {
  /** At the place that ends thinnest: what comes off and what is left. */
  removal_m: number;
  left_m: number;
  u_left_m: number;
  cutChance: number;
  thinChance: number;
  /** The same of the places as they are, with nothing done to them. */
  was: { cut: number; thin: number };
  minutes: number;
}
export interface Judged {
  spot: JudgedWork | null;
  /** Runs and nibs at their places, and the whole panel with its runs, by run school. */
  run: Partial<Record<RunSchool, JudgedWork>>;
  full: JudgedWork | null;
  fullWithRun: Partial<Record<RunSchool, JudgedWork>>;
  polish?: JudgedWork | null;
  /** Only where it is marked, with its runs by run school. */
  part?: JudgedWork | null;
  partWithRun?: Partial<Record<RunSchool, JudgedWork>>;
  /** Filled with a drop, then levelled at the place. */
  dropFill?: JudgedWork | null;
  /** Sanding it flat for a further coat. */
  flatting: { removal_m: number; u_removal_m: number; cutChance: number };
}

export interface OptionCase {
  area_m2: number;
  /** Clear in the zone that matters (the thinnest), with its standard uncertainty, and all layers together. */
  clear_m: number;
  u_clear_m: number;
  total_m: number;
  peakToValley_m: number;
  /** Texture wanted: the neighbour's, or 0 for show flat. */
  wanted_m: number;
  nibs: number;
  run: Run | null;
  /** Where the panel is marked for levelling: that share of it, and the peel there is elsewhere; null: nowhere. */
  marked?: { share: number; elsewhere_m: number } | null;
  /** What would be taken back to sound clear, where something asks for it and it is drawn on a panel. */
  sandOut_m2?: number;
  /** Waiting until the clear bears paper, and for clear laid anew, at 20 °C. */
  waiting?: { left_s: number; sandAfter_s: number };
  /** Everything else that was noted. */
  faults?: readonly Fault[];
  matte: boolean;
  finish?: Finish;
  /** Share of the cure to sanding reached: 1 is cured. */
  cured: number;
  phase?: CurePhase;
  floor_m?: number;
  cutGuard_m?: number;
  rates?: ShopRates;
  /** How the removal of a ladder is worked out: the plain plan, or the one that clears each step's marks. */
  removalOf?: (steps: readonly RemovalStep[], texture?: Texture) => { total: Removal };
  /** The flow coat as its own page plans it: what it takes off and lays, and what speaks against it. */
  flow?: FlowCase | null;
  /** Marked faults that stop a way, by way: what has to be seen to first. */
  held?: Partial<Record<RemedyId, readonly DefectKind[]>>;
  /** Marked faults that a way waits for first, until they have dried out. */
  waits?: Partial<Record<RemedyId, readonly DefectKind[]>>;
  /** The plans that the ways open, judged; without them a way is forecast for the zone by itself. */
  judged?: Judged;
}

export interface FlowCase {
  removal_m: number;
  u_m: number;
  adds_m: number;
  uAdds_m: number;
  runs: boolean;
}

/** Why a way is closed. */
export type Closed =
  | { because: "matte" | "uncured" | "no nibs" | "total build" | "clear build" | "sanded through" | "strip first" | "runs" }
  | { because: "not wet" | "not open" | "not hot" | "too many" }
  | { because: "cut" | "thin"; chance: number }
  | { because: "fault"; kind: DefectKind };

export type OptionKind = RemedyId;
export interface OptionForecast {
  kind: OptionKind;
  runSchool: RunSchool | null;
  feasible: boolean;
  /** Why it is closed; empty when it is open. */
  why: Closed[];
  minutes: number;
  material: number;
  /** Film taken off, and clear left with its standard uncertainty. */
  removal_m: number;
  left_m: number;
  u_left_m: number;
  cutChance: number;
  thinChance: number;
  /** Chance that what is left on it is rejected. */
  residualChance: number;
  /** Texture left, peak to valley. */
  texture_m: number;
  /** What goes before it where something has to be stripped. */
  first: readonly BeforeBase[];
  /** Labour, material, the days it stands, and the weighted cost of what may go wrong. */
  cost: number;
}

/** Waiting that a way brings with it: before it may be begun, and for its own clear to cure. */
export interface Waiting {
  before_s: number;
  after_s: number;
}

/** Ways that lay clear, which has to cure before it is worked. */
const LAYS_CLEAR: readonly OptionKind[] = ["flow", "rebase", "sandOut", "dropFill", "halfCoat"];

/**
 * Waiting for the cure before and after a way; after it at 20 °C. @param left_s until the clear that is there bears paper
 * @throws RangeError for a negative time
 */
export function waitingOf(kind: OptionKind, { left_s, sandAfter_s }: { left_s: number; sandAfter_s: number }): Waiting {
  requireNumber("left_s", left_s, { min: 0 });
  requireNumber("sandAfter_s", sandAfter_s, { min: 0 });
  return {
    before_s: REMEDIES[kind].when === "cured" || kind === "wait" ? left_s : 0,
    after_s: LAYS_CLEAR.includes(kind) ? sandAfter_s : 0,
  };
}

export interface Decision {
  best: OptionForecast | null;
  /** Wait first, for the cure, until it has dried out, or until it is hard at all; `best` is what to do afterwards. */
  wait: "cure" | "dry" | "hard" | null;
  /** Faults that are sized before anything is chosen for them. */
  measure: Fault[];
  options: OptionForecast[];
}

const below = (mean: number, sd: number, floor: number) => normalCdf((floor - mean) / sd);
const together = (...chances: number[]) => 1 - chances.reduce((a, p) => a * (1 - p), 1);

/**
 * Every way to deal with a panel's faults, from leaving it to new base and clear, each with its film, risks, hours and cost; and the
 * cheapest open one, its risks priced in. What is more often rejected than not is never chosen while something mends half of it. What can only be done
 * while the clear is wet, open or hot is chosen where it costs less than what is left to do once it has cured.
 * @throws RangeError for figures outside the models
 */
export function decideOptions(input: OptionCase): Decision {
  const now = decideNow(input);
  const { faults = [] } = input;
  if (now.wait || !faults.some(isSoft)) return now;
  // What is soft anywhere waits before all else: what to do then is chosen as if it were hard.
  const then = decideNow(hardened(input));
  return then.best && then.best.kind !== "leave" ? { ...now, best: then.best, measure: then.measure, wait: "hard" } : now;
}

const isSoft = ({ kind }: Pick<Fault, "kind">): boolean => holdOf(kind)?.until === "hard";
const hardened = ({ faults = [], held = {}, ...rest }: OptionCase): OptionCase => ({
  ...rest,
  faults: faults.filter((f) => !isSoft(f)),
  held: Object.fromEntries(Object.entries(held).map(([way, kinds]) => [way, kinds.filter((kind) => !isSoft({ kind }))])),
});

function decideNow(input: OptionCase): Decision {
  const options = forecastOptions(input);
  const curing = input.cured < 1;
  const later = curing ? forecastOptions({ ...input, cured: 1, phase: "cured" }) : options;
  const after = cheapest(later.filter((o) => o.feasible));
  const atOnce = curing ? cheapest(options.filter((o) => o.feasible && o.kind !== "leave" && o.kind !== "wait")) : null;
  const now = atOnce && after && atOnce.cost <= after.cost ? atOnce : null;
  const best = now ?? after;
  const waits = curing && now === null && best !== null && best.kind !== "leave";
  const dries = best !== null && (input.waits?.[best.kind] ?? []).length > 0;
  return { best, wait: waits ? "cure" : dries ? "dry" : null, measure: measureFirst(input.faults ?? []), options };
}

function cheapest(open: readonly OptionForecast[]): OptionForecast | null {
  const least = (list: readonly OptionForecast[]) =>
    list.reduce<OptionForecast | null>((a, o) => (a === null || o.cost < a.cost ? o : a), null);
  const best = least(open);
  if (best === null || best.residualChance <= OPTION_FIGURES.leaveMost) return best;
  return least(open.filter((o) => o.residualChance <= best.residualChance / 2)) ?? best;
}

/** What the ways of one panel are worked out from, checked once. */
interface Bench extends Required<Pick<OptionCase, "floor_m" | "cutGuard_m" | "rates" | "removalOf" | "phase">> {
  input: OptionCase;
  area: number;
  clear: number;
  u: number;
  total: number;
  texture: number;
  wanted: number;
  nibs: number;
  cured: boolean;
  /** Why nothing may be polished or sanded now. */
  noPolish: Closed[];
  /** Chances that peel, nibs and the run are rejected as they are. */
  seen: { peel: number; nibs: number; run: number };
  /** The other faults, each with its chance. */
  faults: { fault: Fault; seen: number }[];
  rebase: { minutes: number; material: number; cost: number };
  runWork: { minutes: number; loss_m: number };
}

const hoursOf = (minutes: number, rates: ShopRates) => (minutes / 60) * rates.labourPerHour;

function benchOf(input: OptionCase): Bench {
  const F = OPTION_FIGURES;
  const { floor_m = DEFAULT_FLOOR_M, cutGuard_m = CUT_GUARD_M, rates = DEFAULT_RATES, removalOf = planRemoval, run, matte } = input;
  const area = requireNumber("area_m2", input.area_m2, { above: 0, max: 30 });
  const clear = requireNumber("clear_m", input.clear_m, { min: -1e-4, max: 1e-3 });
  const u = requireNumber("u_clear_m", input.u_clear_m, { above: 0, max: 1e-3 });
  const total = requireNumber("total_m", input.total_m, { min: 0, max: 5e-3 });
  const texture = requireNumber("peakToValley_m", input.peakToValley_m, { min: 0, max: 1e-3 });
  const wanted = requireNumber("wanted_m", input.wanted_m, { min: 0, max: 1e-3 });
  const nibs = requireInteger("nibs", input.nibs, { min: 0, max: 5000 });
  const cured = requireNumber("cured", input.cured, { min: 0 }) >= 1;
  requireNumber("labourPerHour", rates.labourPerHour, { min: 0 });
  requireNumber("rejected", rates.rejected, { min: 0 });
  requireNumber("waitingPerDay", rates.waitingPerDay, { min: 0 });
  const minutes = F.rebase.minutes + F.rebase.minutesPer_m2 * area;
  const material = F.rebase.material + F.rebase.materialPer_m2 * area;
  const finish = input.finish ?? (matte ? "matte" : "match");
  const block = run && forecastRunWork("block", { ...run, clear_m: clear, u_clear_m: u, floor_m });
  return {
    input,
    floor_m,
    cutGuard_m,
    rates,
    removalOf,
    area,
    clear,
    u,
    total,
    texture,
    wanted,
    nibs,
    cured,
    phase: input.phase ?? (cured ? "cured" : "curing"),
    noPolish: [...(matte ? [{ because: "matte" } as const] : []), ...(cured ? [] : [{ because: "uncured" } as const])],
    seen: {
      peel: rejectionByPeel(texture, wanted),
      nibs: rejectionByNibs(nibs),
      run: run ? rejectionByRun(run.height_m) : 0,
    },
    faults: (input.faults ?? []).filter((f) => !hasOwnFormula(f)).map((fault) => ({ fault, seen: rejectionByFault(fault, finish) })),
    rebase: { minutes, material, cost: hoursOf(minutes, rates) + material },
    runWork: block ? { minutes: block.minutes, loss_m: block.loss_m - F.finishing_m } : { minutes: 0, loss_m: 0 },
  };
}

/** What one way does, before its risks are priced in. */
interface WayWork {
  kind: OptionKind;
  minutes: number;
  material: number;
  removal_m: number;
  left_m: number;
  u_left_m: number;
  /** Chance that peel, nibs or a run, or the work itself, is rejected after it; the other faults are added by what the way leaves of them. */
  residual: number;
  texture_m: number;
  /** By the judge of the way's own plan; else of the zone by itself. */
  cutChance?: number;
  thinChance?: number;
  was?: { cut: number; thin: number };
  why?: readonly Closed[];
  /** Whether it may go through: nothing does that takes nothing off. */
  cuts?: boolean;
  /** Whether too little left closes it: hardly anything comes off with a polish, and what is thin now is thin whatever is done. */
  thinCloses?: boolean;
  runSchool?: RunSchool | null;
  first?: readonly BeforeBase[];
  /** What going through costs, as a share of new base and clear. */
  cutRework?: number;
}

function priced(b: Bench, w: WayWork): OptionForecast {
  const F = OPTION_FIGURES;
  const { cuts = true, thinCloses = cuts, why = [], runSchool = null, cutRework = F.cutRework } = w;
  const cutChance = w.cutChance ?? (cuts ? below(w.left_m, w.u_left_m, b.cutGuard_m) : 0);
  const thinChance = w.thinChance ?? below(w.left_m, w.u_left_m, b.floor_m);
  const reasons: Closed[] = [...why, ...(b.input.held?.[w.kind] ?? []).map((kind) => ({ because: "fault" as const, kind }))];
  const was = wasOf(b, w.was);
  // Paper never goes where it may come through; a polish that takes next to nothing is closed only by what it adds.
  const cutAdds = w.kind === "polish" ? cutChance - was.cut : cutChance;
  const cutCloses = cuts && cutAdds > OPTION_LIMITS.cut;
  if (cutCloses) reasons.push({ because: "cut", chance: cutChance });
  if (thinCloses && tooThin(thinChance, cutCloses ? 0 : was.thin)) reasons.push({ because: "thin", chance: thinChance });
  const residualChance = together(w.residual, ...b.faults.map(({ fault, seen }) => seen * leftOf(fault, w.kind)));
  return {
    kind: w.kind,
    runSchool,
    first: w.first ?? [],
    feasible: reasons.length === 0,
    why: reasons,
    minutes: w.minutes,
    material: w.material,
    removal_m: w.removal_m,
    left_m: w.left_m,
    u_left_m: w.u_left_m,
    cutChance,
    thinChance,
    residualChance,
    texture_m: w.texture_m,
    cost:
      hoursOf(w.minutes, b.rates) +
      w.material +
      waitingCost(b, w.kind) +
      cutChance * b.rebase.cost * cutRework +
      F.warrantyShare * Math.max(0, thinChance - cutChance) * b.rebase.cost +
      residualChance * b.rates.rejected,
  };
}

/** Chances with nothing done: by the judge of the way's own places; else of the zone by itself. */
const wasOf = (b: Bench, judged: WayWork["was"]) =>
  judged ?? { cut: below(b.clear, b.u, b.cutGuard_m), thin: below(b.clear, b.u, b.floor_m) };

/** What is thin as it is stays so whatever is done: too little left closes a way only where its own work adds to it. */
const tooThin = (chance: number, was: number): boolean => chance > OPTION_LIMITS.thin && chance - was > VERDICT_LIMITS.safe.thin;

const DAY_S = 86_400;
function waitingCost({ input, rates }: Bench, kind: OptionKind): number {
  if (!input.waiting) return 0;
  const { before_s, after_s } = waitingOf(kind, input.waiting);
  return ((before_s + after_s) / DAY_S) * rates.waitingPerDay;
}

const count = (b: Bench, way: OptionKind) =>
  b.faults.reduce(
    (a, { fault }) => a + (leftShare(fault.kind, way) < 1 ? (DEFECT_KINDS[fault.kind].reach === "point" ? fault.count : 1) : 0),
    0,
  );

function forecastOptions(input: OptionCase): OptionForecast[] {
  const b = benchOf(input);
  const run = runWay(b);
  return [
    leaveWay(b),
    spotWay(b),
    ...(run ? [run.work] : []),
    ...partWay(b, run?.school ?? null),
    fullWay(b, run?.school ?? null),
    flowWay(b),
    rebaseWay(b),
    ...faultWays(b),
  ].map((w) => priced(b, w));
}

const untouched = (b: Bench) => ({
  removal_m: 0,
  left_m: b.clear,
  u_left_m: b.u,
  residual: together(b.seen.peel, b.seen.nibs, b.seen.run),
  texture_m: b.texture,
  cuts: false,
});

const leaveWay = (b: Bench): WayWork => ({ kind: "leave", minutes: 0, material: 0, ...untouched(b) });

function spotWay(b: Bench): WayWork {
  const F = OPTION_FIGURES.spot;
  const spot = b.removalOf(SPOT_STEPS).total;
  const others = count(b, "spot");
  const places = b.nibs + others;
  return {
    kind: "spot",
    minutes: F.minutes + F.minutesPerNib * places,
    material: F.material + F.materialPerNib * places,
    removal_m: spot.removal_m,
    left_m: b.clear - spot.removal_m,
    u_left_m: Math.hypot(b.u, spot.u_m),
    residual: together(b.seen.peel, b.seen.run, F.residual * b.seen.nibs),
    texture_m: b.texture,
    ...b.input.judged?.spot,
    why: [...b.noPolish, ...(places > 0 ? [] : [{ because: "no nibs" } as const])],
  };
}

function runWay(b: Bench): { work: WayWork; school: RunSchool } | null {
  const F = OPTION_FIGURES;
  const { run, judged } = b.input;
  if (!run) return null;
  const schools = (Object.keys(RUN_SCHOOLS) as RunSchool[]).map((school) => {
    const f = forecastRunWork(school, { ...run, clear_m: b.clear, u_clear_m: b.u, floor_m: b.floor_m });
    const own = judged?.run[school];
    const thin = own?.thinChance ?? below(f.left_m, f.u_left_m, b.floor_m);
    const cut = own?.cutChance ?? below(f.left_m, f.u_left_m, b.cutGuard_m);
    const risk = thin * F.warrantyShare + cut * F.cutRework + RUN_SCHOOLS[school].gougeChance * F.gougeRework;
    const open = cut <= OPTION_LIMITS.cut && !tooThin(thin, wasOf(b, own?.was).thin);
    return { school, f, own, open, price: hoursOf(own?.minutes ?? f.minutes, b.rates) + risk * b.rebase.cost };
  });
  // A dearer school that may be done goes before a cheaper one that may not.
  const best = schools.reduce((a, s) => (s.open === a.open ? (s.price < a.price ? s : a) : s.open ? s : a));
  const others = F.spot.minutesPerNib * count(b, "run");
  return {
    school: best.school,
    work: {
      kind: "run",
      minutes: best.f.minutes + F.runWork.extraMinutes + others,
      material: F.runWork.material,
      removal_m: best.f.loss_m,
      left_m: best.f.left_m,
      u_left_m: best.f.u_left_m,
      // Its own plan deals with the nibs as well.
      residual: together(b.seen.peel, best.own ? F.spot.residual * b.seen.nibs : b.seen.nibs, F.runWork.residual),
      texture_m: b.texture,
      ...best.own,
      why: b.noPolish,
      runSchool: best.school,
    },
  };
}

function fullWay(b: Bench, school: RunSchool | null): WayWork {
  const F = OPTION_FIGURES;
  const { judged } = b.input;
  const uTexture = F.textureSpread * b.texture;
  const full = b.removalOf(FULL_STEPS, { peakToValley_m: b.texture, u_m: uTexture, wanted_m: b.wanted }).total;
  const runSchool = judged ? school : null;
  return {
    kind: "full",
    minutes: F.full.minutes + F.full.minutesPer_m2 * b.area + b.runWork.minutes,
    material: F.full.material + F.full.materialPer_m2 * b.area,
    removal_m: full.removal_m + b.runWork.loss_m,
    left_m: b.clear - full.removal_m - b.runWork.loss_m,
    u_left_m: Math.hypot(b.u, full.u_m),
    residual: F.full.residual,
    texture_m: Math.min(b.texture, b.wanted),
    ...(runSchool ? judged?.fullWithRun[runSchool] : judged?.full),
    why: b.noPolish,
    runSchool,
  };
}

/** The same only where it is marked; the texture elsewhere stays what it is. */
function partWay(b: Bench, school: RunSchool | null): WayWork[] {
  const F = OPTION_FIGURES;
  const { judged, marked } = b.input;
  if (!marked) return [];
  const share = requireNumber("marked.share", marked.share, { min: 0, max: 1 });
  if (!(share > 0 && share < PART_MOST)) return [];
  const whole = fullWay(b, school);
  const own = whole.runSchool ? judged?.partWithRun?.[whole.runSchool] : judged?.part;
  return [
    {
      ...whole,
      kind: "part",
      minutes: F.full.minutes + F.full.minutesPer_m2 * share * b.area + b.runWork.minutes,
      material: F.full.material + F.full.materialPer_m2 * share * b.area,
      residual: together(F.full.residual, rejectionByPeel(marked.elsewhere_m, b.wanted)),
      ...own,
    },
  ];
}
/** More of a panel than this is levelled as a whole: its border would cost more than it saves. Default of ours. */
const PART_MOST = 0.7;

function flowWay(b: Bench): WayWork {
  const F = OPTION_FIGURES;
  const { judged, flow } = b.input;
  const uTexture = F.textureSpread * b.texture;
  const flat = flow ?? b.removalOf(FLOW_STEPS, { peakToValley_m: b.texture, u_m: uTexture }).total;
  const adds = flow ?? { ...F.flow, runs: false };
  const sanded = b.clear - flat.removal_m - b.runWork.loss_m;
  const through = judged?.flatting.cutChance ?? below(sanded, Math.hypot(b.u, flat.u_m), 0);
  return {
    kind: "flow",
    minutes: F.flow.minutes + F.flow.minutesPer_m2 * b.area + b.runWork.minutes,
    material: F.flow.material + F.flow.materialPer_m2 * b.area,
    removal_m: flat.removal_m + b.runWork.loss_m,
    left_m: sanded + adds.adds_m,
    u_left_m: Math.hypot(b.u, adds.uAdds_m),
    residual: F.flow.residual,
    texture_m: Math.min(b.texture, b.wanted),
    cuts: false,
    cutChance: through,
    cutRework: F.flowRework,
    why: [
      ...(b.cured ? [] : [{ because: "uncured" } as const]),
      ...(adds.runs ? [{ because: "runs" } as const] : []),
      ...(b.total + adds.adds_m > OPTION_LIMITS.totalAfterFlow_m ? [{ because: "total build" } as const] : []),
      ...(b.clear + adds.adds_m > OPTION_LIMITS.clearAfterFlow_m ? [{ because: "clear build" } as const] : []),
      ...(flatVerdict(through) === "stop" ? [{ because: "sanded through" } as const] : []),
    ],
  };
}

function rebaseWay(b: Bench): WayWork {
  const F = OPTION_FIGURES.rebase;
  const first = beforeBase(b);
  const { before } = OPTION_FIGURES;
  return {
    kind: "rebase",
    first: first.map((f) => f.what),
    minutes:
      b.rebase.minutes +
      b.runWork.minutes +
      first.reduce((a, f) => a + before[f.what].minutes + before[f.what].minutesPer_m2 * f.area_m2, 0),
    material: b.rebase.material + first.reduce((a, f) => a + before[f.what].material + before[f.what].materialPer_m2 * f.area_m2, 0),
    removal_m: 0,
    left_m: F.clear_m,
    u_left_m: F.u_m,
    residual: F.residual,
    texture_m: Math.min(b.texture, b.wanted),
    cuts: false,
    why: !b.cured ? [{ because: "uncured" }] : b.total + F.adds_m > OPTION_LIMITS.totalAfterRebase_m ? [{ because: "strip first" }] : [],
  };
}

/** What is stripped, filled and sealed off before new base, each over as much of the panel as asks for it. */
function beforeBase(b: Bench): { what: BeforeBase; area_m2: number }[] {
  return (["strip", "fill", "barrier"] as const).flatMap((what) => {
    const asks = b.faults.filter(({ fault }) => STRIPPED_FIRST[fault.kind]?.includes(what));
    const wide_m2 = asks.reduce((a, { fault }) => a + (holdOf(fault.kind)?.where === "panel" ? b.area : beyond(fault)), 0);
    return asks.length > 0 ? [{ what, area_m2: Math.min(b.area, wide_m2) }] : [];
  });
}

/** The ways that only some faults ask for: listed where one of them is there. */
function faultWays(b: Bench): WayWork[] {
  const F = OPTION_FIGURES;
  const asked = (way: OptionKind) => b.faults.some(({ fault }) => leftShare(fault.kind, way) < 1);
  const atPlaces = (kind: "wet" | "dab" | "dropFill", places: number) => {
    const f = F[kind];
    return { minutes: f.minutes + f.minutesPerPlace * places, material: f.material + f.materialPerPlace * places };
  };
  const whenPhase = (phases: readonly CurePhase[], because: "not wet" | "not open" | "not hot"): Closed[] =>
    phases.includes(b.phase) ? [] : [{ because }];
  const list: WayWork[] = [];
  if (asked("polish")) {
    const off = b.removalOf(POLISH_STEPS).total;
    list.push({
      kind: "polish",
      minutes: F.polish.minutes + F.polish.minutesPer_m2 * b.area,
      material: F.polish.material + F.polish.materialPer_m2 * b.area,
      removal_m: off.removal_m,
      left_m: b.clear - off.removal_m,
      u_left_m: Math.hypot(b.u, off.u_m),
      residual: together(b.seen.peel, b.seen.nibs, b.seen.run),
      texture_m: b.texture,
      ...b.input.judged?.polish,
      thinCloses: false,
      why: b.noPolish,
    });
  }
  const wetNibs = b.phase === "wet" ? b.nibs : 0;
  if (asked("wet") || wetNibs > 0)
    list.push({
      kind: "wet",
      ...atPlaces("wet", count(b, "wet") + b.nibs),
      ...untouched(b),
      residual: together(b.seen.peel, leftShare("nib", "wet") * b.seen.nibs, b.seen.run),
      why: whenPhase(["wet"], "not wet"),
    });
  if (asked("halfCoat"))
    list.push({
      kind: "halfCoat",
      minutes: F.halfCoat.minutes + F.halfCoat.minutesPer_m2 * b.area,
      material: F.halfCoat.material + F.halfCoat.materialPer_m2 * b.area,
      ...untouched(b),
      left_m: b.clear + F.halfCoat.adds_m,
      u_left_m: Math.hypot(b.u, F.halfCoat.uAdds_m),
      why: whenPhase(["wet", "open"], "not open"),
    });
  if (asked("dab")) list.push({ kind: "dab", ...atPlaces("dab", count(b, "dab")), ...untouched(b), why: whenPhase(["hot"], "not hot") });
  if (asked("dropFill")) {
    const places = b.faults.reduce((a, { fault }) => a + (leftShare(fault.kind, "dropFill") < 1 ? fault.count : 0), 0);
    const off = b.removalOf(SPOT_STEPS).total;
    const own = b.input.judged?.dropFill;
    list.push({
      kind: "dropFill",
      ...atPlaces("dropFill", places),
      ...untouched(b),
      removal_m: off.removal_m,
      left_m: b.clear - off.removal_m,
      u_left_m: Math.hypot(b.u, off.u_m),
      cuts: true,
      ...own,
      // Its own plan deals with the nibs as well.
      residual: together(b.seen.peel, own ? F.spot.residual * b.seen.nibs : b.seen.nibs, b.seen.run),
      why: [...b.noPolish, ...(places > F.dropFill.most ? [{ because: "too many" } as const] : [])],
    });
  }
  if (asked("sandOut")) {
    const drawn_m2 = b.input.sandOut_m2 ?? 0;
    const wide_m2 = Math.min(
      b.area,
      drawn_m2 > 0 ? drawn_m2 : b.faults.reduce((a, { fault }) => a + (leftShare(fault.kind, "sandOut") < 1 ? beyond(fault) : 0), 0),
    );
    list.push({
      kind: "sandOut",
      minutes: F.sandOut.minutes + F.sandOut.minutesPer_m2 * wide_m2 + F.sandOut.clearShare * F.flow.minutesPer_m2 * b.area,
      material: F.sandOut.material + F.sandOut.materialPer_m2 * wide_m2 + F.sandOut.clearShare * F.flow.materialPer_m2 * b.area,
      removal_m: 0,
      left_m: b.clear + F.flow.adds_m,
      u_left_m: Math.hypot(b.u, F.flow.uAdds_m),
      residual: together(b.seen.peel, F.sandOut.residual),
      texture_m: b.texture,
      cuts: false,
      why: [
        ...(b.cured ? [] : [{ because: "uncured" } as const]),
        ...(b.total + F.flow.adds_m > OPTION_LIMITS.totalAfterFlow_m ? [{ because: "total build" } as const] : []),
      ],
    });
  }
  if (asked("clean")) list.push({ kind: "clean", ...F.clean, ...untouched(b) });
  if (asked("wait")) list.push({ kind: "wait", ...F.wait, ...untouched(b) });
  return list;
}

/** Its place taken back so far beyond on every side. */
const beyond = ({ area_m2 }: Fault): number => {
  const { beyond_m, undrawn_m } = OPTION_FIGURES.sandOut;
  return ((area_m2 === null ? undrawn_m : Math.sqrt(area_m2)) + 2 * beyond_m) ** 2;
};
