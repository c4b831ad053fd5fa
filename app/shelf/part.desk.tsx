import { KeptForm } from "~/kit/draft/draft-form";
import { PART_KINDS } from "#core/models/product/kinds";
import { useUnits } from "~/kit/root/use-root";
import { CommonFields } from "./common-fields";
import { sheetTexts } from "./sheet.texts";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/part.route";

export function PartPageDesk({ loaderData: { item, formKey }, actionData }: Pick<Route.ComponentProps, "loaderData" | "actionData">) {
  const errors = actionData?.errors ?? {};
  const s = item?.sheet;
  const texts = sheetTexts(s, useUnits());
  return (
    <>
      <PageHeader title={s?.name ?? "New hardener, reducer or additive"} note="What only goes into a mix" />
      <main className="max-w-[960px] px-4 py-6 sm:px-6">
        <KeptForm place="part" version={item?.revisionId} className="grid grid-cols-2 items-start gap-4 sm:grid-cols-4">
          <input type="hidden" name="formKey" value={formKey} />
          <Field className="col-span-2" label="Name" name="name" defaultValue={texts.name} errors={errors.name} />
          <SelectField label="Kind" name="kind" defaultValue={s?.kind ?? "hardener"} errors={errors.kind}>
            {PART_KINDS.map((k) => (
              <option key={k} value={k}>
                {k}
              </option>
            ))}
          </SelectField>
          <SelectField label="Speed" name="speed" defaultValue={s?.speed ?? ""} errors={errors.speed}>
            <option value="">not said</option>
            <option value="fast">fast</option>
            <option value="medium">medium</option>
            <option value="slow">slow</option>
          </SelectField>
          <CommonFields texts={texts} errors={errors} />
          <FieldErrors errors={actionData?.ok === false && actionData.message ? [actionData.message] : undefined} />
          <button className="press col-span-2 justify-self-start" data-kind="main">
            {item ? "Save as a new revision" : "Put it on the shelf"}
          </button>
        </KeptForm>
        <p className="mt-6 max-w-[70ch] text-[13px] text-ink2">
          Hardeners of two-pack clears contain isocyanates: gloves, eye protection and the breathing protection its safety data sheet asks
          for, also while mixing.
        </p>
      </main>
    </>
  );
}
