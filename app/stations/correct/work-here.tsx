import { Suspense, lazy } from "react";
import { Link, useFetcher } from "react-router";
import { showChance } from "#core/kernel/units/format";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { StrikeButton } from "~/kit/shell/strike-button";
import { FieldErrors } from "~/kit/ui/field";
import { InUnits } from "~/kit/ui/in-units";
import { stopWords } from "~/kit/words/stop-words";
import { throughWords } from "~/kit/words/through-words";
import { lookForWords, stepFacts } from "~/kit/words/zone-words";
import { HeldAhead } from "./held-ahead";
import { useFromHere } from "./use-from-here";

/** Wanted now and then: its fields come after what is done. */
const StepMeasures = lazy(() => import("./step-measures").then((m) => ({ default: m.StepMeasures })));

/** The plan's step at hand, in place: what to do, its marks where they are wanted, and that it is done. */
export function WorkHere({ onReplan, onDone }: { onReplan: () => void; onDone: () => void }) {
  const { view, base } = usePanel();
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const { state, panel } = view;
  const plan = state.plan!;
  const done = state.stepsDone.length;
  const step = plan.body.steps[done];
  const { through, held, chances } = useFromHere(view);
  const words = throughWords(view.product.sheet);
  const no = step ? stopWords(held) : null;
  const busy = fetcher.state !== "idle";
  const errors = fetcher.data?.ok === false ? fetcher.data.errors : {};
  if (through)
    return (
      <div className="space-y-2" role="alert">
        <p className="text-[22px] leading-tight font-semibold text-stop-ink">
          Stop. {words.sign}: {words.stop}.
        </p>
        <p>{words.mend}</p>
        <Link to={`${base}/correct/options`} className="press" data-kind="main">
          What now?
        </Link>
        <StrikeButton entryId={through.id} what="the cut-through" />
      </div>
    );
  if (!step)
    return (
      <div className="flex flex-wrap gap-2">
        <button type="button" className="press min-h-14 text-[17px]" data-kind="main" onClick={onDone}>
          Worked through: go on
        </button>
        <button type="button" className="press" onClick={onReplan}>
          Plan again from here
        </button>
      </div>
    );
  return (
    <div className="space-y-3" data-testid="work-here">
      <p className="text-[22px] leading-tight font-semibold">
        {no ? <span className="text-stop-ink">{no}</span> : `${done + 1} of ${plan.body.steps.length}: ${step.name}`}
      </p>
      <HeldAhead view={view} held={held} />
      <p>
        {stepFacts(step, units)}. <InUnits>{step.doThis}</InUnits>.
        {chances && <span className="text-ink2"> From here, cutting through {showChance(chances.cutChance)}.</span>}
      </p>
      <KeptForm fetcher={fetcher} place={`step ${plan.id} ${done}`} key={`${plan.id}-${done}`} className="space-y-3">
        <input type="hidden" name="intent" value="step" />
        <input type="hidden" name="planId" value={plan.id} />
        <input type="hidden" name="index" value={done} />
        <input type="hidden" name="formKey" value={`${plan.id}-${done}-${view.formKey}`} />
        <button className="press min-h-14 w-full text-[17px]" data-kind={no ? undefined : "main"} disabled={busy}>
          {no ? "Done all the same" : "Done"}
        </button>
        <Suspense fallback={<div className="min-h-16" />}>
          <StepMeasures panelId={panel.id} place={`step ${plan.id} ${done} mark`} errors={errors} />
        </Suspense>
      </KeptForm>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
      <p className="text-[14px] text-ink2">{lookForWords(step)}</p>
      <fetcher.Form method="post" className="flex flex-wrap gap-2">
        <input type="hidden" name="planId" value={plan.id} />
        {done > 0 && plan.body.steps[done - 1]?.use && (
          <button className="press" name="intent" value="again" disabled={busy}>
            Last step once more
          </button>
        )}
        <button className="press" name="intent" value="through" disabled={busy}>
          {words.sign}
        </button>
        <button type="button" className="press" data-kind="quiet" onClick={onReplan}>
          Plan again
        </button>
        <Link to={`/jobs/${view.job.id}/booth/${panel.id}`} className="press" data-kind="quiet">
          Large, with its clock
        </Link>
      </fetcher.Form>
    </div>
  );
}
