import { Link, useFetcher } from "react-router";
import type { CourseStep, StepKind } from "#core/course/steps";
import { FLATTEN_BY } from "#core/models/ways/terms";
import { PART_HELD, type PartHeld, type Side } from "#core/record/kinds";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { useNow } from "~/kit/shell/now";
import { whenText } from "~/kit/words/when";
import { type Naming, stepName } from "./course.words";

/** A step's page, where its work is done elsewhere. */
const PAGES: Partial<Record<StepKind, { to: string; go: string }>> = {
  prepare: { to: "/spray/below", go: "Note what lies below" },
  colour: { to: "/spray/below", go: "Log a coat of colour" },
  readBefore: { to: "/spray", go: "Take the readings" },
  mix: { to: "/plan/mix", go: "Work out the mix" },
  coat: { to: "/spray", go: "Spray and log it" },
  readAfter: { to: "/inspect", go: "Read the film" },
  inspect: { to: "/inspect/defects", go: "Note what you see" },
  correct: { to: "/correct", go: "Go to Correct" },
  measureAgain: { to: "/inspect", go: "Measure again" },
  handOver: { to: "/hand-over", go: "Hand it over" },
};

const LAYER_PAGE = { to: "/spray/below", go: "Spray and log it" };

/** What is done at a step: a page to go to, or a word to the ledger. */
export function Do({ step, naming, at = "row" }: { step: CourseStep; naming: Naming; at?: "now" | "ahead" | "row" }) {
  const { base } = usePanel();
  const page = step.kind === "colour" && step.layer ? LAYER_PAGE : PAGES[step.kind];
  if (page)
    return (
      <Link to={`${base}${page.to}`} className="press" {...(at === "now" ? { "data-kind": "main" } : {})}>
        {at === "row" ? <Short step={step} naming={naming} /> : page.go}
      </Link>
    );
  if (step.kind === "flatten") return <Flatten step={step} />;
  if (step.kind === "turn") return <Turn />;
  if (step.kind === "bake") return <Heat from_ms={step.from_ms} />;
  return null;
}

const Short = ({ step, naming }: { step: CourseStep; naming: Naming }) => (
  <>
    Do it<span className="sr-only">: {stepName(step, naming)}</span>
  </>
);

/** A moment before its time is no matter. */
const SOON_MS = 30_000;

function useSend() {
  const fetcher = useFetcher<FormAnswer>();
  const said = fetcher.data?.ok === false ? fetcher.data : null;
  return { fetcher, errors: said?.errors ?? {}, fault: said?.message ? [said.message] : undefined, busy: fetcher.state !== "idle" };
}

function Flatten({ step }: { step: CourseStep }) {
  const units = useUnits();
  const { view } = usePanel();
  const { fetcher, errors, fault, busy } = useSend();
  return (
    <KeptForm fetcher={fetcher} place={`flatten ${step.id}`} className="flex flex-wrap items-end gap-3">
      <input type="hidden" name="intent" value="flatten" />
      <input type="hidden" name="formKey" value={`${view.formKey}-flatten`} />
      <Field className="w-28" label="Paper, P" name="grit" defaultValue={String(step.grit ?? 800)} errors={errors.grit} />
      <SelectField label="By" name="by" defaultValue="machine" errors={errors.by}>
        {Object.entries(FLATTEN_BY).map(([by, name]) => (
          <option key={by} value={by}>
            {name}
          </option>
        ))}
      </SelectField>
      <Field
        className="w-44"
        label="Came off, if read"
        unit={units.film}
        name="removal"
        defaultValue={initial("film", null, units)}
        errors={errors.removal}
      />
      <button className="press" data-kind="main" disabled={busy}>
        Sanded flat and clean
      </button>
      <FieldErrors errors={fault} />
    </KeptForm>
  );
}

function Turn() {
  const { view } = usePanel();
  const { fetcher, fault, busy } = useSend();
  const turn = (how: PartHeld, side: Side) =>
    void fetcher.submit({ intent: "turn", how, side, formKey: `${view.formKey}-turn-${how}` }, { method: "post" });
  return (
    <div className="flex flex-wrap gap-2">
      {(Object.keys(PART_HELD) as PartHeld[]).map((how, i) => (
        <button
          key={how}
          type="button"
          className="press"
          {...(i === 0 ? { "data-kind": "main" } : {})}
          disabled={busy}
          onClick={() => turn(how, "front")}
        >
          Front up, {PART_HELD[how]}
        </button>
      ))}
      <FieldErrors errors={fault} />
    </div>
  );
}

function Heat({ from_ms }: { from_ms: number | null }) {
  const now_ms = useNow();
  const soon = from_ms !== null && from_ms > now_ms + SOON_MS;
  const units = useUnits();
  const { view } = usePanel();
  const { fetcher, errors, fault, busy } = useSend();
  const { sheet } = view.product;
  if (!view.state.baking)
    return (
      <button
        type="button"
        className="press"
        disabled={busy}
        onClick={() => void fetcher.submit({ intent: "heatOn", formKey: `${view.formKey}-heat` }, { method: "post" })}
      >
        {soon ? `Heat on too soon: from ${whenText(from_ms, now_ms)}` : "Heat on"}
      </button>
    );
  return (
    <KeptForm fetcher={fetcher} place={`bake ${view.state.baking.id}`} className="flex flex-wrap items-end gap-2 text-left">
      <input type="hidden" name="intent" value="baked" />
      <input type="hidden" name="formKey" value={`${view.formKey}-baked`} />
      <Field
        className="w-28"
        label="Part"
        unit={units.temperature}
        name="part"
        defaultValue={initial("temperature", sheet.bake?.part_K ?? null, units)}
        errors={errors.part}
      />
      <Field
        className="w-24"
        label="For"
        unit="min"
        name="time"
        defaultValue={initial("duration", sheet.bake?.time_s ?? null, units)}
        errors={errors.time}
      />
      <button className="press" disabled={busy}>
        Heat off
      </button>
      <FieldErrors errors={fault} />
    </KeptForm>
  );
}
