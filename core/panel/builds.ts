import type { Point } from "../kernel/geometry/geometry";
import { edgeDistance, lineDistances } from "../kernel/geometry/geometry";
import { type Region, inRegion } from "../kernel/geometry/region";
import { LOCAL_UNEVENNESS } from "../models/correction/unevenness";
import { FLATTEN_S } from "../models/trade-limits";
import { SPRAY } from "../models/spray/constants";
import type { Deposit } from "../models/spray/deposit";
import { type EntryOf, type LedgerEntry, pointsOf } from "../record/entry";
import { filmDoubt } from "../models/spray/film-doubt";
import type { SprayedIn } from "./predict-coat";
import { MODEL_FILM, type ShopFilm, overPanel } from "./shop-film";
import { thinsPanel } from "./thins-panel";

export interface CoatState {
  /** Its `number` is its place among the coats that count: taking one out moves those after it up. */
  entry: EntryOf<"coat">;
  /** The number it was logged as; its wet comb names this one. */
  loggedAs: number;
  /** What it was sprayed in, as that was logged and mixed then. */
  sprayed: SprayedIn;
  predicted: Deposit;
}

/** What took film off over the whole panel: a step of a plan, or flatting before further clear. */
export type Thinning = EntryOf<"step"> | EntryOf<"flatten">;

/** The coats between two surfaces: what was laid before the film was next sanded over. */
export interface Build {
  coats: CoatState[];
  /** Film that its coats laid over the panel, by the model. */
  predicted: { clear_m: number; u_m: number };
  /** What took film off over the panel after its coats and before the next build's, and how much of it on the mean. */
  thinning: Thinning[];
  taken_m: number;
  /** Where its first coat stands in the ledger; the first build also holds what came before any coat. */
  from_seq: number;
}

/** Sum of coats: the model's own error is common to all of them, the rest from coat to coat is not. */
export function sumCoats(coats: readonly Deposit[], shop: ShopFilm = MODEL_FILM): { clear_m: number; u_m: number } {
  const clear_m = coats.reduce((a, c) => a + c.dry_m, 0);
  return {
    clear_m,
    u_m: filmDoubt(
      coats.map((c) => c.dry_m),
      shop.u_log,
    ),
  };
}

/** A panel's builds, oldest first: a coat over a sanded surface begins the next. */
export function buildsOf(
  coats: readonly CoatState[],
  thinning: readonly Thinning[],
  shop: ShopFilm,
  takenBy: (thinning: Thinning) => number = (t) => t.body.removal_m,
): Build[] {
  const builds: Pick<Build, "coats" | "from_seq">[] = [];
  for (const coat of coats) {
    const last = builds.at(-1);
    const previous = last?.coats.at(-1)?.entry.seq ?? -Infinity;
    const sanded = thinning.some((s) => s.seq > previous && s.seq < coat.entry.seq);
    if (last && !sanded) last.coats.push(coat);
    else builds.push({ coats: [coat], from_seq: coat.entry.seq });
  }
  return builds.map((b, i): Build => {
    const until = builds[i + 1]?.from_seq ?? Infinity;
    const own = thinning.filter((s) => s.seq > b.from_seq && s.seq < until);
    return {
      ...b,
      predicted: sumCoats(
        b.coats.filter(overPanel).map((c) => c.predicted),
        shop,
      ),
      thinning: own,
      taken_m: own.reduce((a, s) => a + takenBy(s), 0),
    };
  });
}

/** One thing done to the film of the panel: film taken off (negative) or laid on, with the error that all places have in common. */
export interface FilmChange {
  seq: number;
  /** When it was logged, and how long such work takes. */
  at_ms: number;
  work_s: number;
  /** Done only there: the film has a step at its border; null: over the whole panel. */
  region: Region | null;
  /** Share of the panel that it was done on. */
  areaShare: number;
  change_m: number;
  u_m: number;
  /** Share of it that came to a place. */
  shareAt: (at: Point) => number;
  /** Standard deviation from place to place, a share of it. */
  uneven: number;
}

/**
 * What was done to the film of the whole panel, in its order: each step that thinned it, and each build laid over a sanded one. Coats logged
 * after a reading of their own build are no change: they may have been logged late, and film that is not sure to be there is not counted.
 */
export function changesOf(
  entries: readonly LedgerEntry[],
  {
    builds,
    outline,
    bodyLines,
    u_m = new Map(),
  }: {
    builds: readonly Build[];
    outline: readonly Point[];
    bodyLines: readonly (readonly Point[])[];
    /** Doubt of single steps with what they have in common with those before; of the others their own. */
    u_m?: ReadonlyMap<string, number>;
  },
): FilmChange[] {
  const plans = new Map(entries.flatMap((e) => (e.kind === "plan" ? [[e.id, e.body] as const] : [])));
  const taken = entries.flatMap((e): FilmChange[] => {
    if (e.kind !== "flatten" && !(e.kind === "step" && thinsPanel(e))) return [];
    const plan = e.kind === "step" ? plans.get(e.body.planId) : undefined;
    return [
      {
        seq: e.seq,
        at_ms: e.at_ms,
        work_s: plan && e.kind === "step" ? 60 * (plan.steps[e.body.index]?.minutes ?? 0) : FLATTEN_S,
        change_m: -e.body.removal_m,
        u_m: u_m.get(e.id) ?? e.body.u_m,
        region: plan ? regionOfPlan(plan) : null,
        areaShare: plan?.part?.share ?? 1,
        uneven: LOCAL_UNEVENNESS,
        shareAt: (at) => (plan ? workedShareAt(plan, at, outline, bodyLines) : 1),
      },
    ];
  });
  const laid = builds.slice(1).map((b): FilmChange => ({
    seq: b.from_seq,
    at_ms: b.coats[0]!.entry.at_ms,
    work_s: 0,
    change_m: b.predicted.clear_m,
    u_m: b.predicted.u_m,
    region: null,
    areaShare: 1,
    uneven: SPRAY.coatLogSd,
    shareAt: () => 1,
  }));
  return [...taken, ...laid].sort((x, y) => x.seq - y.seq);
}

/** The part of the panel that a plan levels; null: all of it. */
export const regionOfPlan = ({ part }: Pick<EntryOf<"plan">["body"], "part">): Region | null => part && part.outlines.map(pointsOf);

/** What a thinning took off on the mean of the panel: a plan for a part of it takes off only there. */
export function takenOnMean(entries: readonly LedgerEntry[]): (thinning: Thinning) => number {
  const shares = new Map(entries.flatMap((e) => (e.kind === "plan" && e.body.part ? [[e.id, e.body.part.share] as const] : [])));
  return (t) => t.body.removal_m * (t.kind === "step" ? (shares.get(t.body.planId) ?? 1) : 1);
}

/** How much of the flat's removal a plan brings to a place: none on a taped rim or line, its hand's share in a strip worked by hand. */
function workedShareAt(
  plan: EntryOf<"plan">["body"],
  at: Point,
  outline: readonly Point[],
  bodyLines: readonly (readonly Point[])[],
): number {
  const edge_m = edgeDistance(at, outline);
  if (edge_m < (plan.judgedFrom_m ?? plan.tape_m) || !inRegion(at, regionOfPlan(plan))) return 0;
  const { edge, line } = plan.byHand;
  const strips = [
    ...(edge && edge_m < edge.within_m ? [edge.share] : []),
    ...(line && bodyLines.length > 0 && lineDistances([at], bodyLines)[0]! < line.within_m ? [line.share] : []),
  ];
  return Math.min(1, ...strips);
}

/** Work at single places since they were last read: what came off there beside the panel's own work. */
export interface LocalWorkDone {
  seq: number;
  zone: "run" | "spot";
  /** Empty in the steps of older plans, which did not say: everywhere that was noted. */
  at: Point[];
  removal_m: number;
  u_m: number;
}

export function localWorkDone(entries: readonly LedgerEntry[]): LocalWorkDone[] {
  const plans = new Map(entries.flatMap((e) => (e.kind === "plan" ? [[e.id, e.body] as const] : [])));
  return entries.flatMap((e): LocalWorkDone[] => {
    if (e.kind !== "step" || (e.body.zone !== "run" && e.body.zone !== "spot")) return [];
    const at = plans.get(e.body.planId)?.steps[e.body.index]?.at ?? [];
    return [
      {
        seq: e.seq,
        zone: e.body.zone,
        at: pointsOf(at),
        removal_m: Math.max(0, e.body.removal_m),
        u_m: e.body.u_m,
      },
    ];
  });
}
