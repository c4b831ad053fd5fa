import { useMemo } from "react";
import { Form, Link } from "react-router";
import type { FlowPlan } from "#core/judge/flow-question";
import { blockedByFaults, blockedVerdict, stops, type BlockedBy } from "#core/judge/blocked-by";
import { type ShopRates, flatVerdict } from "#core/judge/option-figures";
import type { CurePhase } from "#core/models/defects/remedies";
import { show, showChance, showFilm, showWait, showWithUncertainty } from "#core/kernel/units/format";
import { later, useLater } from "~/kit/root/later";
import { HeldLines } from "~/kit/panel/held-lines";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { useAssessment, type AssessmentRun } from "~/kit/run/use-assessment";
import { useRun, type Run } from "~/kit/run/use-run";
import { FieldErrors } from "~/kit/ui/field";
import { WorkingButton } from "~/kit/ui/figure";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { Tag } from "~/kit/ui/tag";
import { VERDICT_WORDS } from "~/kit/words/verdict";
import { AGAINST, flowRows, flowSentence, flowStageWorking } from "./flow.words";
import type { Removal } from "#core/models/correction/removal-plan";

/** What is asked beside the page: the film under the paper, and the other ways. */
const asking = later(() => import("./flow-asking"));

/** Sanding flat is before more clear: what must be left is what hides the base, not the floor. */
const FLAT_FLOOR_M = 0;

export function FlowDesk({
  cured,
  left_s,
  phase,
  rates,
  plan,
  said,
}: {
  plan: FlowPlan | null;
  cured: number;
  left_s: number;
  phase: CurePhase;
  rates: ShopRates;
  said: string | null;
}) {
  const { view, base } = usePanel();
  const units = useUnits();
  const { state, job } = view;
  const flat = plan?.flat ?? null;
  const { judged, weighed } = useFlowJudged({ flat, cured, phase, left_s, rates });
  if (job.finish === "matte")
    return (
      <h2 className="text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        Nothing is laid over matte: the part is sprayed again.
      </h2>
    );
  if (!plan || !flat)
    return (
      <section className="max-w-[60ch] space-y-4">
        <h2 className="text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
          No clear is on yet: a flow coat goes over one.
        </h2>
        <Link to={`${base}/course`} className="press" data-kind="main">
          To the course
        </Link>
      </section>
    );
  const { stage } = plan;
  const verdict = judged.result && Number.isFinite(judged.result.cutChance) ? flatVerdict(judged.result.cutChance) : null;
  const held = blockedByFaults(plan.held);
  const told = verdict && blockedVerdict(verdict, held);
  const sentence = flowSentence(stage, verdict, { measured: state.film.mean !== null, left_s, held }, units);
  const film = (m: number, u: number) => `${showWithUncertainty("film", m, u, units).text} ${units.film}`;
  const open = stage.against === null && verdict !== "stop" && stage.coat !== null && !held.some(stops);
  return (
    <>
      <Heading {...{ told, sentence, left_s, held, plan }} />
      <StepByStep {...{ film, flat, judged, plan }} />
      <Form method="post" className="mt-4 flex flex-wrap items-center gap-3">
        <input type="hidden" name="intent" value="flow" />
        <input type="hidden" name="formKey" value={`${view.formKey}-flow`} />
        <input type="hidden" name="coats" value={stage.coats} />
        <input type="hidden" name="speedFactor" value={stage.coat?.speedFactor ?? ""} />
        <input type="hidden" name="reducerShift" value={stage.coat?.reducerShift ?? ""} />
        <button className="press" data-kind="main" disabled={!open}>
          Plan it: flat and re-clear
        </button>
        <FieldErrors errors={said ? [said] : undefined} />
      </Form>
      <Instead {...{ weighed, flat, left_s, plan }} />
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        A coat over peel carries part of it through: the sanding is what makes it work. Wet sanding: eye protection, residual current
        protection for mains tools near water. Spraying: supplied air, or what the safety data sheet and your local rules require.
      </p>
    </>
  );
}

/** The sanding judged, and the ways beside it. */
function useFlowJudged({
  flat,
  cured,
  phase,
  left_s,
  rates,
}: {
  flat: Removal | null;
  cured: number;
  phase: CurePhase;
  left_s: number;
  rates: ShopRates;
}) {
  const { view } = usePanel();
  const { panel, state } = view;
  const ask = useLater(asking, state.film.mean !== null, true);
  const question = useMemo(
    () =>
      ask && state.film.mean && flat
        ? {
            film: ask.filmFacts(panel, state),
            hypotheses: state.film.hypotheses,
            work: { panel: { removal_m: flat.removal_m, u_m: flat.u_m, rim_m: 0 }, local: [], floor_m: FLAT_FLOOR_M },
          }
        : null,
    [ask, panel, state, flat],
  );
  const judged = useAssessment(question);
  const weighed = useRun(
    "map",
    "options",
    useMemo(
      () => (ask && state.film.mean ? ask.optionQuestion(view, { cured, phase, left_s, rates }) : null),
      [ask, view, state, cured, phase, left_s, rates],
    ),
  );
  return { judged, weighed };
}

/** Whether it can be done, in a sentence. */
function Heading({
  told,
  sentence,
  left_s,
  held,
  plan,
}: {
  told: "safe" | "caution" | "stop" | null;
  sentence: { main: string; rest: string };
  left_s: number;
  held: readonly BlockedBy[];
  plan: FlowPlan;
}) {
  const { view } = usePanel();
  const { state } = view;
  const { stage } = plan;
  return (
    <div aria-live="polite" data-testid="flow-sentence" data-verdict={told ?? "waiting"} data-against={stage.against ?? "none"}>
      <h2 className="min-h-[2.24em] max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        {sentence.main} <em className="text-glow-ink not-italic">{sentence.rest}</em>
      </h2>
      <div className="mt-2 mb-4 flex min-h-11 flex-wrap items-center gap-2">
        {told && <Tag kind={VERDICT_WORDS[told].tag}>{`Sanding flat: ${VERDICT_WORDS[told].word.toLowerCase()}`}</Tag>}
        {stage.against && <Tag kind="stop">{AGAINST[stage.against]}</Tag>}
        {left_s > 0 && <Tag kind="caution">Not hard yet: {showWait(left_s)} to go</Tag>}
        {state.film.mean === null && <Tag kind="open">Clear not read: by its coats alone</Tag>}
      </div>
      <HeldLines view={view} held={held} />
    </div>
  );
}

/** The flow coat, step by step. */
function StepByStep({
  film,
  flat,
  judged,
  plan,
}: {
  film: (m: number, u: number) => string;
  flat: Removal;
  judged: AssessmentRun;
  plan: FlowPlan;
}) {
  const { view } = usePanel();
  const units = useUnits();
  const { job } = view;
  const { flatten } = job.way;
  const { stage, there: mean } = plan;
  return (
    <ol className="border-t border-hair" aria-label="The flow coat, step by step" data-figures>
      <li className="border-b border-hair py-2.5">
        <b className="font-semibold">
          1. Sand flat, P{flatten.grit} {flatten.by === "machine" ? "by machine with a soft pad" : "by hand"}
        </b>
        <span className="block text-ink2">
          takes off {film(flat.removal_m, flat.u_m)} of {film(mean.clear_m, mean.u_m)}
          {judged.result && Number.isFinite(judged.result.cutChance) && `; ${showChance(judged.result.cutChance)} to cut through anywhere`}.
          Then clean, both cleaners, and tack.
        </span>
      </li>
      <li className="border-b border-hair py-2.5">
        <b className="font-semibold">
          2. {stage.coats} coats
          {stage.gun && ` at ${show("speed", stage.gun.handSpeed_m_s, units).text} ${show("speed", 0, units).unit}`}
        </b>
        <span className="block text-ink2">
          {stage.coat && stage.gun ? (
            <>
              {Math.round(100 * stage.coat.speedFactor)} % of the usual hand speed, {Math.round(100 * stage.coat.reducerShift * 10) / 10} %
              more reducer, {showWait(stage.flash_s)} between; adds {showFilm(stage.adds_m, units).text} {units.film}
            </>
          ) : (
            "No pace of the hand stays clear of a run with this gun in this air: less fluid, further back, or lay the part flat."
          )}
        </span>
      </li>
      <li className="border-b border-hair py-2.5">
        <b className="font-semibold">3. After that: {film(stage.clear_m, stage.u_clear_m)} of clear</b>{" "}
        <span className="text-ink2">
          {showFilm(stage.total_m, units).text} {units.film} of all layers
        </span>
        <span className="ml-3">
          <WorkingButton working={flowStageWorking(stage, mean, flat, units)} label="Show the working of the flow coat">
            <span className="font-semibold">How this was worked out</span>
          </WorkingButton>
        </span>
      </li>
    </ol>
  );
}

/** The flow coat against polishing. */
function Instead({ weighed, flat, left_s, plan }: { weighed: Run<"options">; flat: Removal; left_s: number; plan: FlowPlan }) {
  const { view, base } = usePanel();
  const units = useUnits();
  const { product, state } = view;
  const { sheet } = product;
  const { stage } = plan;
  return (
    <section className="mt-8" aria-labelledby="instead-title">
      <h3 id="instead-title" className="text-lg font-semibold">
        Or polish instead
      </h3>
      <ScrollRegion label="Flow coat against polishing" className="mt-2">
        <table className="w-full min-w-[640px] text-left [&_td]:py-2" data-testid="flow-or-polish">
          <thead className="small-label border-b border-hair">
            <tr>
              <th className="py-2">Way</th>
              <th>Looks</th>
              <th>Comes off, {units.film}</th>
              <th>Clear then, {units.film}</th>
              <th>Hours of work</th>
              <th>Waiting</th>
              <th>Cuts through</th>
            </tr>
          </thead>
          <tbody>
            {flowRows(stage, { answer: weighed.result?.answer ?? null, flat, left_s, sandAfter_s: sheet.sandAfter_s }, units).map((r) => (
              <tr key={r.name} className="border-b border-hair">
                <td className="font-semibold">{r.name}</td>
                {r.cells.map((c, i) => (
                  <td key={i}>{c}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollRegion>
      {state.film.mean === null && (
        <p className="mt-2 text-ink2">
          Read the film after clear, and polishing is weighed beside it.{" "}
          <Link to={`${base}/inspect`} className="underline underline-offset-4">
            Read the film
          </Link>
        </p>
      )}
    </section>
  );
}
