import type { OddReading } from "#core/models/film/odd-reading";
import { showFilm } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { PhaseFilm } from "#core/panel/film-record";
import { useUnits } from "~/kit/root/use-root";
import { oddWords } from "./odd.words";

/** A reading that is asked about before it is stored: an odd figure, or one at a spot that is read already. */
export type Asked = { spot: string; value: string; gauge: string; again: boolean };

/** So many readings are told one by one. */
const FEW = 4;
export const filmsText = (readings_m: readonly number[], units: UnitPreferences): string =>
  readings_m.length > FEW ? "what is there" : readings_m.map((m) => showFilm(m, units).text).join(", ");

/** The question about one reading, with its answers; null: it is left out. */
export function AskedReading({
  asked: { spot, value, again },
  odd,
  there,
  onSettle,
}: {
  asked: Asked;
  odd: OddReading | null;
  /** What is stored of that spot. */
  there: PhaseFilm | null;
  onSettle: (how: { units?: UnitPreferences; replaces?: readonly string[] } | null) => void;
}) {
  const units = useUnits();
  const oldOnes = there && (again || odd?.why === "far from its spot") ? there : null;
  const words = odd
    ? `Spot ${spot}: ${oddWords(value, odd, units)}`
    : again && there
      ? `Spot ${spot} reads ${showFilm(there.film.mean_m, units).text} ${units.film} already. Is ${value} in its place, or one more?`
      : `Spot ${spot}: ${value} ${units.film}?`;
  return (
    <div role="alert" className="mt-2 space-y-2" data-testid="odd-reading">
      <p className="font-medium text-amber-ink">{words}</p>
      <div className="flex flex-wrap gap-2">
        {odd?.why === "other unit" && (
          <button
            type="button"
            className="press"
            data-kind="main"
            onClick={() => onSettle({ units: { ...units, film: units.film === "mil" ? "µm" : "mil" } })}
          >
            {`It is ${showFilm(odd.instead_m, units).text} ${units.film}`}
          </button>
        )}
        {oldOnes && (
          <button type="button" className="press" onClick={() => onSettle({ replaces: oldOnes.of.map((e) => e.entryId) })}>
            {`In place of ${filmsText(oldOnes.readings_m, units)}`}
          </button>
        )}
        <button type="button" className="press" onClick={() => onSettle({})}>
          {again ? "One more" : `${value} ${units.film} is right`}
        </button>
        <button type="button" className="press" data-kind="quiet" onClick={() => onSettle(null)}>
          Leave it out
        </button>
      </div>
    </div>
  );
}
