import { Suspense, lazy } from "react";
import { KeptForm } from "~/kit/draft/draft-form";
import { Link, useFetcher, type FetcherWithComponents } from "react-router";
import { showSpan } from "#core/kernel/units/format";
import type { PanelView } from "#server/views/panel-view";
import type { FormAnswer } from "~/kit/form/answer";
import { useUnits } from "~/kit/root/use-root";
import { useWakeLock } from "~/kit/shell/use-wake-lock";
import { HeldAhead } from "./held-ahead";
import { capital } from "~/kit/words/capital";
import { throughWords } from "~/kit/words/through-words";
import { stopWords } from "~/kit/words/stop-words";
import { useNow } from "~/kit/shell/now";
import { FieldErrors } from "~/kit/ui/field";
import { StrikeButton } from "~/kit/shell/strike-button";
import { lookForWords, stepFacts } from "~/kit/words/zone-words";
import { useHeldHere } from "./held-here";
import { InUnits } from "~/kit/ui/in-units";
import type { PlanStep } from "#core/record/bodies";
import type { EntryOf } from "#core/record/entry";

/** Wanted now and then: its fields come after what is done. */
const StepMeasures = lazy(() => import("./step-measures").then((m) => ({ default: m.StepMeasures })));

/** What is read beside the step in hand, with the chances that a worker works out: after the page. */
const WorkBeside = lazy(() => import("./work-beside").then((m) => ({ default: m.WorkBeside })));
const Room = () => <div className="min-h-96" />;

/** The plan as cards, read at a metre with wet gloves: what to do now, its clock, and what is left of the clear. */
export function WorkDesk({ view }: { view: PanelView }) {
  const now_ms = useNow();
  const fetcher = useFetcher<FormAnswer>();
  useWakeLock();
  const { state, job, panel } = view;
  const { plan, stepsDone, working } = state;
  const base = `/jobs/${job.id}/panels/${panel.id}`;
  const { through, held } = useHeldHere(view);
  const no = stopWords(held);
  const words = throughWords(view.product.sheet);
  const busy = fetcher.state !== "idle";
  if (!plan)
    return (
      <main className="space-y-4 px-4 py-6 sm:px-6">
        <h2 className="text-[34px] leading-tight font-semibold">There is no plan to work through yet.</h2>
        <Link to={`${base}/correct`} className="press" data-kind="main">
          Make a plan
        </Link>
      </main>
    );
  const index = stepsDone.length;
  const step = plan.body.steps[index];
  const running = step && working?.body.index === index ? working : null;
  const elapsed_s = running ? (now_ms - running.at_ms) / 1000 : 0;
  const over = running !== null && step !== undefined && elapsed_s > step.minutes * 60;
  const last = stepsDone.at(-1);
  const errors = fetcher.data?.ok === false ? fetcher.data.errors : {};
  return (
    <main className="grid gap-x-10 gap-y-6 px-4 py-6 sm:px-6 xl:grid-cols-[1.6fr_1fr_200px]">
      <section aria-label="Now" className="space-y-5">
        <Heading {...{ through, words, step, no, plan, view }} />
        {step && !through && <HeldAhead view={view} held={held} />}
        {step && !through && <StepNow {...{ running, elapsed_s, over, step, fetcher, plan, view, no, busy, errors }} />}
        <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
        {last && !through && <After {...{ fetcher, plan, busy, words, view }} />}
        {through && (
          <div className="space-y-3 text-[20px]">
            <p>Sand no further, there or beside it. Tape round the place. {words.mend}</p>
            <div className="flex flex-wrap gap-2">
              <Link to={`${base}/correct/options`} className="press" data-kind="main">
                What now?
              </Link>
              <StrikeButton entryId={through.id} what="the cut-through" />
            </div>
          </div>
        )}
        {!step && !through && (
          <Link to={`${base}/inspect`} className="press min-h-16" data-kind="main">
            Measure again
          </Link>
        )}
      </section>
      <Suspense fallback={<Room />}>
        <WorkBeside {...{ step, plan, view, base }} />
      </Suspense>
    </main>
  );
}

/** What to do now, large. */
function Heading({
  through,
  words,
  step,
  no,
  plan,
  view,
}: {
  through: EntryOf<"throughClear"> | null;
  words: { sign: string; stop: string; watch: string; mend: string };
  step: PlanStep | undefined;
  no: string | null;
  plan: EntryOf<"plan">;
  view: PanelView;
}) {
  const { state } = view;
  const { stepsDone } = state;
  const index = stepsDone.length;
  return (
    <h2 className="text-[clamp(30px,5vw,52px)] leading-[1.06] font-semibold tracking-tight" data-testid="work-now" aria-live="polite">
      {through ? (
        <span className="text-stop-ink">Stop. {capital(words.stop)}.</span>
      ) : step && no ? (
        <span className="text-stop-ink">{no}</span>
      ) : step ? (
        <>
          {index + 1} of {plan.body.steps.length}: <em className="text-glow-ink not-italic">{step.name}.</em>
        </>
      ) : (
        "Worked through. Measure again."
      )}
    </h2>
  );
}

/** The step at hand, its clock and its marks. */
function StepNow({
  running,
  elapsed_s,
  over,
  step,
  fetcher,
  plan,
  view,
  no,
  busy,
  errors,
}: {
  running: EntryOf<"stepStart"> | null;
  elapsed_s: number;
  over: boolean;
  step: PlanStep;
  fetcher: FetcherWithComponents<FormAnswer>;
  plan: EntryOf<"plan">;
  view: PanelView;
  no: string | null;
  busy: boolean;
  errors: Record<string, string[]>;
}) {
  const units = useUnits();
  const { state, panel } = view;
  const { stepsDone } = state;
  const index = stepsDone.length;
  return (
    <>
      <p className="text-[clamp(44px,8vw,96px)] leading-none font-semibold tracking-tight" data-testid="work-clock">
        {running ? showSpan(elapsed_s) : "–"}
        <span className={`ml-3 text-[20px] font-normal tracking-normal ${over ? "text-amber-ink" : "text-ink2"}`}>
          {over ? "longer than planned: fresh paper?" : `of about ${Math.max(1, Math.round(step.minutes))} min`}
        </span>
      </p>
      <div className="max-w-[46ch] space-y-1 text-[20px] leading-snug">
        <p className="font-medium">{stepFacts(step, units)}</p>
        <p>
          <InUnits>{step.doThis}</InUnits>.
        </p>
        <p className="text-ink2">{lookForWords(step)}</p>
      </div>
      <KeptForm fetcher={fetcher} place={`step ${plan.id} ${index}`} className="space-y-4" key={`${plan.id}-${index}`}>
        <input type="hidden" name="planId" value={plan.id} />
        <input type="hidden" name="index" value={index} />
        <input type="hidden" name="formKey" value={`${plan.id}-${index}-${view.formKey}`} />
        <button
          className="press min-h-24 w-full text-[28px]"
          data-kind={no ? undefined : "main"}
          name="intent"
          value={running ? "step" : "start"}
          disabled={busy}
        >
          {running ? "Done" : "Start"}
        </button>
        <Suspense fallback={<div className="min-h-16" />}>
          <StepMeasures panelId={panel.id} place={`step ${plan.id} ${index} mark`} errors={errors} />
        </Suspense>
      </KeptForm>
    </>
  );
}

/** Once more, or through. */
function After({
  fetcher,
  plan,
  busy,
  words,
  view,
}: {
  fetcher: FetcherWithComponents<FormAnswer>;
  plan: EntryOf<"plan">;
  busy: boolean;
  words: { sign: string; stop: string; watch: string; mend: string };
  view: PanelView;
}) {
  const { state } = view;
  const { stepsDone } = state;
  const index = stepsDone.length;
  return (
    <fetcher.Form method="post" className="flex flex-wrap gap-3">
      <input type="hidden" name="planId" value={plan.id} />
      {plan.body.steps[index - 1]?.use && (
        <button className="press min-h-16 flex-1 text-[17px]" name="intent" value="again" disabled={busy}>
          Scratches still visible: one pass more
        </button>
      )}
      <button className="press min-h-16 flex-1 text-[17px]" name="intent" value="through" disabled={busy}>
        {words.sign}
      </button>
    </fetcher.Form>
  );
}
