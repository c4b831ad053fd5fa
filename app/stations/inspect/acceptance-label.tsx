import { useState } from "react";
import { nominalAcceptance, spotAcceptance } from "#core/models/film/acceptance";
import { showFilm } from "#core/kernel/units/format";
import { parseQuantity } from "#core/kernel/units/parse";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { usePanel } from "~/kit/panel/use-panel";
import { Field, SelectField } from "~/kit/ui/field";
import { Tag } from "~/kit/ui/tag";

const RULES = { spots: "Spots within limits (SSPC-PA 2)", nominal: "Nominal film (ISO 19840)" } as const;
const LEVELS = [1, 2, 3, 4, 5] as const;

/** A published acceptance label on the clear, where somebody asks for it. Made for steelwork: never the verdict. */
export function AcceptanceLabel() {
  const { view } = usePanel();
  const units = useUnits();
  const { sheet } = view.product;
  const coats = Math.max(1, view.state.coats.length);
  const [rule, setRule] = useState<keyof typeof RULES>("spots");
  const [level, setLevel] = useState<(typeof LEVELS)[number]>(3);
  const [least, setLeast] = useState(initial("film", sheet.filmPerCoatMin_m * coats, units));
  const [most, setMost] = useState(initial("film", sheet.filmPerCoatMax_m * coats, units));
  const low = parseQuantity("film", least, units.film);
  const high = parseQuantity("film", most, units.film);
  const clears = view.state.spots.flatMap((s) => (s.clear ? [Math.max(0, s.clear.clear_m)] : []));
  const label = read();
  return (
    <details className="rounded-press border border-hair px-3">
      <summary className="min-h-11 cursor-pointer content-center font-semibold">Acceptance label, if asked for</summary>
      <div className="grid grid-cols-2 gap-3 pb-3">
        <SelectField className="col-span-2" label="Rule" value={rule} onChange={(e) => setRule(e.target.value as keyof typeof RULES)}>
          {Object.entries(RULES).map(([k, w]) => (
            <option key={k} value={k}>
              {w}
            </option>
          ))}
        </SelectField>
        <Field
          label={rule === "spots" ? "Least" : "Nominal"}
          unit={units.film}
          value={least}
          onChange={(e) => setLeast(e.target.value)}
          errors={low.ok ? undefined : [low.message]}
        />
        <Field
          label="Most"
          unit={units.film}
          value={most}
          onChange={(e) => setMost(e.target.value)}
          errors={high.ok ? undefined : [high.message]}
        />
        {rule === "spots" && (
          <SelectField
            className="col-span-2"
            label="Level"
            value={String(level)}
            onChange={(e) => setLevel(Number(e.target.value) as (typeof LEVELS)[number])}
          >
            {LEVELS.map((n) => (
              <option key={n} value={n}>
                {n}
              </option>
            ))}
          </SelectField>
        )}
        <Label {...{ label }} />
        <p className="col-span-2 text-[13px] text-ink2">
          Written for steelwork. It says how the readings stand to a specification, not whether the clear may be sanded.
        </p>
      </div>
    </details>
  );

  function read(): { accepted: boolean; why: string } | null {
    if (!low.ok || !high.ok || high.si <= low.si || low.si <= 0 || clears.length === 0) return null;
    const film = (m: number) => `${showFilm(m, units).text} ${units.film}`;
    if (rule === "spots") {
      const a = spotAcceptance(clears, { least_m: low.si, most_m: high.si, level });
      return {
        accepted: a.accepted,
        why: `mean ${film(a.mean_m)} ${a.meanOk ? "within" : "outside"} the limits; spots ${a.spotsOk ? "within" : "outside"} level ${level}`,
      };
    }
    const a = nominalAcceptance(clears, { nominal_m: low.si, most_m: high.si });
    const faults = [
      a.meanOk ? null : "the mean is below nominal",
      a.leastOk ? null : "a spot is below 80 % of nominal",
      a.shareOk ? null : `${Math.round(100 * a.shareBelow)} % of the spots are below nominal`,
      a.mostOk ? null : "a spot is above the most",
    ].filter(Boolean);
    return { accepted: a.accepted, why: faults.length ? faults.join("; ") : "mean, least, share below and most all hold" };
  }
}

/** What the rule says. */
function Label({ label }: { label: { accepted: boolean; why: string } | null }) {
  return (
    <p className="col-span-2" data-testid="acceptance">
      {label ? (
        <>
          <Tag kind={label.accepted ? "good" : "caution"}>{label.accepted ? "Accepted" : "Not accepted"}</Tag>{" "}
          <span className="text-ink2">{label.why}</span>
        </>
      ) : (
        <span className="text-ink2">The most must be above the least, and there must be spots with clear.</span>
      )}
    </p>
  );
}
