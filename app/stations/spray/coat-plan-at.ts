import { coatsAsked } from "#core/coat/asked";
import { type CoatAhead, coatsAhead } from "#core/coat/coats-ahead";
import { clearAfter } from "#core/coat/clear-after";
import { clearNow } from "#core/judge/how-known";
import { filmDoubt } from "#core/models/spray/film-doubt";
import type { HouseWay } from "#core/models/ways/way";
import type { CoatZone } from "#core/models/ways/terms";
import { overPanel } from "#core/panel/shop-film";
import { coatsOf, nextSide } from "#core/panel/coats-on";
import type { PanelView } from "#server/views/panel-view";

/** A coat as the plan shows it: on already, as it was logged, or to come. */
export interface PlanRow extends Pick<CoatAhead, "number" | "role" | "gun" | "wet_m" | "dry_m" | "u_dry_m"> {
  zone: CoatZone;
  clear_m: number;
  u_clear_m: number;
  /** What is to come: how it looks, whether it runs, the wait after it; null: it is on. */
  ahead: Pick<CoatAhead, "texture" | "verdict" | "runChance" | "sagLocal_m" | "wait"> | null;
}
export interface WayPlan {
  rows: PlanRow[];
  /** Film of all that is to come, with its doubt. */
  toCome: { dry_m: number; u_dry_m: number };
  /** Why nothing is to come: a setting lies beyond the model. */
  fault: string | null;
  /** The coats to come as the flow model is asked. */
  setting: Pick<CoatAhead, "conditions" | "build"> | null;
}

/** The coats of a way on a panel, those that are on as they were logged: of the job's own way by the server, of another in the window. */
export function wayPlan(view: PanelView, way: HouseWay, now_ms: number): WayPlan {
  const { state, shopFilm } = view;
  const asked = coatsAsked(view, now_ms, way);
  const side = nextSide(asked.facts, asked.brief);
  const ahead = coatsAhead(asked, side);
  const on = coatsOf(state, side);
  const laid_m = on.map((c) => (overPanel(c) ? c.predicted.dry_m : 0));
  const logged = on.map(({ entry: { body }, predicted }, i): PlanRow => {
    const so_far_m = laid_m.slice(0, i + 1);
    return {
      number: body.number,
      role: body.role,
      zone: body.zone,
      gun: body.settings,
      wet_m: predicted.wet_m,
      dry_m: laid_m[i]!,
      u_dry_m: filmDoubt([laid_m[i]!], shopFilm.u_log),
      clear_m: so_far_m.reduce((a, m) => a + m, 0),
      u_clear_m: filmDoubt(so_far_m, shopFilm.u_log),
      ahead: null,
    };
  });
  const none = { dry_m: 0, u_dry_m: 0 };
  if (!ahead) return { rows: logged, toCome: none, fault: "A setting lies beyond what the flow model knows.", setting: null };
  const film_m = ahead.map((c) => c.dry_m);
  const rows = ahead.map((c, i): PlanRow => {
    const ahead_m = film_m.slice(0, i + 1);
    const { clear_m, u_m } = clearAfter(state, side, { now: clearNow(state), ahead_m, u_log: shopFilm.u_log });
    const { number, role, zone, gun, wet_m, dry_m, u_dry_m, texture, verdict, runChance, sagLocal_m, wait } = c;
    return {
      number,
      role,
      zone,
      gun,
      wet_m,
      dry_m,
      u_dry_m,
      clear_m,
      u_clear_m: u_m,
      ahead: { texture, verdict, runChance, sagLocal_m, wait },
    };
  });
  return {
    rows: [...logged, ...rows],
    toCome: { dry_m: film_m.reduce((a, m) => a + m, 0), u_dry_m: filmDoubt(film_m, shopFilm.u_log) },
    fault: null,
    setting: ahead.at(-1) ?? null,
  };
}
