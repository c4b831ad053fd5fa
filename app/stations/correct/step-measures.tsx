import { useDraft } from "~/kit/draft/use-draft";
import { fromSi } from "#core/kernel/units/convert";
import { useUnits } from "~/kit/root/use-root";
import { Field } from "~/kit/ui/field";
import { Tag } from "~/kit/ui/tag";
import { useStandInMark } from "./use-stand-in-mark";

/** Film at one mark before and after a step, and its gloss: wanted now and then, so that the shop learns what a step takes off. */
export function StepMeasures({ panelId, place, errors }: { panelId: string; place: string; errors: Record<string, string[]> }) {
  const units = useUnits();
  const draft = useDraft(place, { before: "", after: "", gloss: "", simulated: "" }, { before: "film", after: "film" });
  const { typed } = draft;
  const simulated = typed.simulated === "yes";
  const { read, fault } = useStandInMark(panelId);
  const standIn = async (when: "before" | "after") => {
    const readings_m = await read(when);
    if (!readings_m) return;
    draft.set("simulated", "yes");
    draft.set(when, readings_m.map((m) => fromSi("film", m, units.film).toFixed(units.film === "µm" ? 0 : 2)).join(" "));
  };
  const field = (name: keyof typeof typed, label: string, unit: string) => (
    <Field label={label} unit={unit} {...draft.field(name)} errors={errors[name]} />
  );
  return (
    <details className="rounded-press border border-hair p-3" open={Object.keys(errors).length > 0 || undefined}>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">Read one mark before and after</summary>
      <input type="hidden" name="simulated" value={simulated && typed.before ? "yes" : ""} disabled={!simulated} />
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        {field("before", "Film at the mark before", units.film)}
        {field("after", "The same mark after", units.film)}
        <button type="button" className="press" onClick={() => void standIn("before")}>
          Stand-in gauge: before
        </button>
        <button type="button" className="press" onClick={() => void standIn("after")}>
          Stand-in gauge: after
        </button>
        {field("gloss", "Gloss at 60° after, if wanted", "GU")}
      </div>
      {simulated && (
        <p className="mt-2">
          <Tag kind="simulated">read with the stand-in</Tag>
        </p>
      )}
      {fault && <p className="mt-2 text-stop-ink">{fault}</p>}
      <p className="mt-2 text-[13px] text-ink2">
        Several readings with spaces between. The mark and the forecast are weighed by their doubts, and the steps after it go by what it
        says; three measured steps of one kind and House offers this shop&apos;s own figure.
      </p>
    </details>
  );
}
