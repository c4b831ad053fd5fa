import { Fragment } from "react";
import { useDraft } from "~/kit/draft/use-draft";
import { fromSi } from "#core/kernel/units/convert";
import { useUnits } from "~/kit/root/use-root";
import { StandIn } from "~/kit/shell/stand-in";
import { Field } from "~/kit/ui/field";
import { Tag } from "~/kit/ui/tag";
import { MARK_FIELDS, type MarkField } from "./mark-fields";
import { useStandInMark } from "./use-stand-in-mark";

const START = { before: "", after: "", before2: "", after2: "", before3: "", after3: "", gloss: "", simulated: "" };
const QUANTITY = Object.fromEntries(MARK_FIELDS.flat().map((name) => [name, "film"])) as Record<MarkField, "film">;

/** Film at one to three marks before and after a step, and its gloss: wanted now and then, so that the shop learns what a step takes off. */
export function StepMeasures({ panelId, place, errors }: { panelId: string; place: string; errors: Record<string, string[]> }) {
  const units = useUnits();
  const draft = useDraft(place, START, QUANTITY);
  const { typed } = draft;
  const simulated = typed.simulated === "yes";
  const { read, fault } = useStandInMark(panelId);
  /** One pair more than is filled in. */
  const pairs = MARK_FIELDS.filter(
    ([before], i) => i === 0 || typed[MARK_FIELDS[i - 1]![0]] !== "" || typed[before] !== "" || errors[before],
  );
  const standIn = async (name: MarkField) => {
    const readings_m = await read(name.startsWith("before") ? "before" : "after");
    if (!readings_m) return;
    draft.set("simulated", "yes");
    draft.set(name, readings_m.map((m) => fromSi("film", m, units.film).toFixed(units.film === "µm" ? 0 : 2)).join(" "));
  };
  const field = (name: keyof typeof typed, label: string, unit: string) => (
    <Field label={label} unit={unit} {...draft.field(name)} errors={errors[name]} />
  );
  return (
    <details className="rounded-press border border-hair p-3" open={Object.keys(errors).length > 0 || undefined}>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">Measure one spot before and after</summary>
      <input type="hidden" name="simulated" value={simulated && typed.before ? "yes" : ""} disabled={!simulated} />
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        {pairs.map(([before, after], i) => (
          <Fragment key={before}>
            {field(before, i === 0 ? "Film at the mark before" : `Mark ${i + 1}, another place: before`, units.film)}
            {field(after, i === 0 ? "The same mark after" : `Mark ${i + 1} after`, units.film)}
            {i === 0 && (
              <StandIn>
                <button type="button" className="press" onClick={() => void standIn(before)}>
                  Practice gauge (simulated): before
                </button>
                <button type="button" className="press" onClick={() => void standIn(after)}>
                  Practice gauge (simulated): after
                </button>
              </StandIn>
            )}
          </Fragment>
        ))}
        {field("gloss", "Gloss at 60° after, if wanted", "GU")}
      </div>
      {simulated && (
        <p className="mt-2">
          <Tag kind="simulated">read with the stand-in</Tag>
        </p>
      )}
      {fault && <p className="mt-2 text-stop-ink">{fault}</p>}
      <p className="mt-2 text-[13px] text-ink2">
        Several readings with spaces between. A hand is uneven from place to place: where the verdict hangs on it, read three marks. Marks
        and forecast are weighed by their doubts, and the steps after it go by what they say; three measured steps of one kind and House
        offers this shop&apos;s own figure.
      </p>
    </details>
  );
}
