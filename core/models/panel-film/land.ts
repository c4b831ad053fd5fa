import { requireInteger, requireNumber } from "../../kernel/guard";
import { FLOW } from "../flow/constants";
import { type FanPattern, fanShape, fanWhole } from "../spray/fan-pattern";
import { type GunSettings, type SprayCone, sprayCone } from "../spray/deposit";
import { GUN_BOUNDS } from "../bounds";
import { CELL_M, PANEL_FILM } from "./constants";
import { NOTHING_BELOW_S, type PanelFilm, mobileShare } from "./panel-film";

/** A gun as it is set, whatever the hand does. Its fan lies even where nothing else is said. */
export type GunAtWork = Omit<GunSettings, "overlap" | "handSpeed_m_s"> & { pattern?: FanPattern | undefined };

export interface GunPlace {
  x_m: number;
  y_m: number;
  /** The fan lies across the rows' direction: upright fan, passes from side to side. Turned: passes up and down. */
  turned?: boolean;
}

// Taken once: a loop over cells looks no name up.
const { abs, exp, floor, max, min } = Math;
/** The footprint along and across, for one landing at a time: no fan is wider than so many of the smallest cells. */
const WIDEST = Math.ceil(GUN_BOUNDS.fan_m.max / CELL_M.min) + 2;
const ACROSS = new Float64Array(WIDEST);
const ALONG = new Float64Array(WIDEST);

/** The cone of a gun in what a panel is sprayed in. @param reducer of this coat, where it is another @throws RangeError */
export const coneOver = ({ rates: { conditions } }: PanelFilm, gun: GunAtWork, reducer = conditions.reducer): SprayCone =>
  sprayCone(gun, { ...conditions, reducer });

/**
 * Lets what a gun sprays in `dt_s` land around its place. The fan is a parabola across (the Beta(2,2) of the ripple), a Gaussian along; what misses
 * the outline is lost. A new coat's first drops on a cell fix what below them no longer moves, which drinks from them.
 * @param cone of this gun (`coneOver`), worked out once for as long as nothing is turned @param coat number of the coat, from 1
 * @returns solids that landed, m³ @throws RangeError
 */
export function land(film: PanelFilm, gun: GunAtWork, cone: SprayCone, place: GunPlace, dt_s: number, coat: number): number {
  requireNumber("x_m", place.x_m, { min: -10, max: 10 });
  requireNumber("y_m", place.y_m, { min: -10, max: 10 });
  requireNumber("dt_s", dt_s, { above: 0, max: 1 });
  requireInteger("coat", coat, { min: 1, max: 1000 });
  const { columns, rows, cell_m, inside, solids_m, solvent_m, age_s, thirst_m, still, rates } = film;
  const half = cone.fan_m / 2;
  const sigma = PANEL_FILM.alongShare * cone.fan_m;
  const reach = PANEL_FILM.alongReach * sigma;
  const [reachX, reachY] = place.turned ? [half, reach] : [reach, half];
  const rate = rates.shop.film * cone.volumeSolids * gun.fluidRate_m3_s * cone.transfer * dt_s;
  film.sums.used_m3 += gun.fluidRate_m3_s * dt_s;
  film.sums.sprayed_m3 += cone.volumeSolids * gun.fluidRate_m3_s * dt_s;

  const from = (at: number) => max(0, floor(at / cell_m));
  const to = (at: number, most: number) => min(most - 1, floor(at / cell_m));
  const i0 = from(place.x_m - reachX);
  const i1 = to(place.x_m + reachX, columns);
  const j0 = from(place.y_m - reachY);
  const j1 = to(place.y_m + reachY, rows);
  if (i1 < i0 || j1 < j0) return 0;
  // The footprint is a product of the two directions: each is worked out once.
  const [ofColumn, ofRow] = place.turned ? [ACROSS, ALONG] : [ALONG, ACROSS];
  const { pattern } = gun;
  const whole = pattern ? fanWhole(pattern) * half : half;
  const across = (far: number) => (abs(far) >= 1 ? 0 : (pattern ? fanShape(far, pattern) : 0.75 * (1 - far * far)) / whole);
  const along = (far: number) => exp(-0.5 * far * far) / (sigma * Math.sqrt(2 * Math.PI));
  for (let i = i0; i <= i1; i++) {
    const x = (i + 0.5) * cell_m - place.x_m;
    ofColumn[i - i0] = place.turned ? across(x / half) : along(x / sigma);
  }
  for (let j = j0; j <= j1; j++) {
    const y = (j + 0.5) * cell_m - place.y_m;
    ofRow[j - j0] = place.turned ? along(y / sigma) : across(y / half);
  }
  const u = cone.landedComposition;
  let landed_m = 0;
  for (let j = j0; j <= j1; j++) {
    const rowRate = rate * ofRow[j - j0]!;
    if (rowRate <= 0) continue;
    for (let i = i0; i <= i1; i++) {
      const c = j * columns + i;
      const ds = rowRate * ofColumn[i - i0]!;
      if (inside[c] === 0 || ds < PANEL_FILM.leastLanding_m) continue;
      if (film.coat[c] !== coat) newCoat(film, c, coat, u);
      age_s[c] = (age_s[c]! * solids_m[c]!) / (solids_m[c]! + ds);
      solids_m[c]! += ds;
      solvent_m[c]! += ds * u;
      still[c] = 0;
      landed_m += ds;
      if (thirst_m[c]! > 0) {
        const drunk = min(thirst_m[c]!, FLOW.absorbCap * ds * u);
        solvent_m[c]! -= drunk;
        thirst_m[c]! -= drunk;
      }
    }
  }
  const landed_m3 = landed_m * cell_m * cell_m;
  film.sums.landed_m3 += landed_m3;
  return landed_m3;
}

/** The first drops of a coat on a cell: what below has set stays where it is, and drinks (docs/models.md, "Flow", next coat). */
function newCoat(film: PanelFilm, c: number, coat: number, u: number): void {
  const { solids_m, solvent_m, fixed_m, thirst_m, age_s, wait_s, slide_m, slideBefore_m } = film;
  wait_s[c] = film.coat[c] === 0 ? NOTHING_BELOW_S : age_s[c]!;
  const solids = solids_m[c]!;
  if (solids > 0) {
    const below = solvent_m[c]! / solids;
    const mobile = mobileShare(film, c);
    fixed_m[c]! += (1 - mobile) * solids;
    thirst_m[c] = (1 - mobile) * min(solids, FLOW.absorbDepth_m) * max(0, u - below);
    solids_m[c] = solids * mobile;
    solvent_m[c]! *= mobile;
  }
  slideBefore_m[c] = max(slideBefore_m[c]!, slide_m[c]!);
  slide_m[c] = 0;
  age_s[c] = 0;
  film.coat[c] = coat;
}
