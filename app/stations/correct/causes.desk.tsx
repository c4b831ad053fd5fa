import { More } from "~/kit/ui/more";
import { DEFECTS } from "#core/models/defects/catalogue";
import { Link, useFetcher } from "react-router";
import { CAUSES, type Cause, type CauseId, type ChangeAt } from "#core/models/defects/causes";
import { OBSERVATIONS, type ObservationId } from "#core/models/defects/observations";
import type { CausesView } from "#server/views/causes-view";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { WorkingButton } from "~/kit/ui/figure";
import { StrikeButton } from "~/kit/shell/strike-button";
import { Tag } from "~/kit/ui/tag";
import { lower } from "~/kit/words/capital";
import { causeWorking } from "./causes.words";
import { useUnits } from "~/kit/root/use-root";
import { InUnits } from "~/kit/ui/in-units";
import { inUnits } from "#core/kernel/units/in-units";
import type { RankedCause } from "#core/models/defects/diagnose";

const SHOWN = 5;
const TRY_WORDS: Record<string, string> = {
  faster: "a tenth faster",
  slower: "a tenth slower",
  closer: "closer",
  "more-air": "more pressure",
  "slow-hardener": "slow hardener",
  flash: "a longer flash",
};
const PLACES: Record<ChangeAt, { path: string; name: string }> = {
  window: { path: "/spray/window", name: "Will it run?" },
  gun: { path: "/spray/gun", name: "Gun" },
  "coat-plan": { path: "/spray/coat-plan", name: "Coat plan" },
  ready: { path: "/spray/ready", name: "Ready?" },
  below: { path: "/spray/below", name: "Below" },
  cure: { path: "/spray/cure", name: "Cure" },
  mix: { path: "/plan/mix", name: "Mix" },
  gloss: { path: "/plan/gloss", name: "Gloss" },
  work: { path: "/correct", name: "Plan and work" },
  shelf: { path: "", name: "Shelf" },
};

/** What caused it: the record first, then a few questions; what speaks for and against; what to change next time. */
export function CausesDesk({ causes }: { causes: CausesView }) {
  const units = useUnits();
  const { diagnosis, kind } = causes;
  const leader = diagnosis.causes[0]!;
  const [question] = diagnosis.questions;
  const defect = DEFECTS[kind].name.toLowerCase();
  const settled = causes.settled ? (CAUSES[causes.settled as CauseId] as Cause) : null;
  return (
    <>
      <div data-testid="cause-sentence" data-enough={diagnosis.enough} aria-live="polite">
        <h2 className="max-w-[26em] min-h-[2.24em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
          {settled ? (
            <>
              {DEFECTS[kind].name}: <em className="text-glow-ink not-italic">{lower(settled.name)}.</em>
            </>
          ) : diagnosis.enough && leader.id ? (
            <>
              {DEFECTS[kind].name}: most likely <em className="text-glow-ink not-italic">{lower(leader.name)}.</em>
            </>
          ) : (
            `Not enough to tell what caused the ${defect}. ${question ? "One answer helps most." : ""}`
          )}
        </h2>
        <div className="mt-1 flex min-h-11 flex-wrap items-center gap-2">
          {settled && <Tag kind="good">The painter’s word</Tag>}
          {settled && causes.entryId && <StrikeButton entryId={causes.entryId} what="the final word and the answers" />}
        </div>
      </div>
      {question ? (
        <Question key={question.id} kind={kind} id={question.id} ask={inUnits(question.ask, units)} />
      ) : (
        <p className="text-ink2">No question is left that would tell much more.</p>
      )}
      <div className="mt-4 grid gap-x-10 gap-y-7 md:grid-cols-[1.25fr_1fr]">
        <ol className="border-t border-hair" aria-label="Causes, likeliest first">
          {diagnosis.causes.slice(0, SHOWN).map((c, i) => (
            <CauseRow key={c.id ?? "else"} first={i === 0} {...{ c, causes }} />
          ))}
        </ol>
        <Known causes={causes} />
      </div>
      <p className="mt-8 max-w-[75ch] text-[13px] text-ink2">
        Weights are common practice put into figures by us, not measured. The record speaks first; your answers go before it; your final
        word counts for the next job.
      </p>
    </>
  );
}

/** A cause with its weight, and what speaks for and against it. */
function CauseRow({ c, causes, first }: { c: RankedCause; causes: CausesView; first: boolean }) {
  const { base } = usePanel();
  const { kind } = causes;
  return (
    <li className="border-b border-hair py-3" data-testid={`cause-${c.id ?? "else"}`}>
      <div className="flex items-baseline gap-3" data-figures>
        <WorkingButton working={causeWorking(c, causes)} label={`${c.name}: ${Math.round(100 * c.probability)} in 100. Show the working`}>
          <span className="text-[22px] font-semibold tabular-nums">{Math.round(100 * c.probability)}</span>
          <span className="text-ink2"> in 100</span>
        </WorkingButton>
        <span className="font-semibold">{c.name}</span>
      </div>
      <div className="mt-1 h-1.5 w-full bg-hair" aria-hidden>
        <div className="h-full bg-glow" style={{ width: `${100 * c.probability}%` }} />
      </div>
      <More label="For and against it">
        <p className="text-[14px] text-ink2">
          {c.speaksFor.length > 0 && (
            <>
              For it:{" "}
              {c.speaksFor
                .slice(0, 3)
                .map((s) => s.words)
                .join("; ")}
              .{" "}
            </>
          )}
          {c.speaksAgainst.length > 0 && (
            <>
              Against it:{" "}
              {c.speaksAgainst
                .slice(0, 3)
                .map((s) => s.words)
                .join("; ")}
              .
            </>
          )}
        </p>
        {c.id && !first && <NextTime id={c.id} />}
      </More>
      {c.id && first && <NextTime id={c.id} />}
      {c.id && <CauseChange id={c.id} base={base} kind={kind} chosen={causes.settled === c.id} />}
    </li>
  );
}

/** What to change next time. */
const NextTime = ({ id }: { id: CauseId }) => (
  <p className="text-[14px]">
    Next time: <InUnits>{lower((CAUSES[id] as Cause).change)}</InUnits>.
  </p>
);

/** Where it is changed, and the final word. */
function CauseChange({ id, base, kind, chosen }: { id: CauseId; base: string; kind: string; chosen: boolean }) {
  const fetcher = useFetcher<FormAnswer>();
  const cause: Cause = CAUSES[id];
  const place = PLACES[cause.at];
  return (
    <fetcher.Form method="post" className="mt-1 flex flex-wrap items-center gap-2">
      <input type="hidden" name="intent" value="word" />
      <input type="hidden" name="kind" value={kind} />
      <input type="hidden" name="causeId" value={id} />
      {cause.try ? (
        <Link to={`${base}/spray/window?try=${cause.try}`} className="press" data-kind="quiet">
          Try it: {TRY_WORDS[cause.try]}
        </Link>
      ) : (
        <Link to={cause.at === "shelf" ? "/shelf" : `${base}${place.path}`} className="press" data-kind="quiet">
          {place.name}
        </Link>
      )}
      {!chosen && (
        <button className="press" disabled={fetcher.state !== "idle"}>
          It was this
        </button>
      )}
    </fetcher.Form>
  );
}

/** One question, the one whose answer tells most. */
function Question({ kind, id, ask }: { kind: string; id: ObservationId; ask: string }) {
  const fetcher = useFetcher<FormAnswer>();
  return (
    <fetcher.Form method="post" className="rounded-press border border-edge p-4" data-testid="question">
      <input type="hidden" name="kind" value={kind} />
      <input type="hidden" name="id" value={id} />
      <p className="text-[19px] font-semibold">{ask}</p>
      <div className="mt-3 flex gap-2">
        <button className="press" data-kind="main" name="answer" value="yes" disabled={fetcher.state !== "idle"}>
          Yes
        </button>
        <button className="press" data-kind="main" name="answer" value="no" disabled={fetcher.state !== "idle"}>
          No
        </button>
      </div>
    </fetcher.Form>
  );
}

/** What the record says and what was answered; an answer can be taken back. */
function Known({ causes: { record, answers, kind } }: { causes: CausesView }) {
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const answered = Object.entries(answers) as [ObservationId, boolean][];
  const recorded = (Object.entries(record) as [ObservationId, boolean][]).filter(([id]) => answers[id] === undefined);
  return (
    <section aria-labelledby="known-title">
      <h3 id="known-title" className="font-semibold">
        What is known
      </h3>
      {answered.length > 0 && (
        <ul className="border-t border-hair">
          {answered.map(([id, so]) => (
            <li key={id} className="flex items-center justify-between border-b border-hair">
              <span>
                {inUnits(OBSERVATIONS[id][so ? "yes" : "no"], units)} <span className="text-[13px] text-ink2">you said</span>
              </span>
              <fetcher.Form method="post">
                <input type="hidden" name="kind" value={kind} />
                <input type="hidden" name="id" value={id} />
                <button className="press" data-kind="quiet" name="answer" value="unknown">
                  Take back<span className="sr-only">: {inUnits(OBSERVATIONS[id][so ? "yes" : "no"], units)}</span>
                </button>
              </fetcher.Form>
            </li>
          ))}
        </ul>
      )}
      {recorded.length > 0 ? (
        <More label={`${recorded.length} things by the record`}>
          <p className="text-[14px] text-ink2">
            By the record: {recorded.map(([id, so]) => inUnits(OBSERVATIONS[id][so ? "yes" : "no"], units)).join("; ")}.
          </p>
        </More>
      ) : (
        <p className="mt-2 text-[14px] text-ink2">The record says nothing: no coat, climate or check is logged.</p>
      )}
    </section>
  );
}
