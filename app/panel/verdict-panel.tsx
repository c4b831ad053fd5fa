import { Progress } from "radix-ui";
import type { PanelShape } from "#core/panel/shapes";
import type { Removal } from "#core/correction/removal-plan";
import { show, showChance, showWithUncertainty } from "#core/units/format";
import type { AssessmentRun } from "~/lib/use-assessment";
import { useUnits } from "~/lib/use-root";
import { Figure } from "~/ui/figure";
import { Tag } from "~/ui/tag";
import { VERDICT_WORDS, verdictSentence } from "~/words/verdict";
import { chanceWorking, removalWorking } from "~/words/workings";

interface Props {
  run: AssessmentRun;
  shape: PanelShape;
  removal: Removal;
  steps: readonly ({ name: string } & Removal)[];
  floor_m: number;
  tape_m: number;
}

/** Verdict sentence first, then its numbers, each with its working; a bar and a cancel while it is worked out. */
export function VerdictHeading({ run, shape, waiting }: { run: AssessmentRun; shape: PanelShape; waiting: string }) {
  const units = useUnits();
  const { result } = run;
  return (
    <div aria-live="polite" data-testid="verdict" data-verdict={result?.verdict ?? "waiting"}>
      <h2 className="min-h-[2.24em] max-w-[24em] text-[31px] leading-[1.12] font-semibold tracking-tight">
        {result ? verdictSentence(result, shape, units) : waiting}
      </h2>
      <div className="mt-1 mb-3 flex min-h-11 flex-wrap items-center gap-2">
        {result && <Tag kind={VERDICT_WORDS[result.verdict].tag}>{VERDICT_WORDS[result.verdict].word}</Tag>}
        {result?.inferred && <Tag kind="caution">Inferred, not measured</Tag>}
        {run.busy && (
          <>
            <Progress.Root
              value={Math.round(run.progress * 100)}
              aria-label="Working out the chances"
              className="h-1.5 w-44 overflow-hidden rounded bg-hair"
            >
              <Progress.Indicator className="h-full bg-glow" style={{ width: `${run.progress * 100}%` }} />
            </Progress.Root>
            <span className="text-sm text-ink2">Working out the chances</span>
            <button type="button" className="press" data-kind="quiet" onClick={run.cancel}>
              Cancel
            </button>
          </>
        )}
        {run.fault && <p className="text-stop-ink">{run.fault}</p>}
      </div>
    </div>
  );
}

export function VerdictFigures({ run: { result }, removal, steps, floor_m, tape_m }: Props) {
  const units = useUnits();
  const input = { removal, floor_m, tape_m };
  const judged = result && result.verdict !== "none";
  const film = units.film === "µm" ? 1 : 2;
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
            note="any place below 8 µm; a guard, not a promise"
            working={chanceWorking(result, input, units)}
            {...(result.cutChance > 0.03 ? { tone: "stop" as const } : {})}
          />
          <Figure
            label="chance of too little left"
            size="middle"
            shown={{ text: showChance(result.thinChance), unit: "" }}
            note={`more than 2 % of it below the floor of ${show("film", floor_m, units).text} ${units.film}`}
            working={chanceWorking(result, input, units)}
            {...(result.thinChance > 0.25 ? { tone: "stop" as const } : {})}
          />
          <Figure
            label={result.largestSafeRemoval_m > 0 ? "may come off safely" : "may come off: it is too thin already"}
            shown={result.largestSafeRemoval_m > 0 ? show("film", result.largestSafeRemoval_m, units, film) : { text: "nothing", unit: "" }}
            note="19 times in 20 the floor holds"
            working={chanceWorking(result, input, units)}
          />
        </>
      ) : (
        <p className="min-h-[200px] text-ink2">The chances appear with the verdict.</p>
      )}
    </div>
  );
}
