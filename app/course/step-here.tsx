import { Suspense, lazy, useEffect } from "react";
import { useFetcher } from "react-router";
import type { CourseStep, StepKind } from "#core/course/steps";
import { LAYER_NAMES } from "#core/models/prep/layer-names";
import { noGaugeReads } from "#core/panel/brief";
import type { Phase } from "#core/record/kinds";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { StripLater } from "~/kit/readings/strip-later";
import type { OutReckoned } from "~/stations/hand-over/release-check.desk";
import { FieldErrors } from "~/kit/ui/field";
import { More } from "~/kit/ui/more";
import { AlongTicks, useAllNames, useGoingAlong } from "./along";
import type { HandAt } from "./course-at";

/** Each is fetched with the page where its step is at hand, and nowhere else. */
const CoatHere = lazy(() => import("./coat-here").then((m) => ({ default: m.CoatHere })));
const Flatten = lazy(() => import("./course-do").then((m) => ({ default: m.Flatten })));
const Turn = lazy(() => import("./course-do").then((m) => ({ default: m.Turn })));
const Heat = lazy(() => import("./course-do").then((m) => ({ default: m.Heat })));
const ReadingDesk = lazy(() => import("~/kit/readings/reading-desk").then((m) => ({ default: m.ReadingDesk })));
const LookOver = lazy(() => import("~/stations/inspect/look-over").then((m) => ({ default: m.LookOver })));
const TextureRating = lazy(() => import("./course-do").then((m) => ({ default: m.TextureRating })));
const CorrectHere = lazy(() => import("./correct-here").then((m) => ({ default: m.CorrectHere })));
const ReleaseHere = lazy(() => import("~/stations/hand-over/release-here").then((m) => ({ default: m.ReleaseHere })));

/** What is said once for all panels that go along. */
const TOGETHER: readonly StepKind[] = ["coat", "colour", "turn", "bake", "inspect"];
const PHASE: Partial<Record<StepKind, Phase>> = { readBefore: "before", readAfter: "after", measureAgain: "recheck" };

interface StepHereProps {
  step: CourseStep;
  hand: HandAt;
  release: OutReckoned | null;
  /** It may be done now: its press is the main one. */
  main: boolean;
  /** The next step opens. */
  onDone: () => void;
  /** It stands where another step was pressed a moment ago. */
  follows?: boolean;
}

/** The step at hand, worked where it stands: its own short form, filled from the way, the last coat, the last panel, the probe. */
export function StepHere(props: StepHereProps) {
  const { step, main, onDone, follows = false } = props;
  const phase = PHASE[step.kind];
  return (
    <section
      aria-label="Do it here"
      className={`no-print -mx-4 mt-3 space-y-3 border-y border-glow bg-glow-wash/50 px-4 py-4 sm:mx-0 sm:rounded-press sm:border ${follows ? "after-a-press" : ""}`}
      data-testid="step-here"
      data-step-here={step.id}
    >
      {TOGETHER.includes(step.kind) && <AlongTicks step={step} />}
      <Suspense fallback={<div className="min-h-40" />}>
        {phase ? <ReadHere {...{ step, phase, main, onDone }} /> : <Form {...props} />}
      </Suspense>
    </section>
  );
}

function Form({ step, hand, release, main, onDone }: StepHereProps) {
  switch (step.kind) {
    case "coat":
      return <CoatHere step={step} name={`coat ${step.number}`} hand={hand} main={main} />;
    case "colour":
      return step.layer ? <CoatHere step={step} name={`${LAYER_NAMES[step.layer]} ${step.number}`} hand={hand} main={main} /> : null;
    case "flatten":
      return <Flatten step={step} />;
    case "turn":
      return <Turn step={step} />;
    case "bake":
      return <Heat step={step} />;
    case "inspect":
      return (
        <>
          <LookOver clean={<Clean step={step} onDone={onDone} />} onDone={onDone} />
          <More label="Texture by eye, beside the neighbour">
            <TextureRating of="part" />
          </More>
        </>
      );
    case "correct":
      return <CorrectHere onDone={onDone} />;
    case "handOver":
      return release && <ReleaseHere reckoned={release} />;
    default:
      return null;
  }
}

/** Readings at the step, and the press that goes on once some are there. */
function ReadHere({ step, phase, onDone }: { step: CourseStep; phase: Phase; onDone: () => void }) {
  const { view } = usePanel();
  const { spotPlan, state } = view;
  const read = state.spots.filter((s) => s.films[phase]).length;
  if (noGaugeReads(view.panel.substrate)) return <StripLater />;
  return (
    <>
      <ReadingDesk phase={phase} />
      {read > 0 && (
        <button
          type="button"
          className="press min-h-14 w-full text-[17px] sm:w-auto"
          {...(step.state === "done" ? { "data-kind": "main" } : {})}
          onClick={onDone}
        >
          {read < spotPlan.length ? `${read} of ${spotPlan.length} spots are enough: go on` : "All spots read: go on"}
        </button>
      )}
    </>
  );
}

/** Nothing found is said, or nobody has looked; it stands within the form of what was found, and sends by itself. */
function Clean({ step, onDone }: { step: CourseStep; onDone: () => void }) {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const stored = fetcher.state === "idle" && fetcher.data?.ok === true;
  useEffect(() => {
    if (stored) onDone();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the answer has come
  }, [stored]);
  const all = useAllNames(step);
  const along = useGoingAlong(step);
  const send = () => {
    const form = new FormData();
    for (const [name, value] of Object.entries({ intent: "clean", formKey: `${view.formKey}-clean`, step: step.id })) form.set(name, value);
    for (const { id } of along) form.append("panels", id);
    void fetcher.submit(form, { method: "post" });
  };
  return (
    <>
      <button type="button" className="press min-h-14 text-[17px]" data-kind="main" disabled={fetcher.state !== "idle"} onClick={send}>
        {all ? `${all}: nothing found` : "Nothing found"}
      </button>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </>
  );
}
