import { memo } from "react";
import { RUN_SCHOOLS, type RunSchool } from "#core/models/correction/run-work";
import type { PlanChances } from "#core/judge/plan-chances";
import type { RunComparison } from "#core/judge/zone-places";
import { show, showChance, showWithUncertainty } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { inUnits } from "#core/kernel/units/in-units";

/** The four run schools side by side, none declared best. */
export const RunSchools = memo(function RunSchools({
  runs,
  chances,
  value,
  onChange,
}: {
  runs: RunComparison;
  /** What the judge says of each; empty while it is asked, or knows nothing. */
  chances: PlanChances["schools"];
  value: RunSchool | null;
  onChange: (s: RunSchool | null) => void;
}) {
  const units = useUnits();
  const chanceOf = (school: RunSchool, what: "cut" | "thin") => {
    const told = chances.find((c) => c.school === school);
    return told ? showChance(told[what]) : "–";
  };
  const film = (m: number) => show("film", m, units).text;
  return (
    <section className="mt-8" aria-labelledby="run-title">
      <h3 id="run-title" className="text-lg font-semibold">
        The run first: {film(runs.height_m)} {units.film} high
      </h3>
      <p className="text-ink2">
        Four schools with their own figures, none of them proved. The run is extra film; what counts is the film lost beside it (
        {film(runs.clear_m)} {units.film} there now).
      </p>
      <ScrollRegion label="Run schools" className="mt-2">
        <table className="w-full text-left">
          <thead className="small-label border-b border-hair">
            <tr>
              <th className="py-2">School</th>
              <th>Lost beside it, {units.film}</th>
              <th>Left, {units.film}</th>
              <th>Below the minimum</th>
              <th>Cut through</th>
              <th>Minutes</th>
            </tr>
          </thead>
          <tbody>
            {runs.schools.map((s) => (
              <tr key={s.school} className="border-b border-hair" data-testid={`run-${s.school}`}>
                <td className="py-1">
                  <button
                    type="button"
                    className="press"
                    aria-pressed={value === s.school}
                    onClick={() => onChange(s.school)}
                    title={inUnits(RUN_SCHOOLS[s.school].how, units)}
                    data-kind={value === s.school ? "main" : undefined}
                  >
                    {RUN_SCHOOLS[s.school].name}
                  </button>
                </td>
                <td>{film(s.loss_m)}</td>
                <td>{showWithUncertainty("film", s.left_m, s.u_left_m, units).text}</td>
                <td>{chanceOf(s.school, "thin")}</td>
                <td>{chanceOf(s.school, "cut")}</td>
                <td>{Math.round(s.minutes)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollRegion>
      <p className="mt-2 text-[13px] text-ink2">
        {value ? inUnits(`${RUN_SCHOOLS[value].name}: ${RUN_SCHOOLS[value].how}.`, units) : "Choose a school."} Blades: cut-resistant
        gloves.
      </p>
    </section>
  );
});
