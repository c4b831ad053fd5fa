import type { Around } from "./around";
import type { Side } from "../record/kinds";
import type { StepHold } from "./step-hold";
import type { LayerKey } from "../models/prep/layer-names";
import type { GunSettings } from "../models/spray/deposit";
import type { CoatZone } from "../models/ways/terms";
import type { SourceKey } from "../kernel/sources";

/** What there is to do on the way from the bare part to the customer, and what there is to wait for. */
export const STEP_KINDS = {
  prepare: "do",
  colour: "do",
  readBefore: "do",
  mix: "do",
  coat: "do",
  flash: "wait",
  cureToSand: "wait",
  flatten: "do",
  settle: "wait",
  turn: "do",
  purge: "wait",
  bake: "do",
  cool: "wait",
  cure: "wait",
  readAfter: "do",
  inspect: "do",
  correct: "do",
  measureAgain: "do",
  handOver: "do",
} as const satisfies Record<string, "do" | "wait">;
export type StepKind = keyof typeof STEP_KINDS;

/** Why a step stands where it does and when. */
export type StepReason =
  | "layers" // the gauge tells the layers apart only now
  | "sheet" // the sheet's flash at the logged temperatures
  | "way" // the way waits longer
  | "run" // sooner it may run
  | "grip" // the coat below still holds it
  | "strings" // the coat below still pulls strings
  | "set" // the coat below has set already
  | "cure" // not before it is hard
  | "flat" // a coat over peel carries it through
  | "turned" // must bear being touched
  | "solvent" // heat at once traps it
  | "warm" // film reads and cuts differently warm
  | "pot" // none is mixed, or it is over
  | "colour" // solvent has to leave the base
  | "surface" // what lies below sets the ceiling
  | "hardness" // a gauge leaves its mark in soft clear
  | "least" // the least that may be taken off
  | "settled"; // nothing is left to do before

export interface CourseStep {
  /** Stays the same from entry to entry. */
  id: string;
  kind: StepKind;
  /**
   * `done`; `missed`: it cannot be done any more; `now`: what the hand or the wait is at; `open`: may be done beside it; `next` and `later`.
   */
  state: "done" | "missed" | "now" | "open" | "next" | "later";
  side: Side | null;
  /** The layer below the clear that it builds; null: the clear itself, or none. */
  layer: LayerKey | null;
  /** Of several of its kind, with how many there are. */
  number: number | null;
  of: number | null;
  done_ms: number | null;
  /** Not before; as meant until; too late after. Of a wait: when it is over. */
  from_ms: number | null;
  best_ms: number | null;
  latest_ms: number | null;
  late: "grip" | "scuff" | null;
  why: StepReason;
  source: SourceKey;
  /** Left out, the course goes on all the same. */
  optional: boolean;
  /** How long it takes; null: not known. */
  duration_s: number | null;
  /** Ready-to-spray material it takes. */
  volume_m3: number | null;
  /** What a coat is forecast to do: clear it lays over the panel, and the chance that it runs at an edge. */
  coat: CoatForecast | null;
  /** Paper it is done with. */
  grit: number | null;
  /** What is done around it; told of the step at hand. */
  around: readonly Around[];
  /** What says no to it, or look first; empty for a step that may be done when its time has come. */
  holds: readonly StepHold[];
}

export interface CoatForecast {
  /** The gun as this coat wants it, and where it is sprayed. */
  gun: GunSettings;
  zone: CoatZone;
  dry_m: number;
  u_dry_m: number;
  /** Null: how it flows the model does not know. */
  runChance: number | null;
  sagLocal_m: number;
}

/** A step before its place in the course is known. */
export type StepDraft = Omit<CourseStep, "state"> & {
  done: boolean;
  missed?: boolean;
  /** It was done, and is wanted once more: no later step has overtaken it. */
  again?: boolean;
};

export const stepDraft = (id: string, kind: StepKind, over: Partial<StepDraft>): StepDraft => ({
  id,
  kind,
  side: null,
  layer: null,
  number: null,
  of: null,
  done: false,
  done_ms: null,
  from_ms: null,
  best_ms: null,
  latest_ms: null,
  late: null,
  why: "settled",
  source: "common-practice",
  optional: false,
  duration_s: null,
  volume_m3: null,
  coat: null,
  grit: null,
  around: [],
  holds: [],
  ...over,
});

/**
 * The steps in their order with their states. What is done is done; an optional step that a later one has overtaken is missed; the first that is
 * neither is the one now, open ones before it may be done beside it.
 */
export function inOrder(drafts: readonly StepDraft[]): CourseStep[] {
  const lastDone = drafts.findLastIndex((d) => d.done);
  const first = drafts.findIndex((d) => !d.done && !d.missed && !d.optional);
  let following = 0;
  return drafts.map((draft, i): CourseStep => {
    const { done, missed = false, again = false, ...step } = draft; // what is done is done, also where it was not to come any more
    const state = done
      ? "done"
      : missed || (step.optional && i < lastDone && !again)
        ? "missed"
        : step.optional
          ? first >= 0 && i > first
            ? "later"
            : "open"
          : i === first
            ? "now"
            : following++ === 0
              ? "next"
              : "later";
    return { ...step, state };
  });
}

/** What the hand does next: the step now, or after the wait that is now the step that it waits for. */
export function nextAction(steps: readonly CourseStep[]): CourseStep | null {
  const now = steps.findIndex((s) => s.state === "now");
  if (now < 0) return null;
  return steps.slice(now).find((s) => STEP_KINDS[s.kind] === "do" && !s.optional && s.state !== "done" && s.state !== "missed") ?? null;
}
