import { asLayer } from "../coat/as-layer";
import { layerOf } from "../panel/layer-coats";
import { STATIONS, type Station } from "../panel/station";
import { type CourseInput, courseOf } from "./course";
import { coatHoldsAhead } from "./holds";
import { type StepHold, isNo } from "./step-hold";
import { type CourseStep, STEP_KINDS, type StepKind, nextAction } from "./steps";

/** Where a panel stands: what the hand does next and at which station; every list, header and page says this one. */
export interface Standing {
  station: Station;
  /** Null once it is handed over. Its holds are all that may say no some time: `holdsAt` says which do. */
  action: Pick<
    CourseStep,
    "kind" | "side" | "layer" | "number" | "of" | "from_ms" | "best_ms" | "latest_ms" | "late" | "grit" | "holds"
  > | null;
  /** Steps that a hand may do there now or does next, by their names in the course: what several panels of a job have in common goes together. */
  open: readonly string[];
  /** Faults that were noted, and whether the plan in force says stop. */
  defects: number;
  stop: boolean;
  /** It wants a hand whatever the hour. */
  attention: boolean;
  done: boolean;
}

const STATION_OF: Record<StepKind, Station> = {
  prepare: "spray",
  colour: "spray",
  readBefore: "spray",
  mix: "plan",
  coat: "spray",
  flash: "spray",
  cureToSand: "spray",
  flatten: "spray",
  settle: "spray",
  turn: "spray",
  purge: "spray",
  bake: "spray",
  cool: "spray",
  cure: "spray",
  readAfter: "inspect",
  inspect: "inspect",
  correct: "correct",
  measureAgain: "correct",
  handOver: "hand-over",
};

/** @throws RangeError */
export function standingOf(input: CourseInput): Standing {
  const { facts } = input;
  const done = facts.handedOver !== null;
  const steps = done ? [] : courseOf({ ...input, forecast: false });
  const step = nextAction(steps);
  const stop = facts.plan?.body.verdict === "stop";
  const defects = facts.defects.length;
  return {
    station: step ? STATION_OF[step.kind] : STATIONS.at(-1)!,
    action: step && {
      kind: step.kind,
      side: step.side,
      layer: step.layer,
      number: step.number,
      of: step.of,
      from_ms: step.from_ms,
      best_ms: step.best_ms,
      latest_ms: step.latest_ms,
      late: step.late,
      grit: step.grit,
      holds: holdsOf(step, input),
    },
    open: steps.filter((s) => s === step || (STEP_KINDS[s.kind] === "do" && (s.state === "now" || s.state === "open"))).map((s) => s.id),
    defects,
    stop,
    attention: step !== null && wantsHand(step, { stop, defects }),
    done,
  };
}

/** Of a coat all that may say no some time. */
function holdsOf(step: CourseStep, input: CourseInput): readonly StepHold[] {
  if (step.kind === "coat") return coatHoldsAhead(input);
  const layer = step.kind === "colour" ? layerOf(input.facts.below, step.layer) : undefined;
  return layer ? coatHoldsAhead(asLayer(input, layer)) : step.holds;
}

function wantsHand(step: CourseStep, { stop, defects }: Pick<Standing, "stop" | "defects">): boolean {
  // A climate and a pot come and go by the hour.
  if (step.holds.some((h) => h.by === "fault" && isNo(h))) return true;
  if (step.kind === "correct") return step.of === null ? defects > 0 : stop;
  return step.kind === "readBefore" || step.kind === "measureAgain";
}
