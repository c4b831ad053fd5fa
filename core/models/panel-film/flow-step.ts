import { requireNumber } from "../../kernel/guard";
import { FLOW } from "../flow/constants";
import { SPRAY } from "../spray/constants";
import { PANEL_FILM, STEP_S } from "./constants";
import type { PanelFilm } from "./panel-film";

// Taken once: a loop over cells looks no name up.
const { exp, max, min } = Math;
const LN_FREEZE = Math.log(FLOW.freeze_Pa_s);

/**
 * One step of drying, thickening and flow (lubrication: ∂h/∂t = −∇·{h³/3η·[ρg sin α ê − ∇p]}, p = −γ∇²h + ρg cos α·h). Solids and solvent go with the
 * mean of the depth, upwind down the slope; nothing is made and nothing lost but what drips from a lower edge.
 * @returns whether anything still moves @throws RangeError unless 0 < dt_s ≤ 1
 */
export function flowStep(film: PanelFilm, dt_s: number): boolean {
  requireNumber("dt_s", dt_s, STEP_S);
  film.sums.time_s += dt_s;
  if (!dryAndThicken(film, dt_s)) return false;
  pressures(film);
  exchange(film, dt_s);
  return true;
}

/** Solvent leaves, age goes on; depth and mobility of what still moves, and its slide. @returns whether anything moves */
function dryAndThicken(film: PanelFilm, dt_s: number): boolean {
  const { inside, solids_m, solvent_m, age_s, depth_m, mobility, slide_m, still, rates } = film;
  const { evaporation_m_s, cure_1_s, lnViscosity, offset, along_Pa_m } = rates;
  const uc = FLOW.slowComposition;
  const least = PANEL_FILM.leastComposition;
  const B = SPRAY.freeVolumeB;
  let moves = false;
  for (let c = 0; c < solids_m.length; c++) {
    const s = solids_m[c]!;
    let w = solvent_m[c]!;
    mobility[c] = 0;
    if (inside[c] === 0 || s < PANEL_FILM.leastFilm_m) {
      depth_m[c] = s + w;
      continue;
    }
    let u = w / s;
    if (u > least) {
      const share = u / (u + uc);
      w = max(least * s, w - evaporation_m_s * share * share * dt_s);
      solvent_m[c] = w;
      u = w / s;
    }
    const age = age_s[c]! + dt_s;
    age_s[c] = age;
    const h = s + w;
    depth_m[c] = h;
    if (still[c] === 1) continue;
    const ln = lnViscosity + B / (u + offset) + cure_1_s * age;
    if (ln >= LN_FREEZE) {
      still[c] = 1;
      continue;
    }
    const fluidity = exp(-ln);
    mobility[c] = (h * h * h * fluidity) / 3;
    slide_m[c]! += 0.5 * along_Pa_m * h * h * fluidity * dt_s;
    moves = true;
  }
  return moves;
}

/** Pressure in the film: surface tension on its curvature, its weight where it lies. Beyond the outline the surface goes on level. */
function pressures({ columns, rows, cell_m, inside, depth_m, pressure_Pa, rates }: PanelFilm): void {
  const tension = FLOW.surfaceTension_N_m / (cell_m * cell_m);
  const weight = rates.into_Pa_m;
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) {
      const c = j * columns + i;
      const here = depth_m[c]!;
      let around = -4 * here;
      around += i > 0 && inside[c - 1] === 1 ? depth_m[c - 1]! : here;
      around += i + 1 < columns && inside[c + 1] === 1 ? depth_m[c + 1]! : here;
      around += j > 0 && inside[c - columns] === 1 ? depth_m[c - columns]! : here;
      around += j + 1 < rows && inside[c + columns] === 1 ? depth_m[c + columns]! : here;
      pressure_Pa[c] = weight * here - tension * around;
    }
}

/** What goes over each face in a step, and off the lower edge. */
function exchange(film: PanelFilm, dt_s: number): void {
  const {
    columns,
    rows,
    cell_m,
    inside,
    solids_m,
    solvent_m,
    depth_m,
    mobility,
    pressure_Pa,
    solidsChange_m,
    solventChange_m,
    still,
    rates,
  } = film;
  const { along_Pa_m } = rates;
  solidsChange_m.fill(0);
  solventChange_m.fill(0);
  const perDepth = dt_s / cell_m;
  const bead_m = along_Pa_m > 0 ? (PANEL_FILM.beadSquares * FLOW.surfaceTension_N_m) / along_Pa_m / cell_m : Infinity;
  let dripped_m = 0;
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) {
      const c = j * columns + i;
      if (inside[c] === 0) continue;
      const here = mobility[c]!;
      const down = c + columns;
      if (j + 1 < rows && inside[down] === 1) {
        const m = 0.5 * (here + mobility[down]!);
        if (m > 0) {
          const depth = here * along_Pa_m - (m * (pressure_Pa[down]! - pressure_Pa[c]!)) / cell_m;
          if (depth !== 0) carry(film, c, down, depth * perDepth);
        }
      } else if (here > 0 && depth_m[c]! > bead_m) {
        // No more than so much hangs at an edge: the rest falls.
        const h = depth_m[c]!;
        const falls = min(h - bead_m, PANEL_FILM.mostMoved * h, here * along_Pa_m * perDepth) / h;
        solidsChange_m[c]! -= falls * solids_m[c]!;
        solventChange_m[c]! -= falls * solvent_m[c]!;
        dripped_m += falls * solids_m[c]!;
      }
      const right = c + 1;
      if (i + 1 < columns && inside[right] === 1) {
        const m = 0.5 * (here + mobility[right]!);
        if (m > 0) {
          const depth = -(m * (pressure_Pa[right]! - pressure_Pa[c]!)) / cell_m;
          if (depth !== 0) carry(film, c, right, depth * perDepth);
        }
      }
    }
  for (let c = 0; c < solids_m.length; c++) {
    const ds = solidsChange_m[c]!;
    if (ds === 0) continue;
    if (ds > 0) still[c] = 0; // what comes may soften what had set
    solids_m[c] = max(0, solids_m[c]! + ds);
    solvent_m[c] = max(0, solvent_m[c]! + solventChange_m[c]!);
  }
  film.sums.dripped_m3 += dripped_m * cell_m * cell_m;
}

/** So much depth goes from `a` to `b` (back where negative): as it is made up where it comes from, and never more than a share of that. */
function carry({ solids_m, solvent_m, depth_m, solidsChange_m, solventChange_m }: PanelFilm, a: number, b: number, depth: number): void {
  const from = depth > 0 ? a : b;
  const h = depth_m[from]!;
  if (h <= 0) return;
  const most = PANEL_FILM.mostMoved;
  const share = max(-most, min(most, depth / h));
  const ds = share * solids_m[from]!;
  const dw = share * solvent_m[from]!;
  solidsChange_m[a]! -= ds;
  solventChange_m[a]! -= dw;
  solidsChange_m[b]! += ds;
  solventChange_m[b]! += dw;
}
