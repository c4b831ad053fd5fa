import { FLOW } from "../models/flow/constants";
import { GRIP_PA_S } from "../models/flow/grip";
import { type PanelFilm, filmViscosity } from "../models/panel-film/panel-film";

/** What a finger on the tape beside the part feels: it strings, it sticks and strings no more, it takes a print, it takes none. */
export type Touch = "strings" | "sticks" | "print" | "none";

/** A finger on a coat, by the mean (of its logarithm) of its viscosity as the gun shears it, as a grip coat is told. Null where it is not on yet. */
export function touchOf(film: PanelFilm, coat: number): Touch | null {
  const { rates, solids_m, solvent_m, age_s } = film;
  let sum = 0;
  let n = 0;
  for (let c = 0; c < solids_m.length; c++) {
    const s = solids_m[c]!;
    if (film.coat[c] !== coat || s < 1e-9) continue;
    sum += Math.log(filmViscosity(rates, solvent_m[c]! / s, age_s[c]!));
    n++;
  }
  if (n === 0) return null;
  const viscosity_Pa_s = Math.exp(sum / n) / FLOW.filmFactor;
  return viscosity_Pa_s < GRIP_PA_S.noStrings
    ? "strings"
    : viscosity_Pa_s < GRIP_PA_S.best
      ? "sticks"
      : viscosity_Pa_s < GRIP_PA_S.lost
        ? "print"
        : "none";
}
