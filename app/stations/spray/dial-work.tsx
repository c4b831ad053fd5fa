import { useFetcher } from "react-router";
import type { EqualFinish, EqualWay } from "#core/coat/equal-finish";
import type { DialView } from "#server/views/dial-view";
import { DraftForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { gaugeLabel } from "~/kit/form/dial-form";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { useDial } from "~/kit/run/use-dial";
import type { Run } from "~/kit/run/use-run";
import { FieldErrors, SelectField } from "~/kit/ui/field";
import { StepperField } from "~/kit/ui/stepper-field";
import { Toggle } from "~/kit/ui/toggle";
import { PRESSURE_STEP, WAY_NAMES, dialWorking, isAsPlanned, leftText, setText } from "~/kit/words/dial-words";
import { WorkingButton } from "~/kit/ui/figure";
import { DialBeside } from "./dial-beside";

/** What was found, what to set, and how that comes out. */
export function Dial({ dial, formKey }: { dial: DialView; formKey: string }) {
  const { view } = usePanel();
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const { draft, run, equal, way, choose, errors: wrong } = useDial(dial, "dial");
  const errors = wrong ?? (fetcher.data?.ok === false ? fetcher.data.errors : {});
  const stepper = (name: "pressure" | "air" | "cup" | "nozzle", label: string, unit: string, by = 1) => (
    <StepperField
      label={label}
      unit={unit}
      by={by}
      name={name}
      value={draft.typed[name]}
      onChange={(text) => draft.set(name, text)}
      errors={errors[name]}
    />
  );
  return (
    <>
      <Heading {...{ run, equal, way, fault: wrong !== null }} />
      <div className="mt-4 grid gap-x-8 gap-y-6 lg:grid-cols-[1fr_1.6fr]">
        <DraftForm draft={draft} fetcher={fetcher} className="space-y-4">
          <input type="hidden" name="intent" value="dial" />
          <input type="hidden" name="formKey" value={`${formKey}-dial`} />
          <input type="hidden" name="by" value={way?.by ?? ""} />
          <div className="space-y-2">
            {stepper("pressure", gaugeLabel(dial), units.pressure, PRESSURE_STEP[units.pressure])}
            {stepper("air", "Air", units.temperature)}
            {dial.cup && stepper("cup", "Cup runs", "s")}
            {draft.typed.gun === "" && stepper("nozzle", "Nozzle", "mm", 0.1)}
          </div>
          {dial.guns.length > 0 && (
            <SelectField label="Gun in the hand" name="gun" value={draft.typed.gun} onChange={(e) => draft.set("gun", e.target.value)}>
              <option value="">as it was</option>
              {dial.guns.map((g) => (
                <option key={g.id} value={g.id}>
                  {g.name}
                </option>
              ))}
            </SelectField>
          )}
          <div className="flex flex-wrap gap-3">
            {equal && equal.ways.length > 1 && way && (
              <Toggle
                label="With what"
                value={way.by}
                onChange={(v) => choose(v as EqualWay["by"])}
                options={equal.ways.map((w) => ({ value: w.by, name: WAY_NAMES[w.by] }))}
              />
            )}
            <button
              className="press min-h-12"
              data-kind="main"
              disabled={!equal || !way || run.busy || isAsPlanned(equal) || fetcher.state !== "idle"}
            >
              {equal && isAsPlanned(equal) ? "Set as planned" : "Set so"}
            </button>
          </div>
          <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
        </DraftForm>
        <div className="min-h-80">{equal && way && <DialBeside {...{ equal, way, calibration: dial.calibration }} />}</div>
      </div>
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        A model set to common practice. {view.product.sheet.name}: its sheet and a test panel decide.
      </p>
    </>
  );
}

/** What to set, in a sentence. */
function Heading({
  run,
  equal,
  way,
  fault,
}: {
  run: Run<"equalFinish">;
  equal: EqualFinish | null;
  way: EqualWay | null;
  /** A figure is wrong. */
  fault: boolean;
}) {
  const units = useUnits();
  return (
    <div aria-live="polite" data-testid="dial-sentence" data-busy={run.busy || !run.asked}>
      <h2 className="min-h-[2.24em] max-w-[26em] text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]">
        {fault ? (
          "A figure is missing or wrong; it says where."
        ) : run.fault ? (
          run.fault
        ) : !equal ? (
          "Setting the gun."
        ) : isAsPlanned(equal) ? (
          "As planned: nothing to change."
        ) : way ? (
          <>
            Coat {equal.number}: {setText(way, equal, units)}.{" "}
            <em className={`not-italic ${way.notEqual.length > 0 ? "text-amber-ink" : "text-glow-ink"}`}>{leftText(way)}</em>
          </>
        ) : (
          "No setting within the model lays this film."
        )}
      </h2>
      {equal && !fault && (
        <WorkingButton working={dialWorking(equal, units)} label="Show the working of these settings">
          <span className="font-semibold">How this was worked out</span>
        </WorkingButton>
      )}
    </div>
  );
}
