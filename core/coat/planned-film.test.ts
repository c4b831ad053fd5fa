import { edgeDistances } from "#core/kernel/geometry/geometry";
import { panelShape } from "#core/kernel/geometry/shapes";
import { filmFigures } from "#core/models/panel-film/film-figures";
import { plannedPath } from "#core/models/panel-film/planned-path";
import { USUAL_STROKES } from "#core/models/spray/strokes";
import { HOUSE_WAYS } from "#core/models/ways/house-ways";
import { coatsAhead } from "./coats-ahead";
import { askedOf } from "./testing/asked-of";

const door = panelShape("door", { width_m: 1.1, height_m: 0.75 });
/** So far from every edge the fan is met from both sides. */
const FIELD_M = 0.2;

test.each(HOUSE_WAYS.filter((way) => way.coats.every((c) => c.zone === "whole")).map((way) => [way.id, way] as const))(
  "%s: the panel seen from above has the film, the litres and the slide that the coats' owner says",
  (_, way) => {
    const asked = askedOf(() => undefined, { way, coats: way.coats.length, shape: door });
    const rows = coatsAhead(asked)!;
    const [first] = rows;
    const { outline } = door;
    const path = plannedPath(
      outline,
      first!.conditions,
      rows.map((row, n) => ({
        gun: row.gun,
        handSpeed_m_s: row.gun.handSpeed_m_s,
        overlap: row.gun.overlap,
        trigger: way.trigger,
        turn_s: USUAL_STROKES.turn_s,
        reducer: row.reducer,
        // The wait that the next coat was asked with; sanded between, it goes on what has set.
        flash_s: rows[n + 1]?.build.at(-2)?.flash_s ?? null,
      })),
      { cell_m: 0.02 },
    );
    const { film, origin } = path;
    const field = (i: number, j: number) =>
      edgeDistances([[origin.x_m + (i + 0.5) * film.cell_m, origin.y_m + (j + 0.5) * film.cell_m]], outline)[0]! > FIELD_M;
    const middle = filmFigures(film, field);
    const dry_m = rows.reduce((sum, row) => sum + row.dry_m, 0);
    expect(Math.abs(middle.mean_m / dry_m - 1)).toBeLessThan(0.04);
    expect(path.volume_m3 / rows.reduce((sum, row) => sum + row.volume_m3, 0)).toBeCloseTo(1, 3);
    // What slides is told by the coat that slides most, where rows pile up.
    const sag_m = Math.max(...rows.map((row) => row.sagLocal_m));
    expect(Math.abs(Math.log(middle.slideMost_m / sag_m))).toBeLessThan(0.3);
    expect(path.least.film_m).toBeLessThan(middle.mean_m);
    expect(path.run.chance).toBeLessThanOrEqual(1);
  },
);
