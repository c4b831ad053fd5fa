import { type Point, boundingBox, edgeDistances, gridInside } from "#core/kernel/geometry/geometry";
import { SHAPES, type ShapeKind, panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import { normals, seededRandom } from "#core/kernel/stats/random";
import { edgeMultiplier } from "#core/judge/cell-risk";
import type { FilmFacts } from "#core/judge/film-facts";
import type { PanelWork } from "#core/judge/film-judge";
import { CUT_GUARD_M, DEFAULT_FLOOR_M, DEFAULT_TAPE_M, THIN_AREA_SHARE, UNMEASURED } from "#core/judge/limits";
import { type Removal, scaled, sumOf } from "#core/models/correction/removal-plan";
import { afterMark, uAtMark_m } from "#core/models/correction/removal-on-marks";
import { pooledRepeatability } from "#core/models/film/gauge";
import type { FilmObservation } from "#core/models/film/film-field";
import { type HiddenPanel, trueFilm } from "#stand-ins/film-gauge";

const KINDS: ShapeKind[] = ["bonnet", "door", "wing", "quarter", "bootLid"];
const um = (x: number) => x * 1e-6;
/** A ladder's own relative doubt before anybody measures, and the share of it that the first step takes. */
const LADDER_U = 0.16;
const FIRST_STEP = 0.6;
/** One reading of the gauge. */
const READING_M = 1.6e-6;

/** How a truth departs from what the judge believes; all zero or 1: as assumed. */
export interface Departure {
  /** Streaks of the film, a share of it, and their spacing. */
  streak: number;
  spacing_m: number;
  /** Width of the edge zone, m. */
  edgeLength_m: number;
  /** The gauge's own error of scale and zero, the same before and after. */
  slope: number;
  offset_m: number;
  /** Readings with heavy tails. */
  heavy: boolean;
  /** What really comes off against a ladder's forecast, and how uneven the hand is. */
  removal: number;
  uneven: number;
  /** A slip somewhere, this deep; 0: none. */
  gouge_m: number;
  /** What a second world has beside or in place of those; the others have none of it. */
  other: OtherWorld | null;
}

/** How paint, gauge and hand go wrong in ways that the first misspecified world does not know; shares of what is there, or metres. */
export interface OtherWorld {
  /** From the upper edge to the lower, and from the middle to the sides. */
  sag: number;
  arc: number;
  /** Clear built up at the lower edge, and how far it reaches. */
  fatEdge_m: number;
  /** A pass that was missed in part: how much of it is wanting, where, how wide. */
  missed: number;
  missedAt: number;
  missedWidth_m: number;
  /** Patches of the base, and how far from each other the probe stands before and after. */
  patch_m: number;
  astray_m: number;
  /** The gauge between the visits, and tilted at an edge. */
  drift_m: number;
  tilt_m: number;
  /** Spots are read so much nearer to the middle than they are said to be. */
  inward: number;
  /** The hand presses harder to one side and at the edges, and paper wears over the panel. */
  press: number;
  edgePress: number;
  ageing: number;
}
export type StackHypothesis = "assumed" | "misspecified" | "second";

/** One simulated panel: what is really there, and what really happens when it is sanded. */
export interface Truth {
  filmAt(at: Point): number;
  facts(spots: number, known: Known): FilmFacts;
  work(known: Known): PanelWork;
  thin: boolean;
  cut: boolean;
  /** Share of the worked area that ends below the floor. */
  thinShare: number;
  places: Point[];
}
/** What the shop has measured beside the spots. */
export interface Known {
  /** Read before clear as well. */
  before: boolean;
  foil: boolean;
  /** Marks at which the first step was read. */
  marks: number;
}

export function departureOf(kind: StackHypothesis, random: () => number, normal: () => number): Departure {
  const between = (low: number, high: number) => low + (high - low) * random();
  if (kind === "assumed")
    return {
      streak: 0,
      spacing_m: 1,
      edgeLength_m: 0.03,
      slope: 1 + 0.0115 * normal(),
      offset_m: um(0.58 * normal()),
      heavy: false,
      removal: 1 + LADDER_U * normal(),
      uneven: 0.15,
      gouge_m: 0,
      other: null,
    };
  if (kind === "second")
    return {
      streak: between(0.03, 0.12),
      spacing_m: between(0.1, 0.25),
      edgeLength_m: between(0.015, 0.06),
      slope: 1 + between(-0.03, 0.03),
      offset_m: um(between(-1.5, 1.5)),
      heavy: true,
      removal: between(0.75, 1.25),
      uneven: between(0.12, 0.25),
      gouge_m: 0,
      other: {
        sag: between(-0.03, 0.12),
        arc: between(0, 0.12),
        fatEdge_m: um(between(0, 10)),
        missed: random() < 0.15 ? between(0.12, 0.25) : 0,
        missedAt: random(),
        missedWidth_m: between(0.05, 0.1),
        patch_m: um(between(1, 6)),
        astray_m: between(0.004, 0.02),
        drift_m: um(between(-1.5, 1.5)),
        tilt_m: um(between(0, 3)),
        inward: between(0, 0.15),
        press: between(-0.12, 0.12),
        edgePress: between(-0.2, 0.3),
        ageing: between(0, 0.2),
      },
    };
  return {
    streak: between(0.05, 0.15),
    spacing_m: between(0.08, 0.3),
    edgeLength_m: between(0.012, 0.08),
    slope: 1 + between(-0.04, 0.04),
    offset_m: um(between(-2, 2)),
    heavy: true,
    removal: between(1.15, 1.3),
    uneven: between(0.15, 0.3),
    gouge_m: random() < 0.02 ? um(between(5, 20)) : 0,
    other: null,
  };
}

/** @param k number of the panel: kind, film and readings follow from it and the seed alone */
export function simulate(k: number, kind: StackHypothesis): Truth {
  const random = seededRandom(41_000 + 17 * k + { assumed: 0, misspecified: 5, second: 11 }[kind]);
  const normal = normals(random);
  const shapeKind = KINDS[k % KINDS.length]!;
  const [width_m, height_m] = SHAPES[shapeKind].size_m;
  const { outline, bodyLines } = panelShape(shapeKind, { width_m, height_m });
  const d = departureOf(kind, random, normal);
  const hidden: HiddenPanel = {
    outline,
    bodyLines,
    under_m: um(Math.max(50, 95 + 18 * normal())),
    clear_m: um(Math.max(28, 60 + 12 * normal())),
    edge_m: 0,
    line_m: um(Math.min(0, -7 + 4 * normal())),
    wave_m: um(4 * Math.exp(0.45 * normal())),
    seed: 5000 + k,
  };
  const edge_m = um(Math.min(0, -11 + 5 * normal()));
  const phase = 2 * Math.PI * random();
  const { x0, y0, x1, y1 } = boundingBox(outline);
  const { other } = d;
  const patches: HiddenPanel = {
    ...hidden,
    clear_m: 0,
    under_m: 0,
    edge_m: 0,
    line_m: 0,
    wave_m: other?.patch_m ?? 0,
    seed: hidden.seed + 33,
  };
  const films = (points: readonly Point[]) => {
    const edges = edgeDistances(points, outline);
    return points.map((at, i) => {
      const { under_m, clear_m } = trueFilm(hidden, at);
      const streaks = 1 + d.streak * Math.cos((2 * Math.PI * (at[1] - y0)) / d.spacing_m + phase);
      const edge = edge_m * Math.exp(-edges[i]! / d.edgeLength_m);
      if (!other) return { under_m, clear_m: Math.max(0, clear_m * streaks + edge) };
      const [across, down] = [(2 * (at[0] - x0)) / (x1 - x0) - 1, (2 * (at[1] - y0)) / (y1 - y0) - 1];
      const inMissed = Math.abs(at[1] - y0 - other.missedAt * (y1 - y0)) < other.missedWidth_m / 2;
      const laid = clear_m * streaks * (1 + other.sag * down) * (1 - other.arc * across ** 2) * (inMissed ? 1 - other.missed : 1);
      return {
        under_m: Math.max(20e-6, under_m + trueFilm(patches, at).clear_m),
        clear_m: Math.max(0, laid + edge + other.fatEdge_m * Math.exp(-(y1 - at[1]) / 0.03)),
      };
    });
  };
  const sprayed_m = hidden.clear_m * Math.exp(0.25 * normal());
  const nominal_m = um(4 + 12 * random());
  const atMarks = Array.from({ length: 3 }, () => ({ read: normal(), uneven: normal() }));
  const noise = () => READING_M * (d.heavy ? normal() / Math.sqrt((normal() ** 2 + normal() ** 2 + normal() ** 2) / 3) : normal());
  const outcome = whatHappens();
  return {
    ...outcome,
    filmAt: (at) => films([at])[0]!.clear_m,
    places: gridInside(outline, { nx: 9, ny: 8 }).map((c) => c.point),
    facts: (spots, known) => {
      const at = suggestSpots(outline, spots, { bodyLines });
      // A foil check sets the gauge right to within its own repeatability.
      const [slope, offset_m] = known.foil ? [1 + 0.25 * (d.slope - 1), 0.25 * d.offset_m] : [d.slope, d.offset_m];
      const repeats: number[][] = [];
      const read = (total: number) => {
        const three = [0, 1, 2].map(() => slope * total + offset_m + noise());
        repeats.push(three);
        return Math.max(0, three.reduce((a, x) => a + x, 0) / 3);
      };
      // Where the probe truly stands at each visit, and what the gauge has come to by then.
      const stands = (p: Point): Point => {
        if (!other) return p;
        const near = (c: number, low: number, high: number) => (low + high) / 2 + (1 - other.inward) * (c - (low + high) / 2);
        return [near(p[0], x0, x1) + other.astray_m * normal(), near(p[1], y0, y1) + other.astray_m * normal()];
      };
      const [first, then] = other ? [films(at.map(stands)), films(at.map(stands))] : [films(at), films(at)];
      const edges = edgeDistances(at, outline);
      const drifts = (known.foil ? 0.25 : 1) * (other?.drift_m ?? 0);
      const tilted = (i: number) => (other ? other.tilt_m * Math.exp(-edges[i]! / 0.03) * Math.abs(normal()) : 0);
      const observations = at.flatMap((p, i): FilmObservation[] => [
        ...(known.before ? [{ at: p, layer: "before" as const, total_m: read(first[i]!.under_m + tilted(i)), n: 3 }] : []),
        { at: p, layer: "after", total_m: read(then[i]!.under_m + then[i]!.clear_m + tilted(i) + drifts), n: 3 },
      ]);
      return {
        outline,
        bodyLines,
        observations,
        history: { weights: { factory: 0.2, refinish: 0.8 }, sprayed: { clear_m: sprayed_m, u_m: 0.32 * sprayed_m } },
        foil: known.foil,
        repeatability_m: pooledRepeatability(repeats).repeatability_m,
      };
    },
    work: (known) => {
      const steps = known.marks > 0 ? marked(known.marks) : forecast();
      const { removal_m, u_m } = sumOf(steps);
      return { removal_m, u_m, rim_m: DEFAULT_TAPE_M };
    },
  };

  /** The ladder as a shop that has measured nothing takes it: two steps with one hand and one paper's depth in common. */
  function forecast(): Removal[] {
    const { factor, u } = UNMEASURED.removal;
    const whole_m = factor * nominal_m;
    const ladder = {
      removal_m: whole_m,
      u_m: Math.hypot(LADDER_U, u) * whole_m,
      common_m: { paper: LADDER_U * whole_m, unmeasured: u * whole_m },
    };
    return [scaled(ladder, FIRST_STEP), scaled(ladder, 1 - FIRST_STEP)];
  }

  /** The same once the first step was read at so many marks, where the hand took off as much as it happened to. */
  function marked(places: number): Removal[] {
    const u_m = uAtMark_m(READING_M);
    const each = atMarks.slice(0, places).map((m) => d.removal * (1 + d.uneven * m.uneven) * FIRST_STEP * nominal_m + u_m * m.read);
    const removal_m = each.reduce((a, m) => a + m, 0) / places;
    return afterMark(forecast(), 0, { removal_m, u_m: u_m / Math.sqrt(places), places });
  }

  /** The whole panel sanded: uneven from place to place, harder at the edge, and here and there a slip. */
  function whatHappens(): { thin: boolean; cut: boolean; thinShare: number } {
    const points = gridInside(outline).map((c) => c.point);
    const edges = edgeDistances(points, outline);
    const film = films(points);
    const hand: HiddenPanel = { ...hidden, clear_m: 1, wave_m: d.uneven, edge_m: 0, line_m: 0, seed: hidden.seed + 77 };
    const slip = d.gouge_m > 0 ? points[Math.floor(random() * points.length)]! : null;
    const left = points.flatMap((p, i) => {
      if (edges[i]! < DEFAULT_TAPE_M) return [];
      const across = (2 * (p[0] - x0)) / (x1 - x0) - 1;
      const own = other
        ? (1 + other.press * across) *
          (1 + other.edgePress * Math.exp(-edges[i]! / 0.03)) *
          (1 - other.ageing * ((p[1] - y0) / (y1 - y0) - 0.5))
        : 1;
      const bite = own * edgeMultiplier(edges[i]!) * Math.max(0.1, 1 + (trueFilm(hand, p).clear_m - 1));
      const slipped = slip && Math.hypot(p[0] - slip[0], p[1] - slip[1]) < 0.02 ? d.gouge_m : 0;
      return [film[i]!.clear_m - bite * d.removal * nominal_m - slipped];
    });
    const thinShare = left.filter((m) => m < DEFAULT_FLOOR_M).length / left.length;
    return {
      thinShare,
      thin: thinShare > THIN_AREA_SHARE,
      cut: left.some((m) => m < CUT_GUARD_M),
    };
  }
}
