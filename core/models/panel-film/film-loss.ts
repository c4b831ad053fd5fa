import { requireNumber } from "../../kernel/guard";
import { filmFigures } from "./film-figures";
import { farthestSlide, dryFilm, type PanelFilm } from "./panel-film";
import { FLOW } from "../flow/constants";

/** What a film as it lies falls short of the one wanted: means over the part, 0 none. Weights are defaults of ours. */
export interface FilmLoss {
  /** Share of the part that has run, and that is thinner or heavier than is let pass. */
  runShare: number;
  thinShare: number;
  heavyShare: number;
  /** Root of the mean square of film over the one wanted, less one. */
  uneven: number;
  least_m: number;
  mean_m: number;
  /** Material used beyond what good rows take, as a share of that. */
  wasteShare: number;
  /** All of it, for putting one thing before another. */
  total: number;
}

/** Film over the one wanted that is still let pass. Defaults of ours. */
export const LET_PASS = { thin: 0.75, heavy: 1.45 } as const;
const WEIGHTS = { run: 4, thin: 2, heavy: 1, uneven: 1, waste: 0.15 } as const;

/** @param wanted.film_m of all coats as planned @param wanted.volume_m3 through the gun in good rows @throws RangeError where no cell is on the part */
export function filmLoss(film: PanelFilm, wanted: { film_m: number; volume_m3: number }): FilmLoss {
  const wanted_m = requireNumber("film_m", wanted.film_m, { above: 0 });
  const { mean_m, least_m, runShare } = filmFigures(film);
  let n = 0;
  let nearRun = 0;
  let thin = 0;
  let thinBy = 0;
  let heavy = 0;
  let heavyBy = 0;
  let squares = 0;
  for (let c = 0; c < film.inside.length; c++) {
    if (film.inside[c] === 0) continue;
    n++;
    const share = dryFilm(film, c) / wanted_m;
    const slid = farthestSlide(film, c) / FLOW.sagRun_m;
    nearRun += Math.min(1, Math.max(0, 2 * slid - 1));
    if (share < LET_PASS.thin) thin++;
    thinBy += Math.max(0, 1 - share / LET_PASS.thin);
    if (share > LET_PASS.heavy) heavy++;
    heavyBy += Math.min(1, Math.max(0, share / LET_PASS.heavy - 1));
    squares += Math.min(1, (share - 1) ** 2);
  }
  const uneven = Math.sqrt(squares / n);
  const wasteShare = Math.max(0, film.sums.used_m3 / requireNumber("volume_m3", wanted.volume_m3, { above: 0 }) - 1);
  return {
    runShare,
    thinShare: thin / n,
    heavyShare: heavy / n,
    uneven,
    least_m,
    mean_m,
    wasteShare,
    total:
      (WEIGHTS.run * nearRun + WEIGHTS.thin * thinBy + WEIGHTS.heavy * heavyBy) / n + WEIGHTS.uneven * uneven + WEIGHTS.waste * wasteShare,
  };
}
