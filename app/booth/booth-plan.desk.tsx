import { More } from "~/kit/ui/more";
import type { BoothPlanView } from "#server/views/booth-plan-view";
import { useMemo, useState } from "react";
import { Link, useFetcher, type FetcherWithComponents } from "react-router";
import type { BoothProblem, FixedCoat } from "#core/models/schedule/booth-problem";
import { showTimeOfDay, showWait } from "#core/kernel/units/format";
import { BoothSetup } from "./booth-setup";
import { useRun } from "~/kit/run/use-run";
import { WorkingButton } from "~/kit/ui/figure";
import { FieldErrors } from "~/kit/ui/field";
import { later, useLater } from "~/kit/root/later";
import { PageHeader } from "~/kit/shell/page-header";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { boothSentence, boothWorking, infeasibleSentence, relaxWords } from "./booth-plan.words";
import { beforeWords } from "./before.words";
import type { Route } from "./+types/booth-plan.route";
import type { FormAnswer } from "~/kit/form/answer";
import type { BoothAnswer, BoothPlan } from "#core/models/schedule/booth-plan";

const MS = 1000;

const boothChart = later(() => import("./booth-chart"));

/** Several parts, coats and sides in one booth: who sprays what when, so that the day is short and no window is missed. */
export function BoothPlanPageDesk({ loaderData: view }: Pick<Route.ComponentProps, "loaderData">) {
  const fetcher = useFetcher<FormAnswer>();
  const [moved, setMoved] = useState<FixedCoat | null>(null);
  const problem = useMemo((): BoothProblem => {
    if (!moved) return view.problem;
    const others = view.problem.fixed.filter((f) => f.part !== moved.part || f.coat !== moved.coat);
    return { ...view.problem, fixed: [...others, moved] };
  }, [view.problem, moved]);
  const { result: answer, busy, fault } = useRun("booth", "boothPlan", problem);
  const chart = useLater(boothChart, true);
  const [shown, setShown] = useState<Extract<NonNullable<typeof answer>, { kind: "planned" }>["plan"] | null>(null);
  if (answer?.kind === "planned" && answer.plan !== shown) setShown(answer.plan);
  const zero_s = (view.origin_ms - view.midnight_ms) / MS;
  const chosen = view.candidates.filter((c) => c.chosen);
  const post = (fields: Record<string, string>) => void fetcher.submit({ version: String(view.version), ...fields }, { method: "post" });
  const fix = (panelId: string, coat: number, start_s: number | null) =>
    post({
      intent: "fix",
      panelId,
      coat: String(coat),
      start_ms: start_s === null ? "" : String(Math.round(view.origin_ms + start_s * MS)),
    });
  const sentence = answer?.kind === "planned" ? boothSentence(answer.plan, zero_s) : null;
  const delay_s =
    answer?.kind === "planned" && view.promisedEnd_ms !== null
      ? zero_s + answer.plan.end_s - (view.promisedEnd_ms - view.midnight_ms) / MS
      : 0;
  return (
    <>
      <PageHeader title="Booth plan" note="Parts, coats and pots of the day; every job on the floor may take part" />
      <main className="space-y-6 px-4 py-5 sm:px-6">
        <Heading {...{ chosen, fault, sentence, answer, zero_s, delay_s, view }} />
        {shown && chosen.length > 0 && (
          <section aria-label="Plan" className={busy && moved === null ? "opacity-60" : ""}>
            {chart && (
              <chart.BoothChart
                plan={shown}
                rows={chosen.map((c) => ({ id: c.panelId, vehicle: c.vehicle, name: c.name }))}
                sprayed={view.sprayed.map((s) => ({
                  part: s.panelId,
                  coat: s.coat,
                  start_s: (s.start_ms - view.origin_ms) / MS,
                  end_s: (s.end_ms - view.origin_ms) / MS,
                }))}
                fixed={view.problem.fixed}
                zero_s={zero_s}
                onFix={fix}
                onMove={setMoved}
              />
            )}
            <More label="How it is read, and changed">
              <p className="text-[13px] text-ink2">
                Under each row: when the next coat may start. Grey: mixing, or on already. Drag a coat, or use the arrow keys on it, to fix
                its time. What comes first at a part is planned all the same: see to it before its coat.
              </p>
            </More>
            <Presses {...{ view, fetcher, post, fix, chosen, zero_s, shown, problem }} />
            <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
          </section>
        )}
        <BoothSetup view={view} />
        {view.notOffered > 0 && (
          <p className="text-sm text-ink2">
            {view.notOffered} more panels have coats to come and are not offered here: the newest jobs are. Open the booth plan from a job
            to plan its own.
          </p>
        )}
        {shown && shown.sprays.length > 0 && <AsList {...{ shown, chosen, zero_s }} />}
        <p className="max-w-[75ch] text-[13px] text-ink2">
          The plan follows the sheets&rsquo; windows; the touch test decides. Supplied air, or what the safety data sheet and your local
          rules require.
        </p>
      </main>
    </>
  );
}

/** The day in a sentence, and what stands against it. */
function Heading({
  chosen,
  fault,
  sentence,
  answer,
  zero_s,
  delay_s,
  view,
}: {
  chosen: Route.ComponentProps["loaderData"]["candidates"];
  fault: string | null;
  sentence: { main: string; rest: string } | null;
  answer: BoothAnswer | null;
  zero_s: number;
  delay_s: number;
  view: BoothPlanView;
}) {
  return (
    <div className="min-h-[76px]">
      <h2
        className="max-w-[30em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight"
        data-testid="booth-sentence"
        aria-live="polite"
      >
        {chosen.length === 0 ? (
          "Choose the parts to spray."
        ) : fault ? (
          fault
        ) : sentence ? (
          <>
            {sentence.main} <em className="text-glow-ink not-italic">{sentence.rest}</em>
          </>
        ) : answer?.kind === "infeasible" ? (
          infeasibleSentence(answer)
        ) : (
          "Working it out…"
        )}
      </h2>
      {answer?.kind === "infeasible" && (
        <ul className="mt-2 list-disc pl-6 text-[17px]" data-testid="booth-relax">
          {answer.relax.map((r) => (
            <li key={r.rule}>{relaxWords(r, zero_s)}</li>
          ))}
        </ul>
      )}
      {answer?.kind === "planned" && answer.plan.late.length > 0 && (
        <p className="mt-1 font-medium text-amber-ink">
          Past its flash window already:{" "}
          {chosen
            .filter((c) => answer.plan.late.includes(c.panelId))
            .map((c) => c.name)
            .join(", ")}
          . Scuff, or see the sheet, before the next coat.
        </p>
      )}
      {delay_s > 120 && <p className="mt-1 text-amber-ink">{showWait(delay_s)} later than planned at first.</p>}
      {view.first.length > 0 && (
        <ul className="mt-1 font-medium text-amber-ink" data-testid="plan-first">
          {view.first.map((f) => {
            const c = view.candidates.find((x) => x.panelId === f.panelId);
            return (
              <li key={f.panelId}>
                {c?.name}: {beforeWords(f, view.origin_ms)}.
              </li>
            );
          })}
        </ul>
      )}
      {view.missed > 0 && <p className="mt-1 text-amber-ink">A fixed time has passed without its coat; it is planned anew.</p>}
    </div>
  );
}

/** Kept, worked out anew, taken along. */
function Presses({
  view,
  fetcher,
  post,
  fix,
  chosen,
  zero_s,
  shown,
  problem,
}: {
  view: BoothPlanView;
  fetcher: FetcherWithComponents<FormAnswer>;
  post: (fields: Record<string, string>) => void;
  fix: (panelId: string, coat: number, start_s: number | null) => void;
  chosen: Route.ComponentProps["loaderData"]["candidates"];
  zero_s: number;
  shown: BoothPlan;
  problem: BoothProblem;
}) {
  return (
    <div className="mt-3 flex flex-wrap items-center gap-2">
      {view.stored && (
        <>
          <a href="/do/booth-plan.ics" className="press" download>
            Calendar file
          </a>
          <button type="button" className="press" disabled={fetcher.state !== "idle"} onClick={() => post({ intent: "now" })}>
            Plan again from now
          </button>
        </>
      )}
      {view.problem.fixed.map((f) => (
        <button
          key={`${f.part} ${f.coat}`}
          type="button"
          className="press"
          disabled={fetcher.state !== "idle"}
          onClick={() => fix(f.part, f.coat, null)}
        >
          Let go of {chosen.find((c) => c.panelId === f.part)?.name}, coat {f.coat}, at {showTimeOfDay(zero_s + f.start_s)}
        </button>
      ))}
      <WorkingButton working={boothWorking(shown, problem)} label="Show how the plan was found">
        <span className="font-semibold">How this was found</span>
      </WorkingButton>
    </div>
  );
}

/** The plan as a list. */
function AsList({ shown, chosen, zero_s }: { shown: BoothPlan; chosen: Route.ComponentProps["loaderData"]["candidates"]; zero_s: number }) {
  return (
    <details>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">As a list</summary>
      <ScrollRegion label="Plan as a list">
        <table className="w-full text-left [&_td]:py-2 [&_td]:pr-4" data-testid="booth-list">
          <thead className="small-label border-b border-hair">
            <tr>
              <th className="py-2">Time</th>
              <th>Part</th>
              <th>Coat</th>
              <th>Painter</th>
              <th>Pot</th>
              <th>Next coat from</th>
              <th>to</th>
            </tr>
          </thead>
          <tbody>
            {shown.sprays.map((s) => {
              const c = chosen.find((x) => x.panelId === s.part);
              return (
                <tr key={`${s.part} ${s.coat}`} className="border-b border-hair">
                  <td>{showTimeOfDay(zero_s + s.start_s)}</td>
                  <td>
                    {c && (
                      <Link to={`/jobs/${c.jobId}/panels/${c.panelId}/spray`} className="underline underline-offset-4">
                        {c.vehicle}, {c.name}
                      </Link>
                    )}
                  </td>
                  <td>{s.coat}</td>
                  <td>{s.painter + 1}</td>
                  <td>{s.pot + 1}</td>
                  <td>{s.next ? showTimeOfDay(zero_s + s.next.least_s) : ""}</td>
                  <td>{s.next && Number.isFinite(s.next.most_s) ? showTimeOfDay(zero_s + s.next.most_s) : ""}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </ScrollRegion>
    </details>
  );
}
