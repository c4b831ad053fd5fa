import { Link, data, redirect, useFetcher } from "react-router";
import { FINISHES } from "#core/models/ways/way";
import { SUBSTRATES } from "#core/panel/brief";
import { changeJob, changePanel, copyJob, isPlacedOn, jobVersion, panelVersion } from "#server/commands/change-brief";
import type { Job } from "#server/repos/job-repo";
import type { Panel } from "#server/repos/panel-repo";
import { listClears } from "#server/repos/product-repo";
import { listWays } from "#server/repos/way-repo";
import { serverContext } from "#server/running";
import { panelOr404 } from "~/kit/http/panel.server";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft } from "~/kit/draft/use-draft";
import { type FormAnswer, answerForm, textOf, versionIn } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting, inWords } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { panelAloneOr404 } from "~/kit/http/panel.server";
import { formPrefs } from "~/kit/http/prefs.server";
import { useUnits } from "~/kit/root/use-root";
import { PageHeader } from "~/kit/shell/page-header";
import { WayChoice } from "~/kit/ways/way-choice";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { BriefFields, briefStart } from "./brief-fields";
import { changedJobForm, changedPanelForm, sameOutlineForm } from "./job.form";
import { PANEL_QUANTITIES, PanelFields, panelStartOf, productChoice } from "./panel-fields";
import type { Route } from "./+types/change.route";

export const meta: Route.MetaFunction = () => [{ title: "Change job and panel · Yakamoz" }];

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const products = (await listClears(ctx.db)).map(productChoice);
  const { sheet } = view.product;
  const own = productChoice({ revisionId: view.panel.productRevisionId, sheet: { ...sheet, name: `${sheet.name}, as planned` } });
  const ways = await listWays(ctx.db);
  return {
    job: view.job,
    // As the job has it, whatever House says of it now.
    ways: [view.job.way, ...ways.filter((w) => w.id !== view.job.way.id)],
    panel: view.panel,
    versions: { job: jobVersion(view.job), panel: panelVersion(view.panel) },
    formKey: ctx.newId(),
    placed: await isPlacedOn(ctx.db, panelId),
    products: products.some((p) => p.revisionId === own.revisionId) ? products : [own, ...products],
  };
}

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  switch (textOf(form, "intent")) {
    case "job":
      return answerForm(
        form,
        changedJobForm(units),
        async (brief) => ({
          message: (await changeJob(ctx, jobId, brief, { by, expected: versionIn(form) }))
            ? "Job changed; the ledger says so"
            : "Nothing was different",
        }),
        (there: Job) => ({
          ...jobStart(there),
          wayId: { value: there.way.id, said: there.way.name },
          finish: { value: there.finish, said: FINISHES[there.finish] },
        }),
      );
    case "panel": {
      const { panel } = await panelAloneOr404(ctx, panelId);
      const schema = textOf(form, "outline") === "stays" ? sameOutlineForm(units, panel.shape) : changedPanelForm(units);
      return answerForm(
        form,
        schema as ReturnType<typeof changedPanelForm>,
        async (brief) => ({
          message: (await changePanel(ctx, panelId, brief, { by, expected: versionIn(form) }))
            ? "Panel changed; its ledger says so"
            : "Nothing was different",
        }),
        (there: Panel) => ({
          ...panelStartOf(there, units),
          substrate: { value: there.substrate, said: SUBSTRATES[there.substrate].name },
          productRevisionId: { value: there.productRevisionId, said: "another product or revision" },
        }),
      );
    }
    case "copy":
      return inWords(async () => {
        const made = await copyJob(ctx, jobId, textOf(form, "formKey") || null);
        return redirect(`/jobs/${made.jobId}/panels/${made.panelId}/course`);
      });
    default:
      throw data("Not understood", { status: 400 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

/** What a job and a panel are about, put right: figures follow, and the ledger keeps who changed what. */
export default function Change({ loaderData, params }: Route.ComponentProps) {
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

/** What a job is about as its form starts. */
const jobStart = ({ vehicle, colourName, colourCss, way, finish, brief }: Job) => ({
  vehicle,
  colourName,
  colourCss,
  wayId: way.id,
  finish: finish as string,
  ...briefStart(brief),
});

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
