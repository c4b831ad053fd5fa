import { requireNumber } from "../../kernel/guard";
import { GUN_BOUNDS, requireWithin } from "../bounds";
import { FLOW } from "../flow/constants";
import { compositionAfter } from "../flow/drying";
import { type Pass, placeOnPass } from "../spray/strokes";
import type { PlaceOnPanel } from "./over-part";
import { PANEL_FILM } from "./constants";
import { flowStep } from "./flow-step";
import { type GunAtWork, coneOver, land } from "./land";
import type { PanelFilm } from "./panel-film";

/** Landing is worked out 60 times a second, flow four times. */
const LAND_S = 1 / 60;
const FLOW_S = 0.25;
const EPS = 1e-9;

export interface Hand {
  handSpeed_m_s: number;
  /** From the end of a pass to the start of the next. */
  turn_s: number;
  /** The trigger stays pulled meanwhile. */
  held: boolean;
}

/**
 * What a gun at work does to a panel, moment after moment: it lands as it moves, and the film flows all the while.
 * @param o.reducer of this coat, where it is not that of the panel's conditions @param o.turned the fan lies, for passes up and down
 */
export function sprayer(film: PanelFilm, gun: GunAtWork, coat: number, { reducer, turned: lies = false }: SprayerOptions = {}) {
  let cone = coneOver(film, gun, reducer);
  let owed_s = 0;
  const passes = (dt_s: number) => {
    owed_s += dt_s;
    if (owed_s < FLOW_S - EPS) return;
    flowStep(film, owed_s);
    owed_s = 0;
  };
  /** So long from one place to another in a straight line; the trigger pulled or not; the fan lying or not. */
  const moves = (from: PlaceOnPanel, to: PlaceOnPanel, seconds: number, pulled: boolean, turned = lies) => {
    const steps = Math.max(1, Math.round(requireNumber("seconds", seconds, { min: 0, max: 3600 }) / LAND_S));
    const dt_s = seconds / steps;
    if (dt_s === 0) return;
    for (let i = 0; i < steps; i++) {
      const share = (i + 0.5) / steps;
      const place = { x_m: from.x_m + (to.x_m - from.x_m) * share, y_m: from.y_m + (to.y_m - from.y_m) * share, turned };
      if (pulled) land(film, gun, cone, place, dt_s, coat);
      passes(dt_s);
    }
  };
  return {
    cone: () => cone,
    /** The gun is held or set otherwise from now on. */
    set(now: GunAtWork) {
      if (sameGun(now, gun)) return;
      gun = now;
      cone = coneOver(film, now, reducer);
    },
    moves,
    /** The gun is taken away: what is owed of the flow is made up. */
    ends() {
      if (owed_s > EPS) flowStep(film, owed_s);
      owed_s = 0;
    },
  };
}

interface SprayerOptions {
  reducer?: number | undefined;
  turned?: boolean | undefined;
}
const sameGun = (a: GunAtWork, b: GunAtWork): boolean =>
  a.distance_m === b.distance_m && a.fluidRate_m3_s === b.fluidRate_m3_s && a.pressure_Pa === b.pressure_Pa && a.fan_m === b.fan_m;

/**
 * One coat along rows, which may be laid out by the width of the gun's own fan.
 * @param reducer of this coat, where it is not that of the panel's conditions @throws RangeError
 */
export function sprayRows(
  film: PanelFilm,
  gun: GunAtWork,
  rows: readonly Pass[] | ((fan_m: number) => readonly Pass[]),
  { handSpeed_m_s, turn_s, held }: Hand,
  coat: number,
  reducer?: number,
): void {
  const v = requireWithin(GUN_BOUNDS, "handSpeed_m_s", handSpeed_m_s);
  const at = sprayer(film, gun, coat, { reducer });
  for (const pass of typeof rows === "function" ? rows(at.cone().fan_m) : rows) {
    const { x0_m, x1_m, turned } = pass;
    const end = placeOnPass(pass, x1_m);
    at.moves(placeOnPass(pass, x0_m), end, Math.abs(x1_m - x0_m) / v, true, turned);
    at.moves(end, end, turn_s, held, turned);
  }
  at.ends();
}

/** A longer step than usual moves no more than this of any cell. */
const WAIT_MOVES = 0.02;

/**
 * A wait with the gun away. As long as anything moves it goes in steps of at most `most_s`; what is then left is worked out in one go.
 * @param longest_s where all of it has become slow, steps may become so long: within 4 % of the slide, in a third of the time @throws RangeError
 */
export function waitOn(film: PanelFilm, seconds: number, most_s = 1, longest_s = most_s): void {
  requireNumber("seconds", seconds, { min: 0, max: 30 * 86_400 });
  let left_s = seconds;
  let step_s = most_s;
  while (left_s > EPS) {
    const dt_s = Math.min(step_s, left_s);
    left_s -= dt_s;
    if (!flowStep(film, dt_s)) break;
    const slow_s = WAIT_MOVES / Math.max(1e-9, film.sums.fastest_1_s);
    step_s = Math.max(most_s, Math.min(longest_s, 1.5 * step_s, slow_s));
  }
  if (left_s > EPS) dryStill(film, left_s);
}

/** A film of which nothing moves any more dries and ages on: exactly, over any time. */
function dryStill({ solids_m, solvent_m, age_s, inside, rates, sums }: PanelFilm, seconds: number): void {
  sums.time_s += seconds;
  const uc2 = FLOW.slowComposition ** 2;
  for (let c = 0; c < solids_m.length; c++) {
    const s = solids_m[c]!;
    if (inside[c] === 0 || s < PANEL_FILM.leastFilm_m) continue;
    age_s[c]! += seconds;
    const u = solvent_m[c]! / s;
    if (u <= PANEL_FILM.leastComposition) continue;
    const time = (seconds * rates.evaporation_m_s) / s;
    // Later than this the film has come to what stays: no need to work it out.
    const dry = time > uc2 / PANEL_FILM.leastComposition;
    solvent_m[c] = s * (dry ? PANEL_FILM.leastComposition : Math.max(PANEL_FILM.leastComposition, compositionAfter(time, u)));
  }
}
