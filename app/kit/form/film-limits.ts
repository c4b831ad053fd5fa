import type { UnitPreferences } from "#core/kernel/units/quantities";

/** What a gauge can show at all: 5 mm, in the unit it is typed in. */
export const FILM_MOST_M = 5e-3;
export const filmLiesBetween = (units: UnitPreferences): string =>
  units.film === "mil" ? "Film lies between 0 and 197 mil" : "Film lies between 0 and 5 mm";
