import { useFetcher } from "react-router";
import type { CourseStep } from "#core/course/steps";
import { FLATTEN_BY } from "#core/models/ways/terms";
import { PART_HELD, type PartHeld } from "#core/record/kinds";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { useNow } from "~/kit/shell/now";
import { whenText } from "~/kit/words/when";
import { StepFields, useAllNames } from "./along";

export { TextureRating } from "~/kit/panel/texture-rating";

/** A moment before its time is no matter. */
const SOON_MS = 30_000;

function useSend() {
  const fetcher = useFetcher<FormAnswer>();
  const said = fetcher.data?.ok === false ? fetcher.data : null;
  return { fetcher, errors: said?.errors ?? {}, fault: said?.message ? [said.message] : undefined, busy: fetcher.state !== "idle" };
}

/** The part sanded flat between its builds. */
export function Flatten({ step }: { step: CourseStep }) {
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

/** The part turned over, or hung. */
export function Turn({ step }: { step: CourseStep }) {
  const { view } = usePanel();
  const { fetcher, fault, busy } = useSend();
  const all = useAllNames(step);
  return (
    <fetcher.Form method="post" className="flex flex-wrap gap-2">
      <input type="hidden" name="intent" value="turn" />
      <input type="hidden" name="side" value="front" />
      <input type="hidden" name="formKey" value={`${view.formKey}-turn`} />
      <StepFields step={step} />
      {(Object.keys(PART_HELD) as PartHeld[]).map((how, i) => (
        <button key={how} className="press" name="how" value={how} {...(i === 0 ? { "data-kind": "main" } : {})} disabled={busy}>
          {all ? `${all}: front up` : "Front up"}, {PART_HELD[how]}
        </button>
      ))}
      <FieldErrors errors={fault} />
    </fetcher.Form>
  );
}

/** Heat on, and off again with what the part had. */
export function Heat({ step }: { step: CourseStep }) {
  const now_ms = useNow();
  const { from_ms } = step;
  const units = useUnits();
  const { view } = usePanel();
  const { fetcher, errors, fault, busy } = useSend();
  const all = useAllNames(step);
  const { sheet } = view.product;
  const named = (text: string) => (all ? `${all}: ${text.charAt(0).toLowerCase()}${text.slice(1)}` : text);
  if (!view.state.baking) {
    const soon = from_ms !== null && from_ms > now_ms + SOON_MS;
    return (
      <fetcher.Form method="post">
        <input type="hidden" name="intent" value="heatOn" />
        <input type="hidden" name="formKey" value={`${view.formKey}-heat`} />
        <StepFields step={step} />
        <button className="press" {...(soon ? {} : { "data-kind": "main" })} disabled={busy}>
          {named(soon ? `Heat on too soon: from ${whenText(from_ms, now_ms)}` : "Heat on")}
        </button>
        <FieldErrors errors={fault} />
      </fetcher.Form>
    );
  }
  return (
    <KeptForm fetcher={fetcher} place={`bake ${view.state.baking.id}`} className="flex flex-wrap items-end gap-2 text-left">
      <input type="hidden" name="intent" value="baked" />
      <input type="hidden" name="formKey" value={`${view.formKey}-baked`} />
      <StepFields step={step} />
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
      <button className="press" data-kind="main" disabled={busy}>
        {named("Heat off")}
      </button>
      <FieldErrors errors={fault} />
    </KeptForm>
  );
}
