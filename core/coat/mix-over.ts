import type { GunSettings } from "../models/spray/deposit";
import type { CoatVolume, PartOver } from "../models/spray/coat-over";
import type { HouseWay } from "../models/ways/way";
import { coatVolumes } from "../models/ways/way-volumes";
import type { Side } from "../record/kinds";

/** What a mix has to know of a coat to come. */
export interface MixCoat {
  /** Its place among the coats of its face. */
  number: number;
  gun: GunSettings;
  /** What its way adds to the reducer of the mix. */
  more: number;
  volume_m3: number;
  time_s: number;
  /** Film over the panel; null: beyond the flow model. */
  dry_m: number | null;
}
export interface MixFace {
  side: Side;
  coats: MixCoat[];
}

export interface MixOver {
  /** Faces of the panel itself with their coats to come; none where something else than its own clear is mixed. */
  own: readonly MixFace[];
  /** Other faces, each with all the coats of the way after so many. */
  others: readonly PartOver[];
  way: HouseWay;
  gun: GunSettings;
  after: number;
}

/** Material of each coat over all faces of a mix by the gun's strokes, and how long it takes. @throws RangeError */
export function mixOver({ own, others, way, gun, after }: MixOver, coats: number): { strokes_m3: number[]; coats_s: number[] } {
  const faces: (readonly Pick<CoatVolume, "volume_m3" | "time_s">[])[] = [
    ...own.map((f) => f.coats),
    ...others.map((part) => coatVolumes(way, { ...part, gun, coats: after + coats }).slice(after)),
  ];
  return {
    strokes_m3: eachCoat(
      faces.map((f) => f.map((c) => c.volume_m3)),
      coats,
    ),
    coats_s: eachCoat(
      faces.map((f) => f.map((c) => c.time_s)),
      coats,
    ),
  };
}

/**
 * One figure a coat over several faces, whose last coats go on together; beyond what is to come a further coat is as the last.
 * @param faces of each face a figure a coat to come @param coats as many as are asked for
 */
export function eachCoat(faces: readonly (readonly number[])[], coats: number): number[] {
  const longest = Math.max(0, ...faces.map((f) => f.length));
  return Array.from({ length: coats }, (_, i) =>
    faces.reduce((a, f) => a + (i < longest ? (f[i - longest + f.length] ?? 0) : (f.at(-1) ?? 0)), 0),
  );
}

/** A panel's own faces in a mix: both where both are asked for, else the one that is next. */
export function facesMixed(toCome: readonly MixFace[], how: "one" | "both" | undefined): readonly MixFace[] {
  if (how === undefined) return [];
  return how === "one" || toCome.length === 2 ? toCome.slice(0, how === "one" ? 1 : 2) : [...toCome, ...toCome];
}

/** Film of a coat on the mean of those to come; null: none is, or one lies beyond the model. */
export const filmOfCoat = (coats: readonly Pick<MixCoat, "dry_m">[]): number | null =>
  coats.length === 0 || coats.some((c) => c.dry_m === null) ? null : coats.reduce((a, c) => a + c.dry_m!, 0) / coats.length;

/** Film of each coat of a mix that comes to so much in all: in proportion to what is forecast. */
export function filmsMixed(
  ahead: readonly Pick<MixCoat, "dry_m">[],
  { coats, dryTotal_m }: { coats: number; dryTotal_m: number },
): number[] {
  const film_m = eachCoat([ahead.map((c) => c.dry_m ?? 0)], coats);
  const forecast_m = film_m.reduce((a, m) => a + m, 0);
  return film_m.map((m) => (forecast_m > 0 ? (m * dryTotal_m) / forecast_m : dryTotal_m / coats));
}
