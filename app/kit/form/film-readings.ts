import type { UnitPreferences } from "#core/kernel/units/quantities";
import { type Parsed, parseQuantity } from "#core/kernel/units/parse";

/** What a gauge can show at all: 5 mm. */
const FILM_MOST_M = 5e-3;

/** Why a film is none that a gauge shows, in the unit it is typed in; null when it is one. */
export function outsideGauge(si: number, units: UnitPreferences): string | null {
  if (si >= 0 && si <= FILM_MOST_M) return null;
  return units.film === "mil" ? "Film lies between 0 and 197 mil" : "Film lies between 0 and 5 mm";
}

/**
 * Readings as typed, "131 128" or "5,1 mil": each with its entry beside the SI value, and the first thing that is wrong with any of them.
 * @param limit why a figure that is a number is still no reading of this kind
 */
export function readFilms(text: string, units: UnitPreferences, limit: (si: number) => string | null = (si) => outsideGauge(si, units)) {
  const parsed = filmReadings(text, units);
  const problem = parsed.map((p) => (p.ok ? limit(p.si) : p.message)).find((m) => m !== null) ?? null;
  return { problem, readings: parsed.flatMap((p) => (p.ok ? [{ thickness_m: p.si, entered: p.entered, unit: p.unit }] : [])) };
}

/** Film readings as typed, several with spaces between: "131 128 126", "5,1 mil". */
const filmReadings = (text: string, units: UnitPreferences): Parsed[] =>
  text
    .trim()
    .split(/\s+(?=[\d+-])/)
    .map((t) => parseQuantity("film", t, units.film));
