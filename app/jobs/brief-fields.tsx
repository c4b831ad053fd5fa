import { lightFormat } from "date-fns";
import { useState } from "react";
import type { JobBrief } from "#core/panel/job-brief";
import type { Draft } from "~/kit/draft/use-draft";
import { Field } from "~/kit/ui/field";

/** What a job's brief begins with, as typed. */
export const briefStart = (b: JobBrief) => ({
  targetGloss: b.targetGloss_GU === null ? "" : String(b.targetGloss_GU),
  colourCode: b.colourCode,
  customer: b.customer,
  plate: b.plate,
  promised: b.promised_ms === null ? "" : lightFormat(b.promised_ms, "yyyy-MM-dd"),
});
type BriefDraft = Draft<ReturnType<typeof briefStart> & { finish: string }>;

const MORE = ["customer", "plate", "colourCode", "promised"] as const;

/** Gloss wanted, where it is matte; customer, plate, colour code and the promised day, all of which may stay empty. */
export function BriefFields({ draft, errors }: { draft: Pick<BriefDraft, "field" | "typed">; errors: Record<string, string[]> }) {
  const { typed } = draft;
  const [wanted, setWanted] = useState(false);
  const told = MORE.some((name) => typed[name] !== "" || errors[name]);
  return (
    <>
      {typed.finish === "matte" ? (
        <Field
          className="max-w-80"
          label="Gloss wanted at 60°"
          unit="GU"
          {...draft.field("targetGloss")}
          errors={errors.targetGloss}
          hint="as ordered; or leave it empty and read the vehicle"
        />
      ) : (
        <input type="hidden" name="targetGloss" value="" />
      )}
      <details open={wanted || told} onToggle={(e) => setWanted(e.currentTarget.open)}>
        <summary className="min-h-11 cursor-pointer content-center font-semibold">Customer, plate, colour code, promise</summary>
        <div className="grid grid-cols-2 items-start gap-4 pt-2 sm:grid-cols-4">
          <Field label="Customer" {...draft.field("customer")} errors={errors.customer} />
          <Field label="Plate" {...draft.field("plate")} errors={errors.plate} />
          <Field label="Colour code" {...draft.field("colourCode")} errors={errors.colourCode} />
          <Field label="Promised for" type="date" {...draft.field("promised")} errors={errors.promised} />
        </div>
      </details>
    </>
  );
}
