import { Undo2 } from "lucide-react";
import { useFetcher } from "react-router";
import { entriesOf } from "#core/judge/doubtful";
import { showFilm } from "#core/kernel/units/format";
import { PHASES, type Phase } from "#core/record/kinds";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { STRIKE_KEY, type StrikeAnswer } from "~/kit/shell/use-toasts";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { Tag } from "~/kit/ui/tag";
import { DOUBT_WORDS } from "~/kit/words/doubt-words";

/** What was read in this phase, spot by spot, those first that need a look; a tap on a reading takes it out, and the toast brings it back. */
export function ReadTable({ phase }: { phase: Phase }) {
  const { view } = usePanel();
  const units = useUnits();
  const { submit } = useFetcher<StrikeAnswer>({ key: STRIKE_KEY });
  const { spots, doubtful } = view.state;
  const doubtOf = (name: string) => doubtful.find((d) => d.spot === name) ?? null;
  const read = spots
    .flatMap((s) => (s.films[phase] ? [{ name: s.name, film: s.films[phase], doubt: doubtOf(s.name) }] : []))
    .sort((a, b) => Number(b.doubt !== null) - Number(a.doubt !== null));
  if (read.length === 0) return null;
  const count = read.reduce((n, s) => n + s.film.readings_m.length, 0);
  const strike = (entryId: string, what: string) =>
    void submit({ what, whole: "yes" }, { method: "post", action: `/do/entries/${entryId}/strike` });
  return (
    <details className="rounded-press border border-hair px-3" open={read.some((s) => s.doubt) || undefined}>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">
        {count} {count === 1 ? "reading" : "readings"} {PHASES[phase]}: look, take out
      </summary>
      <ScrollRegion label={`Readings ${PHASES[phase]}`}>
        <table className="mb-3 w-full text-left" aria-label={`Readings ${PHASES[phase]}`}>
          <thead className="sr-only">
            <tr>
              <th>Spot</th>
              <th>Total film in {units.film}; a tap takes the reading out</th>
            </tr>
          </thead>
          <tbody>
            {read.map(({ name, film, doubt }) => (
              <tr key={name} className="border-t border-hair">
                <td className="w-10 align-top font-semibold leading-11">{name}</td>
                <td>
                  <span className="flex flex-wrap items-center gap-1.5">
                    {entriesOf(film).map(({ entryId, readings }) => {
                      const what = `${readings.map((r) => showFilm(r.film_m, units).text).join(" ")} at spot ${name}`;
                      const far = readings.some((r) => r.far);
                      return (
                        <button
                          key={entryId}
                          type="button"
                          className={`press !min-w-11 !px-2 ${far ? "!border-amber-ink text-amber-ink" : ""}`}
                          aria-label={`Take out ${what}`}
                          onClick={() => strike(entryId, what)}
                        >
                          {readings.map((r) => showFilm(r.film_m, units).text).join(" ")} <Undo2 size={15} aria-hidden />
                        </button>
                      );
                    })}
                    {film.simulated && <Tag kind="simulated">simulated</Tag>}
                  </span>
                  {doubt && <p className="pb-1 font-medium text-amber-ink">{DOUBT_WORDS[doubt.why]}</p>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollRegion>
    </details>
  );
}
