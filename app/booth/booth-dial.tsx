import { useFetcher } from "react-router";
import type { BoothPanel } from "#server/views/booth-view";
import type { DialView } from "#server/views/dial-view";
import { DraftForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { gaugeLabel } from "~/kit/form/dial-form";
import { useUnits } from "~/kit/root/use-root";
import { useDial } from "~/kit/run/use-dial";
import { FieldErrors } from "~/kit/ui/field";
import { StepperField } from "~/kit/ui/stepper-field";
import { PRESSURE_STEP, isAsPlanned, leftText, setText } from "~/kit/words/dial-words";

/** The gauge reads otherwise than the next coat was planned with: asked at the gun, answered for the hand. */
export function BoothDial({ panel, jobId }: { panel: BoothPanel; jobId: string }) {
  const asked = useFetcher<{ dial: DialView | null; formKey: string }>();
  const at = `/jobs/${jobId}/panels/${panel.id}/spray/dial`;
  if (!asked.data)
    return (
      <button
        type="button"
        className="press text-[18px]"
        data-kind="quiet"
        disabled={asked.state !== "idle"}
        onClick={() => void asked.load(at)}
      >
        Gauge reads otherwise
      </button>
    );
  const { dial, formKey } = asked.data;
  if (!dial) return <p className="text-[18px]">No coat comes next here, or its settings lie beyond the model.</p>;
  return <Asked {...{ dial, formKey, at }} />;
}

function Asked({ dial, formKey, at }: { dial: DialView; formKey: string; at: string }) {
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const { draft, equal, way, run, errors } = useDial(dial, `gauge ${dial.from.number}`);
  const planned = equal && isAsPlanned(equal);
  return (
    <DraftForm
      draft={draft}
      fetcher={fetcher}
      action={at}
      className="max-w-xl space-y-3 border-t border-hair pt-3"
      data-testid="booth-dial"
    >
      <input type="hidden" name="intent" value="dial" />
      <input type="hidden" name="formKey" value={`${formKey}-dial`} />
      <input type="hidden" name="by" value={way?.by ?? ""} />
      <StepperField
        label={gaugeLabel(dial)}
        unit={units.pressure}
        by={PRESSURE_STEP[units.pressure] ?? 1}
        name="pressure"
        value={draft.typed.pressure}
        onChange={(text) => draft.set("pressure", text)}
        errors={errors?.pressure}
      />
      <p
        className="min-h-[3em] text-[24px] leading-tight font-semibold"
        aria-live="polite"
        data-testid="booth-dial-says"
        data-busy={run.busy}
      >
        {errors
          ? ""
          : run.fault
            ? run.fault
            : !equal || !way
              ? "Setting the gun."
              : planned
                ? "As planned."
                : `Then ${setText(way, equal, units)}.`}
        {equal && way && !planned && !errors && (
          <span className={`block text-[18px] font-normal ${way.notEqual.length > 0 ? "text-amber-ink" : "text-glow-ink"}`}>
            {leftText(way)}
          </span>
        )}
      </p>
      <button className="press min-h-14 text-[20px]" disabled={!way || run.busy || planned === true || fetcher.state !== "idle"}>
        Set so
      </button>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </DraftForm>
  );
}
