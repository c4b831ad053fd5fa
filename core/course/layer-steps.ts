import { asLayer, isLayerOn } from "../coat/as-layer";
import type { CoatsAsked } from "../coat/coats-ahead";
import { goesOnFrom, layerWait, overcoatFrom } from "../coat/layer-wait";
import { flowsAsClear } from "../models/product/sheet";
import { coatsOn } from "../panel/coats-on";
import { coatsOfLayers } from "../panel/layer-coats";
import type { LayerState } from "../panel/layers";
import { SETTLED, type Window, coatSteps, coatsToStep } from "./coat-steps";
import { type StepDraft, stepDraft } from "./steps";

const MS = 1000;

/** What is done below the clear. */
export interface LayerSteps {
  /** The coats of every planned layer with their waits; none where nothing is planned. */
  steps: StepDraft[];
  /** When the clear may go on what is, or will be, on; null: at once. */
  over: Window | null;
  /** When the hand is free for the clear, by the forecast. */
  end_ms: number;
}

/** The layers below the clear, from below up, each by the same steps as the clear. @param past its spraying is over @throws RangeError */
export function layerSteps(input: CoatsAsked & { forecast?: boolean }, past: boolean): LayerSteps {
  const { facts, now_ms } = input;
  const planned = facts.below.filter((l) => l.planned);
  const wait = layerWait(input);
  if (planned.length === 0) return { steps: [], over: wait && overWindow(wait), end_ms: now_ms };
  const missed = past || coatsOn(facts) > 0;
  const steps: StepDraft[] = [];
  let cursor_ms = now_ms;
  let over: Window | null = null;
  planned.forEach((layer, i) => {
    // The next of all goes on what was sprayed last, whatever that was.
    const below = wait && wait.next === layer.layer ? settledFrom(wait.next_ms) : over;
    const forecast = input.forecast ?? true;
    const w = coatsToStep({ ...asLayer(input, layer), forecast }, { past: missed, cursor_ms, below });
    steps.push(...coatSteps(w).map((d) => ofLayer(d, layer)));
    const done = isLayerOn(layer, input.brief);
    const newest_ms = Math.max(-Infinity, ...coatsOfLayers([layer]).map((c) => c.entry.at_ms));
    const end_ms = done ? newest_ms : w.cursor_ms;
    const next = planned[i + 1];
    over = next
      ? settledFrom(goesOnFrom(input, { layer, end_ms, next: next.layer }))
      : overWindow(wait && done ? wait : overcoatFrom(input, layer, end_ms));
    cursor_ms = missed ? now_ms : Math.max(now_ms, w.cursor_ms);
    steps.push(waitStep(layer, over, { end_ms, missed, now_ms, done }));
  });
  return { steps, over: missed ? null : over, end_ms: cursor_ms };
}

/** From when on the clear may go on what is, or will be, below it; null: at once. @throws RangeError */
export const clearFrom_ms = (input: CoatsAsked): number | null => layerSteps(input, false).over?.from_ms ?? null;

const settledFrom = (from_ms: number): Window => ({ ...SETTLED, from_ms, why: "colour" });

const overWindow = ({ over_ms, scuff_ms }: { over_ms: number; scuff_ms: number | null }): Window => ({
  from_ms: over_ms,
  best_ms: null,
  latest_ms: scuff_ms,
  late: scuff_ms === null ? null : "scuff",
  why: "colour",
  source: "common-practice",
});

/** A coat of a layer is told as such; how a filled primer runs nobody can say. */
function ofLayer(draft: StepDraft, { layer, sheet }: LayerState): StepDraft {
  const { coat } = draft;
  const told = coat && !flowsAsClear(sheet) ? { ...coat, runChance: null } : coat;
  return { ...draft, id: `${layer} ${draft.id}`, kind: draft.kind === "coat" ? "colour" : draft.kind, layer, coat: told };
}

/** Until something else goes on it. */
function waitStep(
  { layer }: LayerState,
  over: Window,
  { end_ms, missed, now_ms, done }: { end_ms: number; missed: boolean; now_ms: number; done: boolean },
): StepDraft {
  const through = done && over.from_ms! <= now_ms;
  return stepDraft(`${layer} over`, "flash", {
    ...over,
    layer,
    missed,
    done: through,
    done_ms: through ? over.from_ms : null,
    duration_s: (over.from_ms! - end_ms) / MS,
  });
}
