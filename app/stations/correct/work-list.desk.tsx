import { More } from "~/kit/ui/more";
import type { PlanStep } from "#core/record/bodies";
import { inferredWords } from "~/kit/words/how-words";
import { removedAtSpots } from "#core/panel/removed-at-spots";
import { Check } from "lucide-react";
import { Link, useFetcher, type FetcherWithComponents } from "react-router";
import { correctionSchool } from "#core/models/correction/schools";
import { show, showChance, showWithUncertainty } from "#core/kernel/units/format";
import type { FormAnswer } from "~/kit/form/answer";
import { useUnits } from "~/kit/root/use-root";
import { HeldAhead } from "./held-ahead";
import { usePanel } from "~/kit/panel/use-panel";
import { FieldErrors } from "~/kit/ui/field";
import { StrikeButton } from "~/kit/shell/strike-button";
import { Tag } from "~/kit/ui/tag";
import { stopWords } from "~/kit/words/stop-words";
import { throughWords } from "~/kit/words/through-words";
import { VERDICT_WORDS } from "~/kit/words/verdict";
import { doneWords, stepFacts } from "~/kit/words/zone-words";
import { ToldByMark } from "./told-by-mark";
import { useFromHere } from "./use-from-here";
import { StepText } from "./zone-view";
import type { BlockedBy } from "#core/judge/blocked-by";
import type { EntryOf } from "#core/record/entry";

/** The stored plan, step by step: what to do, what to look for, what it takes off. */
export function PlanWork({ onReplan, finished }: { onReplan: () => void; finished: boolean }) {
  const { view } = usePanel();
  const units = useUnits();
  const { state } = view;
  const fetcher = useFetcher<FormAnswer>();
  const plan = state.plan!;
  const { body } = plan;
  const school = correctionSchool(body.schoolId);
  const done = state.stepsDone.length;
  const now = body.steps[done];
  const words = throughWords(view.product.sheet);
  const removal = showWithUncertainty("film", body.removal_m, body.u_removal_m, units);
  const rechecked = state.spots.some((s) => s.films.recheck);
  const verdict = VERDICT_WORDS[body.verdict];
  const againAt = (i: number) => state.extraPasses.filter((e) => e.body.index === i).length;
  const { through, ahead, held, chances } = useFromHere(view);
  const no = now ? stopWords(held) : null;
  if (through) return <Through onReplan={onReplan} entryId={through.id} />;
  return (
    <>
      <Heading {...{ no, now, rechecked, verdict, held, plan }} />
      <More label={`${school.name}, ${removal.text} ${removal.unit} in all`}>
        <p className="text-ink2">
          Chance of cutting through {showChance(body.cutChance ?? NaN)}, of too little left {showChance(body.thinChance ?? NaN)}, when
          planned.
        </p>
        {now && ahead && <ToldByMark now={ahead.removal} unmarked={ahead.unmarked} />}
      </More>
      {now && (
        <p className="mt-1 min-h-6" data-testid="from-here" aria-live="polite">
          {chances ? (
            <>
              From here, with {show("film", ahead?.removal.removal_m ?? 0, units).text} {units.film} still to come off: cutting through{" "}
              <b className="font-semibold">{showChance(chances.cutChance)}</b>, too little left{" "}
              <b className="font-semibold">{showChance(chances.thinChance)}</b>.
            </>
          ) : (
            <span className="text-ink2">Working out the chances from here…</span>
          )}
        </p>
      )}
      <ol className="mt-3 border-t border-hair" data-figures>
        {body.steps.map((s, i) => {
          const ticked = state.stepsDone[i];
          return <StepRow key={i} {...{ i, ticked, s, againAt, fetcher, plan, no }} />;
        })}
      </ol>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
      {done > 0 && (
        <fetcher.Form method="post" className="mt-5 flex flex-wrap gap-2">
          <input type="hidden" name="planId" value={plan.id} />
          {body.steps[done - 1]?.use && (
            <button className="press" name="intent" value="again" disabled={fetcher.state !== "idle"}>
              Scratches still visible: one pass more
            </button>
          )}
          <button className="press" name="intent" value="through" disabled={fetcher.state !== "idle"}>
            {words.sign}
          </button>
        </fetcher.Form>
      )}
      <Leads {...{ now, finished, rechecked, onReplan }} />
      {rechecked && <Remeasured />}
      <p className="mt-8 max-w-[75ch] text-[13px] text-ink2">
        Wipe dry and look after every step. Scratches of the step before still there: one more pass before the next. {words.watch} Eye
        protection, residual current protection for mains tools near water, no loose clothing at rotating pads.
      </p>
    </>
  );
}

/** The step at hand, and the verdict when it was planned. */
function Heading({
  no,
  now,
  rechecked,
  verdict,
  held,
  plan,
}: {
  no: string | null;
  now: PlanStep | undefined;
  rechecked: boolean;
  verdict: { word: string; tag: "good" | "caution" | "stop" | "open" };
  held: readonly BlockedBy[];
  plan: EntryOf<"plan">;
}) {
  const { view } = usePanel();
  const { state } = view;
  const { body } = plan;
  const done = state.stepsDone.length;
  return (
    <div>
      <h2 className="max-w-[24em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        {no ? (
          <span className="text-stop-ink">{no}</span>
        ) : now ? (
          <>
            Step {done + 1} of {body.steps.length}: <em className="text-glow-ink not-italic">{now.name}.</em>
          </>
        ) : rechecked ? (
          "Worked through and measured again."
        ) : (
          "Worked through. Measure again before you trust the section."
        )}
      </h2>
      <div className="mt-2 flex flex-wrap gap-2">
        <Tag kind={no ? "open" : verdict.tag}>{`${verdict.word} when planned`}</Tag>
        {body.inferred && <Tag kind="caution">{inferredWords(view.state.film.how)}</Tag>}
      </div>
      {now && (
        <div className="mt-2">
          <HeldAhead view={view} held={held} />
        </div>
      )}
    </div>
  );
}

/** A step with its tick. */
function StepRow({
  i,
  ticked,
  s,
  againAt,
  fetcher,
  plan,
  no,
}: {
  i: number;
  ticked: EntryOf<"step"> | undefined;
  s: PlanStep;
  againAt: (i: number) => number;
  fetcher: FetcherWithComponents<FormAnswer>;
  plan: EntryOf<"plan">;
  no: string | null;
}) {
  const { view } = usePanel();
  const units = useUnits();
  const { state } = view;
  const done = state.stepsDone.length;
  return (
    <li
      aria-current={i === done ? "step" : undefined}
      className="grid grid-cols-[44px_1fr_auto] items-start gap-3 border-b border-hair py-3 aria-[current=step]:bg-glow-wash"
    >
      <span className="grid h-9 w-9 place-content-center justify-self-center rounded-full border-[1.5px] border-edge font-semibold">
        {ticked ? <Check size={18} aria-label="done" /> : i + 1}
      </span>
      <div>
        <StepText step={s} facts={stepFacts(s, units)} brief={i !== done} />
        {(ticked || againAt(i) > 0) && (
          <p className="text-[14px]">
            {[ticked && doneWords(ticked, units), againAt(i) > 0 && `${againAt(i)} × once more`].filter(Boolean).join(" · ")}
          </p>
        )}
      </div>
      {i === done ? (
        <fetcher.Form method="post">
          <input type="hidden" name="intent" value="step" />
          <input type="hidden" name="planId" value={plan.id} />
          <input type="hidden" name="index" value={i} />
          <input type="hidden" name="formKey" value={`${plan.id}-${i}-${view.formKey}`} />
          <button className="press" data-kind={no ? undefined : "main"} disabled={fetcher.state !== "idle"}>
            Done
          </button>
        </fetcher.Form>
      ) : (
        ticked && i === done - 1 && <StrikeButton entryId={ticked.id} what={`step ${i + 1}`} />
      )}
    </li>
  );
}

/** Where to go from here. */
function Leads({
  now,
  finished,
  rechecked,
  onReplan,
}: {
  now: PlanStep | undefined;
  finished: boolean;
  rechecked: boolean;
  onReplan: () => void;
}) {
  const { view, base } = usePanel();
  return (
    <div className="mt-5 flex flex-wrap gap-2">
      {now && (
        <Link to={`/jobs/${view.job.id}/booth/${view.panel.id}`} className="press">
          Work in the booth view
        </Link>
      )}
      <Link to={`${base}/inspect`} className="press" {...(finished && !rechecked ? { "data-kind": "main" } : {})}>
        Measure again
      </Link>
      {finished && (
        <Link to={`${base}/hand-over`} className="press" {...(rechecked ? { "data-kind": "main" } : {})}>
          Hand over
        </Link>
      )}
      <button type="button" className="press" onClick={onReplan}>
        Plan again from here
      </button>
    </div>
  );
}

/** The clear is through: nothing more is sanded here. */
function Through({ entryId, onReplan }: { entryId: string; onReplan: () => void }) {
  const { view, base } = usePanel();
  const words = throughWords(view.product.sheet);
  return (
    <section className="space-y-4" role="alert">
      <h2 className="max-w-[24em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight text-stop-ink">
        Stop. {words.sign}: {words.stop}.
      </h2>
      <p className="max-w-[65ch]">
        Sand no further, there or beside it. Tape round the place so that nothing runs under the edge. {words.mend} What is left elsewhere
        can be judged anew once it has been read again.
      </p>
      <div className="flex flex-wrap gap-2">
        <Link to={`${base}/correct/options`} className="press" data-kind="main">
          What now?
        </Link>
        <Link to={`${base}/inspect`} className="press">
          Measure again
        </Link>
        <button type="button" className="press" onClick={onReplan}>
          Plan again from here
        </button>
        <StrikeButton entryId={entryId} what="the cut-through" />
      </div>
    </section>
  );
}

/** What really came off where it was read again, beside the forecast. */
function Remeasured() {
  const { view } = usePanel();
  const units = useUnits();
  const rows = removedAtSpots(view.state);
  if (rows.length === 0) return null;
  const forecast = showWithUncertainty("film", view.state.plan?.body.removal_m ?? 0, view.state.plan?.body.u_removal_m ?? 0, units);
  return (
    <section className="mt-8">
      <h3 className="text-lg font-semibold">What really came off</h3>
      <p className="text-ink2">
        Forecast {forecast.text} {forecast.unit}; after clear less after sanding at the same spots:
      </p>
      <ul className="mt-2 flex flex-wrap gap-x-8 gap-y-1">
        {rows.map((r) => (
          <li key={r.name}>
            spot {r.name}: <b className="font-semibold">{showWithUncertainty("film", r.removal_m, r.u_m, units).text}</b> {units.film}
          </li>
        ))}
      </ul>
    </section>
  );
}
