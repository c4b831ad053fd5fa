import { hourText } from "~/kit/words/when";
import { useState } from "react";
import type { FilmMoment } from "#core/judge/film-history";
import { showFilm, showWithUncertainty } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { usePanel } from "~/kit/panel/use-panel";
import { SelectField } from "~/kit/ui/field";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { FilmTimeChart } from "./film-time-chart";
import type { ClearThere } from "#core/judge/film-judge";
import type { HowKnown } from "#core/judge/how-known";

const WHOLE = "whole";

/** Film after everything that was done: predicted beside measured, for the panel or one spot. */
export function FilmTimeDesk({ moments }: { moments: readonly FilmMoment[] }) {
  const { view } = usePanel();
  const units = useUnits();
  const [spot, setSpot] = useState(WHOLE);
  const names = [...new Set(moments.flatMap((m) => Object.keys(m.spots)))].sort((a, b) => a.localeCompare(b, "en", { numeric: true }));
  const clearOf = (m: FilmMoment) => (spot === WHOLE ? m.measured : (m.spots[spot] ?? null));
  const last = moments.findLast((m) => clearOf(m));
  const compared = moments.findLast((m) => m.predicted && clearOf(m) && m.kind === "read");
  if (moments.length === 0)
    return (
      <h2 className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        Nothing has been sprayed or read yet. Film appears here with the first coat.
      </h2>
    );
  return (
    <>
      <h2 className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        {compared ? (
          <>
            Predicted {showFilm(compared.predicted!.clear_m, units).text}, found{" "}
            <em className="text-glow-ink not-italic">
              {showWithUncertainty("film", clearOf(compared)!.clear_m, clearOf(compared)!.u_m, units).text} {units.film}
            </em>{" "}
            of clear {compared.what}.
          </>
        ) : (
          "Predicted only: nothing has been read after clear yet."
        )}
      </h2>
      <div className="mt-4 max-w-60">
        <SelectField label="Where" data-view value={spot} onChange={(e) => setSpot(e.target.value)}>
          <option value={WHOLE}>Whole panel</option>
          {names.map((n) => (
            <option key={n} value={n}>
              Spot {n}
            </option>
          ))}
        </SelectField>
      </div>
      <ScrollRegion label="Chart" className="mt-4">
        <div className="min-w-[640px]">
          <FilmTimeChart moments={moments} clearOf={clearOf} floor_m={view.floor_m} />
        </div>
      </ScrollRegion>
      <Events {...{ moments, clearOf }} />
      {last && (
        <p className="mt-3 max-w-[70ch] text-[13px] text-ink2">
          Predicted: the coats as they were sprayed, less the forecast of every step, as if nothing had been read. By readings: the last
          reading, less what has come off since by forecast. The whole panel is its mean by the judge.
        </p>
      )}
    </>
  );
}

/** What was done, with the clear that was predicted and read after it. */
function Events({
  moments,
  clearOf,
}: {
  moments: readonly FilmMoment[];
  clearOf: (m: FilmMoment) => (ClearThere & { how: HowKnown }) | null;
}) {
  const units = useUnits();
  return (
    <ScrollRegion label="Events" className="mt-4">
      <table className="w-full text-left">
        <thead className="small-label border-b border-hair">
          <tr>
            <th className="py-2">When</th>
            <th>What</th>
            <th>Predicted, {units.film}</th>
            <th>By readings, {units.film}</th>
          </tr>
        </thead>
        <tbody>
          {moments.map((m, i) => {
            const measured = clearOf(m);
            return (
              <tr key={i} className="border-b border-hair">
                <td className="py-2 text-ink2">{hourText(m.at_ms)}</td>
                <td className="font-semibold">
                  {m.kind === "read" ? `Read ${m.what}` : m.what}
                  {m.simulated && <span className="font-normal text-ink2"> simulated</span>}
                </td>
                <td>{m.predicted ? showWithUncertainty("film", m.predicted.clear_m, m.predicted.u_m, units).text : "–"}</td>
                <td>
                  {measured ? showWithUncertainty("film", measured.clear_m, measured.u_m, units).text : "–"}
                  {measured && measured.how !== "measured" && <span className="text-[13px] text-ink2"> {measured.how}</span>}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </ScrollRegion>
  );
}
