import { requireInteger, requireNumber } from "../kernel/guard";
import { type Point, edgeDistances, lineDistances } from "../kernel/geometry/geometry";
import { inRegion } from "../kernel/geometry/region";
import { normalCdf } from "../kernel/stats/normal";
import { FilmField, type Prediction } from "../models/film/film-field";
import { edgeMultiplier } from "./cell-risk";
import { type FilmFacts, type StackHypothesis, isInferred, stackHypotheses, stepsAt, tooFewReadings } from "./film-facts";
import { type FilmDraws, type WorkedCells, allowedRemoval, drawFilm, tooMuch } from "./film-draws";
import { type PictureCells, type WorkedPlace, judgeCells, pictureCells, stripShares, workedShare } from "./judge-cells";
import {
  CUT_GUARD_M,
  DEFAULT_TAPE_M,
  FILM_UNEVEN,
  THIN_AREA_SHARE,
  UNMEASURED,
  USUAL_REMOVAL_DOUBT,
  VERDICT_LIMITS,
  verdictOf,
} from "./limits";

/** Clear at a place, with its standard uncertainty. */
export interface ClearThere {
  clear_m: number;
  u_m: number;
}
export type Thinnest = ClearThere & { at: Point };

/** Work on the whole panel: what a plan or a slider would take off its flat, and where it is taken off. */
export interface PanelWork extends WorkedPlace {
  removal_m: number;
  u_m: number;
}
/** Work at one place only: a nib, a run. What comes off there beside the panel's own work. */
export interface LocalTask {
  at: Point;
  removal_m: number;
  u_m: number;
  /** Taken off there already by local work since the film was read, with its doubt. */
  done_m?: number;
  uDone_m?: number;
  /** A tool that may slip: how likely, and how much deeper then (mean, standard deviation). */
  gouge?: { chance: number; depth_m: number; u_m: number } | undefined;
}
export interface Work {
  /** Null: nothing is done to the panel as a whole. */
  panel: PanelWork | null;
  local: readonly LocalTask[];
  floor_m: number;
  /** The same work as it would be once its first step was read at so many marks and came out as forecast. */
  measured?: readonly { places: MarkPlaces; work: Work }[] | undefined;
}

/** Places at which a step is read: one where that settles it, else three. */
export const MARK_PLACES = [1, 3] as const;
export type MarkPlaces = (typeof MARK_PLACES)[number];

export interface Risk {
  verdict: "safe" | "caution" | "stop";
  cutChance: number;
  thinChance: number;
  /** Chance of cutting through, and of less than the floor, at each local task, in their order. */
  local: { cut: number; thin: number }[];
}

/** What may come off a panel's flat: how likely each removal is to be too much. */
export interface Allowance {
  /** Removal each draw would allow, ascending: the chance of a removal is the share of draws that allow less. */
  cut_m: Float64Array;
  thin_m: Float64Array;
  /** Largest removal that keeps to the limits of *safe*; may be negative. */
  safe_m: number;
  /** The doubt of the removal it was asked for, a share of it. */
  uRel: number;
}

/** Asked at its own safe removal, the judge must not stumble over the last digit of u ÷ removal. */
const JUST_BELOW = 1 - 1e-9;
const NO_LINES: readonly (readonly Point[])[] = [];
const MEAN_CELLS = { nx: 16, ny: 13 } as const;
/** What may come off at a place is looked for up to this, to a hundredth of a micron. */
const MOST_AT_PLACES_M = 60e-6;
const HALVINGS = 12;
const DRAWS = 1600;
/** A removal that takes nothing off, but is one. */
const NEXT_TO_NOTHING_M = 1e-12;
/** A history is drawn at least so often, however little it weighs. */
const LEAST_PAIRS = 10;

/**
 * The one judge of a panel's film: fits histories and field once, and answers every question about the clear from them: at a place, over the
 * panel, as a picture, what a work would risk, what may come off. See docs/models.md, "Judge".
 */
export class FilmJudge {
  readonly hypotheses: readonly StackHypothesis[];
  readonly inferred: boolean;
  private readonly draws: number;
  private readonly seed: number;
  private readonly filmError: number;
  private readonly uneven: number;
  private readonly assumed: number;
  private made: {
    picture?: PictureCells;
    fields?: { weight: number; field: FilmField }[];
    parts?: Part[];
    clear?: { mean_m: Float64Array; sd_m: Float64Array };
    cells?: { at: Int32Array; weight: Float64Array };
    drawn?: FilmDraws;
  } = {};

  /**
   * @param hypotheses from an earlier judge of the same facts; else they are fitted here
   * @param assumed how many of the readings are only expected, not taken
   * @throws RangeError for readings and outlines outside the models, or none over clear
   */
  constructor(
    readonly film: FilmFacts,
    {
      hypotheses,
      draws = DRAWS,
      seed = 1,
      assumed = 0,
    }: {
      hypotheses?: readonly StackHypothesis[] | undefined;
      draws?: number | undefined;
      seed?: number | undefined;
      assumed?: number;
    } = {},
  ) {
    this.draws = requireInteger("draws", draws, { min: 2, max: 1e5 });
    this.seed = seed;
    this.assumed = assumed;
    this.filmError = film.foil ? 0 : UNMEASURED.film;
    this.uneven = requireNumber("uneven", film.uneven ?? FILM_UNEVEN, { min: 0, max: 1 });
    this.inferred = isInferred(film.observations);
    this.hypotheses = hypotheses ?? stackHypotheses(film);
  }

  /** Clear at places, all histories by their weight. */
  at(places: readonly Point[]): ClearThere[] {
    const { outline, bodyLines = [] } = this.film;
    if (places.length === 0) return [];
    const edge_m = edgeDistances(places, outline);
    const line_m = lineDistances(places, bodyLines);
    const steps = stepsAt(this.film.steps, places);
    const { mean_m, sd_m } = this.mixed(
      this.fields().map(({ weight, field }) => ({
        weight,
        predicted: stepped(field.predict(places, field.basisOf(places, edge_m, line_m)), steps),
      })),
    );
    return places.map((_, i) => ({ clear_m: mean_m[i]!, u_m: sd_m[i]! }));
  }

  /** Mean clear over the whole panel, and how well that mean is known. */
  mean(): ClearThere {
    const each = this.fields().map((p) => ({ weight: p.weight, ...p.field.meanOverPanel(MEAN_CELLS) }));
    const smooth_m = each.reduce((a, e) => a + e.weight * e.mean_m, 0);
    const own = each.reduce((a, e) => a + e.weight * (e.u_m ** 2 + (e.mean_m - smooth_m) ** 2), 0);
    const { steps = [] } = this.film;
    const clear_m = steps.reduce((a, s) => a + s.areaShare * s.change_m, smooth_m);
    const variance = steps.reduce((a, s) => a + (s.areaShare * s.u_m) ** 2, own);
    return { clear_m, u_m: Math.hypot(Math.sqrt(variance), this.filmError * clear_m) };
  }

  /** The thinnest place outside a rim, of the whole panel or a part of it, as far as the readings tell. */
  thinnest({ rim_m = DEFAULT_TAPE_M, region = null }: Partial<Pick<WorkedPlace, "rim_m" | "region">> = {}): Thinnest {
    const picture = this.picture();
    const { mean_m, sd_m } = this.clear();
    const open = [...picture.points.keys()].filter((i) => picture.edge_m[i]! >= rim_m && inRegion(picture.points[i]!, region));
    const all = open.length > 0 ? open : [...picture.points.keys()];
    const least = all.reduce((a, i) => (mean_m[i]! < mean_m[a]! ? i : a));
    return { at: picture.points[least]!, clear_m: mean_m[least]!, u_m: sd_m[least]! };
  }

  /** Clear and its standard uncertainty in every cell of the picture. */
  clear(): { mean_m: Float64Array; sd_m: Float64Array } {
    return (this.made.clear ??= this.mixed(this.parts()));
  }

  picture(): PictureCells {
    return (this.made.picture ??= pictureCells(this.film.outline, this.film.bodyLines ?? NO_LINES));
  }

  /** Beliefs of the likeliest history. */
  prior(): FilmField["prior"] {
    return this.fields().reduce((a, p) => (p.weight > a.weight ? p : a)).field.prior;
  }

  /** What each draw would let come off the flat, for a removal whose doubt is a given share of it. @throws RangeError, also for fewer than three spots */
  allowance({ uRel, ...ask }: Omit<PanelWork, "removal_m" | "u_m"> & { uRel: number; floor_m: number; cutFloor_m?: number }): Allowance {
    const { cut, thin } = allowedRemoval(this.drawn(), this.workedCells({ ...ask, uRel }));
    const [cut_m, thin_m] = [cut.toSorted(), thin.toSorted()];
    return {
      cut_m,
      thin_m,
      uRel,
      safe_m: JUST_BELOW * Math.min(quantile(cut_m, VERDICT_LIMITS.safe.cut), quantile(thin_m, VERDICT_LIMITS.safe.thin)),
    };
  }

  /**
   * What a work risks, at the places where it is done. Too thin: more than 2 % of the worked area below the floor; where only single places
   * are worked, any of them. Cut through: any worked place. @throws RangeError for figures out of range
   */
  risk({ panel, local, floor_m }: Work): Risk {
    requireNumber("floor_m", floor_m, { min: 0, max: 1e-3 });
    const { count } = this.drawn();
    const removal_m = panel ? requireNumber("removal_m", panel.removal_m, { min: 0, max: 1e-3 }) : 0;
    const uRel = panel && removal_m > 0 ? requireNumber("u_m", panel.u_m, { min: 0, max: 1e-3 }) / removal_m : null;
    const { cut, thin } =
      panel && uRel !== null
        ? tooMuch(this.drawn(), removal_m, this.workedCells({ ...panel, uRel, floor_m }))
        : { cut: new Float64Array(count), thin: new Float64Array(count) };
    const each = this.localRisk(local, panel, floor_m);
    each.forEach((place) => {
      for (let d = 0; d < count; d++) {
        cut[d] = 1 - (1 - cut[d]!) * (1 - place.cut[d]!);
        if (removal_m <= 0) thin[d] = 1 - (1 - thin[d]!) * (1 - place.thin[d]!);
      }
    });
    const mean = (xs: Float64Array) => xs.reduce((a, b) => a + b, 0) / count;
    const [cutChance, thinChance] = [mean(cut), mean(thin)];
    return {
      verdict: verdictOf({ cut: cutChance, thin: thinChance }),
      cutChance,
      thinChance,
      local: each.map((place) => ({ cut: mean(place.cut), thin: mean(place.thin) })),
    };
  }

  /** What the same places risk with nothing done to them: too thin, or through, as they are. */
  asItIs({ panel, local, floor_m }: Work): Pick<Risk, "cutChance" | "thinChance"> {
    return this.risk({
      panel: panel && { ...panel, removal_m: NEXT_TO_NOTHING_M, u_m: 0 },
      local: local.map(({ at, done_m = 0, uDone_m = 0 }) => ({ at, removal_m: 0, u_m: 0, done_m, uDone_m })),
      floor_m,
    });
  }

  /** Of places that are worked singly the one with the least clear. @throws RangeError for none */
  thinnestOf(places: readonly Point[]): Thinnest {
    requireInteger("places", places.length, { min: 1 });
    const there = this.at(places);
    const least = there.reduce((a, c, i) => (c.clear_m < there[a]!.clear_m ? i : a), 0);
    return { at: places[least]!, ...there[least]! };
  }

  /** The most that may come off at places that are worked singly, at the one where most does, within the limits of *safe*; 0 where nothing may. */
  safeAtPlaces(local: readonly LocalTask[], floor_m: number): number {
    const most_m = Math.max(0, ...local.map((t) => t.removal_m));
    const scaledTo = (removal_m: number) =>
      local.map((t): LocalTask => {
        const share = most_m > 0 ? removal_m / most_m : 1;
        return most_m > 0
          ? { ...t, removal_m: share * t.removal_m, u_m: share * t.u_m }
          : { ...t, removal_m, u_m: USUAL_REMOVAL_DOUBT * removal_m };
      });
    const safe = (removal_m: number) => this.risk({ panel: null, local: scaledTo(removal_m), floor_m }).verdict === "safe";
    if (!safe(0)) return 0;
    let [low, high] = [0, MOST_AT_PLACES_M];
    for (let i = 0; i < HALVINGS; i++) {
      const middle = (low + high) / 2;
      if (safe(middle)) low = middle;
      else high = middle;
    }
    return low;
  }

  private workedCells({
    rim_m,
    byHand,
    region,
    uRel,
    floor_m,
    cutFloor_m = CUT_GUARD_M,
  }: WorkedPlace & { uRel: number; floor_m: number; cutFloor_m?: number }): WorkedCells {
    requireNumber("uRel", uRel, { min: 0, max: 10 });
    requireNumber("floor_m", floor_m, { min: 0, max: 1e-3 });
    const { at, weight } = this.cells();
    const whole = workedShare(this.picture(), { rim_m, byHand, region });
    return { share: Float64Array.from(at, (i) => whole[i]!), weight, uRel, cutFloor_m, floor_m, areaShare: THIN_AREA_SHARE };
  }

  /** Chance at each local task, draw by draw: the film of the nearest judged cell, moved to what is believed of the place itself. */
  private localRisk(local: readonly LocalTask[], panel: PanelWork | null, floor_m: number): { cut: Float64Array; thin: Float64Array }[] {
    if (local.length === 0) return [];
    const draws = this.drawn();
    const { outline, bodyLines = [] } = this.film;
    const picture = this.picture();
    const { at: judged } = this.cells();
    const cellClear = this.clear();
    const places = local.map((t) => t.at);
    const there = this.at(places);
    const edge_m = edgeDistances(places, outline);
    const distances = { edge_m, line_m: lineDistances(places, bodyLines) };
    const shares = panel ? stripShares(distances, panel.byHand ?? {}) : null;
    return local.map((task, k) => {
      requireNumber(`local[${k}].removal_m`, task.removal_m, { min: 0, max: 5e-3 });
      requireNumber(`local[${k}].u_m`, task.u_m, { min: 0, max: 5e-3 });
      const near = nearest(task.at, judged, picture);
      const cell = judged[near]!;
      const spread = cellClear.sd_m[cell]! > 0 ? there[k]!.u_m / cellClear.sd_m[cell]! : 1;
      const uLocal_m = Math.hypot(task.u_m, task.uDone_m ?? 0);
      const worked = panel && edge_m[k]! >= panel.rim_m && inRegion(task.at, panel.region);
      const panelShare = worked && shares ? shares[k]! * edgeMultiplier(edge_m[k]!) : 0;
      const panel_m = panelShare * (panel?.removal_m ?? 0);
      const panelRel = panel && panel.removal_m > 0 ? panel.u_m / panel.removal_m : 0;
      const cut = new Float64Array(draws.count);
      const thin = new Float64Array(draws.count);
      for (let d = 0; d < draws.count; d++) {
        const q = d * draws.cells + near;
        const film = there[k]!.clear_m + spread * (draws.film_m[q]! - cellClear.mean_m[cell]!);
        const taken =
          panel_m * (draws.uneven[q]! + panelRel * draws.panelError[d]!) +
          task.removal_m * draws.uneven[q]! +
          uLocal_m * draws.localError[d]! +
          (task.done_m ?? 0);
        cut[d] = below(film - taken - CUT_GUARD_M, task.gouge);
        thin[d] = below(film - taken - floor_m, task.gouge);
      }
      return { cut, thin };
    });
  }

  private cells() {
    return (this.made.cells ??= judgeCells(this.picture()));
  }

  /** The field of each history, all weights together 1. */
  private fields(): { weight: number; field: FilmField }[] {
    const { observations, outline, bodyLines = [] } = this.film;
    const total = this.hypotheses.reduce((a, w) => a + w.weight, 0);
    return (this.made.fields ??= this.hypotheses.map(({ weight, prior }) => ({
      weight: weight / total,
      field: new FilmField(observations, outline, prior, { assumed: this.assumed, bodyLines }),
    })));
  }

  /** The same with what they say of every cell of the picture. */
  private parts(): Part[] {
    const { points, edge_m, line_m } = this.picture();
    let basis: Float64Array | undefined;
    let steps: ReturnType<typeof stepsAt> | undefined;
    return (this.made.parts ??= this.fields().map(({ weight, field }) => {
      basis ??= field.basisOf(points, edge_m, line_m);
      steps ??= stepsAt(this.film.steps, points);
      return { weight, field, predicted: stepped(field.predict(points, basis), steps) };
    }));
  }

  /** Draws of all histories, as many of each as it weighs. */
  private drawn(): FilmDraws {
    const few = tooFewReadings(this.film.observations);
    if (few) throw new RangeError(few);
    return (this.made.drawn ??= this.draw());
  }

  private draw(): FilmDraws {
    const { at } = this.cells();
    const each = this.parts().map(({ weight, field, predicted }, i) =>
      drawFilm(
        { field, predicted, picture: this.picture(), at, steps: this.film.steps },
        {
          pairs: Math.max(LEAST_PAIRS, Math.round((this.draws / 2) * weight)),
          seed: this.seed + 7919 * i,
          filmError: this.filmError,
          uneven: this.uneven,
        },
      ),
    );
    if (each.length === 1) return each[0]!;
    const joined = (of: (d: FilmDraws) => Float32Array) => {
      const out = new Float32Array(each.reduce((a, d) => a + of(d).length, 0));
      let from = 0;
      for (const d of each) {
        out.set(of(d), from);
        from += of(d).length;
      }
      return out;
    };
    return {
      count: each.reduce((a, d) => a + d.count, 0),
      cells: at.length,
      film_m: joined((d) => d.film_m),
      uneven: joined((d) => d.uneven),
      panelError: joined((d) => d.panelError),
      localError: joined((d) => d.localError),
    };
  }

  private mixed(parts: readonly { weight: number; predicted: Pick<Prediction, "mean_m" | "sd_m"> }[]) {
    const n = parts[0]!.predicted.mean_m.length;
    const mean_m = new Float64Array(n);
    const square = new Float64Array(n);
    for (const { weight, predicted } of parts)
      for (let i = 0; i < n; i++) {
        mean_m[i]! += weight * predicted.mean_m[i]!;
        square[i]! += weight * (predicted.sd_m[i]! ** 2 + predicted.mean_m[i]! ** 2);
      }
    return {
      mean_m,
      sd_m: square.map((s, i) =>
        Math.hypot(Math.sqrt(Math.max(0, s - mean_m[i]! ** 2)), this.filmError * mean_m[i]!, this.uneven * mean_m[i]!),
      ),
    };
  }
}

interface Part {
  weight: number;
  field: FilmField;
  predicted: Prediction;
}

/** A field's prediction with the steps of the film on it. */
function stepped(predicted: Prediction, { change_m, variance }: ReturnType<typeof stepsAt>): Prediction {
  return {
    ...predicted,
    mean_m: predicted.mean_m.map((m, i) => m + change_m[i]!),
    sd_m: predicted.sd_m.map((s, i) => Math.sqrt(s * s + variance[i]!)),
  };
}

const quantile = (sorted: Float64Array, p: number) => sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))]!;

/** 1 where the margin is gone; else the chance that a slip of the tool takes it. */
function below(margin_m: number, gouge: LocalTask["gouge"]): number {
  if (margin_m < 0) return 1;
  return gouge ? gouge.chance * normalCdf((gouge.depth_m - margin_m) / gouge.u_m) : 0;
}

function nearest([x, y]: Point, judged: Int32Array, picture: PictureCells): number {
  let best = 0;
  let least = Infinity;
  for (let k = 0; k < judged.length; k++) {
    const [px, py] = picture.points[judged[k]!]!;
    const d = (px - x) ** 2 + (py - y) ** 2;
    if (d < least) [best, least] = [k, d];
  }
  return best;
}
