import type { OddReading } from "#core/models/film/odd-reading";
import { showFilm } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";

/** Why a typed reading is asked about, as a painter would. */
export function oddWords(value: string, odd: OddReading, units: UnitPreferences): string {
  const typed = `${value} ${units.film}`;
  switch (odd.why) {
    case "other unit": {
      const other = units.film === "mil" ? "µm" : "mil";
      return `${typed}? ${value} ${other} would be ${showFilm(odd.instead_m, units).text} ${units.film}.`;
    }
    case "nothing":
      return `${typed}? That is bare metal.`;
    case "too much":
      return `${typed}? More than a panel's paint usually is: filler below, or a slip of the finger.`;
    case "too little":
      return `${typed}? Less than any painted panel has.`;
    case "far from its spot":
      return `${typed}? The others at this spot are about ${showFilm(odd.others_m, units).text} ${units.film}.`;
    case "far from the others":
      return `${typed}? The other spots read about ${showFilm(odd.others_m, units).text} ${units.film}.`;
    case "less than before":
      return `${typed}? Below the clear it was ${showFilm(odd.before_m, units).text} ${units.film} there.`;
  }
}
