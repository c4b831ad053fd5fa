import { requireNumber } from "../../kernel/guard";
import { FLOW } from "../flow/constants";
import { SPRAY } from "../spray/constants";
import { PANEL_FILM, STEP_S } from "./constants";
import { AROUND, type PanelFilm } from "./panel-film";

// Taken once: a loop over cells looks no name up.
const { abs, exp, max, min } = Math;
const LN_FREEZE = Math.log(FLOW.freeze_Pa_s);

/** Fluidity 1/η at each 64th of ln η below what is still, Pa⁻¹·s⁻¹; what lies between is made up by a series, to the last digits. */
const PARTS = 64;
const FLUIDITY = Float64Array.from({ length: 32 * PARTS }, (_, n) => exp(n / PARTS - LN_FREEZE));

/**
 * One step of drying, thickening and flow (lubrication: ∂h/∂t = −∇·{h³/3η·[ρg sin α ê − ∇p]}, p = −γ∇²h + ρg cos α·h). Solids and solvent go with the
 * mean of the depth, upwind down the slope; nothing is made and nothing lost but what drips from a lower edge. Row after row, each pass a row behind the
 * one before it, so that what is needed of a panel of any size is at hand; rows of which nothing moves are passed over.
 * What went over a face at the most is told by `sums.fastest_1_s`.
 * @returns whether anything still moves @throws RangeError unless 0 < dt_s ≤ 5
 */
export function flowStep(film: PanelFilm, dt_s: number): boolean {
  requireNumber("dt_s", dt_s, STEP_S);
  const { rows } = film;
  film.sums.time_s += dt_s;
  let moves = false;
  let before = false;
  let here = dryRow(film, 0, dt_s);
  let dripped_m = 0;
  let behind = false;
  film.sums.fastest_1_s = 0;
  for (let j = 0; j < rows; j++) {
    const next = j + 1 < rows && dryRow(film, j + 1, dt_s);
    const near = before || here || next;
    if (near) pressureRow(film, j);
    if (behind) dripped_m += exchangeRow(film, j - 1, dt_s);
    behind = near;
    before = here;
    here = next;
    moves ||= near;
  }
  if (behind) dripped_m += exchangeRow(film, rows - 1, dt_s);
  film.sums.dripped_m3 += dripped_m * film.cell_m * film.cell_m;
  return moves;
}

/** Solvent leaves, age goes on; depth and mobility of what still moves, and its slide. @returns whether anything in the row moves */
function dryRow(film: PanelFilm, row: number, dt_s: number): boolean {
  const { columns, inside, solids_m, solvent_m, age_s, depth_m, mobility, slide_m, still, rates } = film;
  const { evaporation_m_s, cure_1_s, lnViscosity, offset } = rates;
  const uc = FLOW.slowComposition;
  const least = PANEL_FILM.leastComposition;
  const thinnest = PANEL_FILM.leastFilm_m;
  const B = SPRAY.freeVolumeB;
  const dried_m = evaporation_m_s * dt_s;
  const slides = 0.5 * abs(film.along_Pa_m[row]!) * dt_s;
  let moves = false;
  for (let c = row * columns, end = c + columns; c < end; c++) {
    const s = solids_m[c]!;
    let w = solvent_m[c]!;
    mobility[c] = 0;
    if (s < thinnest || inside[c] === 0) {
      depth_m[c] = s + w;
      continue;
    }
    if (w > least * s) {
      const share = w / (w + uc * s);
      w = max(least * s, w - dried_m * share * share);
      solvent_m[c] = w;
    }
    const age = age_s[c]! + dt_s;
    age_s[c] = age;
    const h = s + w;
    depth_m[c] = h;
    if (still[c] === 1) continue;
    // As `filmViscosity` has it, of u = w/s.
    const ln = lnViscosity + (B * s) / (w + offset * s) + cure_1_s * age;
    if (ln >= LN_FREEZE) {
      still[c] = 1;
      continue;
    }
    const thinner = LN_FREEZE - ln;
    const nearest = (PARTS * thinner + 0.5) | 0;
    const r = thinner - nearest / PARTS;
    const fluidity =
      nearest < FLUIDITY.length ? FLUIDITY[nearest]! * (1 + r * (1 + r * (1 / 2 + r * (1 / 6 + r * (1 / 24 + r / 120))))) : exp(-ln);
    const mobile = h * h * fluidity;
    mobility[c] = (mobile * h) / 3;
    slide_m[c]! += slides * mobile;
    moves = true;
  }
  return moves;
}

/** Pressure in the film: surface tension on its curvature, its weight where it lies. Beyond the outline the surface goes on level. */
function pressureRow({ columns, cell_m, around, depth_m, pressure_Pa, into_Pa_m }: PanelFilm, row: number): void {
  const tension = FLOW.surfaceTension_N_m / (cell_m * cell_m);
  const weight = into_Pa_m[row]!;
  for (let c = row * columns, end = c + columns; c < end; c++) {
    const here = depth_m[c]!;
    const on = around[c]!;
    const beside =
      on === AROUND.all
        ? depth_m[c - 1]! + depth_m[c + 1]! + depth_m[c - columns]! + depth_m[c + columns]!
        : ((on & AROUND.left) !== 0 ? depth_m[c - 1]! : here) +
          ((on & AROUND.right) !== 0 ? depth_m[c + 1]! : here) +
          ((on & AROUND.up) !== 0 ? depth_m[c - columns]! : here) +
          ((on & AROUND.down) !== 0 ? depth_m[c + columns]! : here);
    pressure_Pa[c] = weight * here - tension * (beside - 4 * here);
  }
}

/**
 * What goes over the faces of a row to the right and down, as it is made up where it comes from and never more than a share of that; what drips off a
 * lower edge; then what comes and goes of the row is made up. @returns solids that dripped, as depth of a cell, m
 */
function exchangeRow(film: PanelFilm, row: number, dt_s: number): number {
  const {
    columns,
    cell_m,
    inside,
    around,
    solids_m,
    solvent_m,
    depth_m,
    mobility,
    pressure_Pa,
    solidsChange_m,
    solventChange_m,
    still,
    along_Pa_m,
  } = film;
  const along = along_Pa_m[row]!;
  const steep = abs(along);
  // Over the face to the row below the film goes as between the two; up it where the face falls towards its upper edge.
  const between = row + 1 < film.rows ? 0.5 * (along + along_Pa_m[row + 1]!) : along;
  const lower = along >= 0 ? AROUND.down : AROUND.up;
  const perDepth = dt_s / cell_m;
  const perCell = 1 / cell_m;
  const most = PANEL_FILM.mostMoved;
  const bead_m = steep > 0 ? (PANEL_FILM.beadSquares * FLOW.surfaceTension_N_m) / steep / cell_m : Infinity;
  let dripped_m = 0;
  let fastest = 0;
  // What comes over the face from the left; a cell is made up as soon as its four faces are known: nobody asks for it again in this step.
  let inSolids_m = 0;
  let inSolvent_m = 0;
  for (let c = row * columns, end = c + columns; c < end; c++) {
    if (inside[c] === 0) continue;
    const here = mobility[c]!;
    const p = pressure_Pa[c]!;
    const on = around[c]!;
    const h = depth_m[c]!;
    const s = solids_m[c]!;
    const w = solvent_m[c]!;
    let ds = solidsChange_m[c]! + inSolids_m;
    let dw = solventChange_m[c]! + inSolvent_m;
    inSolids_m = inSolvent_m = 0;
    if ((on & AROUND.down) !== 0) {
      const down = c + columns;
      const m = 0.5 * (here + mobility[down]!);
      if (m > 0) {
        const falls = between * (between > 0 ? here : mobility[down]!);
        const goes = (falls - m * (pressure_Pa[down]! - p) * perCell) * perDepth;
        const from_m = goes > 0 ? h : depth_m[down]!;
        if (from_m > 0) {
          const share = max(-most, min(most, goes / from_m));
          fastest = max(fastest, abs(share));
          const solids = share * (goes > 0 ? s : solids_m[down]!);
          const solvent = share * (goes > 0 ? w : solvent_m[down]!);
          ds -= solids;
          dw -= solvent;
          solidsChange_m[down] = solids;
          solventChange_m[down] = solvent;
        }
      }
    }
    if ((on & lower) === 0 && here > 0 && h > bead_m) {
      // No more than so much hangs at an edge: the rest falls.
      const falls = min(h - bead_m, most * h, here * steep * perDepth) / h;
      ds -= falls * s;
      dw -= falls * w;
      dripped_m += falls * s;
    }
    if ((on & AROUND.right) !== 0) {
      const right = c + 1;
      const m = 0.5 * (here + mobility[right]!);
      if (m > 0) {
        const goes = -m * (pressure_Pa[right]! - p) * perCell * perDepth;
        const from_m = goes > 0 ? h : depth_m[right]!;
        if (from_m > 0) {
          const share = max(-most, min(most, goes / from_m));
          fastest = max(fastest, abs(share));
          inSolids_m = share * (goes > 0 ? s : solids_m[right]!);
          inSolvent_m = share * (goes > 0 ? w : solvent_m[right]!);
          ds -= inSolids_m;
          dw -= inSolvent_m;
        }
      }
    }
    if (ds === 0 && dw === 0) continue;
    solidsChange_m[c] = solventChange_m[c] = 0;
    if (ds > 0) still[c] = 0; // what comes may soften what had set
    solids_m[c] = max(0, s + ds);
    solvent_m[c] = max(0, w + dw);
  }
  film.sums.fastest_1_s = max(film.sums.fastest_1_s, fastest / dt_s);
  return dripped_m;
}
