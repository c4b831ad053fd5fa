import { More } from "~/kit/ui/more";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { type CoatForecast, type CourseStep, nextAction } from "#core/course/steps";
import type { RunCalibration } from "#core/models/flow/run-calibration";
import type { mendingOf } from "#core/panel/mending";
import { newestCoat } from "#core/panel/coats-on";
import { clearAfter } from "#core/coat/clear-after";
import { isNo } from "#core/course/step-hold";
import { LAYER_NAMES } from "#core/models/prep/layer-names";
import { clearNow } from "#core/judge/how-known";
import { StepHolds } from "~/kit/panel/step-holds";
import { besidePages } from "~/kit/panel/beside-pages";
import { usePanel } from "~/kit/panel/use-panel";
import { usePreview } from "~/kit/panel/use-preview";
import { later, useLater } from "~/kit/root/later";
import { useRoot, useUnits } from "~/kit/root/use-root";
import { BigFigures } from "~/kit/ui/big-figures";
import { useNow } from "~/kit/shell/now";
import { runTold } from "~/kit/words/flow-words";
import { maskWords } from "~/kit/words/mask-words";
import type { OutReckoned } from "~/stations/hand-over/release-check.desk";
import { AlongProvider } from "./along";
import { AroundList } from "./around-list";
import type { HandAt } from "./course-at";
import { courseAxis, isBeyond, type CourseAxis } from "./course-axis";
import { AxisHead, AxisKey, Row } from "./course-row";
import { StepHere } from "./step-here";
import { stays, unfoldedStep } from "./unfold";
import type { OtherPanel } from "#server/views/together-view";
import { coatFigures, coatSettings, courseSentence, lateWords, stepName, stepWhen, stepWhy } from "./course.words";

/** A forecast is made anew so often: nobody reads seconds in it. */
const STEP_MS = 30_000;

/** The course as the page came with it, and the card that is being followed. */
export interface Reckoned {
  at_ms: number;
  steps: CourseStep[];
  mending: ReturnType<typeof mendingOf>;
  /** The gun of the next coat. */
  hand: HandAt;
  /** Whether it goes out, where that is what comes next. */
  release: OutReckoned | null;
}
/** The models of the forecast: the page comes with its first one, and makes the next with these. */
const forecast = later(() => import("./course-at"));

/** The course of a panel: now large, then every step in its order against one axis of time, with its reason. */
export function CourseDesk({
  reckoned,
  calibration = null,
  others = [],
}: {
  reckoned: Reckoned;
  calibration?: RunCalibration | null;
  others?: readonly OtherPanel[];
}) {
  const { view, base } = usePanel();
  const { job, panel, state } = view;
  const { shop } = useRoot();
  const now_ms = Math.floor(useNow() / STEP_MS) * STEP_MS;
  const models = useLater(forecast, now_ms > reckoned.at_ms, true);
  const steps = useMemo(() => models?.courseAt(view, now_ms) ?? reckoned.steps, [models, view, now_ms, reckoned]);
  const naming = useMemo(() => ({ two: panel.sides === 2, matte: job.finish === "matte" }), [panel.sides, job.finish]);
  const now = steps.find((s) => s.state === "now") ?? null;
  const action = nextAction(steps);
  const sentence = now && courseSentence(now, stepName(now, naming), now_ms);
  const coat = action?.coat && action.coat.dry_m > 0 ? action.coat : null;
  usePreview(action?.layer ? null : coat && { coat: { dry_m: coat.dry_m, u_m: coat.u_dry_m, name: `coat ${action!.number}` } });
  const late = action && lateWords(action, now_ms);
  const waiting = now !== null && now.id !== action?.id;
  const mask = maskWords(newestCoat(state)?.entry.at_ms ?? null, shop.airChanges_1_h, now_ms);
  const done = steps.filter((s) => s.state === "done" || s.state === "missed");
  const ahead = steps.filter((s) => s.state !== "done" && s.state !== "missed");
  const axis = courseAxis(ahead, now_ms, action);
  const beyond = ahead.findIndex((s) => isBeyond(s, axis));
  const [near, far] = beyond < 0 ? [ahead, []] : [ahead.slice(0, beyond), ahead.slice(beyond)];
  const [opened, open] = useState<string | null>(null);
  const here = unfoldedStep(steps, action, opened);
  const [first] = useState(here?.id);
  // What takes more than one entry stays open while it is worked at, also once the course has gone on.
  if (here && opened === null && stays(here)) open(here.id);
  const row = (s: CourseStep, on: typeof axis | null) => (
    <Row key={s.id} step={s} naming={naming} now_ms={now_ms} isMain={s.id === here?.id} axis={on} unfold={open} />
  );
  return (
    <AlongProvider others={others}>
      <Heading {...{ sentence, now, action, now_ms, late, reckoned }} />
      {here && here.id !== now?.id && here.id !== action?.id && (
        <p className="mt-3 text-[19px] font-semibold" data-testid="here-name">
          {stepName(here, naming)}
        </p>
      )}
      {here && (
        <StepHere
          key={here.id}
          follows={here.id !== first}
          step={here}
          hand={reckoned.hand}
          release={reckoned.release}
          main={!waiting && !here.holds.some(isNo)}
          onDone={() => open(null)}
        />
      )}
      {here && action && here.id !== action.id && here.state !== "done" && (
        <button type="button" className="press mt-2" data-kind="quiet" onClick={() => open(action.id)}>
          Not now: {stepName(action, naming).toLowerCase()}
        </button>
      )}
      {(action?.kind === "coat" || action?.layer) && <CoatFigures step={action} now_ms={now_ms} calibration={calibration} />}
      {late && !late.soon && <p className="mt-3 text-ink2">{late.text}</p>}
      {mask && <p className="mt-3 font-medium text-amber-ink">{mask}</p>}
      <AroundList around={steps.flatMap((s) => s.around)} />
      <div className="mt-4">
        <AxisHead axis={axis} />
        <ol className="border-t border-hair" aria-label="Course, from now on" data-testid="course">
          {near.map((s) => row(s, axis))}
        </ol>
        <AxisKey />
      </div>
      {far.length > 0 && <Later {...{ near, far, naming, now_ms, row }} />}
      {done.length > 0 && (
        <details className="mt-1">
          <summary className="min-h-11 cursor-pointer content-center font-semibold">Behind you: {done.length} steps</summary>
          <ol className="border-t border-hair" aria-label="Course so far" data-testid="course-done">
            {done.map((s) => row(s, null))}
          </ol>
        </details>
      )}
      <nav aria-label="More of this panel" className="no-print mt-5 flex flex-wrap gap-2">
        {[
          { to: `${base}/plan`, label: "Plan" },
          { to: `${base}/spray/ready`, label: "Ready?" },
          { to: `${base}/spray/cure`, label: "Cure" },
          ...besidePages(base, job.id),
        ].map(({ to, label }) => (
          <Link key={to} to={to} className="press" data-kind="quiet">
            {label}
          </Link>
        ))}
      </nav>
      <p className="mt-4 max-w-[75ch] text-[13px] text-ink2">
        Supplied air, or what the safety data sheet and your local rules require. The touch test decides.
      </p>
      <More label="Where the times come from">
        <p className="max-w-[75ch] text-[13px] text-ink2">
          Times are the sheet&rsquo;s at the temperatures that were logged, and a model set to common practice; the touch test in a hidden
          place decides.
        </p>
      </More>
    </AlongProvider>
  );
}

/** The step at hand, and until when. */
function Heading({
  sentence,
  now,
  action,
  now_ms,
  late,
  reckoned,
}: {
  sentence: { main: string; rest: string } | null;
  now: CourseStep | null;
  action: CourseStep | null;
  now_ms: number;
  late: { text: string; soon: boolean } | null;
  reckoned: Reckoned;
}) {
  const { base } = usePanel();
  const { mending } = reckoned;
  return (
    <div className="max-w-[42rem] flex-1 basis-80">
      <h2
        className="max-w-[24em] text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]"
        data-testid="course-now"
        aria-live="polite"
      >
        {sentence ? (
          <>
            {sentence.main} <em className="text-glow-ink not-italic">{sentence.rest}</em>
          </>
        ) : (
          "Handed over. Nothing is left to do."
        )}
      </h2>
      {now && (
        <p className="mt-2 text-ink2">
          {stepWhy(now)} {action?.coat && <CoatSettings coat={action.coat} />}
        </p>
      )}
      {action && <StepHolds holds={action.holds} now_ms={now_ms} />}
      {late?.soon && <p className="mt-1 font-medium text-amber-ink">{late.text}</p>}
      {mending && (
        <p className="mt-1">
          <Link to={`${base}/spray/mend?card=${mending.card}`} className="inline-block min-h-6 underline underline-offset-4">
            Mending: {mending.name.toLowerCase()}, step {mending.step} of {mending.of}
          </Link>
        </p>
      )}
    </div>
  );
}

/** What comes later, folded away. */
function Later({
  near,
  far,
  naming,
  now_ms,
  row,
}: {
  near: CourseStep[];
  far: CourseStep[];
  naming: { two: boolean; matte: boolean };
  now_ms: number;
  row: (s: CourseStep, on: CourseAxis | null) => React.JSX.Element;
}) {
  return (
    <details className="mt-3" open={near.length < 3}>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">
        Later: {far.length} more {far.length === 1 ? "step" : "steps"}
        <span className="font-normal text-ink2">
          , {stepName(far[0]!, naming).toLowerCase()} {stepWhen(far[0]!, now_ms)}
        </span>
      </summary>
      <ol className="border-t border-hair" aria-label="Course later on" data-testid="course-later">
        {far.map((s) => row(s, null))}
      </ol>
    </details>
  );
}

/** The gun as this coat wants it. */
function CoatSettings({ coat }: { coat: CoatForecast }) {
  return (
    <b className="font-semibold text-ink" data-figures>
      {coatSettings(coat, useUnits())}
    </b>
  );
}

/** What the coat takes, how long its window is, whether it may run, what lies there after it. */
function CoatFigures({ step, now_ms, calibration }: { step: CourseStep; now_ms: number; calibration: RunCalibration | null }) {
  const units = useUnits();
  const { view } = usePanel();
  const { state, shopFilm } = view;
  const { coat, layer, side } = step;
  const clear =
    coat && side && !layer ? clearAfter(state, side, { now: clearNow(state), ahead_m: [coat.dry_m], u_log: shopFilm.u_log }) : null;
  const after = clear
    ? { film_m: clear.clear_m, u_m: clear.u_m, what: "of clear after it, forecast" }
    : coat && { film_m: coat.dry_m, u_m: coat.u_dry_m, what: `of ${layer ? LAYER_NAMES[layer] : "clear"} in it, forecast` };
  // How often this shop's coats ran is learnt from its clears.
  const word =
    coat?.runChance == null ? null : runTold({ chance: coat.runChance, sagLocal_m: coat.sagLocal_m }, layer ? null : calibration);
  const figures = [
    ...coatFigures(step, { now_ms, after }, units),
    ...(word ? [{ big: word.big, small: `${word.small}, at the edges` }] : []),
  ];
  return <BigFigures figures={figures} testId="coat-figures" />;
}
