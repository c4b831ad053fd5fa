import { More } from "~/kit/ui/more";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft, type Widened, type Draft } from "~/kit/draft/use-draft";
import { useCallback, useEffect, useMemo, useDeferredValue } from "react";
import { Link, useFetcher, useSearchParams, type FetcherWithComponents } from "react-router";
import { faultsHolding, workedAt } from "#core/panel/fault-holds";
import { blockedBy, blockedVerdict } from "#core/judge/blocked-by";
import type { Assessment } from "#core/judge/assess";
import type { ShopRemoval } from "#core/models/correction/clearing";
import { countedSteps, headlineRemoval, withoutMarks } from "#core/judge/work";
import { textureOf } from "#core/judge/texture";
import { CORRECTION_SCHOOLS, reachOf } from "#core/models/correction/schools";
import { openFills } from "#core/judge/zone-places";
import type { PlanChances } from "#core/judge/plan-chances";
import type { ZonePlan } from "#core/judge/zone-plan";
import type { PlanStep } from "#core/record/bodies";
import { PANEL_PARTS } from "#core/record/kinds";
import { show } from "#core/kernel/units/format";
import type { FormAnswer } from "~/kit/form/answer";
import { useRun } from "~/kit/run/use-run";
import { useCureStatus } from "~/kit/panel/use-cure-status";
import { useUnits } from "~/kit/root/use-root";
import { VerdictFigures, VerdictHeading } from "~/kit/panel/verdict-panel";
import { HeldLines } from "~/kit/panel/held-lines";
import { usePanel } from "~/kit/panel/use-panel";
import { usePreview } from "~/kit/panel/use-preview";
import { Choices, Toggle } from "~/kit/ui/toggle";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { remedyWords, showSafe } from "~/kit/words/verdict";
import { PARTS, planChoice, planFields, planWays } from "./plan-choice";
import { RunSchools } from "./run-schools";
import { ToldByMark } from "./told-by-mark";
import { ZoneView } from "./zone-view";
import { inUnits } from "#core/kernel/units/in-units";
import type { ZoneChoice } from "#core/judge/zone-setting";
import type { Texture } from "#core/models/correction/removal-plan";

type PlanDraft = Draft<Widened<ReturnType<typeof planFields>>>;

/**
 * Choose a method, see zone by zone what it takes and risks, store the plan.
 * @param short unfolded on the course: verdict, method and press first, everything else behind one tap
 */
export function PlanDesk({ onStored, short = false }: { onStored: () => void; short?: boolean }) {
  const { view } = usePanel();
  const { panel, floor_m } = view;
  const fetcher = useFetcher<FormAnswer>();
  const { choice, draft, errors, schoolId, runSchool, known, edges, lines, part, fills, fill } = usePlanDraft({ fetcher });
  const { removal, plan, run, held, film, counted, asking, unmarked } = useJudged({ choice });
  const { removal_m, u_m } = removal;
  const { set } = draft;
  const chooseRun = useCallback((school: string | null) => set("runSchool", school ?? ""), [set]);
  usePreview(removal_m > 0 ? { removal: { removal_m, u_m } } : null);
  const stored = fetcher.data?.ok ? fetcher.data.done : undefined;
  useEffect(() => {
    if (stored) onStored();
  }, [stored, onStored]);
  const field = (name: keyof PlanDraft["typed"], label: string, unit: string, hint?: string) => (
    <Field label={label} unit={unit} {...draft.field(name)} errors={errors[name]} {...(hint ? { hint } : {})} />
  );
  const use = (
    <button
      className="press min-h-14 w-full max-w-[34rem] text-[17px]"
      data-kind="main"
      disabled={fetcher.state !== "idle" || run.busy || !run.result || run.result.verdict === "none" || plan?.problem !== null}
    >
      {fetcher.state === "idle" ? `Use this plan${run.result?.verdict === "stop" ? " against the advice" : ""}` : "Storing…"}
    </button>
  );
  return (
    <DraftForm draft={draft} fetcher={fetcher}>
      <input type="hidden" name="intent" value="plan" />
      <input type="hidden" name="formKey" value={`${view.formKey}-plan`} />
      <input type="hidden" name="schoolId" value={schoolId} />
      <input type="hidden" name="runSchool" value={plan?.runs ? (runSchool ?? "") : ""} />
      {plan?.problem ? (
        <h2 className="mb-5 min-h-[2.24em] max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
          {PROBLEMS[plan.problem]}
        </h2>
      ) : (
        <VerdictHeading run={run} shape={panel.shape} held={held} waiting="What is the least that can safely be done?" />
      )}
      <HeldLines view={view} held={held} left_s={film.left_s} />
      <div className="mb-5 space-y-3">
        {short && (
          <Toggle
            label="Grit and polish"
            value={schoolId}
            onChange={(id) => draft.set("schoolId", id)}
            options={CORRECTION_SCHOOLS.map((s) => ({ value: s.id, name: s.name }))}
          />
        )}
        <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
        {use}
      </div>
      <Unfolded short={short}>
        <div className="grid gap-x-10 gap-y-7 md:grid-cols-[1.15fr_1fr]">
          {!short && <Schools {...{ schoolId, draft }} />}
          <div className="space-y-6">
            {plan && !plan.problem && (
              <VerdictFigures
                run={run}
                shape={panel.shape}
                removal={removal}
                steps={counted}
                floor_m={floor_m}
                tape_m={plan.judgedFrom_m}
                held={held.length > 0}
              />
            )}
            <Peel {...{ field, known }} />
            <input type="hidden" name="edges" value={edges} />
            <input type="hidden" name="lines" value={lines} />
            <Strips {...{ edges, draft, lines }} />
            <Where {...{ draft, schoolId, part, share: plan?.part?.share ?? null, errors }} />
            {fills > 0 && (
              <label className="flex min-h-11 items-center gap-2">
                <input
                  type="checkbox"
                  className="h-5 w-5"
                  checked={fill}
                  onChange={(e) => draft.set("fill", e.target.checked ? "yes" : "")}
                />
                Fill what is crater or hole with a drop of clear first
              </label>
            )}
            <input type="hidden" name="fill" value={fill ? "yes" : ""} />
            {run.result && !plan?.problem && <WouldHelp result={run.result} />}
          </div>
        </div>
        {plan && !plan.problem && <ZoneView plan={plan} chances={asking.result?.chances?.zones ?? null} rim_m={choice?.tape_m ?? 0} />}
        {plan?.runs && (
          <RunSchools runs={plan.runs} chances={asking.result?.chances?.schools ?? NONE} value={runSchool} onChange={chooseRun} />
        )}
        <OwnRemoval removal={view.shopRemoval} steps={plan?.steps ?? []} />
        <ToldByMark now={removal} unmarked={unmarked} />
      </Unfolded>
    </DraftForm>
  );
}

/** What else there is to choose and to see: open on its own page, behind one tap on the course. */
function Unfolded({ short, children }: { short: boolean; children: React.ReactNode }) {
  if (!short) return children;
  return (
    <details className="mt-3">
      <summary className="min-h-11 cursor-pointer content-center font-semibold">Everything else: figures, rim, zones, runs</summary>
      <div className="pt-3">{children}</div>
    </details>
  );
}

/** The whole panel or a part of it. */
function Where({
  draft,
  schoolId,
  part,
  share,
  errors,
}: {
  draft: PlanDraft;
  schoolId: string;
  part: string | null;
  /** How much of the panel that part is. */
  share: number | null;
  errors: Record<string, string[]>;
}) {
  if (!CORRECTION_SCHOOLS.some((s) => s.id === schoolId && reachOf(s) !== "spots")) return null;
  return (
    <SelectField
      label="Where"
      name="part"
      value={draft.typed.part}
      onChange={(e) => draft.set("part", e.target.value)}
      errors={errors.part}
      {...(part && share !== null
        ? { hint: `${Math.round(100 * share)} % of the panel; runs and nibs elsewhere at their own places` }
        : {})}
    >
      <option value="">the whole panel</option>
      {PARTS.map((p) => (
        <option key={p} value={p}>
          {PANEL_PARTS[p]}
        </option>
      ))}
    </SelectField>
  );
}

/** The plan as it is chosen. */
function usePlanDraft({ fetcher }: { fetcher: FetcherWithComponents<FormAnswer> }) {
  const { view } = usePanel();
  const units = useUnits();
  const { state } = view;
  const errors = fetcher.data?.errors ?? {};
  const known = useMemo(() => textureOf(state), [state]);
  const params = useSearchParams()[0];
  const asked = useCallback((name: string) => params.get(name), [params]);
  const draft = useDraft(
    `plan ${asked("school") ?? ""} ${asked("run") ?? ""}${asked("part") ? ` ${asked("part")}` : ""}${asked("fill") ? " fill" : ""}`,
    useMemo(() => planFields(view, units, asked), [view, units, asked]),
    { texture: "film", uTexture: "film", wanted: "film", tape: "length" },
  );
  // The fields follow the hand; the plan follows the fields.
  const seen = useDeferredValue(useMemo(() => ({ typed: draft.typed, units }), [draft.typed, units]));
  const { typed } = seen;
  const choice = useMemo(() => planChoice(typed, seen.units, view), [typed, seen.units, view]);
  const { schoolId, runSchool, edges, lines, part, fill } = useMemo(() => planWays(typed, view), [typed, view]);
  const fills = openFills(state).length;
  return { choice, draft, typed, errors, schoolId, runSchool, known, edges, lines, part, fills, fill };
}

/** The peel that is there, and what of it is left. */
function Peel({
  field,
  known,
}: {
  field: (name: keyof ReturnType<typeof planFields>, label: string, unit: string, hint?: string) => React.JSX.Element;
  known: { texture: Texture; from: "measured" | "judged" | "usual" };
}) {
  const units = useUnits();
  return (
    <div className="grid grid-cols-2 gap-3">
      {field(
        "texture",
        "Peel, peak to valley",
        units.film,
        { measured: "measured on the panel", judged: "judged by eye", usual: "usual for a sprayed panel; not measured" }[known.from],
      )}
      {field("uTexture", "give or take", units.film)}
      {field("wanted", "Texture to leave", units.film, "0 for a flat finish, the neighbour's to match")}
      {field("tape", "Width of the rim", units.length)}
    </div>
  );
}

/** The plan with its verdict, and what stands against it. */
function useJudged({ choice }: { choice: ZoneChoice | null }) {
  const { view } = usePanel();
  const { panel, state, job } = view;
  const input = useMemo(() => choice && { brief: panel, state, choice }, [choice, panel, state]);
  const asking = useRun("verdict", "plan", input);
  const plan = choice ? (asking.result?.plan ?? null) : null;
  const film = useCureStatus();
  const held = useMemo(
    () =>
      blockedBy({
        finish: job.finish,
        cured: film.cured,
        account: state,
        faults: plan ? faultsHolding(state, "paper", workedAt(plan)) : [],
      }),
    [job.finish, film.cured, state, plan],
  );
  const run = useMemo(() => {
    const judged = plan && (asking.result?.assessment ?? null);
    return { ...asking, result: judged && { ...judged, verdict: blockedVerdict(judged.verdict, held) } };
  }, [asking, plan, held]);
  const removal = useMemo(() => (plan ? headlineRemoval(plan.steps) : NOTHING), [plan]);
  const unmarked = useMemo(() => (plan ? withoutMarks(plan.steps, view.state.told) : null), [plan, view.state.told]);
  const counted = useMemo(() => (plan ? countedSteps(plan.steps) : []), [plan]);
  return { removal, plan, run, held, film, counted, asking, unmarked };
}

/** The schools of correction. */
function Schools({ schoolId, draft }: { schoolId: string; draft: PlanDraft }) {
  const units = useUnits();
  return (
    <section aria-labelledby="school-title">
      <h3 id="school-title" className="mb-2 text-lg font-semibold">
        Grit and polish
      </h3>
      <Choices
        label="Grit and polish"
        value={schoolId}
        onChange={(id) => draft.set("schoolId", id)}
        options={CORRECTION_SCHOOLS.map((s) => ({ value: s.id, name: s.name, note: inUnits(`${s.goodFor}. ${s.price}.`, units) }))}
      />
    </section>
  );
}

/** Rim and body lines, by hand or left. */
function Strips({ edges, draft, lines }: { edges: "hand" | "left"; draft: PlanDraft; lines: "hand" | "left" }) {
  const { view } = usePanel();
  const { panel } = view;
  return (
    <div className="flex flex-wrap gap-x-6 gap-y-3">
      <div>
        <span className="small-label mb-1 block">Rim</span>
        <Toggle
          label="Rim"
          value={edges}
          onChange={(v) => draft.set("edges", v)}
          options={[
            { value: "left", name: "leave under tape" },
            { value: "hand", name: "by hand" },
          ]}
        />
      </div>
      {panel.shape.bodyLines.length > 0 && (
        <div>
          <span className="small-label mb-1 block">Body lines</span>
          <Toggle
            label="Body lines"
            value={lines}
            onChange={(v) => draft.set("lines", v)}
            options={[
              { value: "hand", name: "by hand" },
              { value: "left", name: "leave under tape" },
            ]}
          />
        </div>
      )}
    </div>
  );
}

const NONE: PlanChances["schools"] = [];
const NOTHING = { removal_m: 0, u_m: 0 };
const PROBLEMS: Record<NonNullable<ZonePlan["problem"]>, string> = {
  "no place": "Nothing is marked to work at: look it over, and mark what you see under Inspect.",
  "nothing marked": "No area is marked: draw where it is under Inspect, or level a half.",
};

/** What alone would make it safe, with where to do it. */
function WouldHelp({ result }: { result: Assessment }) {
  const { base, view } = usePanel();
  const units = useUnits();
  if (result.verdict === "safe" || result.verdict === "none" || result.wouldHelp.length === 0) return null;
  return (
    <div data-testid="would-help">
      <p className="font-semibold">What would make it safe</p>
      <ul className="list-disc pl-5">
        {result.wouldHelp.map((r) => (
          <li key={r.what}>
            {remedyWords(r, view.panel.shape)}{" "}
            {r.what === "mark" ? (
              "Use the plan: the step's card takes the readings."
            ) : (
              <Link className="inline-block min-h-6 underline underline-offset-4" to={`${base}${REMEDY_PATH[r.what]}`}>
                {r.what === "foil" ? "Check the gauge" : "Read there"}
              </Link>
            )}
          </li>
        ))}
      </ul>
      {result.largestSafeRemoval_m > 0 && (
        <p className="text-ink2">
          Or take less: {showSafe(result.largestSafeRemoval_m, units).text} {units.film} may come off safely.
        </p>
      )}
    </div>
  );
}
const REMEDY_PATH = { foil: "/inspect/gauge", readings: "/inspect/map" } as const;

/** What this shop's own measured removal changes in this plan. */
function OwnRemoval({ removal: { whole }, steps }: { removal: ShopRemoval; steps: readonly PlanStep[] }) {
  const units = useUnits();
  const own = steps.filter((s) => s.own);
  if (whole?.unmeasured)
    return (
      <More label="Every step is taken deeper: no removal of this shop's own yet" className="mt-4">
        <p className="max-w-[75ch]" data-testid="own-removal">
          This shop has no removal of its own yet, so every step is taken {Math.round(100 * (whole.factor - 1))} % deeper and with more
          doubt. Measure one spot before and after each step: its card takes the readings, and the steps after it go by them.
        </p>
      </More>
    );
  if (!whole && own.length === 0) return null;
  const film = (m: number) => show("film", m, units).text;
  return (
    <p className="mt-6 max-w-[75ch]" data-testid="own-removal">
      This shop&apos;s own removal is in it:{" "}
      {[
        ...own.map((s) => `${s.name} ${film(s.removal_m)} instead of ${film(s.default_m)} ${units.film}`),
        ...(whole ? [`the other steps × ${whole.factor.toFixed(2)}`] : []),
      ].join("; ")}
      .
    </p>
  );
}
