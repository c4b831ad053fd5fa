import { requireInteger, requireNumber } from "../kernel/guard";
import { CUT_GUARD_M, DEFAULT_FLOOR_M, MOST_CLEAR_M, MOST_TOTAL_M, MOST_TOTAL_REBASE_M, VERDICT_LIMITS } from "./limits";
import { normalCdf } from "../kernel/stats/normal";
import { type Removal, type RemovalStep, type Texture, planRemoval } from "../models/correction/removal-plan";
import { RUN_SCHOOLS, type Run, type RunSchool, forecastRunWork } from "../models/correction/run-work";

/** What a shop's hour, materials and a rejected job cost, in the shop's own money. Defaults of ours: edit them. */
export interface ShopRates {
  labourPerHour: number;
  /** Loss when the customer sends the panel back for what was left on it. */
  rejected: number;
}
export const DEFAULT_RATES: ShopRates = { labourPerHour: 60, rejected: 350 };

/**
 * Minutes and materials of each way, and how likely what is left is to be seen. All defaults of ours, not validated.
 */
export const OPTION_FIGURES = {
  /** Chance that what is left is rejected: logistic about a middle, per nib, per run. */
  peel: { middle_m: 3e-6, width_m: 0.8e-6 },
  perNib: 0.15,
  run: { middle_m: 25e-6, width_m: 8e-6 },
  spot: { minutes: 4, minutesPerNib: 2.5, material: 2, materialPerNib: 0.3, residual: 0.05 },
  runWork: { extraMinutes: 8, material: 5, residual: 0.05 },
  full: { minutes: 25, minutesPer_m2: 45, material: 12, materialPer_m2: 10, residual: 0.03 },
  flow: { minutes: 55, minutesPer_m2: 30, material: 35, materialPer_m2: 40, residual: 0.06, adds_m: 50e-6, uAdds_m: 5e-6 },
  rebase: { minutes: 75, minutesPer_m2: 50, material: 70, materialPer_m2: 60, residual: 0.06, clear_m: 55e-6, u_m: 6e-6, adds_m: 70e-6 },
  /** Rework after cutting through, share of thin panels that come back, and of flow coats sanded through that need base. */
  cutRework: 1.3,
  warrantyShare: 0.35,
  flowRework: 0.6,
  gougeRework: 0.5,
  /** Spread of a texture that was not measured panel-wide. */
  textureSpread: 0.12,
  finishing_m: 3e-6,
} as const;

/** Limits that close a way whatever it costs. Defaults of ours. */
export const OPTION_LIMITS = {
  ...VERDICT_LIMITS.caution,
  flowCut: 0.1,
  totalAfterFlow_m: MOST_TOTAL_M,
  clearAfterFlow_m: MOST_CLEAR_M,
  totalAfterRebase_m: MOST_TOTAL_REBASE_M,
} as const;

/** What the plan of a way comes to, by the judge. */
export interface JudgedWork {
  /** At the place that ends thinnest: what comes off and what is left. */
  removal_m: number;
  left_m: number;
  u_left_m: number;
  cutChance: number;
  thinChance: number;
  minutes: number;
}
export interface Judged {
  spot: JudgedWork | null;
  /** Runs and nibs at their places, and the whole panel with its runs, by run school. */
  run: Partial<Record<RunSchool, JudgedWork>>;
  full: JudgedWork | null;
  fullWithRun: Partial<Record<RunSchool, JudgedWork>>;
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
  matte: boolean;
  /** Share of the cure to sanding reached: 1 is cured. */
  cured: number;
  floor_m?: number;
  cutGuard_m?: number;
  rates?: ShopRates;
  /** How the removal of a ladder is worked out: the plain plan, or the one that clears each step's marks. */
  removalOf?: (steps: readonly RemovalStep[], texture?: Texture) => { total: Removal };
  /** The flow coat as its own page plans it: what it takes off and lays, and what speaks against it. */
  flow?: FlowCase | null;
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
  | { because: "cut" | "thin"; chance: number };

export type OptionKind = "leave" | "spot" | "run" | "full" | "flow" | "rebase";
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
  /** Labour, material and the weighted cost of what may go wrong. */
  cost: number;
}

/** Waiting that a way brings with it: before it may be begun, and for its own clear to cure. */
export interface Waiting {
  before_s: number;
  after_s: number;
}

/**
 * Waiting for the cure before and after a way; after it at 20 °C. @param left_s until the clear that is there bears paper
 * @throws RangeError for a negative time
 */
export function waitingOf(kind: OptionKind, { left_s, sandAfter_s }: { left_s: number; sandAfter_s: number }): Waiting {
  requireNumber("left_s", left_s, { min: 0 });
  requireNumber("sandAfter_s", sandAfter_s, { min: 0 });
  return {
    before_s: kind === "leave" ? 0 : left_s,
    after_s: kind === "flow" || kind === "rebase" ? sandAfter_s : 0,
  };
}

export interface Decision {
  best: OptionForecast | null;
  /** Wait for the cure first; `best` is what to do afterwards. */
  wait: boolean;
  options: OptionForecast[];
}

const logistic = (x: number) => 1 / (1 + Math.exp(-x));
const below = (mean: number, sd: number, floor: number) => normalCdf((floor - mean) / sd);

const SPOT_STEPS: readonly RemovalStep[] = [{ grit: "P2000", backing: "medium" }, { polish: "compound" }, { polish: "polish" }];
const FULL_STEPS: readonly RemovalStep[] = [
  { grit: "P1500", backing: "medium" },
  { grit: "P3000", backing: "soft" },
  { polish: "compound" },
  { polish: "polish" },
];
export const FLOW_STEPS: readonly RemovalStep[] = [{ grit: "P1000", backing: "medium" }];

/**
 * Every way to deal with a panel's faults, from leaving it to new base and clear, each with its film, risks, hours and cost; and the
 * cheapest open one, its risks priced in.
 * @throws RangeError for figures outside the models
 */
export function decideOptions(input: OptionCase): Decision {
  const options = forecastOptions(input);
  const wait = input.cured < 1;
  const judged = wait ? forecastOptions({ ...input, cured: 1 }) : options;
  const open = judged.filter((o) => o.feasible);
  const cheapest = open.reduce<OptionForecast | null>((a, o) => (a === null || o.cost < a.cost ? o : a), null);
  return { best: cheapest, wait: wait && cheapest !== null && cheapest.kind !== "leave", options };
}

function forecastOptions(input: OptionCase): OptionForecast[] {
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
  const hours = (minutes: number) => (minutes / 60) * rates.labourPerHour;
  const rebaseMinutes = F.rebase.minutes + F.rebase.minutesPer_m2 * area;
  const rebaseMaterial = F.rebase.material + F.rebase.materialPer_m2 * area;
  const rebaseCost = hours(rebaseMinutes) + rebaseMaterial;

  const seenPeel = texture > wanted ? logistic((texture - wanted - F.peel.middle_m) / F.peel.width_m) : 0;
  const seenNibs = 1 - Math.exp(-F.perNib * nibs);
  const seenRun = run ? logistic((run.height_m - F.run.middle_m) / F.run.width_m) : 0;
  const seen = (...parts: number[]) => 1 - parts.reduce((a, p) => a * (1 - p), 1);
  const noPolish = [...(matte ? [{ because: "matte" } as const] : []), ...(cured ? [] : [{ because: "uncured" } as const])];

  const option = (
    kind: OptionKind,
    o: {
      minutes: number;
      material: number;
      removal_m: number;
      left_m: number;
      u_left_m: number;
      residual: number;
      texture_m: number;
      /** By the judge of the way's own plan; else of the zone by itself. */
      cutChance?: number;
      thinChance?: number;
    },
    { why = [] as readonly Closed[], cut = true, runSchool = null as RunSchool | null, rework = 0 } = {},
  ): OptionForecast => {
    const cutChance = o.cutChance ?? (cut ? below(o.left_m, o.u_left_m, cutGuard_m) : 0);
    const thinChance = o.thinChance ?? below(o.left_m, o.u_left_m, floor_m);
    const reasons = [...why];
    if (cut && cutChance > OPTION_LIMITS.cut) reasons.push({ because: "cut", chance: cutChance });
    if (cut && thinChance > OPTION_LIMITS.thin) reasons.push({ because: "thin", chance: thinChance });
    return {
      kind,
      runSchool,
      feasible: reasons.length === 0,
      why: reasons,
      minutes: o.minutes,
      material: o.material,
      removal_m: o.removal_m,
      left_m: o.left_m,
      u_left_m: o.u_left_m,
      cutChance,
      thinChance,
      residualChance: o.residual,
      texture_m: o.texture_m,
      cost:
        hours(o.minutes) +
        o.material +
        cutChance * rebaseCost * F.cutRework +
        F.warrantyShare * Math.max(0, thinChance - cutChance) * rebaseCost +
        o.residual * rates.rejected +
        rework,
    };
  };

  const list: OptionForecast[] = [];
  list.push(
    option(
      "leave",
      {
        minutes: 0,
        material: 0,
        removal_m: 0,
        left_m: clear,
        u_left_m: u,
        residual: seen(seenPeel, seenNibs, seenRun),
        texture_m: texture,
      },
      { cut: false },
    ),
  );
  const spot = removalOf(SPOT_STEPS).total;
  list.push(
    option(
      "spot",
      {
        minutes: F.spot.minutes + F.spot.minutesPerNib * nibs,
        material: F.spot.material + F.spot.materialPerNib * nibs,
        removal_m: spot.removal_m,
        left_m: clear - spot.removal_m,
        u_left_m: Math.hypot(u, spot.u_m),
        residual: seen(seenPeel, seenRun, F.spot.residual * seenNibs),
        texture_m: texture,
        ...input.judged?.spot,
      },
      { why: [...noPolish, ...(nibs ? [] : [{ because: "no nibs" } as const])] },
    ),
  );
  let runMinutes = 0;
  let runLoss = 0;
  let fullSchool: RunSchool | null = null;
  if (run) {
    const schools = (Object.keys(RUN_SCHOOLS) as RunSchool[]).map((school) => {
      const f = forecastRunWork(school, { ...run, clear_m: clear, u_clear_m: u, floor_m });
      const own = input.judged?.run[school];
      const thin = own?.thinChance ?? below(f.left_m, f.u_left_m, floor_m);
      const cut = own?.cutChance ?? below(f.left_m, f.u_left_m, cutGuard_m);
      const risk = thin * F.warrantyShare + cut * F.cutRework + RUN_SCHOOLS[school].gougeChance * F.gougeRework;
      return { school, f, own, price: hours(own?.minutes ?? f.minutes) + risk * rebaseCost };
    });
    const best = schools.reduce((a, s) => (s.price < a.price ? s : a));
    list.push(
      option(
        "run",
        {
          minutes: best.f.minutes + F.runWork.extraMinutes,
          material: F.runWork.material,
          removal_m: best.f.loss_m,
          left_m: best.f.left_m,
          u_left_m: best.f.u_left_m,
          // Its own plan deals with the nibs as well.
          residual: seen(seenPeel, best.own ? F.spot.residual * seenNibs : seenNibs, F.runWork.residual),
          texture_m: texture,
          ...best.own,
        },
        { why: noPolish, runSchool: best.school },
      ),
    );
    fullSchool = input.judged ? best.school : null;
    const block = schools.find((s) => s.school === "block")!.f;
    runMinutes = block.minutes;
    runLoss = block.loss_m - F.finishing_m;
  }
  const uTexture = F.textureSpread * texture;
  const full = removalOf(FULL_STEPS, { peakToValley_m: texture, u_m: uTexture, wanted_m: wanted }).total;
  list.push(
    option(
      "full",
      {
        minutes: F.full.minutes + F.full.minutesPer_m2 * area + runMinutes,
        material: F.full.material + F.full.materialPer_m2 * area,
        removal_m: full.removal_m + runLoss,
        left_m: clear - full.removal_m - runLoss,
        u_left_m: Math.hypot(u, full.u_m),
        residual: F.full.residual,
        texture_m: Math.min(texture, wanted),
        ...(fullSchool ? input.judged?.fullWithRun[fullSchool] : input.judged?.full),
      },
      { why: noPolish, runSchool: fullSchool },
    ),
  );
  const flat = input.flow ?? removalOf(FLOW_STEPS, { peakToValley_m: texture, u_m: uTexture }).total;
  const adds = input.flow ?? { ...F.flow, runs: false };
  const sanded = clear - flat.removal_m - runLoss;
  const through = input.judged?.flatting.cutChance ?? below(sanded, Math.hypot(u, flat.u_m), 0);
  list.push(
    option(
      "flow",
      {
        minutes: F.flow.minutes + F.flow.minutesPer_m2 * area + runMinutes,
        material: F.flow.material + F.flow.materialPer_m2 * area,
        removal_m: flat.removal_m + runLoss,
        left_m: sanded + adds.adds_m,
        u_left_m: Math.hypot(u, adds.uAdds_m),
        residual: F.flow.residual,
        texture_m: Math.min(texture, wanted),
      },
      {
        cut: false,
        rework: through * rebaseCost * F.flowRework,
        why: [
          ...(cured ? [] : [{ because: "uncured" } as const]),
          ...(adds.runs ? [{ because: "runs" } as const] : []),
          ...(total + adds.adds_m > OPTION_LIMITS.totalAfterFlow_m ? [{ because: "total build" } as const] : []),
          ...(clear + adds.adds_m > OPTION_LIMITS.clearAfterFlow_m ? [{ because: "clear build" } as const] : []),
          ...(through > OPTION_LIMITS.flowCut ? [{ because: "sanded through" } as const] : []),
        ],
      },
    ),
  );
  list.push(
    option(
      "rebase",
      {
        minutes: rebaseMinutes + runMinutes,
        material: rebaseMaterial,
        removal_m: 0,
        left_m: F.rebase.clear_m,
        u_left_m: F.rebase.u_m,
        residual: F.rebase.residual,
        texture_m: Math.min(texture, wanted),
      },
      {
        cut: false,
        why: !cured
          ? [{ because: "uncured" }]
          : total + F.rebase.adds_m > OPTION_LIMITS.totalAfterRebase_m
            ? [{ because: "strip first" }]
            : [],
      },
    ),
  );
  return list;
}
