import { useEffect, useMemo, useState } from "react";
import { useFetcher, useSearchParams } from "react-router";
import type { ShopRemoval } from "#core/correction/clearing";
import { correctionInput, countedSteps, textureOf } from "#core/correction/correction-input";
import type { RunSchool } from "#core/correction/run-work";
import { CORRECTION_SCHOOLS, CORRECTION_SCHOOL_IDS } from "#core/correction/schools";
import { DEFAULT_TAPE_M } from "#core/film/verdict";
import type { PlanStep } from "#core/ledger/bodies";
import { show } from "#core/units/format";
import { parseQuantity } from "#core/units/parse";
import { houseWay } from "#core/ways/house-ways";
import type { FormAnswer } from "~/forms/answer";
import { initial } from "~/forms/initial";
import { useAssessment } from "~/lib/use-assessment";
import { useUnits } from "~/lib/use-root";
import { VerdictFigures, VerdictHeading } from "~/panel/verdict-panel";
import { usePanel } from "~/routes/panel/layout";
import { Choices, Toggle } from "~/ui/choice";
import { Field, FieldErrors } from "~/ui/field";
import { UnitsField } from "~/ui/units-field";
import { RunSchools } from "./run-schools";
import { ZoneView } from "./zone-view";

/** Choose a school, see zone by zone what it takes and risks, store the plan. */
export function PlanDesk({ onStored }: { onStored: () => void }) {
  const { view, setPreview } = usePanel();
  const units = useUnits();
  const { panel, state, floor_m, job } = view;
  const fetcher = useFetcher<FormAnswer>();
  const errors = fetcher.data?.errors ?? {};
  const known = useMemo(() => textureOf(state), [state]);
  const asked = useSearchParams()[0].get("school");
  const [schoolId, setSchoolId] = useState<string>(
    () => CORRECTION_SCHOOL_IDS.find((id) => id === asked) ?? houseWay(job.wayId).correction,
  );
  const [runSchool, setRunSchool] = useState<RunSchool | null>("block");
  const [edges, setEdges] = useState<"left" | "hand">("left");
  const [lines, setLines] = useState<"hand" | "left">("hand");
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
      edges,
      lines,
      texture: { peakToValley_m: texture.si, u_m: u.si, wanted_m: wanted.si },
      tape_m: tape.si,
      floor_m,
      shop: view.shopRemoval,
    };
  }, [typed, units, schoolId, runSchool, edges, lines, floor_m, view.shopRemoval]);
  const worked = useMemo(() => {
    try {
      return choice && correctionInput(panel, state, choice);
    } catch (error) {
      if (error instanceof RangeError) return null;
      throw error;
    }
  }, [choice, panel, state]);
  const run = useAssessment(worked?.assess ?? null);
  const { removal_m, u_m } = worked?.plan.total ?? { removal_m: 0, u_m: 0 };
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
      <input type="hidden" name="runSchool" value={worked?.plan.runs ? (runSchool ?? "") : ""} />
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
              removal={worked.plan.total}
              steps={countedSteps(worked.plan.steps)}
              floor_m={floor_m}
              tape_m={worked.plan.judgedFrom_m}
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
            {field("tape", "Width of the rim", units.length)}
          </div>
          <input type="hidden" name="edges" value={edges} />
          <input type="hidden" name="lines" value={lines} />
          <div className="flex flex-wrap gap-x-6 gap-y-3">
            <div>
              <span className="small-label mb-1 block">Rim</span>
              <Toggle
                label="Rim"
                value={edges}
                onChange={(v) => setEdges(v === "hand" ? "hand" : "left")}
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
                  onChange={(v) => setLines(v === "left" ? "left" : "hand")}
                  options={[
                    { value: "hand", name: "by hand" },
                    { value: "left", name: "leave under tape" },
                  ]}
                />
              </div>
            )}
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
      {worked && <ZoneView plan={worked.plan} rim_m={choice?.tape_m ?? 0} />}
      {worked?.plan.runs && <RunSchools runs={worked.plan.runs} value={runSchool} onChange={setRunSchool} />}
      <OwnRemoval removal={view.shopRemoval} steps={worked?.plan.steps ?? []} />
    </fetcher.Form>
  );
}

/** What this shop's own measured removal changes in this plan. */
function OwnRemoval({ removal: { whole }, steps }: { removal: ShopRemoval; steps: readonly PlanStep[] }) {
  const units = useUnits();
  const own = steps.filter((s) => s.own);
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
