import { Suspense, lazy } from "react";
import { Check, Circle, CircleDot, Minus, TriangleAlert } from "lucide-react";
import { Link } from "react-router";
import type { CourseStep } from "#core/course/steps";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { WorkingButton } from "~/kit/ui/figure";
import { type CourseAxis, type StretchKind, stretchesOf } from "./course-axis";
import { MixQuick, PrepareQuick } from "./quick";
import { unfolds } from "./unfold";
import { type Naming, stepName, stepNeeds, stepWhen, stepWorking } from "./course.words";
import { tickText } from "~/kit/words/when";

/** As the other forms of a step it comes where its step is open. */
const Heat = lazy(() => import("./course-do").then((m) => ({ default: m.Heat })));

const MARKS = {
  done: { icon: Check, words: "done", tone: "text-glow-ink" },
  missed: { icon: Minus, words: "not done", tone: "text-ink2" },
  now: { icon: CircleDot, words: "now", tone: "text-ink" },
  open: { icon: Circle, words: "may be done now", tone: "text-ink2" },
  next: { icon: Circle, words: "next", tone: "text-ink2" },
  later: { icon: Circle, words: "later", tone: "text-ink2" },
} as const;

/** A dot about its place, whatever the width of the axis. */
const MOMENT = "min-w-3.5 max-w-3.5 -translate-x-1/2 rounded-full bg-glow-ink";
const LOOKS: Record<StretchKind, string> = {
  tooSoon: "too-soon",
  window: "bg-glow",
  rest: "bg-glow-wash border border-glow",
  late: "too-late",
  wait: "bg-hair border border-edge",
  work: "bg-glow-ink",
  moment: MOMENT,
  open: "bg-glow-wash",
};

/** Icon, name, time axis, when: on a phone the axis folds below the name. */
const GRID =
  "grid grid-cols-[24px_1fr_auto] items-center gap-x-3 sm:grid-cols-[24px_minmax(0,15rem)_minmax(0,1fr)_9.5rem] xl:grid-cols-[24px_minmax(0,16rem)_minmax(0,1fr)_10.5rem]";
const AXIS_CELL =
  "relative col-span-2 col-start-2 row-start-2 h-7 self-stretch sm:col-span-1 sm:col-start-3 sm:row-start-1 sm:h-auto sm:min-h-11";

/** Hours above the rows, the moon at now. */
export function AxisHead({ axis }: { axis: CourseAxis }) {
  return (
    <div className={`${GRID} text-[13px] text-ink2`} aria-hidden>
      <div className="relative col-span-2 col-start-2 h-8 sm:col-span-1 sm:col-start-3">
        {axis.ticks
          .filter(({ left }) => left < 96 && Math.abs(left - axis.now) > 7)
          .map(({ at_ms, left }) => (
            <span key={at_ms} className="absolute top-1 -translate-x-1/2 whitespace-nowrap" style={{ left: `${left}%` }}>
              {tickText(at_ms)}
            </span>
          ))}
        <span
          className="absolute bottom-0 size-3.5 -translate-x-1/2 rounded-full border-[3px] border-ink bg-moon"
          style={{ left: `${axis.now}%` }}
        />
      </div>
    </div>
  );
}

/** What the looks of the axis mean, once below it. */
export const AxisKey = () => (
  <p className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-[13px] text-ink2" aria-hidden data-figures>
    {(
      [
        ["tooSoon", "too soon"],
        ["window", "best time"],
        ["rest", "still in time"],
        ["late", "too late"],
        ["wait", "wait"],
        ["work", "work"],
        ["moment", "short"],
        ["open", "any time from then"],
      ] as const
    ).map(([kind, name]) => (
      <span key={kind} className="inline-flex items-center gap-1.5">
        <span className={`inline-block h-3.5 w-6 ${LOOKS[kind]}`} /> {name}
      </span>
    ))}
  </p>
);

export function Row({
  step,
  naming,
  now_ms,
  isMain,
  axis,
  unfold,
}: {
  step: CourseStep;
  naming: Naming;
  now_ms: number;
  /** It stands unfolded above. */
  isMain: boolean;
  /** Unfolds it. */
  unfold: (id: string) => void;
  /** None for what is behind. */
  axis: CourseAxis | null;
}) {
  const units = useUnits();
  const name = stepName(step, naming);
  const past = step.latest_ms !== null && step.latest_ms < now_ms && step.state !== "done";
  const { icon: Icon, words, tone } = MARKS[step.state];
  const needs = step.state === "done" || step.state === "missed" ? "" : stepNeeds(step, units);
  return (
    <li
      data-figures
      className={`${GRID} border-b border-hair ${step.state === "later" ? "text-ink2" : ""} ${isMain ? "bg-glow-wash/60" : ""}`}
      data-step={step.id}
      data-state={step.state}
    >
      <span className={`${tone} py-1.5 pl-1`}>
        {past ? <TriangleAlert size={18} className="text-amber-ink" aria-hidden /> : <Icon size={18} aria-hidden />}
        <span className="sr-only">{past ? "past its window" : words}</span>
      </span>
      <span className="min-w-0 py-1.5">
        <span className={step.state === "now" ? "font-bold" : step.state === "next" ? "font-semibold" : ""}>{name}</span>
        {step.optional && step.state !== "done" && <span className="text-[13px] text-ink2"> · if you like</span>}
        {needs && <span className="block text-[13px] text-ink2">{needs}</span>}
      </span>
      {axis && (
        <span className={AXIS_CELL} aria-hidden>
          {stretchesOf(step, axis, now_ms).map(({ kind, left, width }) => (
            <span
              key={kind}
              className={`absolute top-1/2 h-3.5 -translate-y-1/2 ${LOOKS[kind]}`}
              style={{ left: `${left}%`, width: `${width}%` }}
              data-stretch={kind}
            />
          ))}
          <span className="absolute -top-px -bottom-px w-0.5 -translate-x-1/2 bg-ink" style={{ left: `${axis.now}%` }} />
        </span>
      )}
      <span className="col-start-3 row-start-1 flex items-center justify-end gap-2 text-right text-[14px] sm:col-start-4">
        {!isMain && unfolds(step) && (
          <button type="button" className="press" onClick={() => unfold(step.id)}>
            {step.state === "done" ? "More" : "Do it"}
            <span className="sr-only">: {name}</span>
          </button>
        )}
        <WorkingButton working={stepWorking(step, name, now_ms, units)} label={`${name}: why, and when`}>
          <span>{stepWhen(step, now_ms) || "then"}</span>
        </WorkingButton>
      </span>
      {!isMain && step.state === "open" && (
        <div className="col-span-2 col-start-2 pb-2 empty:hidden sm:col-span-3">
          {step.kind === "bake" && (
            <Suspense fallback={<div className="min-h-11" />}>
              <Heat step={step} />
            </Suspense>
          )}
          {step.kind === "prepare" && <PrepareQuick step={step} />}
          {step.kind === "mix" && <MixQuick step={step} />}
          {step.kind === "colour" && !step.layer && <ColourLink step={step} />}
        </div>
      )}
    </li>
  );
}

/** What goes below the clear without a plan of it is told on its page. */
function ColourLink({ step }: { step: CourseStep }) {
  const { base } = usePanel();
  return (
    <Link to={`${base}/spray/below`} className="press" data-step-link={step.id}>
      Log a coat of colour
    </Link>
  );
}
