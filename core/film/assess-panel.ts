import { requireNumber } from "../guard";
import type { Point } from "../panel/geometry";
import { type FilmInput, filmGrid, filmState, planReadings, possibleWorlds } from "./panel-film";
import { LEAST_SPOTS, type Verdict, verdictOf } from "./verdict";

export type { History } from "./panel-film";

export interface AssessInput extends FilmInput {
  /** Chance of cutting through where runs and nibs are worked, worked out beside the panel's own. */
  localCutChance?: number;
}

export interface Assessment {
  verdict: Verdict;
  /** Why there is no verdict, in plain words. */
  reason: string | null;
  cutChance: number;
  thinChance: number;
  /** Largest removal that keeps thin ≤ 5 % and cut ≤ 0.5 %; may be negative. */
  largestSafeRemoval_m: number;
  thinnest: { at: Point; clear_m: number; u_m: number } | null;
  meanClear_m: number;
  u_meanClear_m: number;
  inferred: boolean;
  /** Readings that are expected to make it safe when the verdict is "uncertain". */
  readingsWanted: { count: number; at: Point[] } | null;
}

const LOOK_AHEAD = [4, 8, 12] as const;
const LOOK_AHEAD_DRAWS = 800;
/** Half as fine as the map: only whether the chances pass the limits is asked. */
const LOOK_AHEAD_CELLS = { nx: 40, ny: 34 } as const;
const NOTHING: Omit<Assessment, "reason"> = {
  verdict: "none",
  cutChance: NaN,
  thinChance: NaN,
  largestSafeRemoval_m: NaN,
  thinnest: null,
  meanClear_m: NaN,
  u_meanClear_m: NaN,
  inferred: false,
  readingsWanted: null,
};

/** Why there is no verdict; null when there are readings enough. */
export function tooFewReadings(observations: FilmInput["observations"]): string | null {
  const after = observations.filter((o) => o.layer === "after").length;
  return after < LEAST_SPOTS ? `${after} of at least ${LEAST_SPOTS} spots read after clear: too few to judge the panel.` : null;
}

/**
 * Verdict on a removal for a whole panel from its spots: joint field of film, draws, the two chances, the largest safe removal, and
 * whether more readings would settle it. Without before-readings every possible history is worked through and weighted.
 * @throws RangeError for readings or outlines outside the models.
 */
export function assessPanel(input: AssessInput, { onProgress }: { onProgress?: (share: number) => void } = {}): Assessment {
  const { observations, localCutChance = 0 } = input;
  requireNumber("localCutChance", localCutChance, { min: 0, max: 1 });
  const reason = tooFewReadings(observations);
  if (reason) return { ...NOTHING, reason };
  const worlds = possibleWorlds(input);
  onProgress?.(0.2);
  const now = filmState(input, observations, { worlds, grid: filmGrid(input) });
  onProgress?.(0.5);
  const withLocal = (cut: number) => 1 - (1 - cut) * (1 - localCutChance);
  const cutChance = withLocal(now.cutChance);
  let verdict: Verdict = verdictOf({ cut: cutChance, thin: now.thinChance });
  let readingsWanted: Assessment["readingsWanted"] = null;
  if (verdict !== "safe" && now.meanMargin_m > 0) {
    const planned = planReadings(input, worlds[now.mainWorld]!.prior, Math.max(...LOOK_AHEAD));
    const grid = filmGrid(input, LOOK_AHEAD_CELLS);
    for (const [i, count] of LOOK_AHEAD.entries()) {
      onProgress?.(0.6 + 0.13 * i);
      const expected = planned.slice(0, count);
      const later = filmState(input, [...observations, ...expected], { worlds, grid, assumed: expected.length, draws: LOOK_AHEAD_DRAWS });
      if (verdictOf({ cut: withLocal(later.cutChance), thin: later.thinChance }) !== "safe") continue;
      verdict = "uncertain";
      readingsWanted = { count, at: expected.map((o) => o.at) };
      break;
    }
  }
  return {
    verdict,
    reason: null,
    cutChance,
    thinChance: now.thinChance,
    largestSafeRemoval_m: now.largestSafeRemoval_m,
    thinnest: now.thinnest,
    meanClear_m: now.meanClear_m,
    u_meanClear_m: now.u_meanClear_m,
    inferred: observations.every((o) => o.layer === "after"),
    readingsWanted,
  };
}
