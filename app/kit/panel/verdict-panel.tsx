import { InProgress } from "~/kit/ui/in-progress";
import { inferredWords } from "~/kit/words/how-words";
import { type PanelContext, usePanel } from "./use-panel";
import { memo } from "react";
import type { PanelShape } from "#core/kernel/geometry/shapes";
import type { BlockedBy } from "#core/judge/blocked-by";
import { VERDICT_LIMITS } from "#core/judge/limits";
import type { Removal } from "#core/models/correction/removal-plan";
import { showChance, showWithUncertainty, showFilm } from "#core/kernel/units/format";
import type { AssessmentRun } from "~/kit/run/use-assessment";
import { useUnits } from "~/kit/root/use-root";
import { Figure } from "~/kit/ui/figure";
import { Tag } from "~/kit/ui/tag";
import { VERDICT_WORDS, safeLabel, showSafe, verdictSentence } from "~/kit/words/verdict";
import { chanceWorking, removalWorking } from "~/kit/words/removal-workings";
import { inUnits } from "#core/kernel/units/in-units";

interface Props {
  run: AssessmentRun;
  shape: PanelShape;
  removal: Removal;
  steps: readonly ({ name: string } & Removal)[];
  floor_m: number;
  tape_m: number;
}

const NOT_HELD: readonly BlockedBy[] = [];

/** Verdict sentence first, then its numbers, each with its working; a bar and a cancel while it is worked out. */
export const VerdictHeading = memo(function VerdictHeading({
  run,
  shape,
  held = NOT_HELD,
  waiting,
}: {
  run: AssessmentRun;
  shape: PanelShape;
  /** What holds the work back, whatever the film. */
  held?: readonly BlockedBy[];
  waiting: string;
}) {
  const units = useUnits();
  const panel = usePanel() as PanelContext | undefined; // a quick question has none
  const { result } = run;
  return (
    <div aria-live="polite" data-testid="verdict" data-verdict={result?.verdict ?? "waiting"}>
      <h2 className="min-h-[2.24em] max-w-[24em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        {result ? verdictSentence(result, shape, units, held) : waiting}
      </h2>
      <div className="mt-1 mb-3 flex min-h-11 flex-wrap items-center gap-2">
        {result && <Tag kind={VERDICT_WORDS[result.verdict].tag}>{VERDICT_WORDS[result.verdict].word}</Tag>}
        {result?.inferred && <Tag kind="caution">{inferredWords(panel?.view.state.film.how)}</Tag>}
        {run.busy && <InProgress share={run.progress} label="Working out the chances" told onStop={run.cancel} className="w-44" />}
        {run.fault && <p className="text-stop-ink">{run.fault}</p>}
      </div>
    </div>
  );
});

export const VerdictFigures = memo(function VerdictFigures({
  run: { result },
  removal,
  steps,
  floor_m,
  tape_m,
  held = false,
}: Props & { held?: boolean }) {
  const units = useUnits();
  const input = { removal, floor_m, tape_m };
  const judged = result && result.verdict !== "none";
  return (
    <div className="space-y-4">
      <Figure
        label="comes off"
        shown={showWithUncertainty("film", removal.removal_m, removal.u_m, units)}
        note={`${steps.filter((s) => s.removal_m > 0).length} steps`}
        working={removalWorking(steps, removal, units)}
      />
      {judged ? (
        <>
          <Figure
            label="chance of cutting through"
            size="middle"
            shown={{ text: showChance(result.cutChance), unit: "" }}
            note={inUnits("any place below 8 µm; a guard, not a promise", units)}
            working={chanceWorking(result, input, units)}
            {...(result.cutChance > VERDICT_LIMITS.caution.cut ? { tone: "stop" as const } : {})}
          />
          <Figure
            label="chance of too little left"
            size="middle"
            shown={{ text: showChance(result.thinChance), unit: "" }}
            note={`more than 2 % of it below the minimum clear of ${showFilm(floor_m, units).text} ${units.film}`}
            working={chanceWorking(result, input, units)}
            {...(result.thinChance > VERDICT_LIMITS.caution.thin ? { tone: "stop" as const } : {})}
          />
          <Figure
            label={safeLabel(result.largestSafeRemoval_m, { thinnest_m: result.thinnest?.clear_m ?? null, floor_m, held })}
            shown={showSafe(result.largestSafeRemoval_m, units)}
            note="19 times in 20 the minimum holds"
            working={chanceWorking(result, input, units)}
          />
        </>
      ) : (
        <p className="min-h-[200px] text-ink2">The chances appear with the verdict.</p>
      )}
    </div>
  );
});
