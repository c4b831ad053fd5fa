import { inferredWords } from "~/kit/words/how-words";
import { useMemo } from "react";
import { Link } from "react-router";
import { type OptionCase, type OptionForecast, type OptionKind, type Waiting, waitingOf } from "#core/judge/options";
import type { CurePhase } from "#core/models/defects/remedies";
import { planAddress } from "./plan-address";
import { planOfWay } from "#core/judge/option-plan";
import type { ShopRates } from "#core/judge/option-figures";
import { show, showChance, showFilm, showWait, showWithUncertainty } from "#core/kernel/units/format";
import { optionQuestion } from "#core/judge/questions";
import { useRun, type Run } from "~/kit/run/use-run";
import { useUnits } from "~/kit/root/use-root";
import { usePanel } from "~/kit/panel/use-panel";
import { WorkingButton } from "~/kit/ui/figure";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { Tag } from "~/kit/ui/tag";
import { closedWords, decisionSentence, faultLines, flipSentence, optionName, optionWorking, waitingWords } from "./options.words";
import { OptionsWaiting } from "./options-waiting";
import { SandOutView } from "./sand-out-view";
import { SurfaceTube } from "./surface-tube";
import type { OptionAnswer, Flip } from "#core/judge/option-case";

/** Where each way is gone on with. */
const PLAN = { path: "/correct", name: "Plan it" };
const NEXT: Record<OptionKind, { path: string; name: string }> = {
  leave: { path: "/hand-over", name: "Hand over" },
  wet: { path: "/spray/mend?card=dirtInClear", name: "Its card" },
  halfCoat: { path: "/spray", name: "Spray it" },
  dab: { path: "/spray/mend?card=cratersInClear", name: "Its card" },
  wait: { path: "/spray/cure", name: "See its cure" },
  clean: { path: "/hand-over", name: "Note it" },
  polish: PLAN,
  dropFill: PLAN,
  sandOut: { path: "/spray/below", name: "Start below" },
  spot: PLAN,
  run: PLAN,
  part: PLAN,
  full: PLAN,
  flow: { path: "/correct/flow", name: "Plan it" },
  rebase: { path: "/spray/below", name: "Start below" },
};
/** The very plan that was costed, schools and all. */
function nextPath({ kind, runSchool }: OptionForecast, house: string): string {
  const plan = planOfWay(kind, { runSchool, house });
  return plan ? `${NEXT[kind].path}?${planAddress(plan)}` : NEXT[kind].path;
}

/** Every way to deal with the panel, with its film, risk, hours and cost; the least that mends it first. */
export function OptionsDesk({ cured, left_s, phase, rates }: { cured: number; left_s: number; phase: CurePhase; rates: ShopRates }) {
  const { view } = usePanel();
  const units = useUnits();
  const { job } = view;
  const input = useMemo(() => optionQuestion(view, { cured, phase, left_s, rates }), [view, cured, phase, left_s, rates]);
  const run = useRun("map", "options", input);
  // Asked of the same worker once the options are there: it has their film in hand.
  const further = useRun("map", "optionFlips", run.result?.answer ? input : null, 0);
  const flips = further.busy ? null : further.result;
  const worked = run.result?.answer ?? null;
  const reason = run.result?.reason ?? run.fault;
  const matte = job.finish === "matte";
  if (!worked) return <OptionsWaiting reason={reason} />;
  const { case: c, decision, inferred } = worked;
  const options = [...decision.options].sort((a, b) => Number(b.feasible) - Number(a.feasible) || a.cost - b.cost);
  const best = decision.best;
  return (
    <>
      <div
        aria-live="polite"
        data-testid="option-sentence"
        data-best={best ? (best.runSchool ? `run:${best.runSchool}` : best.kind) : "none"}
      >
        <h2 className="max-w-[26em] min-h-[1.12em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
          {decisionSentence(decision, matte)}
        </h2>
        <p className="mt-1 text-ink2">
          The least that mends it, with what may go wrong priced in. Clear in the thinnest zone{" "}
          {showWithUncertainty("film", c.clear_m, c.u_clear_m, units).text} {units.film}
          {inferred ? ", inferred" : ""}; {c.nibs} {c.nibs === 1 ? "nib" : "nibs"};{" "}
          {c.run ? `a run ${showFilm(c.run.height_m, units).text} ${units.film} high` : "no run with its size"}; peel{" "}
          {showFilm(c.peakToValley_m, units).text} {units.film} against {showFilm(c.wanted_m, units).text} wanted.
        </p>
        {(c.faults ?? []).length > 0 && (
          <ul className="mt-2 max-w-[75ch] border-t border-hair" aria-label="Faults weighed">
            {faultLines(c.faults ?? []).map(({ name, text }) => (
              <li key={name} className="border-b border-hair py-1">
                <b className="font-semibold">{name}:</b> <span className="text-ink2">{text}</span>
              </li>
            ))}
          </ul>
        )}
        <div className="mt-2 flex flex-wrap gap-2">
          {cured < 1 && <Tag kind="caution">Not cured: {showWait(left_s)} to go</Tag>}
          {inferred && <Tag kind="caution">{inferredWords(view.state.film.how)}</Tag>}
        </div>
      </div>
      <OptionsTable {...{ options, matte, left_s, worked }} />
      {options.some((o) => o.kind === "sandOut") && <SandOutView />}
      <section className="mt-6 grid gap-5 sm:grid-cols-3" aria-label="How it would reflect a light tube">
        <SurfaceTube peakToValley_m={c.peakToValley_m} label="As it is" />
        <SurfaceTube peakToValley_m={Math.min(c.peakToValley_m, c.wanted_m)} label="Levelled and polished" />
        <SurfaceTube peakToValley_m={c.wanted_m} label={job.finish === "match" ? "The neighbour's, as rated" : "Wanted"} />
      </section>
      <Flips {...{ flips, matte, further }} />
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        Rates are set under House. Hours, materials and chances of rejection are defaults of ours. Structural or safety-relevant parts:
        licensed practice.
      </p>
    </>
  );
}

/** The ways side by side. */
function OptionsTable({
  options,
  matte,
  left_s,
  worked,
}: {
  options: OptionForecast[];
  matte: boolean;
  left_s: number;
  worked: OptionAnswer;
}) {
  const { view } = usePanel();
  const units = useUnits();
  const { case: c, decision } = worked;
  const best = decision.best;
  return (
    <ScrollRegion label="Options" className="mt-5">
      <table className="w-full min-w-[780px] text-left">
        <thead className="small-label border-b border-hair">
          <tr>
            <th className="py-2">Way</th>
            <th>Comes off, {units.film}</th>
            <th>Clear left, {units.film}</th>
            <th>Cut through</th>
            <th>Too thin</th>
            <th>Rejected</th>
            <th>Hours</th>
            <th>Waiting</th>
            <th>Cost</th>
            <th>
              <span className="sr-only">Go on</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {options.map((o) => (
            <OptionRow
              key={o.kind}
              option={o}
              case={c}
              matte={matte}
              chosen={o.kind === best?.kind}
              waiting={waitingOf(o.kind, { left_s, sandAfter_s: view.product.sheet.sandAfter_s })}
            />
          ))}
        </tbody>
      </table>
    </ScrollRegion>
  );
}

/** What would flip the choice. */
function Flips({ flips, matte, further }: { flips: Flip[] | null; matte: boolean; further: Run<"optionFlips"> }) {
  return (
    <section className="mt-6" aria-labelledby="flip-title">
      <h3 id="flip-title" className="font-semibold">
        What would change it
      </h3>
      {flips && flips.length > 0 ? (
        <ul className="list-disc pl-5 text-ink2">
          {flips.map((f) => (
            <li key={f.what}>{flipSentence(f, matte)}</li>
          ))}
        </ul>
      ) : (
        <p className="text-ink2">
          {flips ? "Nothing that may well be otherwise: the choice stands." : (further.fault ?? "Trying what may be otherwise.")}
        </p>
      )}
    </section>
  );
}

/** One way with its figures. */
function OptionRow({
  option: o,
  case: c,
  matte,
  chosen,
  waiting,
}: {
  option: OptionForecast;
  case: OptionCase;
  matte: boolean;
  chosen: boolean;
  waiting: Waiting;
}) {
  const { base, view } = usePanel();
  const units = useUnits();
  return (
    <tr className={`border-b border-hair ${o.feasible ? "" : "text-ink2"}`} data-testid={`option-${o.kind}`}>
      <td className="py-2">
        <span className={chosen ? "font-semibold" : ""}>{optionName(o, matte)}</span>
        {!o.feasible && <span className="block text-[13px] text-stop-ink">{o.why.map((w) => closedWords(w, units)).join("; ")}</span>}
      </td>
      <td>{o.removal_m > 0 ? show("film", o.removal_m, units).text : "–"}</td>
      <td>{showWithUncertainty("film", o.left_m, o.u_left_m, units).text}</td>
      <td>{showChance(o.cutChance)}</td>
      <td>{showChance(o.thinChance)}</td>
      <td>{showChance(o.residualChance)}</td>
      <td>{(o.minutes / 60).toFixed(1)}</td>
      <td className="text-[14px]">{waitingWords(waiting)}</td>
      <td>
        <WorkingButton
          working={optionWorking(o, c, matte, units)}
          label={`${optionName(o, matte)}: ${o.cost.toFixed(0)}. Show the working`}
        >
          <b className="font-semibold">{o.cost.toFixed(0)}</b>
        </WorkingButton>
      </td>
      <td className="py-1 text-right">
        {o.feasible && (
          <Link
            to={`${base}${nextPath(o, view.job.way.correction)}`}
            className="press whitespace-nowrap"
            {...(chosen ? { "data-kind": "main" } : {})}
          >
            {NEXT[o.kind].name}
          </Link>
        )}
      </td>
    </tr>
  );
}
