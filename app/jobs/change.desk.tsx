import { Link, useFetcher } from "react-router";
import { FINISHES } from "#core/models/ways/terms";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft } from "~/kit/draft/use-draft";
import type { FormAnswer } from "~/kit/form/answer";
import { useUnits } from "~/kit/root/use-root";
import { PageHeader } from "~/kit/shell/page-header";
import { WayChoice } from "~/kit/ways/way-choice";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { BriefFields } from "./brief-fields";
import { jobStart } from "./job-start";
import { RemovePanel } from "./remove-panel";
import { PANEL_QUANTITIES, PanelFields, panelStartOf } from "./panel-fields";
import type { Route } from "./+types/change.route";

/** What a job and a panel are about, put right: figures follow, and the ledger keeps who changed what. */
export function ChangeDesk({ loaderData, params }: Pick<Route.ComponentProps, "loaderData" | "params">) {
  const { job, panel } = loaderData;
  return (
    <>
      <PageHeader
        title={`Change ${job.vehicle}, ${panel.name.toLowerCase()}`}
        note="Figures follow; the ledger keeps what was changed and by whom"
      >
        <Link className="press" to={`/jobs/${params.jobId}/panels/${params.panelId}/plan`}>
          Back to the panel
        </Link>
      </PageHeader>
      <main className="max-w-[1080px] space-y-12 px-4 py-6 sm:px-6">
        <ChangePanel {...loaderData} />
        <ChangeJob {...loaderData} />
        <RemovePanel {...loaderData} />
        <CopyJob formKey={loaderData.formKey} />
      </main>
    </>
  );
}

type Loaded = Route.ComponentProps["loaderData"];

function ChangePanel({ panel, products, placed, versions }: Pick<Loaded, "panel" | "products" | "placed" | "versions">) {
  const fetcher = useFetcher<FormAnswer>();
  const draft = useDraft("change panel", panelStartOf(panel, useUnits()), PANEL_QUANTITIES, versions.panel);
  const errors = fetcher.data?.errors ?? {};
  return (
    <section aria-labelledby="panel-title">
      <h2 id="panel-title" className="mb-3 text-xl font-semibold">
        This panel
      </h2>
      {placed && (
        <p className="mb-3 max-w-[70ch] text-ink2">
          Readings or faults are placed on its outline, so the outline stays. For another shape add a panel and take the readings out here.
        </p>
      )}
      <DraftForm draft={draft} fetcher={fetcher} className="space-y-4">
        <input type="hidden" name="intent" value="panel" />
        <PanelFields draft={draft} errors={errors} products={products} outlineStays={placed} />
        <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
        <button className="press" data-kind="main" disabled={fetcher.state !== "idle"}>
          Change the panel
        </button>
      </DraftForm>
    </section>
  );
}

function ChangeJob({ job, ways, versions }: Pick<Loaded, "job" | "ways" | "versions">) {
  const fetcher = useFetcher<FormAnswer>();
  const draft = useDraft("change job", jobStart(job), {}, versions.job);
  const errors = fetcher.data?.errors ?? {};
  return (
    <section aria-labelledby="job-title">
      <h2 id="job-title" className="mb-3 text-xl font-semibold">
        The whole job
      </h2>
      <DraftForm draft={draft} fetcher={fetcher} className="space-y-4">
        <input type="hidden" name="intent" value="job" />
        <div className="grid gap-4 sm:grid-cols-[2fr_1.4fr_auto]">
          <Field label="Vehicle or part" {...draft.field("vehicle")} errors={errors.vehicle} />
          <Field label="Colour" {...draft.field("colourName")} errors={errors.colourName} />
          <Field
            label="Shown as"
            type="color"
            className="w-20 [&_input]:h-11 [&_input]:p-1"
            {...draft.field("colourCss")}
            errors={errors.colourCss}
          />
        </div>
        <WayChoice ways={ways} name="wayId" value={draft.typed.wayId} onChange={(id) => draft.set("wayId", id)} />
        <FieldErrors errors={errors.wayId} />
        <SelectField className="max-w-80" label="Finish wanted" {...draft.field("finish")} errors={errors.finish}>
          {Object.entries(FINISHES).map(([k, name]) => (
            <option key={k} value={k}>
              {name}
            </option>
          ))}
        </SelectField>
        <BriefFields draft={draft} errors={errors} />
        <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
        <button className="press" data-kind="main" disabled={fetcher.state !== "idle"}>
          Change the job
        </button>
      </DraftForm>
    </section>
  );
}

function CopyJob({ formKey }: Pick<Loaded, "formKey">) {
  const fetcher = useFetcher();
  return (
    <section aria-labelledby="copy-title">
      <h2 id="copy-title" className="mb-1 text-xl font-semibold">
        The same again
      </h2>
      <p className="mb-3 text-ink2">A new job of the same brief and panels; nothing that was logged comes with it.</p>
      <fetcher.Form method="post">
        <input type="hidden" name="formKey" value={formKey} />
        <button className="press" name="intent" value="copy" disabled={fetcher.state !== "idle"}>
          Copy this job
        </button>
      </fetcher.Form>
    </section>
  );
}
