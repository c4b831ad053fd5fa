import type { Polygon } from "../../kernel/geometry/geometry";
import { requireNumber } from "../../kernel/guard";
import { type FieldPrior, FilmField } from "../../models/film/film-field";
import { type PlaceOnPanel, placeOf } from "../../models/panel-film/over-part";
import type { FilmFault } from "../faults";
import type { Skill } from "../mended";
import { type CuredPanel, type Nib, WORKED, ridgeAt } from "./cured";

/** What a place can be marked as, and what it can be said to have come of. */
export const MARK_KINDS = ["run", "thin", "nib"] as const;
export type MarkKind = (typeof MARK_KINDS)[number];
export type Cause = Skill | "dust";
/** What a fault of a kind can have come of. Common practice. */
export const CAUSES_OF = {
  run: ["pace", "distance", "overlap", "wait"],
  thin: ["pace", "distance", "overlap", "trigger", "edges"],
  nib: ["dust"],
} as const satisfies Record<MarkKind, readonly Cause[]>;

export interface Mark extends PlaceOnPanel {
  kind: MarkKind;
  cause: Cause | null;
}
export interface Reading extends PlaceOnPanel {
  film_m: number;
}
/** What somebody says of a panel who has read it, looked it over and worked on it. */
export interface JobSaid {
  readings: readonly Reading[];
  marks: readonly Mark[];
  /** Film at the thinnest, as judged from the readings; null where nothing was said. */
  least_m: number | null;
}

export interface FaultJudged extends PlaceOnPanel {
  kind: MarkKind;
  cause: Cause | null;
  found: boolean;
  /** What it was said to come of, where it was found. */
  named: Cause | null;
  /** A run stood so high before anything was done, and stands so high now, m. */
  height_m: number | null;
  left_m: number | null;
}

/** One thing of the judgement or the work that cost something, and how much of it there was: an area, a height, a film, or how many. */
export interface JobSlip {
  slip: "through" | "left" | "worn" | "missed" | "cause" | "least" | "needless" | "marked";
  amount: number;
  cost: number;
}

export interface JobJudged {
  faults: FaultJudged[];
  /** The clear of a hundredth of the part is thinner than this: before the work; as the readings say it, with its standard uncertainty; as it was said. */
  least: { true_m: number; judged: { mean_m: number; u_m: number } | null; said_m: number | null };
  /** Film of each cell as the readings say it; null with fewer than three. */
  belief_m: Float64Array | null;
  /** Dearest first. */
  slips: JobSlip[];
  cost: number;
}

/** So near a mark has found what it means; a run this low is level, a film so near to the true one well judged. Defaults of ours. */
const FOUND_M = { run: 0.09, thin: 0.15, nib: 0.035 } as const;
const LEVEL_M = 8e-6;
const NEAR_FILM = { share: 0.15, least_m: 5e-6 } as const;
/** From what was marked or stood out the work may go so far without being needless. */
const WORK_REACH_M = 0.15;
const NEEDLESS_M2 = 0.01;
const LEAST_SHARE = 0.01;
const READINGS_LEAST = 3;
const FILM_M = { min: 0, max: 5e-3 } as const;
/** What each costs, to put one before another: defaults of ours. */
const COSTS = {
  through: 1,
  left: 0.6,
  missed: { run: 0.5, thin: 0.4, nib: 0.08 },
  worn: 0.4,
  least: 0.3,
  cause: 0.25,
  needless: 0.15,
  marked: 0.1,
} as const;

/** A judgement that cost no more passes: two specks may be overlooked. Default of ours. */
export const JOB_PASSES = 0.2;

/**
 * What somebody said of a panel and did to it, against what is true of it.
 * @param o.planned_m film as planned @param o.floor_m clear that has to stay @throws RangeError
 */
export function judgedJob(
  panel: CuredPanel,
  said: JobSaid,
  o: { outline: Polygon; faults: readonly FilmFault[]; nibs: readonly Nib[]; planned_m: number; floor_m: number },
): JobJudged {
  requireNumber("planned_m", o.planned_m, FILM_M);
  requireNumber("floor_m", o.floor_m, FILM_M);
  if (said.least_m !== null) requireNumber("least_m", said.least_m, FILM_M);
  for (const { film_m } of said.readings) requireNumber("film_m", film_m, FILM_M);
  const { on, was_m, worked } = panel;
  const { film } = on;
  const open = [...said.marks];
  /** The nearest mark of its kind that is not taken yet. */
  const marked = ({ x_m, y_m }: PlaceOnPanel, kind: MarkKind): Mark | null => {
    const far = (m: Mark) => Math.hypot(m.x_m - x_m, m.y_m - y_m);
    const near = open.filter((m) => m.kind === kind && far(m) <= FOUND_M[kind]).sort((a, b) => far(a) - far(b))[0];
    if (!near) return null;
    open.splice(open.indexOf(near), 1);
    return near;
  };
  const faults: FaultJudged[] = [
    ...o.faults.map((f) => {
      const mark = marked(f, f.kind);
      const ridge = f.kind === "run";
      return {
        x_m: f.x_m,
        y_m: f.y_m,
        kind: f.kind,
        cause: f.cause,
        found: mark !== null,
        named: mark?.cause ?? null,
        height_m: ridge ? ridgeAt(on, was_m, f) : null,
        left_m: ridge ? ridgeAt(on, film.fixed_m, f) : null,
      };
    }),
    ...o.nibs.map(({ height_m, ...at }, k) => {
      const mark = marked(at, "nib");
      return {
        ...at,
        kind: "nib" as const,
        cause: "dust" as const,
        found: mark !== null,
        named: mark?.cause ?? null,
        height_m,
        left_m: panel.nibs[k]!.height_m,
      };
    }),
  ];
  const belief = beliefOf(panel, said.readings, o);
  const true_m = leastOf(panel, was_m).film_m;
  const slips: JobSlip[] = [];
  const slip = (kind: JobSlip["slip"], amount: number, cost: number) => {
    if (amount > 0) slips.push({ slip: kind, amount, cost });
  };
  const cells = (of: (c: number) => boolean) =>
    worked.reduce((n, _, c) => n + (film.inside[c] === 1 && of(c) ? 1 : 0), 0) * film.cell_m ** 2;
  const through_m2 = cells((c) => worked[c] === WORKED.through);
  slip("through", through_m2, COSTS.through + 20 * through_m2);
  const standing = faults.filter((f) => f.kind === "run" && f.found && f.left_m! > LEVEL_M);
  slip("left", Math.max(0, ...standing.map((f) => f.left_m!)), COSTS.left * standing.length);
  slip(
    "worn",
    cells((c) => worked[c] === WORKED.sanded && film.fixed_m[c]! < o.floor_m && was_m[c]! >= o.floor_m),
    COSTS.worn,
  );
  const missed = faults.filter((f) => !f.found);
  slip(
    "missed",
    missed.length,
    missed.reduce((sum, f) => sum + COSTS.missed[f.kind], 0),
  );
  const misnamed = faults.filter((f) => f.found && f.cause !== null && f.named !== f.cause);
  slip("cause", misnamed.length, COSTS.cause * misnamed.length);
  const off_m = said.least_m === null ? true_m : Math.abs(said.least_m - true_m);
  slip("least", off_m > Math.max(NEAR_FILM.least_m, NEAR_FILM.share * true_m) ? off_m : 0, COSTS.least);
  const toWork = [...faults.filter((f) => f.kind !== "thin"), ...said.marks];
  const needless_m2 = cells((c) => {
    if (worked[c] === WORKED.not) return false;
    const at = placeOf(on, c);
    return toWork.every((f) => Math.hypot(f.x_m - at.x_m, f.y_m - at.y_m) > WORK_REACH_M);
  });
  slip("needless", needless_m2 > NEEDLESS_M2 ? needless_m2 : 0, COSTS.needless);
  slip("marked", open.length, COSTS.marked * open.length);
  slips.sort((a, b) => b.cost - a.cost);
  return {
    faults,
    least: { true_m, judged: belief && { mean_m: belief.least_m, u_m: belief.u_m }, said_m: said.least_m },
    belief_m: belief && belief.film_m,
    slips,
    cost: slips.reduce((sum, s) => sum + s.cost, 0),
  };
}

/** The film below which a hundredth of the part lies, and a cell where it is so. */
function leastOf({ on: { film } }: CuredPanel, film_m: ArrayLike<number>): { film_m: number; cell: number } {
  const inside = Array.from(film.inside.keys()).filter((c) => film.inside[c] === 1);
  inside.sort((a, b) => film_m[a]! - film_m[b]!);
  const cell = inside[Math.floor(LEAST_SHARE * inside.length)]!;
  return { film_m: film_m[cell]!, cell };
}

/** The gauge stood at zero on what lies below: no doubt of that. */
const ZEROED: Partial<FieldPrior> = { under_m: 0, uUnder_m: 1e-7, sdUnder_m: 1e-7 };

/** The film over the part as the program judges it from these readings alone. */
function beliefOf(
  panel: CuredPanel,
  readings: readonly Reading[],
  { outline, planned_m }: { outline: Polygon; planned_m: number },
): { film_m: Float64Array; least_m: number; u_m: number } | null {
  if (readings.length < READINGS_LEAST) return null;
  const observations = readings.map(({ x_m, y_m, film_m }) => ({
    at: [x_m, y_m] as const,
    layer: "after" as const,
    total_m: film_m,
    n: 1,
  }));
  const field = new FilmField(observations, outline, { ...ZEROED, clear_m: planned_m });
  const { film } = panel.on;
  const inside = Array.from(film.inside.keys()).filter((c) => film.inside[c] === 1);
  const { mean_m, sd_m } = field.predict(
    inside.map((c) => {
      const { x_m, y_m } = placeOf(panel.on, c);
      return [x_m, y_m] as const;
    }),
  );
  const film_m = new Float64Array(film.inside.length);
  const u_m = new Float64Array(film.inside.length);
  inside.forEach((c, k) => {
    film_m[c] = Math.max(0, mean_m[k]!);
    u_m[c] = sd_m[k]!;
  });
  const least = leastOf(panel, film_m);
  return { film_m, least_m: least.film_m, u_m: u_m[least.cell]! };
}
