import { z } from "zod";
import { rectangle } from "../kernel/geometry/geometry";
import { toSi } from "../kernel/units/convert";
import { filmFigures, middleOf } from "../models/panel-film/film-figures";
import { panelFilm } from "../models/panel-film/panel-film";
import { sprayRows, sprayer, waitOn } from "../models/panel-film/spray-rows";
import { rowsOver } from "../models/spray/row-plan";
import { fromUm, op, opsTable } from "./op";

const num = z.number();
const input = z.object({
  width: num,
  height: num,
  dx: num.default(0.005),
  tilt_deg: num.default(90),
  T_C: num.default(22),
  Tm_C: num.default(22),
  speed: z.enum(["fast", "medium", "slow"]).default("medium"),
  reducer: num.default(0),
  air: num.default(0.3),
  Q_ml: num.default(230),
  p_psi: num.default(28),
  d: num.default(0.175),
  overlap: num.default(0.5),
  v: num.default(0.34),
  held: z.boolean().default(false),
  turn: num.default(0.6),
  coats: z.int().min(1).max(20).default(1),
  flash: num.default(600),
  dwell: z.object({ x: num, y: num, s: num }).nullable().default(null),
  /** Steps of the reference; ours are its own. */
  dt: num.optional(),
  settle: num.default(900),
});

/** Solids by volume of the reference's clear. */
const VOLUME_SOLIDS = 0.475;
const CELSIUS_K = 273.15;

/** One panel, coats in rows, perhaps a dwell, then time to settle; units of the case file (m, °C, ml/min, psi, s). */
const sprayPanel = op(input, (i) => {
  const film = panelFilm(
    { width_m: i.width, height_m: i.height, cell_m: i.dx },
    {
      air_K: i.T_C + CELSIUS_K,
      material_K: i.Tm_C + CELSIUS_K,
      speed: i.speed,
      volumeSolids: VOLUME_SOLIDS,
      reducer: i.reducer,
      airSpeed_m_s: i.air,
      tilt_rad: (i.tilt_deg * Math.PI) / 180,
    },
  );
  const gun = {
    fluidRate_m3_s: toSi("fluidRate", i.Q_ml, "ml/min"),
    pressure_Pa: toSi("pressure", i.p_psi, "psi"),
    distance_m: i.d,
  };
  const hand = { handSpeed_m_s: i.v, turn_s: i.turn, held: i.held };
  for (let coat = 1; coat <= i.coats; coat++) {
    sprayRows(film, gun, (fan_m) => rowsOver(rectangle(i.width, i.height), { fan_m, overlap: i.overlap }), hand, coat);
    if (i.dwell) {
      const at = sprayer(film, gun, coat);
      const there = { x_m: i.dwell.x, y_m: i.dwell.y };
      at.moves(there, there, i.dwell.s, true);
      at.ends();
    }
    if (coat < i.coats) waitOn(film, i.flash);
  }
  waitOn(film, i.settle);
  const { sums } = film;
  const all = filmFigures(film);
  const middle = filmFigures(film, middleOf(film));
  return {
    used_ml: sums.used_m3 * 1e6,
    landed_share: sums.landed_m3 / sums.sprayed_m3,
    middle_mean_um: fromUm(middle.mean_m),
    middle_cv: middle.cv,
    least_um: fromUm(all.least_m),
    most_um: fromUm(all.most_m),
    travel_p50_mm: all.slideMiddle_m * 1e3,
    travel_most_mm: all.slideMost_m * 1e3,
    run_share: all.runShare,
  };
});
export const SPRAY_PANEL_OPS = opsTable({ "": sprayPanel });

/** The reference file keeps its cases by name: as a list. */
export function sprayPanelCases(json: unknown): unknown {
  const file = z.looseObject({ cases: z.record(z.string(), z.looseObject({ input: z.unknown() })) }).safeParse(json);
  return file.success ? Object.entries(file.data.cases).map(([id, c]) => ({ id, input: c.input })) : json;
}
