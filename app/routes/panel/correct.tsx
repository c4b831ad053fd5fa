import { useEffect, useMemo, useState } from "react";
import { Link, data, useFetcher, useSearchParams } from "react-router";
import { correctionInput, textureOf } from "#core/correction/correction-input";
import { RUN_SCHOOLS, type RunSchool } from "#core/correction/run-work";
import { CORRECTION_SCHOOLS, CORRECTION_SCHOOL_IDS, correctionSchool } from "#core/correction/schools";
import { DEFAULT_TAPE_M } from "#core/film/verdict";
import { show, showChance } from "#core/units/format";
import { parseQuantity } from "#core/units/parse";
import { houseWay } from "#core/ways/house-ways";
import { completeStep, passAgain, stopThrough, storePlan } from "#server/commands/correction";
import { serverContext } from "#server/context";
import { answerForm, textOf } from "~/forms/answer";
import { choiceForm, planIdForm, stepForm } from "~/forms/correct-forms";
import { initial } from "~/forms/initial";
import { guardedAction } from "~/lib/guarded-action";
import { formPrefs } from "~/lib/prefs.server";
import { useAssessment } from "~/lib/use-assessment";
import { useUnits } from "~/lib/use-root";
import { CorrectTabs } from "~/panel/correct-tabs";
import { PlanWork } from "~/panel/plan-work";
import { VerdictFigures, VerdictHeading } from "~/panel/verdict-panel";
import { Choices } from "~/ui/choice";
import { Field, FieldErrors } from "~/ui/field";
import { ScrollRegion } from "~/ui/scroll-region";
import { panelOr404 } from "~/lib/panel.server";
import type { Route } from "./+types/correct";
import { UnitsField } from "~/ui/units-field";
import { usePanel } from "./layout";

export async function action({ request, params: { jobId, panelId } }: Route.ActionArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const form = await request.formData();
  const { units, by } = await formPrefs(request, form);
  const clientKey = textOf(form, "formKey") || null;
  switch (textOf(form, "intent")) {
    case "plan":
      return answerForm(form, choiceForm(units), async (choice) => ({
        entryId: await storePlan(ctx, view, { choice, by, clientKey }),
        message: "Plan stored with its verdict",
      }));
    case "step":
      return answerForm(form, stepForm, async (step) => ({
        entryId: await completeStep(ctx, view, { ...step, by, clientKey }),
        message: "Step done; its film came off the section",
      }));
    case "again":
      return answerForm(form, planIdForm, async ({ planId }) => ({
        entryId: await passAgain(ctx, view, { planId, by }),
        message: "One pass more; its film came off the section",
      }));
    case "through":
      return answerForm(form, planIdForm, async () => ({
        entryId: await stopThrough(ctx, view, { note: "", by }),
        message: "Stopped: the clear is through",
      }));
    default:
      throw data("Not understood", { status: 400 });
  }
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function Correct() {
  const { view, base } = usePanel();
  const { plan } = view.state;
  const open = plan !== null && view.state.stepsDone.length < plan.body.steps.length;
  const [replan, setReplan] = useState(false);
  if (view.state.observations.filter((o) => o.layer === "after").length === 0)
    return (
      <section className="max-w-[60ch] space-y-4">
        <CorrectTabs base={base} />
        <h2 className="text-[31px] leading-[1.12] font-semibold tracking-tight">
          Nothing is read after clear yet, so nothing can be said.
        </h2>
        <p className="text-ink2">Three spots are the least for a verdict; eight tell the edges from the middle.</p>
        <Link to={`${base}/inspect`} className="press" data-kind="main">
          Read the film
        </Link>
      </section>
    );
  return (
    <>
      <CorrectTabs base={base} />
      {plan && !replan ? <PlanWork onReplan={() => setReplan(true)} finished={!open} /> : <Decide onStored={() => setReplan(false)} />}
    </>
  );
}

/** Choose a school, see what it takes and risks, store the plan. */
function Decide({ onStored }: { onStored: () => void }) {
  const { view, setPreview } = usePanel();
  const units = useUnits();
  const { panel, state, floor_m, job } = view;
  const fetcher = useFetcher<typeof action>();
  const errors = fetcher.data?.errors ?? {};
  const known = useMemo(() => textureOf(state), [state]);
  const asked = useSearchParams()[0].get("school");
  const [schoolId, setSchoolId] = useState<string>(
    () => CORRECTION_SCHOOL_IDS.find((id) => id === asked) ?? houseWay(job.wayId).correction,
  );
  const [runSchool, setRunSchool] = useState<RunSchool | null>("block");
  const [typed, setTyped] = useState({
    texture: initial("film", known.texture.peakToValley_m, units),
    uTexture: initial("film", known.texture.u_m, units),
    wanted: "0",
    tape: initial("length", DEFAULT_TAPE_M, units),
  });
  const choice = useMemo(() => {
    const film = (t: string) => parseQuantity("film", t, units.film);
    const [texture, u, wanted, tape] = [
      film(typed.texture),
      film(typed.uTexture),
      film(typed.wanted),
      parseQuantity("length", typed.tape, units.length),
    ];
    if (!texture.ok || !u.ok || !wanted.ok || !tape.ok) return null;
    return {
      schoolId,
      runSchool,
      texture: { peakToValley_m: texture.si, u_m: u.si, wanted_m: wanted.si },
      tape_m: tape.si,
      floor_m,
      shop: view.shopRemoval,
    };
  }, [typed, units, schoolId, runSchool, floor_m, view.shopRemoval]);
  const worked = useMemo(() => {
    try {
      return choice && correctionInput(panel, state, choice);
    } catch (error) {
      if (error instanceof RangeError) return null;
      throw error;
    }
  }, [choice, panel, state]);
  const run = useAssessment(worked?.assess ?? null);
  const { removal_m, u_m } = worked?.total ?? { removal_m: 0, u_m: 0 };
  useEffect(() => {
    setPreview(removal_m > 0 ? { removal: { removal_m, u_m } } : {});
    return () => setPreview({});
  }, [removal_m, u_m, setPreview]);
  const stored = fetcher.data?.ok ? fetcher.data.done : undefined;
  useEffect(() => {
    if (stored) onStored();
  }, [stored, onStored]);
  const field = (name: keyof typeof typed, label: string, unit: string, hint?: string) => (
    <Field
      label={label}
      unit={unit}
      name={name}
      value={typed[name]}
      onChange={(e) => setTyped((t) => ({ ...t, [name]: e.target.value }))}
      errors={errors[name]}
      {...(hint ? { hint } : {})}
    />
  );
  return (
    <fetcher.Form method="post" noValidate>
      <UnitsField />
      <input type="hidden" name="intent" value="plan" />
      <input type="hidden" name="formKey" value={`${view.formKey}-plan`} />
      <input type="hidden" name="schoolId" value={schoolId} />
      <input type="hidden" name="runSchool" value={worked?.runs ? (runSchool ?? "") : ""} />
      <VerdictHeading run={run} shape={panel.shape} waiting="What is the least that can safely be done?" />
      {job.finish === "matte" && (
        <p className="mb-3 font-semibold text-stop-ink">
          Matte cannot be sanded or polished: any of these steps means refinishing the whole part.
        </p>
      )}
      <div className="grid gap-x-10 gap-y-7 md:grid-cols-[1.15fr_1fr]">
        <section aria-labelledby="school-title">
          <h3 id="school-title" className="mb-2 text-lg font-semibold">
            Grit and polish
          </h3>
          <Choices
            label="Grit and polish"
            value={schoolId}
            onChange={setSchoolId}
            options={CORRECTION_SCHOOLS.map((s) => ({ value: s.id, name: s.name, note: `${s.goodFor}. ${s.price}.` }))}
          />
        </section>
        <div className="space-y-6">
          {worked && (
            <VerdictFigures
              run={run}
              shape={panel.shape}
              removal={worked.total}
              steps={worked.steps}
              floor_m={floor_m}
              tape_m={choice?.tape_m ?? 0}
            />
          )}
          <div className="grid grid-cols-2 gap-3">
            {field(
              "texture",
              "Peel, peak to valley",
              units.film,
              { measured: "measured on the panel", judged: "judged by eye", usual: "usual for a sprayed panel; not measured" }[known.from],
            )}
            {field("uTexture", "give or take", units.film)}
            {field("wanted", "Peel to leave", units.film, "0 for a flat finish, the neighbour's to match")}
            {field("tape", "Rim to tape", units.length)}
          </div>
          <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
          <button
            className="press w-full"
            data-kind="main"
            disabled={fetcher.state !== "idle" || run.busy || !run.result || run.result.verdict === "none"}
          >
            {fetcher.state === "idle" ? `Use this plan${run.result?.verdict === "stop" ? " against the advice" : ""}` : "Storing…"}
          </button>
        </div>
      </div>
      {worked?.runs && <RunSchools runs={worked.runs} value={runSchool} onChange={setRunSchool} />}
      <p className="mt-8 max-w-[75ch] text-[13px] text-ink2">
        {correctionSchool(schoolId).steps.length} steps.{" "}
        {view.shopRemoval && `What this shop really takes off is in it: × ${view.shopRemoval.factor.toFixed(2)} of the forecast. `}
        Wet sanding and polishing: eye protection, residual current protection for mains tools near water, no loose clothing at rotating
        pads. Colour on the cloth means the clear is through: stop.
      </p>
    </fetcher.Form>
  );
}

function RunSchools({
  runs,
  value,
  onChange,
}: {
  runs: NonNullable<ReturnType<typeof correctionInput>["runs"]>;
  value: RunSchool | null;
  onChange: (s: RunSchool | null) => void;
}) {
  const units = useUnits();
  const film = (m: number) => show("film", m, units).text;
  return (
    <section className="mt-8" aria-labelledby="run-title">
      <h3 id="run-title" className="text-lg font-semibold">
        The run first: {film(runs.height_m)} {units.film} high
      </h3>
      <p className="text-ink2">
        Four schools with their own figures, none of them proved. The run is extra film; what counts is the film lost beside it (
        {film(runs.clear_m)} {units.film} there now).
      </p>
      <ScrollRegion label="Run schools" className="mt-2">
        <table className="w-full text-left">
          <thead className="small-label border-b border-hair">
            <tr>
              <th className="py-2">School</th>
              <th>Lost beside it, {units.film}</th>
              <th>Left, {units.film}</th>
              <th>Below the floor</th>
              <th>Cut through</th>
              <th>Minutes</th>
            </tr>
          </thead>
          <tbody>
            {runs.schools.map((s) => (
              <tr key={s.school} className="border-b border-hair" data-testid={`run-${s.school}`}>
                <td className="py-1">
                  <button
                    type="button"
                    className="press"
                    aria-pressed={value === s.school}
                    onClick={() => onChange(s.school)}
                    title={RUN_SCHOOLS[s.school].how}
                    data-kind={value === s.school ? "main" : undefined}
                  >
                    {RUN_SCHOOLS[s.school].name}
                  </button>
                </td>
                <td>{film(s.loss_m)}</td>
                <td>
                  {film(s.left_m)} ± {film(s.u_left_m)}
                </td>
                <td>{showChance(s.chanceBelowFloor)}</td>
                <td>{showChance(s.cutChance)}</td>
                <td>{Math.round(s.minutes)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollRegion>
      <p className="mt-2 text-[13px] text-ink2">
        {value ? `${RUN_SCHOOLS[value].name}: ${RUN_SCHOOLS[value].how}.` : "Choose a school."} Blades: cut-resistant gloves.
      </p>
    </section>
  );
}
