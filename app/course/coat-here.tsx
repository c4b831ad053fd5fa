import { Link, useFetcher } from "react-router";
import type { CourseStep } from "#core/course/steps";
import { preferredUnit } from "#core/kernel/units/quantities";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft } from "~/kit/draft/use-draft";
import type { FormAnswer } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { FieldErrors } from "~/kit/ui/field";
import { StepperField } from "~/kit/ui/stepper-field";
import { capital } from "~/kit/words/capital";
import { StepFields, useAllNames } from "./along";
import { CombHere } from "./comb-here";
import type { HandAt } from "./course-at";

/** A press of a stepper, in the units shown. */
const HAND_STEP = { "m/s": 0.02, "in/s": 0.5 } as Record<string, number>;
const FLUID_STEP = { "ml/min": 10, "fl oz/min": 0.2 } as Record<string, number>;
const TURN_STEP = 0.25;

/**
 * A coat logged in one press: as planned, or with the two figures that mostly differ. What nobody touched is not sent: each panel that goes along keeps
 * its own.
 * @param name "coat 2" @param main it may be done now
 */
export function CoatHere({ step, name, hand, main }: { step: CourseStep; name: string; hand: HandAt; main: boolean }) {
  const { view, base } = usePanel();
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const all = useAllNames(step);
  const errors = fetcher.data?.ok === false ? fetcher.data.errors : {};
  const measured = hand.fluidFrom === "measured";
  const start = {
    handSpeed: initial("speed", hand.handSpeed_m_s, units),
    ...(measured
      ? { fluidRate: initial("fluidRate", hand.fluidRate_m3_s, units) }
      : { turns: hand.turns === null ? "" : String(hand.turns) }),
  } as Record<"handSpeed" | "fluidRate" | "turns", string>;
  const draft = useDraft(`step ${step.id}`, start, { handSpeed: "speed", fluidRate: "fluidRate" });
  const { typed } = draft;
  const otherwise = (["handSpeed", "fluidRate", "turns"] as const).filter((k) => start[k] !== undefined && typed[k] !== start[k]);
  const fluid = measured ? "fluidRate" : "turns";
  const press = `${all ? `${all}: ${name}` : name} is on${otherwise.length > 0 ? ", so" : ", as planned"}`;
  return (
    <>
      <DraftForm draft={draft} fetcher={fetcher} className="space-y-3" data-testid="coat-here">
        <input type="hidden" name="intent" value="coatOn" />
        <input type="hidden" name="formKey" value={`${view.formKey}-on`} />
        <StepFields step={step} />
        {otherwise.map((k) => (
          <input key={k} type="hidden" name={k} value={typed[k]} />
        ))}
        <div className="grid max-w-[34rem] gap-2">
          <StepperField
            label="Hand"
            unit={preferredUnit("speed", units)}
            by={HAND_STEP[preferredUnit("speed", units)] ?? 0.02}
            {...shown(draft.field("handSpeed"))}
            errors={errors.handSpeed}
          />
          <StepperField
            label={measured ? "Fluid" : "Needle"}
            unit={measured ? preferredUnit("fluidRate", units) : "turns"}
            by={measured ? (FLUID_STEP[preferredUnit("fluidRate", units)] ?? 10) : TURN_STEP}
            {...shown(draft.field(fluid))}
            errors={errors[fluid]}
          />
        </div>
        <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
        <div className="flex flex-wrap gap-2">
          <button
            className="press min-h-14 flex-1 basis-72 text-[17px]"
            {...(main ? { "data-kind": "main" } : {})}
            disabled={fetcher.state !== "idle"}
          >
            {fetcher.state === "idle" ? capital(press) : "Saving…"}
          </button>
          <Link to={`${base}${step.layer ? "/spray/below" : "/spray"}`} className="press" data-kind="quiet">
            All settings
          </Link>
          <Link to={`${base}/inspect/defects`} className="press" data-kind="quiet">
            Something in it
          </Link>
        </div>
      </DraftForm>
      {!step.layer && <CombHere />}
    </>
  );
}

/** A field of a draft for a stepper: its text is sent only where it differs, by a field of its own. */
const shown = ({ name, value, onChange }: { name: string; value: string; onChange: (e: { target: { value: string } }) => void }) => ({
  name: `${name}-shown`,
  value,
  onChange: (text: string) => onChange({ target: { value: text } }),
});
