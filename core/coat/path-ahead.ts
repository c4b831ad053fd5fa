import type { Polygon } from "../kernel/geometry/geometry";
import { type ShopFactors, simulateCoats } from "../models/flow/simulate-coats";
import type { FilmConditions } from "../models/panel-film/panel-film";
import type { PathCoat } from "../models/panel-film/planned-path";
import { SPRAY } from "../models/spray/constants";
import type { GunSettings } from "../models/spray/deposit";
import { filmDoubt } from "../models/spray/film-doubt";
import { type RowPlan, USUAL_ROWS } from "../models/spray/row-plan";
import { USUAL_STROKES } from "../models/spray/strokes";
import { type CoatAhead, type CoatsAsked, coatsAhead } from "./coats-ahead";
import { handGun } from "./next-coat";

/** A path as somebody means to go it: where the rows lie, how far they cover each other again, how quickly the hand moves before its way changes that. */
export interface PathSet {
  rows: RowPlan;
  overlap: number;
  handSpeed_m_s: number;
}

/** A path over a panel, all that its film is worked out from: plain data, for a worker. */
export interface PathAhead {
  outline: Polygon;
  conditions: FilmConditions;
  coats: (PathCoat & Pick<CoatAhead, "number">)[];
  shop?: ShopFactors | undefined;
  u_filmLog?: number | undefined;
  /** Film of all its coats where rows meet rows on both sides, as the coats' owner has it, and its doubt. */
  middle_m: number;
  u_middle_m: number;
  /** So many of its coats are on; so many to come go over a place only and are not in it. */
  laid: number;
  placesOnly: number;
}

/** The path as it is now: as it was planned for the panel, with the gun in the hand. */
export function pathNow(asked: CoatsAsked): PathSet {
  const { overlap, handSpeed_m_s } = handGun(asked).settings;
  return { rows: asked.brief.rows ?? USUAL_ROWS, overlap, handSpeed_m_s };
}

/** The coats with a path tried: asked of their owner, so that gun, film and waits are what they would be once it is taken. */
const withPath = (asked: CoatsAsked, { rows, overlap, handSpeed_m_s }: PathSet): CoatsAsked => ({
  ...asked,
  brief: { ...asked.brief, rows },
  tried: { overlap, handSpeed_m_s },
});

/** What a path over a panel is sprayed with, coat after coat from those that lie wet there on; null where a setting lies beyond the model, or no coat goes over the whole part. */
export function pathAhead(asked: CoatsAsked, set: PathSet): PathAhead | null {
  const { brief, way, shop, shopFilm } = asked;
  const ahead = coatsAhead(withPath(asked, set));
  const whole = ahead?.filter((c) => c.zone === "whole");
  const [first] = whole ?? [];
  if (!ahead || !whole || !first) return null;
  const coatOf = (gun: GunSettings, rest: Pick<PathCoat, "reducer" | "flash_s" | "rows"> & { number: number }) => ({
    gun,
    handSpeed_m_s: gun.handSpeed_m_s,
    overlap: gun.overlap,
    trigger: way.trigger,
    turn_s: USUAL_STROKES.turn_s,
    ...rest,
  });
  const lie = first.build.slice(0, first.laid);
  const laid_m = lie.length > 0 ? simulateCoats(first.conditions, lie, shop ? { shop } : {}).coats.map((c) => c.deposit.dry_m) : [];
  const films_m = [...laid_m, ...whole.map((c) => c.dry_m)];
  return {
    outline: brief.shape.outline,
    conditions: first.conditions,
    coats: [
      ...lie.map(({ gun, reducer, flash_s }, i) =>
        coatOf(gun, { number: first.number - lie.length + i, reducer, flash_s, rows: brief.rows }),
      ),
      ...whole.map(({ gun, number, reducer }, n) =>
        // The wait that the next coat was asked with; sanded between, it goes on what has set.
        coatOf(gun, { number, reducer, flash_s: whole[n + 1]?.build.at(-2)?.flash_s ?? null, rows: set.rows }),
      ),
    ],
    shop,
    u_filmLog: shopFilm?.u_log,
    middle_m: films_m.reduce((a, m) => a + m, 0),
    u_middle_m: filmDoubt(films_m, shopFilm?.u_log ?? SPRAY.shopLogSd),
    laid: lie.length,
    placesOnly: ahead.length - whole.length,
  };
}
