import { sprayer, waitOn } from "../models/panel-film/spray-rows";
import { type FilmOnPart, type PlaceOnPanel, cellFor, filmOnPart } from "../models/panel-film/over-part";
import { type BenchSetting, benchConditions } from "./bench-setting";
import { type CoatOfHand, type HandMoment, gunAt } from "./hand";

/** A panel on the bench, sprayed moment after moment. Its places are the outline's own. */
export interface Bench extends FilmOnPart {
  /** A coat begins: what is sprayed from now on is its own. */
  begins: (coat: Pick<CoatOfHand, "gun" | "reducer" | "turned">) => void;
  /** The gun comes to a place; between its last moment and this one it was as that moment said. */
  hand: (moment: HandMoment) => void;
  /** The coat is on. */
  ends: () => void;
  /** Time goes by with the gun away. */
  waits: (seconds: number) => void;
}

/** Cells of a bench that is watched: as fine as a panel is looked at, and in real time on a tablet. */
export const WATCHED_CELLS = { most: 66_000, least: 12_000 } as const;
const CELL_SIDE_M = { min: 0.004, max: 0.02 } as const;

/** Side of a cell for so many of them over a part. */
export const benchCell = (outline: BenchSetting["outline"], cells: number = WATCHED_CELLS.least): number =>
  cellFor(outline, cells, CELL_SIDE_M);

/** A bare panel on the bench. @param longest_s step of a wait where all has become slow (`waitOn`) @throws RangeError */
export function takeBench(setting: BenchSetting, cell_m = benchCell(setting.outline), longest_s = 1): Bench {
  const on = filmOnPart(setting.outline, cell_m, benchConditions(setting), setting.shop, setting.curve);
  const { film, origin } = on;
  const place = ({ x_m, y_m }: PlaceOnPanel) => ({ x_m: x_m - origin.x_m, y_m: y_m - origin.y_m });
  let coats = 0;
  let coat: Parameters<Bench["begins"]>[0] | null = null;
  let at: ReturnType<typeof sprayer> | null = null;
  let last: HandMoment | null = null;
  return {
    ...on,
    begins(next) {
      coat = next;
      coats++;
    },
    hand(moment) {
      if (!coat) throw new RangeError("a coat must have begun");
      if (at && last) {
        at.set(gunAt(coat.gun, last.distance_m));
        at.moves(place(last), place(moment), moment.t_s - last.t_s, last.pulled);
      } else at = sprayer(film, gunAt(coat.gun, moment.distance_m), coats, coat);
      last = moment;
    },
    ends() {
      at?.ends();
      at = last = coat = null;
    },
    waits: (seconds) => waitOn(film, seconds, 1, longest_s),
  };
}

/** The same coats again on a bare panel. @param onProgress share done, 0 to 1 @throws RangeError */
export function sprayAgain(
  setting: BenchSetting,
  coats: readonly CoatOfHand[],
  { cell_m, longest_s, onProgress }: { cell_m?: number; longest_s?: number; onProgress?: (share: number) => void } = {},
): Bench {
  const bench = takeBench(setting, cell_m, longest_s);
  coats.forEach((coat, n) => {
    bench.begins(coat);
    for (const moment of coat.hand) bench.hand(moment);
    bench.ends();
    bench.waits(coat.flash_s);
    onProgress?.((n + 1) / coats.length);
  });
  return bench;
}
