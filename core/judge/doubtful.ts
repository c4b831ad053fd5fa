import type { Point } from "../kernel/geometry/geometry";
import { farReadings } from "../models/film/odd-reading";
import type { PhaseFilm, ReadSpot } from "../panel/film-record";
import type { Thinnest } from "./film-judge";

/**
 * Film that cannot be as it was read: readings of one spot that lie far apart, less over the clear than below it, or (no spot of its own) clear
 * worked out as less than none.
 */
export type DoubtfulFilm = { why: "apart" | "below"; spot: string; at: Point } | { why: "none"; spot: null; at: Point };

/** Standard uncertainties a film may be below nothing before it is asked about. */
const BEYOND = 2;

/** Clear so far below none is no rounding of a sanded edge, however doubtful. Default of ours. */
const WELL_BELOW_M = 10e-6;

/** What of a panel's readings has to be looked at again before its film is believed. */
export function doubtfulFilm(spots: readonly ReadSpot[], thinnest: Thinnest | null): DoubtfulFilm[] {
  const list = spots.flatMap((s): DoubtfulFilm[] => {
    const { name: spot, at, films, latest } = s;
    if (films.before?.scattered || latest?.film.scattered) return [{ why: "apart", spot, at }];
    return isBelow(s) ? [{ why: "below", spot, at }] : [];
  });
  const none = thinnest && thinnest.clear_m < -Math.min(WELL_BELOW_M, BEYOND * thinnest.u_m);
  return list.length === 0 && none ? [{ why: "none", spot: null, at: thinnest.at }] : list;
}

function isBelow({ films: { before }, latest }: ReadSpot): boolean {
  if (!before || !latest) return false;
  const clear_m = latest.film.film.mean_m - before.film.mean_m;
  return clear_m < -BEYOND * Math.hypot(before.film.uA_m, latest.film.film.uA_m);
}

/** Each entry of a spot's readings with which of them lie far from the middle of all; of two that disagree both do. */
export function entriesOf({ of }: PhaseFilm): { entryId: string; readings: { film_m: number; far: boolean }[] }[] {
  const far = farReadings(of.flatMap((e) => e.readings_m));
  let next = 0;
  return of.map(({ entryId, readings_m }) => ({ entryId, readings: readings_m.map((film_m) => ({ film_m, far: far[next++]! })) }));
}
