import { useUnits } from "~/kit/root/use-root";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft } from "~/kit/draft/use-draft";
import { useNavigation } from "react-router";
import { UsualClears } from "~/kit/first/usual-clears";
import { FINISHES } from "#core/models/ways/terms";
import { PANEL_QUANTITIES, PanelFields, panelStart, productFor } from "./panel-fields";
import { PartsPick } from "./parts-pick";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { NO_BRIEF } from "#core/panel/job-brief";
import { BriefFields, briefStart } from "./brief-fields";
import { PageHeader } from "~/kit/shell/page-header";
import { WayChoice } from "~/kit/ways/way-choice";
import type { Route } from "./+types/new-job.route";

export function NewJobDesk({
  loaderData: { ways, usual, formKey, products },
  actionData,
}: Pick<Route.ComponentProps, "loaderData" | "actionData">) {
  const units = useUnits();
  const draft = useDraft(
    "job",
    {
      vehicle: "",
      colourName: "",
      colourCss: "#1d5560",
      wayId: usual.id,
      finish: usual.finish,
      ...panelStart(units, products, usual.coats.length),
      productRevisionId: productFor(products, usual.finish),
      parts: [] as readonly string[],
      ...briefStart(NO_BRIEF),
    },
    PANEL_QUANTITIES,
  );
  const { typed } = draft;
  const busy = useNavigation().state === "submitting";
  const errors = actionData?.errors ?? {};
  return (
    <>
      <PageHeader title="New job" note="From a house way; everything can be changed later" />
      <main className="max-w-[1080px] px-4 py-6 sm:px-6">
        {products.length === 0 && <ShelfEmpty />}
        <DraftForm draft={draft} className="space-y-8">
          <input type="hidden" name="formKey" value={formKey} />
          <section className="space-y-3">
            <div className="grid gap-4 sm:grid-cols-[2fr_1.4fr_auto]">
              <Field label="Vehicle or part" {...draft.field("vehicle")} errors={errors.vehicle} />
              <Field label="Colour" {...draft.field("colourName")} errors={errors.colourName} />
              <ShownAs {...draft.field("colourCss")} />
            </div>
            <PartsPick draft={draft} />
            <FieldErrors errors={actionData?.message ? [actionData.message] : undefined} />
            <button className="press min-h-14 w-full text-[17px] sm:w-auto" data-kind="main" disabled={busy || products.length === 0}>
              {busy ? "Starting…" : "Start this job"}
            </button>
          </section>
          <section>
            <h2 className="mb-3 text-xl font-semibold">House way</h2>
            <WayChoice
              ways={ways}
              name="wayId"
              value={typed.wayId}
              onChange={(id) => {
                const way = ways.find((w) => w.id === id);
                if (!way) return;
                draft.set("wayId", id);
                draft.set("finish", way.finish);
                draft.set("coatsPlanned", String(way.coats.length));
                const now = products.find((p) => p.revisionId === typed.productRevisionId);
                if (now?.matte !== (way.finish === "matte")) draft.set("productRevisionId", productFor(products, way.finish));
              }}
            />
            <FieldErrors errors={errors.wayId} />
            <SelectField className="mt-4 max-w-80" label="Finish wanted" {...draft.field("finish")} errors={errors.finish}>
              {Object.entries(FINISHES).map(([k, name]) => (
                <option key={k} value={k}>
                  {name}
                </option>
              ))}
            </SelectField>
            <div className="mt-4 space-y-3">
              <BriefFields draft={draft} errors={errors} />
            </div>
          </section>
          <section>
            <h2 className="mb-3 text-xl font-semibold">First panel</h2>
            <PanelFields draft={draft} errors={errors} products={products} several />
          </section>
        </DraftForm>
      </main>
    </>
  );
}

/** Without a clear there is nothing to spray: a usual one is a press away, and the form stays as it is. */
function ShelfEmpty() {
  return (
    <section className="mb-5 space-y-2 rounded-press border border-edge p-4">
      <p>The shelf is empty. Put a clear on it first:</p>
      <UsualClears asked="job" />
    </section>
  );
}

/** The colour as the screen shows it. */
function ShownAs(field: React.ComponentProps<"input">) {
  return (
    <div>
      <label htmlFor="colourCss" className="small-label mb-1 block">
        Shown as
      </label>
      <input id="colourCss" {...field} type="color" className="h-11 w-20 cursor-pointer rounded-press border border-edge" />
    </div>
  );
}
