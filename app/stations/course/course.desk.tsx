import { Check, Circle, CircleDot, Minus, TriangleAlert } from "lucide-react";
import { useMemo } from "react";
import { Link, useFetcher } from "react-router";
import { courseOf } from "#core/course/course";
import { type CourseStep, type StepKind, nextAction } from "#core/course/steps";
import { PART_HELD, type PartHeld, type Side } from "#core/record/kinds";
import type { FormAnswer } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { KeptForm } from "~/kit/draft/draft-form";
import { usePanel } from "~/kit/panel/use-panel";
import { useRoot, useUnits } from "~/kit/root/use-root";
import { maskWords } from "~/kit/words/mask-words";
import { MEND_CARDS } from "#core/models/prep/mend-cards";
import { FLATTEN_BY } from "#core/models/ways/way";
import { newestCoat } from "#core/panel/next-coat";
import { useNow } from "~/kit/shell/now";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { WorkingButton } from "~/kit/ui/figure";
import { type Naming, courseSentence, lateWords, stepName, stepNeeds, stepWhen, stepWhy, stepWorking } from "./course.words";

/** A step's page, where its work is done elsewhere. */
const PAGES: Partial<Record<StepKind, { to: string; go: string }>> = {
  prepare: { to: "/spray/below", go: "Note what lies below" },
  readBefore: { to: "/spray", go: "Take the readings" },
  mix: { to: "/plan/mix", go: "Work out the mix" },
  coat: { to: "/spray", go: "Spray and log it" },
  readAfter: { to: "/inspect", go: "Read the film" },
  inspect: { to: "/inspect/defects", go: "Note what you see" },
  correct: { to: "/correct", go: "Go to Correct" },
  measureAgain: { to: "/inspect", go: "Measure again" },
  handOver: { to: "/hand-over", go: "Hand it over" },
};
const MORE = [
  { to: "/spray/mend", label: "Mend something" },
  { to: "/spray/ready", label: "Ready?" },
  { to: "/spray/gun", label: "Gun" },
  { to: "/spray/coat-plan", label: "Coat plan" },
  { to: "/spray/window", label: "Will it run?" },
  { to: "/spray/cure", label: "Cure" },
  { to: "/plan", label: "Plan" },
] as const;
/** A forecast is made anew so often: nobody reads seconds in it. */
const STEP_MS = 30_000;

/** The course of a panel: now large, then every step in its order with its time and its reason. */
export function CourseDesk() {
  const { view, base } = usePanel();
  const { job, panel, product, state, shopFactors } = view;
  const { shop } = useRoot();
  const now_ms = Math.floor(useNow() / STEP_MS) * STEP_MS;
  const steps = useMemo(
    () =>
      courseOf({
        brief: panel,
        sheet: product.sheet,
        way: job.way,
        finish: job.finish,
        facts: state,
        shop: shopFactors,
        now_ms,
      }),
    [panel, product.sheet, job.way, job.finish, state, shopFactors, now_ms],
  );
  const naming = useMemo(() => ({ two: panel.sides === 2, matte: job.finish === "matte" }), [panel.sides, job.finish]);
  const now = steps.find((s) => s.state === "now") ?? null;
  const action = nextAction(steps);
  const sentence = now && courseSentence(now, stepName(now, naming), now_ms);
  const late = action && lateWords(action, now_ms);
  const waiting = now !== null && now.id !== action?.id;
  const mask = maskWords(newestCoat(state)?.entry.at_ms ?? null, shop.airChanges_1_h, now_ms);
  const mend = state.mends.find((m) => m.step !== null);
  const done = steps.filter((s) => s.state === "done" || s.state === "missed");
  const ahead = steps.filter((s) => s.state !== "done" && s.state !== "missed");
  return (
    <>
      <h2
        className="min-h-[2.24em] max-w-[24em] text-[31px] leading-[1.12] font-semibold tracking-tight"
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
      {now && <p className="max-w-[60ch] text-ink2">{stepWhy(now)}</p>}
      {late && <p className={`mt-1 max-w-[60ch] ${late.soon ? "font-medium text-amber-ink" : "text-ink2"}`}>{late.text}</p>}
      {mask && <p className="mt-1 max-w-[60ch] font-medium text-amber-ink">{mask}</p>}
      {mend?.step && (
        <p className="mt-1">
          <Link to={`${base}/spray/mend?card=${mend.card}`} className="inline-block min-h-6 underline underline-offset-4">
            Mending: {MEND_CARDS[mend.card].name.toLowerCase()}, step {mend.done + 1} of {MEND_CARDS[mend.card].steps.length}
          </Link>
        </p>
      )}
      <div className="mt-4 min-h-[60px]">{action && <Do step={action} naming={naming} at={waiting ? "ahead" : "now"} />}</div>
      <ol className="mt-6 border-t border-hair" aria-label="Course, from now on" data-testid="course">
        {ahead.map((s) => (
          <Row key={s.id} step={s} naming={naming} now_ms={now_ms} isMain={s.id === action?.id} />
        ))}
      </ol>
      {done.length > 0 && (
        <details className="mt-4">
          <summary className="min-h-11 cursor-pointer content-center font-semibold">Behind you: {done.length} steps</summary>
          <ol className="border-t border-hair" aria-label="Course so far" data-testid="course-done">
            {done.map((s) => (
              <Row key={s.id} step={s} naming={naming} now_ms={now_ms} isMain={false} />
            ))}
          </ol>
        </details>
      )}
      <nav aria-label="More of this panel" className="no-print mt-6 flex flex-wrap gap-2">
        {MORE.map(({ to, label }) => (
          <Link key={to} to={`${base}${to}`} className="press" data-kind="quiet">
            {label}
          </Link>
        ))}
        <Link to={`/jobs/${job.id}/booth`} className="press" data-kind="quiet">
          Booth view
        </Link>
        <Link to={`/jobs/${job.id}/pots`} className="press" data-kind="quiet">
          Pots
        </Link>
        <Link to={`/booth-plan?job=${job.id}`} className="press" data-kind="quiet">
          Booth plan
        </Link>
      </nav>
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        Times are the sheet&rsquo;s at the temperatures that were logged, and a model set to common practice; the touch test in a hidden
        place decides. Supplied air, or what the safety data sheet and your local rules require.
      </p>
    </>
  );
}

const MARKS = {
  done: { icon: Check, words: "done", tone: "text-glow-ink" },
  missed: { icon: Minus, words: "not done", tone: "text-ink2" },
  now: { icon: CircleDot, words: "now", tone: "text-ink" },
  open: { icon: Circle, words: "may be done now", tone: "text-ink2" },
  next: { icon: Circle, words: "next", tone: "text-ink2" },
  later: { icon: Circle, words: "later", tone: "text-ink2" },
} as const;

function Row({ step, naming, now_ms, isMain }: { step: CourseStep; naming: Naming; now_ms: number; isMain: boolean }) {
  const units = useUnits();
  const name = stepName(step, naming);
  const past = step.latest_ms !== null && step.latest_ms < now_ms && step.state !== "done";
  const { icon: Icon, words, tone } = MARKS[step.state];
  const needs = step.state === "done" || step.state === "missed" ? "" : stepNeeds(step, units);
  return (
    <li
      className={`grid grid-cols-[24px_1fr_auto] items-center gap-x-3 border-b border-hair py-1.5 ${step.state === "later" ? "text-ink2" : ""}`}
      data-step={step.id}
      data-state={step.state}
    >
      <span className={tone}>
        {past ? <TriangleAlert size={18} className="text-amber-ink" aria-hidden /> : <Icon size={18} aria-hidden />}
        <span className="sr-only">{past ? "past its window" : words}</span>
      </span>
      <span className="min-w-0">
        <span className={step.state === "now" ? "font-bold" : step.state === "next" ? "font-semibold" : ""}>{name}</span>
        {step.optional && step.state !== "done" && <span className="text-[13px] text-ink2"> · if you like</span>}
        {needs && <span className="block text-[13px] text-ink2">{needs}</span>}
      </span>
      <span className="flex items-center gap-2 text-right text-[14px]">
        {step.state === "open" && !isMain && <Do step={step} naming={naming} />}
        <WorkingButton working={stepWorking(step, name, now_ms, units)} label={`${name}: why, and when`}>
          <span>{stepWhen(step, now_ms) || "why"}</span>
        </WorkingButton>
      </span>
    </li>
  );
}

/** What is done at a step: a page to go to, or a word to the ledger. */
function Do({ step, naming, at = "row" }: { step: CourseStep; naming: Naming; at?: "now" | "ahead" | "row" }) {
  const { base } = usePanel();
  const page = PAGES[step.kind];
  if (page)
    return (
      <Link to={`${base}${page.to}`} className="press" {...(at === "now" ? { "data-kind": "main" } : {})}>
        {at === "row" ? <Short step={step} naming={naming} /> : page.go}
      </Link>
    );
  if (step.kind === "flatten") return <Flatten step={step} />;
  if (step.kind === "turn") return <Turn />;
  if (step.kind === "bake") return <Heat />;
  return null;
}

const Short = ({ step, naming }: { step: CourseStep; naming: Naming }) => (
  <>
    Do it<span className="sr-only">: {stepName(step, naming)}</span>
  </>
);

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

function Heat() {
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
        Heat on
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
