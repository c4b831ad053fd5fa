import { Suspense, lazy } from "react";
import { Link, useFetcher } from "react-router";
import { PAINTS, shadesOf } from "#core/models/colour/job-colours";
import type { ColoursView } from "#server/views/vehicle-view";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft } from "~/kit/draft/use-draft";
import type { FormAnswer } from "~/kit/form/answer";
import { PageHeader } from "~/kit/shell/page-header";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { More } from "~/kit/ui/more";
import { Toggle } from "~/kit/ui/toggle";
import { coloursSentence, jointWords, nameOf, orderSteps, partField } from "./colours.words";

/** Drawn with the page, fetched after it. */
const ColourMap = lazy(() => import("./colour-map").then((m) => ({ default: m.ColourMap })));

/** A usual second colour to begin with. */
const WHITE = "#e8e8e4";

/** Which colours a vehicle has, where they end and in which order they go on. */
export function ColoursDesk({ view }: { view: ColoursView }) {
  const { job, order, joints } = view;
  const { says, then } = coloursSentence(view);
  return (
    <>
      <PageHeader title={job.vehicle} note="Colours and joints" />
      <main className="px-4 py-6 sm:px-6">
        <h2 className="max-w-[26em] text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]" data-testid="colours-sentence">
          {says} <em className="text-glow-ink not-italic">{then}</em>
        </h2>
        <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[1fr_1.1fr]">
          <ColoursForm view={view} />
          <div className="space-y-6">
            {order && (
              <section aria-labelledby="order-title">
                <h3 id="order-title" className="mb-1 text-lg font-semibold">
                  In this order
                </h3>
                <ol className="list-decimal space-y-1 pl-6" data-testid="colour-order">
                  {orderSteps(order, shadesOf(job)).map((step) => (
                    <li key={step}>{step}</li>
                  ))}
                </ol>
              </section>
            )}
            <Suspense>
              <ColourMap {...view} />
            </Suspense>
            {joints.length > 0 && <Joints joints={joints} />}
            <p className="flex flex-wrap gap-3">
              <Link to={`/jobs/${job.id}/vehicle`} className="press">
                Parts and where they lie
              </Link>
            </p>
          </div>
        </div>
      </main>
    </>
  );
}

function Joints({ joints }: Pick<ColoursView, "joints">) {
  return (
    <section aria-labelledby="joints-title">
      <h3 id="joints-title" className="mb-1 text-lg font-semibold">
        Where colour ends
      </h3>
      <ul data-testid="joints">
        {joints.map(jointWords).map(({ where, what, why }) => (
          <li key={`${where} ${what}`} className="border-b border-hair py-1.5">
            <b className="font-semibold">{where}</b>: {what.charAt(0).toLowerCase() + what.slice(1)}
            <span className="block text-[14px] text-ink2">{why}</span>
          </li>
        ))}
      </ul>
      <p className="mt-2 max-w-[60ch] text-[13px] text-ink2">Painters disagree about blends; try the colour on a card in daylight first.</p>
    </section>
  );
}

type Fields = { second: string; secondCss: string; paint: string } & Record<ReturnType<typeof partField>, string>;
const fieldsOf = ({ job: { colours }, panels }: Pick<ColoursView, "job" | "panels">): Fields => ({
  second: colours.second?.name ?? "",
  secondCss: colours.second?.css ?? WHITE,
  paint: colours.paint ?? "",
  ...(Object.fromEntries(panels.map((p) => [partField(p.id), p.colour])) as Record<ReturnType<typeof partField>, string>),
});

function ColoursForm({ view: { job, panels, order, version } }: { view: ColoursView }) {
  const fetcher = useFetcher<FormAnswer>();
  const draft = useDraft("colours", fieldsOf({ job, panels }), {}, version);
  const { second, paint } = draft.typed;
  const errors = fetcher.data?.errors ?? {};
  const [first] = shadesOf(job);
  return (
    <DraftForm draft={draft} fetcher={fetcher} className="space-y-4">
      <input type="hidden" name="intent" value="colours" />
      <div className="grid grid-cols-[1fr_auto] gap-4">
        <Field
          label="Second colour"
          hint={`beside ${nameOf(first, 1)}; empty: one colour`}
          {...draft.field("second")}
          errors={errors.second}
        />
        <Field
          label="Shown as"
          type="color"
          className="w-20 [&_input]:h-11 [&_input]:p-1"
          {...draft.field("secondCss")}
          errors={errors.secondCss}
        />
      </div>
      <div>
        <p className="small-label mb-1">How light falls on them</p>
        <input type="hidden" name="paint" value={paint} />
        <Toggle
          label="How light falls on them"
          value={paint}
          options={[{ value: "", name: "not said" }, ...Object.entries(PAINTS).map(([value, name]) => ({ value, name }))]}
          onChange={(value) => draft.set("paint", value)}
        />
        <FieldErrors errors={errors.paint} />
      </div>
      {second.trim() !== "" && (
        <More label="Which part has which" open={order === null}>
          <div className="grid gap-3 sm:grid-cols-2">
            {panels.map((p) => (
              <SelectField key={p.id} label={p.name} {...draft.field(partField(p.id))} errors={errors[partField(p.id)]}>
                <option value="first">{nameOf(first, 1)}</option>
                <option value="second">{second.trim()}</option>
                <option value="both">both, a line through it</option>
              </SelectField>
            ))}
          </div>
        </More>
      )}
      <button className="press" data-kind="main" disabled={fetcher.state !== "idle"}>
        Keep the colours
      </button>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </DraftForm>
  );
}
