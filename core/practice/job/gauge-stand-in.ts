import { requireNumber } from "../../kernel/guard";
import { normals, seededRandom } from "../../kernel/stats/random";
import { DEFAULT_GAUGE } from "../../models/film/gauge";
import type { FilmOnPart, PlaceOnPanel } from "../../models/panel-film/over-part";
import { cellsAround } from "./cured";

/** A gauge's tip covers so much. */
const TIP_M = 0.004;

/** A simulated film gauge, set to zero on what lies below the clear: it is off by one error all along, within its limits, and scatters (`DEFAULT_GAUGE`). */
export function gaugeStandIn(seed: number): (on: FilmOnPart, place: PlaceOnPanel) => number | null {
  const random = seededRandom(requireNumber("seed", seed));
  const scatter = normals(random);
  const off = 2 * random() - 1;
  return (on, place) => {
    const under = cellsAround(on, place, [Math.max(TIP_M, on.film.cell_m / 2), Math.max(TIP_M, on.film.cell_m / 2)]);
    if (under.length === 0) return null;
    const film_m = under.reduce((sum, { cell }) => sum + on.film.fixed_m[cell]!, 0) / under.length;
    const { constant_m, proportional, repeatability_m } = DEFAULT_GAUGE;
    return Math.max(0, film_m + off * (constant_m + proportional * film_m) + repeatability_m * scatter());
  };
}
