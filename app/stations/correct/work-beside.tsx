import { More } from "~/kit/ui/more";
import { Check } from "lucide-react";
import { Link } from "react-router";
import { shadeOf } from "#core/models/colour/job-colours";
import { show, showChance, showWithUncertainty } from "#core/kernel/units/format";
import type { PanelView } from "#server/views/panel-view";
import { useUnits } from "~/kit/root/use-root";
import { FilmSection } from "~/kit/panel/film-section";
import { StrikeButton } from "~/kit/shell/strike-button";
import { doneWords } from "~/kit/words/zone-words";
import { ToldByMark } from "./told-by-mark";
import { useFromHere } from "./use-from-here";
import type { PlanStep } from "#core/record/bodies";
import type { EntryOf } from "#core/record/entry";

/** How the clear stands and what is left of it from here, the steps, and the section that follows them. */
export function WorkBeside({
  step,
  plan,
  view,
  base,
}: {
  step: PlanStep | undefined;
  plan: EntryOf<"plan">;
  view: PanelView;
  base: string;
}) {
  const units = useUnits();
  const { state, job, panel, floor_m } = view;
  const { through, ahead, chances } = useFromHere(view);
  const { stepsDone } = state;
  const clear = state.film.mean;
  return (
    <>
      <section aria-label="How it stands" className="space-y-5">
        {clear && (
          <p data-figures>
            <span className="text-[38px] leading-none font-semibold">
              {showWithUncertainty("film", clear.clear_m, clear.u_m, units).text}
            </span>{" "}
            <span className="text-[17px] text-ink2">{units.film} clear now, mean of the panel</span>
          </p>
        )}
        {step && !through && (
          <p data-testid="work-from-here" className="min-h-12" aria-live="polite">
            {chances && ahead ? (
              <>
                {show("film", ahead.removal.removal_m, units).text} {units.film} still to come off. From here: cutting through{" "}
                <b className="font-semibold">{showChance(chances.cutChance)}</b>, too little left{" "}
                <b className="font-semibold">{showChance(chances.thinChance)}</b>.
              </>
            ) : (
              <span className="text-ink2">Working out the chances from here…</span>
            )}
          </p>
        )}
        {step && !through && ahead?.unmarked && (
          <More label="What the marks say">
            <ToldByMark now={ahead.removal} unmarked={ahead.unmarked} />
          </More>
        )}
        <ol className="border-t border-hair" data-figures>
          {plan.body.steps.map((s, i) => {
            const done = stepsDone[i];
            return <StepLine key={i} {...{ i, done, s, view }} />;
          })}
        </ol>
        <p className="text-[15px] text-ink2">Eye protection; residual current protection near water; no loose clothing at rotating pads.</p>
        <Link to={`${base}/correct`} className="press">
          The whole plan
        </Link>
      </section>
      <aside aria-label="Section" className="hidden xl:block">
        <FilmSection
          layers={state.layers}
          floor_m={floor_m}
          baseColour={shadeOf(job, panel.colour).css}
          preview={ahead ? { removal: ahead.removal } : {}}
          caption="To the scale of the film"
        />
      </aside>
    </>
  );
}

/** A step with its tick. */
function StepLine({ i, done, s, view }: { i: number; done: EntryOf<"step"> | undefined; s: PlanStep; view: PanelView }) {
  const units = useUnits();
  const { state } = view;
  const { stepsDone } = state;
  const index = stepsDone.length;
  return (
    <li
      aria-current={i === index ? "step" : undefined}
      className="flex min-h-11 items-center gap-3 border-b border-hair py-1.5 aria-[current=step]:bg-glow-wash"
    >
      <span className="w-7 text-center font-semibold text-ink2">{done ? <Check size={18} aria-label="done" /> : i + 1}</span>
      <span className="min-w-0 flex-1">
        <b className="font-semibold">{s.name}</b>
        {done && <span className="block text-[13px] text-ink2">{doneWords(done, units)}</span>}
      </span>
      {done && i === index - 1 && <StrikeButton entryId={done.id} what={`step ${i + 1}`} />}
    </li>
  );
}
