import { requireInteger, requireNumber } from "../../kernel/guard";
import { STEP_SPREAD } from "./learn-removal";
import type { Removal } from "./removal-plan";

type Loads = Readonly<Record<string, number>>;

/**
 * What one reading at a mark told. Every removal leans on unknowns of mean 0 and standard deviation 1, each by its own part in metres: those that
 * several steps share (how deep a backing scratches, what nobody has measured here) and, of a step that was read, its own.
 */
export interface ToldMark {
  /** Parts of the marked step's doubt, by unknown, as they were before this reading. */
  along_m: Loads;
  /** Variance of the reading about its forecast, m². */
  variance_m2: number;
  /** Read less forecast. */
  more_m: number;
}
/** What the marks of a panel told, in their order. */
export type MarkConditions = readonly ToldMark[];
export const NO_MARKS: MarkConditions = [];

/** Film read at marks of one step: the mean over so many places, with the doubt that the gauge leaves in it. */
export interface MarkRead extends Pick<Removal, "removal_m" | "u_m"> {
  places?: number;
}

/** Of a step that was read at a mark: what of its doubt is its own, under a name of its own. */
const OWN = "own";
const squares = (loads: Loads): number => Object.values(loads).reduce((a, c) => a + c * c, 0);
const dot = (a: Loads, b: Loads): number => Object.entries(a).reduce((sum, [name, part]) => sum + part * (b[name] ?? 0), 0);
const plus = (a: Loads, b: Loads, factor: number): Loads =>
  Object.fromEntries([...new Set([...Object.keys(a), ...Object.keys(b)])].map((name) => [name, (a[name] ?? 0) + factor * (b[name] ?? 0)]));

/** A removal with what of its doubt it shares with no other under a name, so that what a mark tells of it is kept with the rest. */
export const withOwn = <R extends Removal>(removal: R, name: string = OWN): R => {
  const shared = removal.common_m ?? {};
  const own2 = removal.u_m ** 2 - squares(shared);
  return own2 > 0 && !(name in shared) ? { ...removal, common_m: { ...shared, [name]: Math.sqrt(own2) } } : removal;
};

/** Share of the doubt along a marked step that a reading leaves. */
const leftAlong = ({ along_m, variance_m2 }: ToldMark): number => Math.sqrt(Math.max(0, 1 - squares(along_m) / variance_m2));

interface Leaning {
  shift_m: number;
  loads: Loads;
}
/**
 * Normal conditioning, mark by mark: a unit normal whose variance along v is cut to a share is again one of unit normals, with every part turned by
 * the root of that. So what is known of several unknowns together is kept as well: that of the marked step and of those after it leans the same way.
 */
function conditioned(loads: Loads, told: MarkConditions): Leaning {
  return told.reduce<Leaning>(
    ({ shift_m, loads: now }, mark) => {
      const common = dot(now, mark.along_m);
      if (common === 0) return { shift_m, loads: now };
      const turned = plus(now, mark.along_m, (-(1 - leftAlong(mark)) * common) / squares(mark.along_m));
      return { shift_m: shift_m + (common / mark.variance_m2) * mark.more_m, loads: turned };
    },
    { shift_m: 0, loads },
  );
}

const withLoads = <R extends Removal>(removal: R, { shift_m, loads }: Leaning): R => ({
  ...removal,
  removal_m: Math.max(0, removal.removal_m + shift_m),
  u_m: Math.sqrt(Math.max(0, removal.u_m ** 2 - squares(removal.common_m ?? {}) + squares(loads))),
  common_m: loads,
});

/** A removal as the marks have told it: moved, and with less doubt. It never comes out below nothing. */
export function conditionedOnMarks<R extends Removal>(removal: R, told: MarkConditions): R {
  const before = removal.common_m ?? {};
  const now = conditioned(before, told);
  return now.loads === before ? removal : withLoads(removal, now);
}

/**
 * What is told once a step was read at a mark. The reading is the step's forecast plus the mark's own doubt and 17 % from place to place, less with
 * several places; all unknowns of the step are conditioned on it together.
 * @param forecast the step before any mark was read @param name of what is the step's own, where others are to be held against it
 * @throws RangeError for a doubt below nothing
 */
export function withMark(told: MarkConditions, forecast: Removal, mark: MarkRead, name: string = OWN): MarkConditions {
  requireNumber("forecast.u_m", forecast.u_m, { min: 0 });
  const read_m = requireNumber("mark.removal_m", mark.removal_m);
  const places = requireInteger("mark.places", mark.places ?? 1, { min: 1 });
  const { shift_m, loads } = conditioned(withOwn(forecast, name).common_m ?? {}, told);
  const place_m = (STEP_SPREAD * forecast.removal_m) / Math.sqrt(places);
  const variance_m2 = squares(loads) + requireNumber("mark.u_m", mark.u_m, { min: 0 }) ** 2 + place_m ** 2;
  if (squares(loads) === 0 || variance_m2 === 0) return told;
  return [...told, { along_m: loads, variance_m2, more_m: read_m - forecast.removal_m - shift_m }];
}

/** The forecast of before any mark, from one that they had already gone into: the same conditioning turned round. */
export function unconditioned<R extends Removal>(removal: R, told: MarkConditions): R {
  const before = removal.common_m ?? {};
  const then = told.toReversed().reduce<Leaning>(
    ({ shift_m, loads }, mark) => {
      const common = dot(loads, mark.along_m);
      if (common === 0) return { shift_m, loads };
      const left = leftAlong(mark);
      const turned = plus(loads, mark.along_m, ((1 / left - 1) * common) / squares(mark.along_m));
      return { shift_m: shift_m - (dot(turned, mark.along_m) / mark.variance_m2) * mark.more_m, loads: turned };
    },
    { shift_m: 0, loads: before },
  );
  return then.loads === before ? removal : withLoads(removal, then);
}

/** Steps of a work once one of them was read at a mark: all as it told them. */
export function afterMark<R extends Removal>(steps: readonly R[], marked: number, mark: MarkRead): R[] {
  const step = steps[marked]!;
  const told = withMark(NO_MARKS, step, mark);
  return steps.map((s, i) => conditionedOnMarks(i === marked ? withOwn(s) : s, told));
}

/** Readings that a mark is usually given, before and after each. Common practice. */
const READINGS_AT_MARK = 3;
/** Doubt of what came off at a mark so read. */
export const uAtMark_m = (repeatability_m: number): number => repeatability_m * Math.sqrt(2 / READINGS_AT_MARK);

/** What is left of the doubt of steps once one of them is read at so many marks and comes out as forecast; the film that comes off stays the same. */
export const ifMarked = <R extends Removal>(steps: readonly R[], marked: number, repeatability_m: number, places = 1): R[] =>
  afterMark(steps, marked, { removal_m: steps[marked]!.removal_m, u_m: uAtMark_m(repeatability_m) / Math.sqrt(places), places });

/** Twice the covariance of two works: what their doubts have in common beside their squares, m². */
export const twiceCommon_m2 = (one: Removal, other: Removal): number => 2 * dot(one.common_m ?? {}, other.common_m ?? {});
